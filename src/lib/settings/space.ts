/** "Takes 12 MB of the 2.1 GB this browser allows."; empty where the browser does not tell. */
export function spaceWords({ usage, quota }: StorageEstimate): string {
  if (usage === undefined) return '';
  const limit = quota === undefined || quota === 0 ? '' : ` of the ${bytesWords(quota)} this browser allows`;
  return `Uses ${bytesWords(usage)}${limit}.`;
}

/** "850 kB", "12 MB", "2.1 GB"; powers of ten. */
export function bytesWords(bytes: number): string {
  if (bytes < 1e6) return `${Math.ceil(bytes / 1e3)} kB`;
  if (bytes < 1e9) return `${Math.round(bytes / 1e6)} MB`;
  return `${(bytes / 1e9).toFixed(1)} GB`;
}
