import { createHash } from 'node:crypto';
import { Problem } from '../platform/problem.ts';
import yauzl from 'yauzl';
import yazl from 'yazl';

/** Of the format of the files in the archive; a newer one is refused. */
export const FORMAT_VERSION = 7;
const FORMAT = 'glenfold practice';
const MANIFEST = 'manifest.json';
const MOST_FILES = 100_000;
const MOST_BYTES = 2_000_000_000;
/** Photos and laboratories' files, each by its content. */
const BLOBS = 'files/';

interface Listed {
  readonly path: string;
  readonly what: string;
  readonly rows: number;
  readonly bytes: number;
  readonly sha256: string;
}

export interface Manifest {
  readonly format: typeof FORMAT;
  readonly version: number;
  readonly exportedAt: string;
  readonly practice: string;
  readonly files: readonly Listed[];
}

export interface ArchiveFile {
  readonly path: string;
  readonly what: string;
  readonly rows: number;
  readonly text: string;
}

/** A file as it is kept in the store of files. */
export interface Blob {
  readonly digest: string;
  readonly bytes: Buffer;
}

const digest = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

/** Files with a manifest that lists each with its checksum, as a stream of ZIP. */
export function writeArchive(
  practice: string,
  files: readonly ArchiveFile[],
  blobs: readonly Blob[],
): NodeJS.ReadableStream {
  const zip = new yazl.ZipFile();
  const listed = files.map(({ path, what, rows, text }): Listed => {
    const bytes = Buffer.from(text);
    zip.addBuffer(bytes, path);
    return { path, what, rows, bytes: bytes.length, sha256: digest(bytes) };
  });
  for (const { digest: sha256, bytes } of blobs) {
    zip.addBuffer(bytes, `${BLOBS}${sha256}`, { compress: false });
    listed.push({
      path: `${BLOBS}${sha256}`,
      what: 'a photo or a laboratory’s file',
      rows: 0,
      bytes: bytes.length,
      sha256,
    });
  }
  const manifest: Manifest = {
    format: FORMAT,
    version: FORMAT_VERSION,
    exportedAt: new Date().toISOString(),
    practice,
    files: listed,
  };
  zip.addBuffer(Buffer.from(`${JSON.stringify(manifest, null, 2)}\n`), MANIFEST);
  zip.end();
  return zip.outputStream;
}

/**
 * Read an archive, every file checked against the manifest.
 * @throws a 422 problem for anything that is not a whole, unaltered export of this version or an earlier one
 */
export async function readArchive(zip: Buffer): Promise<{
  manifest: Manifest;
  files: ReadonlyMap<string, string>;
  blobs: readonly Blob[];
}> {
  const found = await unzip(zip);
  const manifest = readManifest(found.get(MANIFEST));
  for (const path of found.keys()) {
    if (path !== MANIFEST && !manifest.files.some((file) => file.path === path))
      throw altered(`${path} is in the ZIP but not in its list.`);
  }
  const files = new Map<string, string>();
  const blobs: Blob[] = [];
  for (const { path, sha256 } of manifest.files) {
    const bytes = found.get(path);
    if (!bytes) throw altered(`${path} is missing.`);
    if (digest(bytes) !== sha256) throw altered(`${path} is not as it was exported.`);
    if (path.startsWith(BLOBS)) blobs.push({ digest: sha256, bytes });
    else files.set(path, bytes.toString('utf8'));
  }
  return { manifest, files, blobs };
}

function altered(what: string): Problem {
  return new Problem(
    422,
    'Altered',
    `This export was changed after it was made: ${what} Nothing was loaded. Use the ZIP as it was downloaded.`,
  );
}

export function notAnExport(what: string): Problem {
  return new Problem(
    422,
    'Not an export',
    `${what} Nothing was loaded. Choose the ZIP that was downloaded under "Data" of the practice.`,
  );
}

function readManifest(bytes: Buffer | undefined): Manifest {
  if (!bytes) throw notAnExport('The ZIP has no manifest.json, so it is not an export of Glenfold.');
  let manifest: Partial<Manifest> | null;
  try {
    manifest = JSON.parse(bytes.toString('utf8')) as Partial<Manifest> | null;
  } catch {
    throw altered('manifest.json cannot be read.');
  }
  if (manifest?.format !== FORMAT || typeof manifest.version !== 'number' || !isList(manifest.files))
    throw notAnExport('The manifest.json in the ZIP is not one of Glenfold.');
  if (manifest.version > FORMAT_VERSION)
    throw new Problem(
      422,
      'From a newer Glenfold',
      `This export has format ${manifest.version}; this Glenfold reads up to ${FORMAT_VERSION}. Nothing was loaded. Update Glenfold, then load it.`,
    );
  return manifest as Manifest;
}

function isList(files: unknown): files is Listed[] {
  return (
    Array.isArray(files) &&
    files.every((file: Partial<Listed> | null) => typeof file?.path === 'string' && typeof file.sha256 === 'string')
  );
}

/** Unpack in memory; names that point out of the archive, and archives that blow up, are refused. */
function unzip(zip: Buffer): Promise<Map<string, Buffer>> {
  return new Promise((resolve, reject) => {
    const fail = (error: Error): void => reject(error instanceof Problem ? error : unreadable(error));
    yauzl.fromBuffer(zip, { lazyEntries: true, strictFileNames: true }, (error, archive) => {
      if (error) {
        fail(error);
        return;
      }
      const files = new Map<string, Buffer>();
      let total = 0;
      archive.on('error', fail);
      archive.on('end', () => resolve(files));
      archive.on('entry', (entry: yauzl.Entry) => {
        total += entry.uncompressedSize;
        if (files.size >= MOST_FILES || total > MOST_BYTES) {
          fail(notAnExport('The ZIP unpacks to more than an export ever holds.'));
          return;
        }
        if (files.has(entry.fileName)) {
          fail(altered(`${entry.fileName} is in it twice.`));
          return;
        }
        archive.openReadStream(entry, (problem, stream) => {
          if (problem) {
            fail(problem);
            return;
          }
          const parts: Buffer[] = [];
          stream.on('data', (part: Buffer) => parts.push(part));
          stream.on('error', fail);
          stream.on('end', () => {
            files.set(entry.fileName, Buffer.concat(parts));
            archive.readEntry();
          });
        });
      });
      archive.readEntry();
    });
  });
}

function unreadable({ message }: Error): Problem {
  if (/relative path|absolute path|invalid characters in fileName/.test(message))
    return new Problem(
      422,
      'Unsafe file name',
      `A file name in the ZIP points out of it (${message}). Nothing was loaded. Use the ZIP as it was downloaded.`,
    );
  return new Problem(
    422,
    'Not a whole ZIP',
    'The file is not a ZIP, or a part of it is missing. Nothing was loaded. Download or copy it again.',
  );
}
