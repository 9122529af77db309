// Requests that nobody would send in good faith, made from the API's own description: each route gets bodies that fit,
// with one value of them made hostile. Nothing of it may end in a 5xx.

const nested = (depth) => {
  let value = {};
  for (let at = 0; at < depth; at += 1) value = at % 2 ? [value] : { a: value };
  return value;
};

/** What a value is made into. */
export const hostile = [
  ...[null, true, [], {}, '', ' ', 0, -1, 1e308, -1e308, 1e-320, 2 ** 53, 'null', [null], [[]], [{}], { '': 0 }],
  ...['\u0000', 'a\u0000b', '\ud800', 'x\udc00y', '2026-02-30', '0000-00-00', '9999-99-99', '-'.repeat(36), '٣'],
  ...['NaN', '1e999', '=1+1', '../../etc/passwd', '%00', '${7*7}', "'; DROP TABLE zone; --", 'é'.repeat(5000)],
  ...['00000000-0000-0000-0000-000000000000', { constructor: { prototype: {} } }, { length: 1e9 }, nested(200)],
  ...[Array.from({ length: 300 }, () => null), { toString: 'x' }, JSON.parse('{"__proto__":{"admin":true}}')],
];
const words = ['Lawn', 'GR-9', 'a note', '12 lb', 'tall fescue', 'lime', 'cored', 'done'];
const pick = (chance, from) => from[Math.floor(chance() * from.length)];

/** A value that fits a schema, more or less: the contract's own checks stand behind it. */
function fitting(schema, schemas, chance, ids, depth = 0) {
  if (!schema || depth > 6) return null;
  if (schema.$ref) return fitting(schemas[schema.$ref.split('/').at(-1)], schemas, chance, ids, depth + 1);
  const one = schema.oneOf?.[0] ?? schema.anyOf?.[0] ?? schema.allOf?.[0];
  if (one) return fitting(one, schemas, chance, ids, depth + 1);
  if (schema.enum) return pick(chance, schema.enum);
  if (schema.const !== undefined) return schema.const;
  // Of several types the first that says anything: what is hostile is put in after.
  switch ([schema.type].flat().find((type) => type !== 'null')) {
    case 'object': {
      const wanted = schema.required ?? [];
      const named = Object.entries(schema.properties ?? {}).filter(([name]) => wanted.includes(name) || chance() < 0.5);
      return Object.fromEntries(named.map(([name, inner]) => [name, ofName(name, inner, schemas, chance, ids, depth)]));
    }
    case 'array':
      return Array.from({ length: 1 + Math.floor(chance() * 2) }, () =>
        fitting(schema.items, schemas, chance, ids, depth + 1),
      );
    case 'number':
    case 'integer': {
      const [low, high] = [schema.minimum ?? 0, Math.min(schema.maximum ?? 100, 1e6)];
      const value = low + chance() * (high - low);
      return [schema.type].flat().includes('integer') ? Math.round(value) : value;
    }
    case 'boolean':
      return chance() < 0.5;
    case 'string':
      if (schema.format === 'uuid') return pick(chance, ids.any);
      if (schema.format?.startsWith('date')) return '2026-10-14';
      return pick(chance, words);
    default:
      return pick(chance, [...words, 1, {}, []]);
  }
}

/** What a name asks for beside its type. */
function ofName(name, schema, schemas, chance, ids, depth) {
  const known = ids[name] ?? ids[name.replace(/s$/, '')];
  if (known?.length > 0 && chance() < 0.8) {
    const id = pick(chance, known);
    return [schema.type].flat().includes('array') ? [id] : id;
  }
  if (/On$|^on$|day|date/i.test(name) && [schema.type].flat().includes('string')) return '2026-10-14';
  return fitting(schema, schemas, chance, ids, depth + 1);
}

/** Every place in a value that something else can be put into. */
function placesIn(value, path = []) {
  if (typeof value !== 'object' || value === null) return [path];
  return [path, ...Object.entries(value).flatMap(([key, inner]) => placesIn(inner, [...path, key]))];
}
function put(value, [key, ...rest], into) {
  if (key === undefined) return into;
  const copy = Array.isArray(value) ? [...value] : { ...value };
  copy[key] = put(copy[key], rest, into);
  return copy;
}

