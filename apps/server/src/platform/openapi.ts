import type { AmountOptions } from '@glenfold/contract';
import { Controller, Get, type INestApplication } from '@nestjs/common';
import { ApiOkResponse, ApiTags, DocumentBuilder, type OpenAPIObject, SwaggerModule } from '@nestjs/swagger';
import { defaultMetadataStorage } from 'class-transformer/cjs/storage.js';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import { For } from './gate.ts';

/** The description of the API, made once the routes are known. */
@ApiTags('api')
@Controller('openapi.json')
export class DescriptionController {
  description: OpenAPIObject | undefined;

  @Get()
  @For('anyone')
  @ApiOkResponse({ schema: { type: 'object' } })
  read(): OpenAPIObject | undefined {
    return this.description;
  }
}

/** OpenAPI 3 of all routes; the schemas are made from the same contract classes that check the requests. */
export function describeApi(app: INestApplication): OpenAPIObject {
  const config = new DocumentBuilder()
    .setTitle('Glenfold')
    .setVersion('0.1.0')
    .setDescription('Soil tests, readings and rates of lawn zones. SI units throughout: g/m², m², cm, mg/kg.')
    .build();
  const document = SwaggerModule.createDocument(app, config);
  const schemas = validationMetadatasToSchemas({
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
  });
  document.components = {
    ...document.components,
    schemas: { ...document.components?.schemas, ...(schemas as object) },
  };
  const problem = {
    description: 'Problem details (RFC 9457)',
    content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/ProblemAnswer' } } },
  };
  for (const path of Object.values(document.paths)) {
    for (const operation of Object.values(path)) {
      const { responses } = operation as { responses?: Record<string, unknown> };
      if (responses) responses.default = problem;
    }
  }
  return document;
}
