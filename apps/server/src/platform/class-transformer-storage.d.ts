/** Where class-transformer keeps what its decorators said; it ships no types for it. */
declare module 'class-transformer/cjs/storage.js' {
  import type { IOptions } from 'class-validator-jsonschema/build/options.js';
  export const defaultMetadataStorage: NonNullable<IOptions['classTransformerMetadataStorage']>;
}
