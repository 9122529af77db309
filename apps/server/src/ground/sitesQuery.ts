import { applyDecorators } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { isUUID } from 'class-validator';
import { readLimit } from '../platform/paging.ts';
import { refuse } from '../platform/problem.ts';
import type { SitesAsked } from './ground.service.ts';

/** Which sites an address asks for, as it was typed. */
export type SitesQuery = Readonly<Partial<Record<'text' | 'ids' | 'after' | 'limit', string>>>;

const MOST = 200;

/** @throws a refusal for what cannot be asked for */
export function sitesAsked({ text, ids, after, limit }: SitesQuery): SitesAsked {
  const named = ids === undefined ? undefined : ids.split(',').filter((id) => id !== '');
  if (named && (named.length > MOST || !named.every((id) => isUUID(id))))
    refuse([{ field: 'ids', message: `Name at most ${MOST} sites by their ids, with commas between.` }]);
  return { text, ids: named, after, limit: named ? MOST : readLimit(limit) };
}

/** Says in the description of the API what can be asked for. */
export const AskedForSites = () =>
  applyDecorators(
    ApiQuery({ name: 'text', required: false, description: 'Part of a name or a place' }),
    ApiQuery({ name: 'ids', required: false, description: 'Only these, with commas between' }),
    ApiQuery({ name: 'after', required: false, description: 'Where the last page ended: its `next`' }),
    ApiQuery({ name: 'limit', required: false, description: 'Rows of a page, 40 where nothing is said' }),
  );
