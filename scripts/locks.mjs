// Who is at work in a folder: one at a time where two would spoil it, and who still needs what runs there. Node alone.
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { say } from './tools.mjs';

/** ms between two looks at what somebody else holds. */
const LOOKS_AGAIN = 200;

/** When a process began, so that its number is not taken for that of another one; nothing when it is gone. */
export function bornAt(pid) {
  try {
    process.kill(pid, 0);
  } catch (error) {
    if (error.code !== 'EPERM') return undefined;
  }
  const stat = `/proc/${pid}/stat`;
  if (!existsSync('/proc/self/stat')) return 'alive';
  if (!existsSync(stat)) return undefined;
  const fields = readFileSync(stat, 'utf8').split(') ').at(-1).split(' ');
  return fields[0] === 'Z' || fields[0] === 'X' ? undefined : fields[19];
}

const signature = (pid) => JSON.stringify({ pid, born: bornAt(pid) });

/** Whether who signed a file is still the process that did. */
function isAlive(file) {
  try {
    const { pid, born } = JSON.parse(readFileSync(file, 'utf8'));
    return born !== undefined && bornAt(pid) === born;
  } catch {
    return false;
  }
}

const pause = () => Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, LOOKS_AGAIN);

/** Do something that two starts must not do at once; what a killed one has left locked is open. */
export async function oneAtATime(folder, name, work) {
  mkdirSync(folder, { recursive: true });
  const lock = join(folder, `${name}.lock`);
  for (let told = false; ;) {
    try {
      writeFileSync(lock, signature(process.pid), { flag: 'wx' });
      break;
    } catch (error) {
      if (error.code !== 'EEXIST') throw error;
    }
    if (!isAlive(lock)) {
      // Whoever wrote it may be between making it and signing it.
      pause();
      if (existsSync(lock) && !isAlive(lock)) rmSync(lock, { force: true });
      continue;
    }
    if (!told) say('Another start of Glenfold is at this: waiting for it.');
    told = true;
    pause();
  }
  try {
    return await work();
  } finally {
    rmSync(lock, { force: true });
  }
}

/** Say that this process needs what runs in the folder. */
export function use(folder) {
  const users = join(folder, 'users');
  mkdirSync(users, { recursive: true });
  writeFileSync(join(users, `${process.pid}.json`), signature(process.pid));
}

/** This process needs it no longer. @returns whether nobody else who lives does */
export function leave(folder) {
  const users = join(folder, 'users');
  rmSync(join(users, `${process.pid}.json`), { force: true });
  if (!existsSync(users)) return true;
  const others = readdirSync(users).map((name) => join(users, name));
  for (const file of others.filter((each) => !isAlive(each))) rmSync(file, { force: true });
  return others.every((file) => !existsSync(file));
}
