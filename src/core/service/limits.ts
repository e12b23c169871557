/** Largest request the server reads, bytes; a plan request from elsewhere too. adapter-node's BODY_SIZE_LIMIT is the same. */
export const maxRequestBytes = 512 * 1024;

/** Most a line-up in a request may look at: pictures (a zoom makes several) × stops × subjects. */
export const maxLineUpWork = 120_000;