/** Bodies that are no JSON, or none that a parser likes. */
const rawBodies = [
  ...['', '{', '[', '"', 'null', 'NaN', '\u0000', '{"a":1', '[1,]', '{"a":"\\ud800"}', '{"a":"\\u0000"}'],
  ...['['.repeat(5000) + ']'.repeat(5000), '{"a":'.repeat(3000) + '1' + '}'.repeat(3000), '1e400', '"\u2028"'],
];

/** Left alone: who asks would be sent away by it, or something long begins. */
const spared = /sign-out|\/session|first-run|practice\/export|sign-in|password|people|memberships|invitations|units/;

/**
 * @param {object} about
 * @param about.description of the API, as it describes itself
 * @param about.ask sends a request: (method, path, { body, raw }) to { status, text }
 * @param about.chance numbers between 0 and 1: of the same ones the same requests are made
 * @param about.idsOf living ids of a table, by its name; an empty list where there is no such table
 * @returns {Promise<{ tries: number, statuses: Record<string, number>, faults: object[] }>}
 */
export async function fuzz({ description, ask, idsOf, chance, tries = 2000, until = Infinity }) {
  const { paths } = description;
  const { schemas } = description.components;
  const routes = Object.entries(paths)
    .map(([whole, operations]) => [whole.replace(/^\/api/, ''), operations])
    .filter(([path]) => !spared.test(path))
    .flatMap(([path, operations]) =>
      Object.entries(operations).map(([method, operation]) => ({ path, method, operation })),
    );
  const tableOf = (segment) => segment.replaceAll('-', '_').replace(/ies$/, 'y').replace(/s$/, '');
  const ids = { any: [] };
  for (const [name, table] of [
    ...[['siteId', 'site'], ['zoneId', 'zone'], ['bagId', 'bag'], ['coreId', 'core'], ['productId', 'product']],
    ...[['resultId', 'lab_result'], ['machineId', 'machine'], ['jobId', 'job'], ['entryId', 'entry'], ['sampleId', 'sample']],
  ])
    ids[name] = await idsOf(table);
  ids.any = Object.values(ids).flat();
  const own = {};
  for (const { path } of routes)
    for (const [, segment, name] of path.matchAll(/\/([a-z-]+)\/\{(\w+)\}/g))
      own[`${segment}/${name}`] ??= ids[name] ?? (await idsOf(tableOf(segment)));

  const statuses = {};
  const faults = [];
  let done = 0;
  while (done < tries && Date.now() < until) {
    const { path, method, operation } = pick(chance, routes);
    const at = path.replace(/\/([a-z-]+)\/\{(\w+)\}/g, (_whole, segment, name) => {
      const known = own[`${segment}/${name}`];
      const good = known?.length > 0 && chance() < 0.85;
      return `/${segment}/${good ? pick(chance, known) : encodeURIComponent(wordOf(pick(chance, hostile)))}`;
    }).replace(/\{\w+\}/g, () => encodeURIComponent(pick(chance, words)));
    const query = (operation.parameters ?? [])
      .filter((parameter) => parameter.in === 'query' && (parameter.required || chance() < 0.4))
      .map(({ name, schema }) => {
        const value = chance() < 0.7 ? (name === 'units' ? 'us' : fitting(schema, schemas, chance, ids)) : pick(chance, hostile);
        return `${name}=${encodeURIComponent(wordOf(value))}`;
      });
    const to = query.length > 0 ? `${at}?${query.join('&')}` : at;
    const schema = operation.requestBody?.content?.['application/json']?.schema;
    let sent = {};
    if (method !== 'get' && method !== 'delete') {
      if (chance() < 0.05) sent = { raw: pick(chance, rawBodies) };
      else {
        const body = schema ? fitting(schema, schemas, chance, ids) : {};
        const places = placesIn(body);
        sent = { body: chance() < 0.9 ? put(body, pick(chance, places), pick(chance, hostile)) : body };
      }
    }
    const { status, text } = await ask(method, to, sent);
    done += 1;
    statuses[status] = (statuses[status] ?? 0) + 1;
    // A refusal that names no field came from the database: somebody would not know what to mend.
    const blind = status === 400 && text.includes('cannot be kept') && text.includes('"errors":[]');
    if (status >= 500 || blind) faults.push({ method, path: to, route: path, ...sent, status, text: text.slice(0, 300) });
  }
  return { tries: done, statuses, faults };
} // prettier-ignore

function wordOf(value) {
  const text = typeof value === 'string' ? value : (JSON.stringify(value) ?? '');
  // A lone surrogate has no place in an address.
  return text.replace(/[\ud800-\udfff]/g, '\ufffd').slice(0, 2000);
}
