// npm run backup [-- FILE]: everything of the database in one file, for whoever runs the server.
import { existsSync, mkdirSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { backupFolder, dump, targetDatabase } from './dump.mjs';
import { checkNode, fail, say } from './tools.mjs';

checkNode();
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
say(`Written: ${file}, ${Math.ceil(bytes / 1024)} kB. It holds everything, password hashes too: keep it closed.`);
