/** Other tabs on the same store: each tells which rows it has stored, and the others read just those. */
export interface RowKey {
  readonly table: string;
  readonly id: string;
}

export interface Peers {
  readonly tell: (keys: readonly RowKey[]) => void;
  readonly stop: () => void;
}

/** Rows that could not be read are read again after this long. */
const againMs = 3000;

/**
 * Without broadcast channels there is nobody to tell; what others stored is then seen when this tab is looked at again.
 *
 * @param read reads the rows named; when it fails they are asked for again, with what was told meanwhile
 */
export function peersOf(name: string, read: (keys: readonly RowKey[]) => Promise<void>): Peers {
  if (typeof BroadcastChannel === 'undefined') return { tell: () => undefined, stop: () => undefined };
  const channel = new BroadcastChannel(`focalis.stored.${name}`);
  let told: readonly RowKey[] = [];
  let reading = false;
  let stopped = false;
  let timer: ReturnType<typeof setTimeout> | undefined;

  const readTold = async () => {
    if (reading || stopped || told.length === 0) return;
    const keys = told;
    let failed = false;
    told = [];
    reading = true;
    try {
      await read(keys);
    } catch {
      failed = true;
      told = [...keys, ...told];
    }
    reading = false;
    if (failed && !stopped) timer = setTimeout(() => void readTold(), againMs);
    else await readTold();
  };

  channel.onmessage = (event: MessageEvent<readonly RowKey[]>) => {
    told = [...told, ...event.data];
    clearTimeout(timer);
    void readTold();
  };
  return {
    tell: (keys) => channel.postMessage(keys),
    stop: () => {
      stopped = true;
      clearTimeout(timer);
      channel.close();
    }
  };
}
