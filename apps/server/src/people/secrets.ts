import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';

/** Something nobody can guess: 256 bits, fit for a link or a cookie. */
export function newToken(): string {
  return randomBytes(32).toString('base64url');
}

/** What is kept of a token: whoever reads the database cannot use it. */
export function hashToken(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}

/** The token that must come back with every change; known to our own pages only. */
export function csrfOf(token: string): string {
  return createHash('sha256').update(`csrf:${token}`).digest('base64url');
}

/** Argon2id with the library's parameters (19 MiB, 2 passes), which are OWASP's. */
export function hashPassword(password: string): Promise<string> {
  return hash(password);
}

let nobody: Promise<string> | undefined;

/** Takes as long for somebody unknown as for a wrong password. */
export async function passwordFits(password: string, passwordHash: string | null | undefined): Promise<boolean> {
  nobody ??= hash(newToken());
  const fits = await verify(passwordHash ?? (await nobody), password);
  return fits && !!passwordHash;
}
