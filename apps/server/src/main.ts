import { resolve } from 'node:path';
import { createApp } from './app.ts';

const {
  PORT = '4600',
  HOST = '127.0.0.1',
  GLENFOLD_EMPTY,
  GLENFOLD_ROOT = resolve(import.meta.dirname, '../../..'),
} = process.env;

try {
  const app = await createApp({ root: GLENFOLD_ROOT, empty: GLENFOLD_EMPTY === '1' });
  await app.listen(Number(PORT), HOST);
  process.stdout.write(`ready http://${HOST}:${PORT}/\n`);
} catch (error) {
  const { code, message } = error as { code?: string; message: string };
  process.stderr.write(`${code === 'EADDRINUSE' ? `Port ${PORT} is in use.` : message}\n`);
  process.exit(1);
}
