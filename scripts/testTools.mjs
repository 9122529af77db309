// npm run test-tools: what the tests need beside Node, installed where it is missing.
import { spawnSync } from 'node:child_process';
import { aptInstall, say } from './tools.mjs';

const missing = [
  ['chromium', 'Chromium', ['chromium']],
  ['pdftotext', 'a PDF reader', ['poppler-utils']],
  ['nginx', 'a proxy', ['nginx-light']],
  ['openssl', 'what makes certificates', ['openssl']],
].filter(([program]) => spawnSync('sh', ['-c', `command -v ${program}`]).status !== 0);
for (const [, what, packages] of missing) {
  say(`Installing ${what}.`);
  aptInstall(packages, what);
}
