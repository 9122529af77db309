// node scripts/demoNumbers.mjs ADDRESS [BEFORE.json]: every zone's reading and rates of a running demo, to be compared
// between two versions of the code. Without BEFORE the numbers go to standard output; with it only what differs.
import { readFileSync } from 'node:fs';

const [address, before] = process.argv.slice(2);
if (!address) {
  console.error('Say where the demo runs: node scripts/demoNumbers.mjs http://127.0.0.1:4600 [before.json]');
  process.exit(1);
}

/** Not the same from one demo to the next. */
const passing = /(^|\.)(id|[a-z]*Ids?|version|recordedAt|createdAt)$/;

const ID = /^[0-9a-f]{8}-([0-9a-f]{4}-){3}[0-9a-f]{12}$/;

let cookie = '';
async function ask(path, options = {}) {
  const response = await fetch(`${address}/api${path}`, { ...options, headers: { cookie, ...options.headers } });
  const given = response.headers.getSetCookie().map((line) => line.split(';')[0]);
  if (given.length > 0) cookie = given.join('; ');
  if (response.status === 404) return undefined;
  if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`);
  const text = await response.text();
  return text === '' ? undefined : JSON.parse(text);
}

/** Every value by its dotted path. */
function leaves(value, path, into) {
  if (typeof value !== 'object' || value === null) {
    if (!passing.test(path) && !ID.test(String(value))) into[path] = value;
  } else for (const [key, inner] of Object.entries(value)) leaves(inner, path ? `${path}.${key}` : key, into);
  return into;
}

const { csrf, demoPeople } = await ask('/session');
const owner = demoPeople[0];
await ask('/demo/session', {
  method: 'POST',
  headers: { 'content-type': 'application/json', 'x-csrf-token': csrf },
  body: JSON.stringify({ personId: owner.personId }),
});
const numbers = {};
for (const site of await ask('/sites'))
  for (const zone of await ask(`/sites/${site.id}/zones`)) {
    const answer = await ask(`/zones/${zone.id}/plan?units=us`);
    const { reading, plan } = answer ?? {};
    leaves({ reading, plan }, `${site.name}, ${zone.name}`, numbers);
  }

if (!before) console.log(JSON.stringify(numbers, null, 1));
else {
  const old = JSON.parse(readFileSync(before, 'utf8'));
  const paths = [...new Set([...Object.keys(old), ...Object.keys(numbers)])];
  const differ = paths.filter((path) => old[path] !== numbers[path]);
  for (const path of differ)
    console.log(`${path}\n  was ${JSON.stringify(old[path])}\n  is  ${JSON.stringify(numbers[path])}`);
  console.log(`${paths.length} values, ${differ.length} differ.`);
}
