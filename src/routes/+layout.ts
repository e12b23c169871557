// Everything the pages show lives in the browser's own store.
export const ssr = false;
