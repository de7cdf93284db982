// A Vite plugin: the server writes ids of fields as the browser will make them.

const RENDERER = /@astrojs[\\/]react[\\/]dist[\\/]server\.js$/;
const DRAWN = "ReactDOM.renderToString(vnode)";

/**
 * Drawn in one go, React's ids were written without the prefix of their island, and made with it in the browser: what is fetched
 * later there had another id than its label says. Throws when the renderer is not as it was known.
 */
export function sameIds() {
  return {
    name: "maprope-same-ids",
    enforce: "pre",
    transform(code, id) {
      if (!RENDERER.test(id)) return null;
      if (!code.includes(DRAWN)) throw new Error(`${id} draws otherwise than it was known to`);
      return { code: code.replace(DRAWN, "ReactDOM.renderToString(vnode, renderOptions)"), map: null };
    },
  };
}
