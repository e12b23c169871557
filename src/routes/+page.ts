// The one page that is built beforehand; the server sends it to every address of a page (src/server/serve.ts).
export const prerender = true;
