/** Where a page may be: everything else is a file or an answer. */
const pagePath = /^\/(?:$|(?:kit|jobs)\/?$|(?:setup|day|card|pickup)\/[^/]+\/?$)/;

export const isPage = (path: string): boolean => pagePath.test(path);
