/**
 * What a subject's screens say stands in one file of it, and each module brings along no more of that than it says itself:
 * for a browser, every module that says something gets a copy, of which the bundler keeps what is used.
 */
export function ownWords() {
  return {
    name: "own-words",
    apply: (_config, { isSsrBuild }) => !isSsrBuild,
    enforce: "pre",
    async resolveId(source, importer, options) {
      if (!importer || !/(^|\/)words\.ts$/.test(source)) return null;
      const found = await this.resolve(source, importer, { ...options, skipSelf: true });
      return found && `${found.id}?for=${encodeURIComponent(importer.replace(/\?.*$/, ""))}`;
    },
  };
}
