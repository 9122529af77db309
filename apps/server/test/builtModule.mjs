import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';

const LIBRARY = /\/test\/libraries\/(.+)\.mjs$/;

/** What Node is asked for in place of a source file, or of a library that the application has loaded already. */
function specifierOf(source) {
  const library = LIBRARY.exec(source)?.[1];
  if (library) return library;
  const at = source.lastIndexOf('/src/');
  return pathToFileURL(`${source.slice(0, at)}/dist/${source.slice(at + 5).replace(/\.ts$/, '.js')}`).href;
}

/** In place of a source file of the application: a module that hands on what Node has loaded of the built one. */
export default {
  async processAsync(_text, source) {
    const specifier = specifierOf(source);
    const { default: whole, ...named } = await import(specifier);
    const names = Object.keys(named).filter((name) => name !== 'module.exports');
    return {
      code: [
        `const built = await importBuilt(${JSON.stringify(specifier)});`,
        ...(names.length === 0 ? ['export {};'] : [`export const { ${names.join(', ')} } = built;`]),
        ...(whole === undefined ? [] : ['export default built.default;']),
      ].join('\n'),
    };
  },
  getCacheKeyAsync: async (text, source) => {
    const specifier = specifierOf(source);
    const built = specifier.startsWith('file:') ? readFileSync(new URL(specifier)) : '';
    return createHash('sha256').update(source).update(text).update(built).digest('hex');
  },
};
