import type { Readable } from 'node:stream';

/** SHA-256 of a file, in hexadecimal: its name, and the proof that it is whole. */
export type Digest = string;

/**
 * Where photos and the files of laboratories are kept beside the database, each once, by its content. Whose a file is stands
 * in the rows that name it; a store knows nothing of practices, and takes away only what it is told that no row names.
 */
export abstract class FileStore {
  /** Keep a file; the same content again is the same file. */
  abstract keep(bytes: Uint8Array): Promise<Digest>;

  /**
   * Keep a file that comes in parts, however large.
   * @throws an error where it is not what its name says; nothing of it is kept then
   */
  abstract keepAs(digest: Digest, parts: Readable): Promise<void>;

  /** @throws a 404 problem where there is no such file, and an error where it is not what its name says */
  abstract read(digest: Digest): Promise<Buffer>;

  /** How large a file is, bytes. @throws a 404 problem where there is none */
  abstract sizeOf(digest: Digest): Promise<number>;

  /** The same in parts, for what is too large to be held. */
  abstract open(digest: Digest): Readable;

  /** Take a file away for good, where it is there; for what no row of any practice names. */
  abstract remove(digest: Digest): Promise<void>;
}
