/** What the page and its service worker agree on. */

/** Fetched and kept only when used: the renderer and its figures, the simulated camera, what reads pictures, charts; pictures only installers show; the demo's frames. */
export const isApart = (path: string): boolean =>
  path.startsWith('/_app/immutable/apart/') ||
  path.startsWith('/models/') ||
  path.startsWith('/install/') ||
  path.startsWith('/demo/') ||
  /\/workers\/(renderer|camera|pictures|heic)\.worker/.test(path);

/** Tells a waiting version to take over. */
export const takeOver = 'take over';
