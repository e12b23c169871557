/** Largest request the server reads, bytes; a plan request from elsewhere too. */
export const maxRequestBytes = 512 * 1024;

/** Largest sealed job that may wait to be picked up, bytes; adapter-node's BODY_SIZE_LIMIT is the same. */
export const maxPickupBytes = 8 * 1024 * 1024;

/** The most an address takes in a body, bytes. */
export const mostFor = (path: string): number => (path.startsWith('/api/pickup/') ? maxPickupBytes : maxRequestBytes);

/** Most a line-up in a request may look at: pictures (a zoom makes several) × stops × subjects. */
export const maxLineUpWork = 120_000;
