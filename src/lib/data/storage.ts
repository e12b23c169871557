/** Local storage that may be full or barred: it says so by its answer and never throws. */
export interface SafeStorage {
  readonly get: (key: string) => string | null;
  /** False when it could not be kept. */
  readonly set: (key: string, value: string) => boolean;
  readonly remove: (key: string) => void;
  readonly keys: (prefix: string) => readonly string[];
}

export function safeStorage(storage: () => Storage): SafeStorage {
  const attempt = <T>(work: (storage: Storage) => T, otherwise: T): T => {
    try {
      return work(storage());
    } catch {
      return otherwise;
    }
  };
  return {
    get: (key) => attempt((store) => store.getItem(key), null),
    set: (key, value) =>
      attempt((store) => {
        store.setItem(key, value);
        return true;
      }, false),
    remove: (key) => attempt((store) => store.removeItem(key), undefined),
    keys: (prefix) =>
      attempt(
        (store) =>
          Array.from({ length: store.length }, (_, index) => store.key(index) ?? '').filter((key) =>
            key.startsWith(prefix)
          ),
        []
      )
  };
}
