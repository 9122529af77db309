import { existsSync, readFileSync } from 'node:fs';
import type { AmountOptions } from '@glenfold/contract';
import { Controller, Get, type INestApplication } from '@nestjs/common';
import { ApiOkResponse, ApiTags, DocumentBuilder, type OpenAPIObject, SwaggerModule } from '@nestjs/swagger';
import { defaultMetadataStorage } from 'class-transformer/cjs/storage.js';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import { COOKIE, CSRF_HEADER, type Demand, For, PERMISSION, PRACTICE_HEADER } from './gate.ts';
import { IN_STEPS, ONCE_HEADER } from './onceOnly.ts';

/** The description of the API, made once the routes are known. */
@ApiTags('api')
@Controller('openapi.json')
export class DescriptionController {
  description: OpenAPIObject | undefined;

  /** This description. */
  @Get()
  @For('anyone')
  @ApiOkResponse({ schema: { type: 'object' } })
  read(): OpenAPIObject | undefined {
    return this.description;
  }
}

/** A JSON Schema, as far as it is handled here. */
type Schema = Readonly<Record<string, unknown>>;

/** What the build has read off the types and comments: see scripts/describe.mjs. */
export interface Described {
  /** By the name of the type. */
  readonly schemas: Readonly<Record<string, Schema>>;
  /** What a route is for, by `Controller_method`. */
  readonly purposes: Readonly<Record<string, string>>;
}

/** @returns nothing known of either where nothing is built */
export const readDescribed = (file: string): Described =>
  existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as Described) : { schemas: {}, purposes: {} };

/** What the checks say of a value beside its type. */
const LIMITS = [
  'minimum',
  'maximum',
  'exclusiveMinimum',
  'minLength',
  'maxLength',
  'pattern',
  'format',
  'minItems',
  'maxItems',
];

/** A shape as the types have it, with the limits that are checked. */
function limited(shape: Schema, checked: Schema | undefined): Schema {
  const types = [shape.type].flat();
  if (!checked || shape.$ref || shape.enum || shape.const !== undefined || shape.type === undefined) return shape;
  const limits = Object.fromEntries(LIMITS.filter((name) => name in checked).map((name) => [name, checked[name]]));
  const whole = checked.type === 'integer' && types.includes('number');
  const type = whole ? types.map((each) => (each === 'number' ? 'integer' : each)) : types;
  const items = shape.items as Schema | undefined;
  const description = [checked.description, shape.description].filter((words) => typeof words === 'string').join('; ');
  return {
    ...shape,
    ...(description ? { description } : {}),
    type: type.length === 1 ? type[0] : type,
    ...limits,
    ...(items && !Array.isArray(items) ? { items: limited(items, checked.items as Schema | undefined) } : {}),
  };
}

/** The classes that requests are checked by, with their limits. */
function checkedSchemas(): Readonly<Record<string, Schema>> {
  return validationMetadatasToSchemas({
    classTransformerMetadataStorage: defaultMetadataStorage,
    refPointerPrefix: '#/components/schemas/',
    additionalConverters: {
      amount: ({ constraints }) => {
        const { min, max, unit } = constraints[0] as AmountOptions;
        return { type: 'number', minimum: min, maximum: max, ...(unit ? { description: unit } : {}) };
      },
      valueOf: () => ({}),
      held: () => ({}),
      day: () => ({ type: 'object', description: 'what is known of a day, as season.window takes it' }),
      knownTimeZone: () => ({ type: 'string', description: 'a time zone of the IANA list' }),
      withPh: () => ({}),
      place: () => ({ type: 'array', items: { type: 'number' }, description: '[longitude, latitude] in WGS84' }),
      sharesAddUp: () => ({}),
      taped: () => ({ type: 'object', description: 'a simple shape with its lengths in m, as area.shape takes it' }),
      drawn: () => ({ type: 'object', description: 'GeoJSON geometry in WGS84 that suits what is drawn' }),
    },
  }) as unknown as Readonly<Record<string, Schema>>;
}

/** The shapes of the types with the limits of the checks; a class that no type tells of is as it is checked. */
function schemasOf({ schemas }: Described): Readonly<Record<string, Schema>> {
  const checked = checkedSchemas();
  const merged = Object.entries(schemas).map(([name, shape]) => {
    const known = checked[name]?.properties as Readonly<Record<string, Schema>> | undefined;
    const properties = shape.properties as Readonly<Record<string, Schema>> | undefined;
    if (!known || !properties) return [name, shape] as const;
    const inside = Object.entries(properties).map(([key, value]) => [key, limited(value, known[key])]);
    return [name, { ...shape, properties: Object.fromEntries(inside) as Schema }] as const;
  });
  return { ...checked, ...Object.fromEntries(merged) };
}

const header = (name: string, description: string, required: boolean): object => ({
  ...{ name, in: 'header', description, required },
  schema: { type: 'string' },
});

const headers = {
  csrf: header(CSRF_HEADER, 'The `csrf` of GET /api/session: shows that a page of ours asks.', true),
  practice: header(PRACTICE_HEADER, 'Id of the practice that is meant; refused where another one is open.', false),
  once: header(ONCE_HEADER, 'A word of one’s own: the same request sent again under it is done once.', false),
};

interface Operation {
  operationId: string;
  summary?: string;
  security?: object[];
  parameters?: object[];
  responses?: Record<string, unknown>;
  [PERMISSION]?: Demand;
  [IN_STEPS]?: true;
}

const READS = new Set(['get', 'head']);

/** What every route has in common, written down at each. */
function complete(operation: Operation, method: string, purposes: Described['purposes']): void {
  operation.summary ??= purposes[operation.operationId] ?? '';
  const demand = operation[PERMISSION];
  const signedIn = demand !== 'anyone';
  operation.security = signedIn ? [{ session: [] }] : [];
  const asked = [
    ...(READS.has(method) || !signedIn ? [] : [headers.csrf]),
    ...(signedIn && demand !== 'signed in' ? [headers.practice] : []),
    ...(READS.has(method) || !signedIn || operation[IN_STEPS] ? [] : [headers.once]),
  ];
  operation.parameters = [...(operation.parameters ?? []), ...asked];
  if (operation.responses)
    operation.responses.default = {
      description: 'Problem details (RFC 9457)',
      content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/ProblemAnswer' } } },
    };
}

/** OpenAPI 3.1 of all routes: shapes as the types have them, limits as they are checked. */
export function describeApi(app: INestApplication, described: Described): OpenAPIObject {
  const config = new DocumentBuilder()
    .setTitle('Glenfold')
    .setVersion('0.1.0')
    .setDescription(
      'Soil tests, readings and rates of lawn zones. SI units throughout: g/m², m², cm, mg/kg; sentences are in the `units` that are asked for.',
    )
    .setOpenAPIVersion('3.1.0')
    .addCookieAuth(COOKIE, { type: 'apiKey', in: 'cookie', name: COOKIE }, 'session')
    .build();
  const document = SwaggerModule.createDocument(app, config);
  document.components = {
    ...document.components,
    schemas: { ...document.components?.schemas, ...(schemasOf(described) as object) },
  };
  for (const path of Object.values(document.paths))
    for (const [method, operation] of Object.entries(path))
      complete(operation as Operation, method, described.purposes);
  return document;
}
