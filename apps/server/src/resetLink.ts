import { resolve } from 'node:path';
import { createApp } from './app.ts';
import { findPerson } from './people/signIn.service.ts';
import { ResetService } from './people/reset.service.ts';
import { Door } from './platform/door.ts';
import { withoutEnd } from './platform/address.ts';

/** For whoever runs the server: a one-time link for somebody whom no message reaches. */
const { DATABASE_URL = '', DATABASE_OWNER_URL, GLENFOLD_URL = 'http://127.0.0.1:4600', EMAIL = '' } = process.env;

const app = await createApp({
  root: resolve(import.meta.dirname, '../../..'),
  databaseUrl: DATABASE_URL,
  ownerUrl: DATABASE_OWNER_URL || undefined,
  empty: true,
  address: withoutEnd(GLENFOLD_URL),
  quiet: true,
});
const link = await app.get(Door).open(async (manager) => {
  const person = await findPerson(manager, EMAIL.trim().toLowerCase());
  return person && (await app.get(ResetService, { strict: false }).write(manager, person)).link;
});
await app.close();
if (link) process.stdout.write(`${link}\n`);
else {
  process.stderr.write(`Nobody here has the address ${EMAIL}.\n`);
  process.exitCode = 1;
}
