// npm run backup [-- FILE]: everything of the database in one file, for whoever runs the server.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { backupFolder, dump, filesFolder, targetDatabase } from './dump.mjs';
import { checkNode, fail, say } from './tools.mjs';

checkNode();
// What is written is closed to everybody else on the machine.
process.umask(0o077);
const args = process.argv.slice(2);
const empty = args.includes('--empty');
const [name, ...more] = args.filter((argument) => argument !== '--empty');
if (more.length > 0 || name?.startsWith('-'))
  fail(`"${args.join(' ')}" is not known here.`, 'Use "npm run backup", or "npm run backup -- FILE".');

const now = new Date().toISOString().slice(0, 19).replace('T', '-').replaceAll(':', '');
const file = resolve(name ?? join(backupFolder, `glenfold-${now}.dump`));
if (existsSync(file)) fail(`${file} is there already.`, 'Give another name: a backup is never overwritten.');
mkdirSync(dirname(file), { recursive: true });

const { url } = await targetDatabase(empty);
const bytes = dump(url, file);
// What is beside the database: photos, and laboratories' files as they came.
let beside = 'no files are kept yet';
if (existsSync(filesFolder)) {
  const tar = `${file}.files.tar`;
  const { status } = spawnSync('tar', ['-cf', tar, '-C', filesFolder, '.']);
  if (status !== 0)
    fail('The files beside the database could not be packed.', 'Is tar installed, and the disk not full?');
  beside = `photos and laboratories’ files in ${tar}, ${Math.ceil(statSync(tar).size / 1024)} kB`;
}
say(
  `Written: ${file}, ${Math.ceil(bytes / 1024)} kB. It holds everything, password hashes too: keep it closed. Beside it ${beside}.`,
);
