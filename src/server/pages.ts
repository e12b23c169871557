/** Where a page may be: everything else is a file or an answer. */
const pagePath =
  /^\/(?:$|(?:kit|jobs|bench|drills|record|settings)\/?$|(?:setup|day|frames|card|pickup|drills)\/[^/]+\/?$|drills\/[^/]+\/hand\/?$)/;

export const isPage = (path: string): boolean => pagePath.test(path);
