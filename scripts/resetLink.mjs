// npm run reset-link -- EMAIL: a one-time link to choose a password, for whoever runs the server.
import { spawnSync } from 'node:child_process';
import { targetDatabase } from './dump.mjs';
import { checkNode, ensureBuild, ensurePackages, fail, root, say } from './tools.mjs';

checkNode();
const args = process.argv.slice(2);
const [email, ...more] = args.filter((argument) => argument !== '--empty');
if (!email?.includes('@') || more.length > 0)
  fail('Say whose password is to be chosen anew.', 'Use "npm run reset-link -- name@practice.example".');
await ensurePackages();
await ensureBuild();
const { url } = await targetDatabase(args.includes('--empty'));
const { status, stdout, stderr } = spawnSync(process.execPath, ['apps/server/dist/resetLink.js'], {
  cwd: root,
  encoding: 'utf8',
  env: { ...process.env, DATABASE_URL: url, EMAIL: email },
});
if (status !== 0)
  fail(stderr.trim().split('\n')[0], 'Check the address; set GLENFOLD_URL when people open another one.');
say(`Open within the hour, once:\n${stdout.trim()}`);
