import type {
  DrawingAnswer,
  DrawingChangesInput,
  PhotoAnswer,
  PhotoInput,
  UnderlayAnswer,
  UnderlayInput,
  UnderlayPlaceInput,
  ZoneAnswer,
  ZoneFactsInput,
  ZoneInput,
} from '@glenfold/contract';
import { type Changed, type Seen, saveOver, useChange, useSave } from '../../api/changes.ts';
import { api } from '../../api/client.ts';

export const useSaveZone = (siteId: string) => useSave<ZoneInput, ZoneAnswer>('/zones', `/sites/${siteId}/zones`);
/** What is known of a zone, in place of what was; quick changes one after the other are no conflict. */
export const useSaveFacts = (zoneId: string) =>
  useChange(
    'ground',
    ({ seen, input }: Changed<ZoneFactsInput>) => saveOver<ZoneAnswer>(`/zones/${seen.id}/facts`, input, seen.version),
    `facts ${zoneId}`,
  );
export const useAddPhoto = (zoneId: string) =>
  useChange(
    'photo',
    (input: PhotoInput) => api<PhotoAnswer>('POST', `/zones/${zoneId}/photos`, input),
    `photos ${zoneId}`,
  );
export const useLayUnder = (siteId: string) =>
  useChange('underlay', (input: UnderlayInput) => api<UnderlayAnswer>('POST', `/sites/${siteId}/underlay`, input));
export const usePlaceUnderlay = () =>
  useChange('underlay', ({ seen, input }: { seen: Seen; input: UnderlayPlaceInput }) =>
    saveOver<UnderlayAnswer>(`/underlays/${seen.id}`, input, seen.version),
  );
/** One stroke on the plan of a site; strokes are saved one after the other. */
export function useChangeDrawing(siteId: string) {
  return useChange(
    'ground',
    (changes: DrawingChangesInput) => api<DrawingAnswer>('POST', `/sites/${siteId}/drawing`, changes),
    `plan ${siteId}`,
  );
}
