import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { Breath } from '../platform/breath.ts';
import { Problem } from '../platform/problem.ts';
import yauzl from 'yauzl';
import yazl from 'yazl';

/** Of the format of the files in the archive; a newer one is refused. */
export const FORMAT_VERSION = 12;
const FORMAT = 'glenfold practice';
const MANIFEST = 'manifest.json';
const MOST_FILES = 1_000_000;
/** Of the tables; photos and files pass through in parts. */
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
  /** How many there are. */
  readonly bytes: number;
  readonly open: () => Readable;
}

const digest = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

/** Bytes that are gone through at once. */
const PART = 1 << 20;

/** A large file in parts. */
function* partsOf(bytes: Buffer): Generator<Buffer> {
  for (let at = 0; at < bytes.length; at += PART) yield bytes.subarray(at, at + PART);
}

/** The same of a large file, which lets other requests in between. */
async function digestInParts(bytes: Buffer): Promise<string> {
  const hash = createHash('sha256');
  const breath = new Breath();
  for (const part of partsOf(bytes)) {
    hash.update(part);
    await breath.drawn();
  }
  return hash.digest('hex');
}

/** Files with a manifest that lists each with its checksum, as a stream of ZIP; photos and the like pass through it in parts. */
export async function writeArchive(
  practice: string,
  files: readonly ArchiveFile[],
  blobs: readonly Blob[],
): Promise<NodeJS.ReadableStream> {
  const zip = new yazl.ZipFile();
  const listed: Listed[] = [];
  for (const { path, what, rows, text } of files) {
    const bytes = Buffer.from(text);
    zip.addReadStreamLazy(path, { size: bytes.length }, (pass) => pass(null, Readable.from(partsOf(bytes))));
    listed.push({ path, what, rows, bytes: bytes.length, sha256: await digestInParts(bytes) });
  }
  for (const { digest: sha256, bytes, open } of blobs) {
    const path = `${BLOBS}${sha256}`;
    zip.addReadStreamLazy(path, { compress: false, size: bytes }, (pass) => pass(null, open()));
    listed.push({ path, what: 'a photo or a laboratory’s file', rows: 0, bytes, sha256 });
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

/** An export that is read: its tables at once, its photos and files one after another. */
export interface ReadArchive {
  readonly manifest: Manifest;
  readonly files: ReadonlyMap<string, string>;
  /**
   * Give each photo and file on, as it comes.
   * @throws a 422 problem for one that is not as it was exported
   */
  readonly blobs: (take: (digest: string, parts: Readable) => Promise<void>) => Promise<void>;
}

/**
 * Read an archive, every file checked against the manifest.
 * @param zip its path, or the whole of it
 * @throws a 422 problem for anything that is not a whole, unaltered export of this version or an earlier one
 */
export async function readArchive(zip: Buffer | string): Promise<ReadArchive> {
  const found = new Map<string, Buffer>();
  const seen = new Set<string>();
  let total = 0;
  await eachEntry(zip, async ({ fileName, uncompressedSize }, open) => {
    if (seen.has(fileName)) throw altered(`${fileName} is in it twice.`);
    seen.add(fileName);
    if (seen.size > MOST_FILES) throw notAnExport('The ZIP holds more files than an export ever does.');
    if (fileName.startsWith(BLOBS)) return;
    total += uncompressedSize;
    if (total > MOST_BYTES) throw notAnExport('The ZIP unpacks to more than an export ever holds.');
    found.set(fileName, await buffer(await open()));
  });
  const manifest = readManifest(found.get(MANIFEST));
  const listed = new Map(manifest.files.map((file) => [file.path, file]));
  for (const path of seen)
    if (path !== MANIFEST && !listed.has(path)) throw altered(`${path} is in the ZIP but not in its list.`);
  const files = new Map<string, string>();
  for (const { path, sha256 } of manifest.files) {
    if (!seen.has(path)) throw altered(`${path} is missing.`);
    const bytes = found.get(path);
    if (!bytes) continue;
    if (digest(bytes) !== sha256) throw altered(`${path} is not as it was exported.`);
    files.set(path, bytes.toString('utf8'));
  }
  const blobs: ReadArchive['blobs'] = (take) =>
    eachEntry(zip, async ({ fileName }, open) => {
      const { sha256 } = listed.get(fileName) ?? {};
      if (!fileName.startsWith(BLOBS) || sha256 === undefined) return;
      await take(sha256, await open()).catch((error: unknown) => {
        // A disk that is full is no fault of the export.
        throw (error as NodeJS.ErrnoException).code === undefined
          ? altered(`${fileName} is not as it was exported.`)
          : error;
      });
    });
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

/** Go through the entries of a ZIP one after another; names that point out of the archive are refused. */
async function eachEntry(
  zip: Buffer | string,
  look: (entry: yauzl.Entry, open: () => Promise<Readable>) => Promise<void>,
): Promise<void> {
  const options = { lazyEntries: true, strictFileNames: true } as const;
  const archive = await new Promise<yauzl.ZipFile>((done, failed) => {
    const opened = (error: Error | null, found: yauzl.ZipFile | undefined): void => (found ? done(found) : failed(unreadable(error!)));
    if (typeof zip === 'string') yauzl.open(zip, { ...options, autoClose: false }, opened);
    else yauzl.fromBuffer(zip, options, opened);
  });
  const open = (entry: yauzl.Entry) => (): Promise<Readable> =>
    new Promise((done, failed) => {
      archive.openReadStream(entry, (error, stream) => (error ? failed(error) : done(stream)));
    });
  try {
    await new Promise<void>((done, failed) => {
      archive.on('error', failed);
      archive.on('end', () => done());
      archive.on('entry', (entry: yauzl.Entry) => void look(entry, open(entry)).then(() => archive.readEntry(), failed));
      archive.readEntry();
    });
  } catch (error) {
    throw error instanceof Problem ? error : unreadable(error as Error);
  } finally {
    archive.close();
  }
} // prettier-ignore

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
