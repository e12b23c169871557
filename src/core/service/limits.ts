/** Largest request the server reads, bytes; a plan request from elsewhere too. adapter-node's BODY_SIZE_LIMIT is the same. */
export const maxRequestBytes = 512 * 1024;
