// npm run backup [-- FILE] [--also FOLDER]: everything of the database in one file, for whoever runs the server; and a
// copy of it in a second place, such as a disk of another machine.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  closeSync,
  copyFileSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readSync,
  renameSync,
  statSync,
} from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { backupFolder, dump, filesFolder, targetDatabase } from './dump.mjs';
import { checkNode, fail, say } from './tools.mjs';

checkNode();
// What is written is closed to everybody else on the machine.
process.umask(0o077);
const { empty, also, name } = readArguments();
/** Where a copy goes too. */
const second = also ?? process.env.GLENFOLD_BACKUPS_ALSO;
if (second !== undefined && !(existsSync(second) && statSync(second).isDirectory()))
  fail(`The second place ${second} is no folder here.`, 'Mount it, or make the folder: nothing was written yet.');

const now = new Date().toISOString().slice(0, 19).replace('T', '-').replaceAll(':', '');
const file = resolve(name ?? join(backupFolder, `glenfold-${now}.dump`));
if (existsSync(file)) fail(`${file} is there already.`, 'Give another name: a backup is never overwritten.');
mkdirSync(dirname(file), { recursive: true });

function readArguments() {
  try {
    const options = { empty: { type: 'boolean', default: false }, also: { type: 'string' } };
    const { values, positionals } = parseArgs({ options, allowPositionals: true });
    if (positionals.length <= 1) return { ...values, name: positionals[0] };
  } catch {
    // Told below.
  }
  return fail(
    `"${process.argv.slice(2).join(' ')}" is not known here.`,
    'Use "npm run backup", or "npm run backup -- FILE --also FOLDER".',
  );
}

/** Of a file as it is on the disk, in parts: it may be larger than what fits into memory. */
function digestOf(path) {
  const hash = createHash('sha256');
  const handle = openSync(path, 'r');
  const part = Buffer.alloc(1 << 20);
  for (let read = readSync(handle, part); read > 0; read = readSync(handle, part)) hash.update(part.subarray(0, read));
  closeSync(handle);
  return hash.digest('hex');
}

/** A copy in the second place, which is there whole and the same, or not at all. */
function copyTo(folder, path) {
  const copy = join(folder, basename(path));
  const part = `${copy}.part`;
  try {
    copyFileSync(path, part);
    const handle = openSync(part, 'r+');
    fsyncSync(handle);
    closeSync(handle);
    if (digestOf(part) !== digestOf(path)) throw new Error('what was written is not what was read');
    renameSync(part, copy);
  } catch (error) {
    fail(
      `The copy in ${folder} failed: ${error.message}. The backup itself stands in ${path}.`,
      'Look at the second place, and copy it by hand.',
    );
  }
  return copy;
}

const { url } = await targetDatabase(empty);
const bytes = dump(url, file);
// What is beside the database: photos, and laboratories' files as they came.
let beside = 'no files are kept yet';
const written = [file];
if (existsSync(filesFolder)) {
  const tar = `${file}.files.tar`;
  const { status } = spawnSync('tar', ['-cf', tar, '-C', filesFolder, '.']);
  if (status !== 0)
    fail('The files beside the database could not be packed.', 'Is tar installed, and the disk not full?');
  written.push(tar);
  beside = `photos and laboratories’ files in ${tar}, ${Math.ceil(statSync(tar).size / 1024)} kB`;
}
say(
  `Written: ${file}, ${Math.ceil(bytes / 1024)} kB. It holds everything, password hashes too: keep it closed. Beside it ${beside}.`,
);
if (second !== undefined) {
  const copies = written.map((path) => copyTo(second, path));
  say(`Copied and compared: ${copies.join(', ')}.`);
}
