import { createHash, randomUUID } from 'node:crypto';
import { access, mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { type Digest, FileStore } from '../ports/fileStore.ts';
import { Problem } from '../platform/problem.ts';

const digestOf = (bytes: Uint8Array): Digest => createHash('sha256').update(bytes).digest('hex');

/** Files in a folder of this machine, or of one that all servers of a database share. */
export class FolderStore extends FileStore {
  constructor(private readonly folder: string) {
    super();
  }

  async keep(bytes: Uint8Array): Promise<Digest> {
    const digest = digestOf(bytes);
    const path = this.#pathOf(digest);
    if (await access(path).then(() => true, () => false)) return digest; // prettier-ignore
    await mkdir(join(path, '..'), { recursive: true });
    // Never half of it: it gets its name when it is whole.
    const part = `${path}.${randomUUID()}`;
    await writeFile(part, bytes, { flush: true });
    await rename(part, path);
    return digest;
  }

  async read(digest: Digest): Promise<Buffer> {
    const bytes = await readFile(this.#pathOf(digest)).catch(() => {
      throw new Problem(
        404,
        'File missing',
        'This file is not in the folder of files. Put the folder back from a backup made with “npm run backup”.',
      );
    });
    if (digestOf(bytes) !== digest) throw new Error(`The file ${digest} is not what it was.`);
    return bytes;
  }

  #pathOf(digest: Digest): string {
    if (!/^[0-9a-f]{64}$/.test(digest)) throw new Error(`"${digest}" names no file.`);
    return join(this.folder, digest.slice(0, 2), digest);
  }
}
