import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { access, mkdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { type Digest, FileStore } from '../ports/fileStore.ts';
import { Problem } from '../platform/problem.ts';

const digestOf = (bytes: Uint8Array): Digest => createHash('sha256').update(bytes).digest('hex');

/** Nobody else on the machine looks into what is kept. */
const CLOSED = { recursive: true, mode: 0o700 } as const;
const OWN = 0o600;

function missing(): never {
  throw new Problem(
    404,
    'File missing',
    'A file is not in the folder of files. Put the folder back from a backup made with “npm run backup”.',
  );
}

/** Write a file; where that fails, nothing of it stays. */
async function whole(part: string, write: () => Promise<void>): Promise<void> {
  try {
    await write();
  } catch (error) {
    await rm(part, { force: true });
    throw error;
  }
}

/** Files in a folder of this machine, or of one that all servers of a database share. */
export class FolderStore extends FileStore {
  constructor(private readonly folder: string) {
    super();
  }

  async keep(bytes: Uint8Array): Promise<Digest> {
    const digest = digestOf(bytes);
    const path = this.#pathOf(digest);
    if (await access(path).then(() => true, () => false)) return digest; // prettier-ignore
    await mkdir(join(path, '..'), CLOSED);
    // Never half of it: it gets its name when it is whole.
    const part = `${path}.${randomUUID()}`;
    await whole(part, async () => {
      await writeFile(part, bytes, { flush: true, mode: OWN });
      await rename(part, path);
    });
    return digest;
  }

  async keepAs(digest: Digest, parts: Readable): Promise<void> {
    const path = this.#pathOf(digest);
    await mkdir(join(path, '..'), CLOSED);
    const part = `${path}.${randomUUID()}`;
    const hash = createHash('sha256');
    parts.on('data', (bytes: Uint8Array) => hash.update(bytes));
    await whole(part, async () => {
      await pipeline(parts, createWriteStream(part, { flush: true, mode: OWN }));
      if (hash.digest('hex') !== digest) throw new Error(`The file ${digest} is not what its name says.`);
      await rename(part, path);
    });
  }

  async sizeOf(digest: Digest): Promise<number> {
    return (await stat(this.#pathOf(digest)).catch(missing)).size;
  }

  open(digest: Digest): Readable {
    return createReadStream(this.#pathOf(digest));
  }

  async read(digest: Digest): Promise<Buffer> {
    const bytes = await readFile(this.#pathOf(digest)).catch(missing);
    if (digestOf(bytes) !== digest) throw new Error(`The file ${digest} is not what it was.`);
    return bytes;
  }

  async remove(digest: Digest): Promise<void> {
    await rm(this.#pathOf(digest), { force: true });
  }

  #pathOf(digest: Digest): string {
    if (!/^[0-9a-f]{64}$/.test(digest)) throw new Error(`"${digest}" names no file.`);
    return join(this.folder, digest.slice(0, 2), digest);
  }
}
