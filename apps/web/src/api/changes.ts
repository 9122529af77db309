import type { UnitSystem } from '@glenfold/agronomy';
import type {
  BagAnswer,
  BagLineAnswer,
  CustodyInput,
  DrawingAnswer,
  InvitationAnswer,
  InvitationInput,
  IssuedPlanAnswer,
  LabFileInput,
  LabReportAnswer,
  LabReportChoices,
  LabResultAnswer,
  LabResultInput,
  LaboratoryAnswer,
  LaboratoryInput,
  LaboratoryNewsAnswer,
  MeasurementsInput,
  MemberAnswer,
  MemberInput,
  PhotoAnswer,
  PhotoInput,
  OutboxAnswer,
  DrawingChangesInput,
  PlanChoicesInput,
  PracticeAnswer,
  PracticeInput,
  ProductAnswer,
  ProductPriceInput,
  ShareLinkAnswer,
  ShareLinkInput,
  SiteAnswer,
  SiteInput,
  SamplingInput,
  UnderlayAnswer,
  UnderlayInput,
  UnderlayPlaceInput,
  ZoneAnswer,
  ZoneFactsInput,
  ZoneInput,
  ZonePlanAnswer,
} from '@glenfold/contract';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type ApiProblem, api } from './client.ts';

/**
 * A change; everything on screen is then read anew, since one number bears on many.
 * @param inTurn changes of one name are made one after the other
 */
function useChange<V, T>(change: (variables: V) => Promise<T>, inTurn?: string) {
  const client = useQueryClient();
  return useMutation<T, ApiProblem, V>({
    mutationFn: change,
    onSuccess: () => client.invalidateQueries(),
    ...(inTurn ? { scope: { id: inTurn } } : {}),
  });
}

/** From which version to which this window itself has brought a record. */
const moved = new Map<string, number>();

/**
 * Save a record on top of the version that was seen. What was saved from this very window meanwhile does not
 * make it stale: quick changes one after the other are no conflict.
 */
async function saveOver<T extends { readonly version: number }>(path: string, input: object, seen: number): Promise<T> {
  let version = seen;
  for (let next = moved.get(`${path}@${version}`); next !== undefined; next = moved.get(`${path}@${version}`))
    version = next;
  const answer = await api<T>('PUT', path, input, version);
  // Only ever forward: a save that changes nothing keeps its version, and a database put back from a backup goes back.
  if (answer.version > version) moved.set(`${path}@${version}`, answer.version);
  return answer;
}

/** A record that is there already, as the person saw it: a save that comes too late is told so. */
export interface Seen {
  readonly id: string;
  readonly version: number;
}

/** Add a record, or change the one that was seen. */
interface Saved<I> {
  readonly seen?: Seen | undefined;
  readonly input: I;
}

function useSave<I extends object, T extends { readonly version: number }>(kind: string, addTo = kind) {
  return useChange(
    ({ seen, input }: Saved<I>) =>
      seen ? saveOver<T>(`${kind}/${seen.id}`, input, seen.version) : api<T>('POST', addTo, input),
    kind,
  );
}

export const useSaveSite = () => useSave<SiteInput, SiteAnswer>('/sites');
export const useSaveZone = (siteId: string) => useSave<ZoneInput, ZoneAnswer>('/zones', `/sites/${siteId}/zones`);
export const useSaveLabResult = () => useSave<LabResultInput, LabResultAnswer>('/lab-results');
export const useMeasure = () =>
  useChange(({ seen, input }: { seen: Seen; input: MeasurementsInput }) =>
    api<ZoneAnswer>('PUT', `/zones/${seen.id}/measurements`, input, seen.version),
  );

/** What is known of a zone, in place of what was; quick changes one after the other are no conflict. */
export const useSaveFacts = (zoneId: string) =>
  useChange(
    ({ seen, input }: { seen: Seen; input: ZoneFactsInput }) =>
      saveOver<ZoneAnswer>(`/zones/${seen.id}/facts`, input, seen.version),
    `facts ${zoneId}`,
  );
export const useAddPhoto = (zoneId: string) =>
  useChange((input: PhotoInput) => api<PhotoAnswer>('POST', `/zones/${zoneId}/photos`, input), `photos ${zoneId}`);
export const useLayUnder = (siteId: string) =>
  useChange((input: UnderlayInput) => api<UnderlayAnswer>('POST', `/sites/${siteId}/underlay`, input));
export const usePlaceUnderlay = () =>
  useChange(({ seen, input }: { seen: Seen; input: UnderlayPlaceInput }) =>
    saveOver<UnderlayAnswer>(`/underlays/${seen.id}`, input, seen.version),
  );

export const usePreviewLabFile = (siteId: string) =>
  useChange((file: LabFileInput) => api<LabReportAnswer>('POST', `/sites/${siteId}/lab-reports`, file));
export const useCorrectLabFile = () => useSave<LabReportChoices, LabReportAnswer>('/lab-reports');
export const useConfirmLabFile = () =>
  useChange((id: string) => api<LabReportAnswer>('POST', `/lab-reports/${id}/confirm`));

export const useChooseProducts = (zoneId: string, units: UnitSystem) =>
  useChange(
    ({ version, input }: { version: number; input: PlanChoicesInput }) =>
      saveOver<ZonePlanAnswer>(`/zones/${zoneId}/plan/choices?units=${units}`, input, version),
    `choices ${zoneId}`,
  );
export const useIssuePlan = (zoneId: string, units: UnitSystem) =>
  useChange(() => api<IssuedPlanAnswer>('POST', `/zones/${zoneId}/plans?units=${units}`));
export const useSetPrice = () => useSave<ProductPriceInput, ProductAnswer>('/products');

export const useSavePractice = () =>
  useChange(({ seen, input }: { seen: Seen; input: PracticeInput }) =>
    api<PracticeAnswer>('PUT', '/practice', input, seen.version),
  );
export const useSaveMember = () => useSave<MemberInput, MemberAnswer>('/members');
export const useSendReset = () =>
  useChange((memberId: string) => api<null>('POST', `/members/${memberId}/password-reset`));
export const useInvite = () =>
  useChange((input: InvitationInput) => api<InvitationAnswer>('POST', '/invitations', input));
export const useRevokeInvitation = () => useChange((id: string) => api<null>('DELETE', `/invitations/${id}`));
export const useSendAgain = () => useChange((id: string) => api<OutboxAnswer>('POST', `/outbox/${id}/send`));
export const useShare = (siteId: string) =>
  useChange((input: ShareLinkInput) => api<ShareLinkAnswer>('POST', `/sites/${siteId}/share-links`, input));
export const useRevokeLink = () => useChange((id: string) => api<null>('DELETE', `/share-links/${id}`));

/** Deletes and restores, by the resource’s path. */
export const useRemove = () => useChange((path: string) => api<null>('DELETE', path));
export const useRestore = () => useChange((path: string) => api<unknown>('POST', `${path}/restore`));

export const usePlanBags = (siteId: string) =>
  useChange((input: SamplingInput) => api<BagAnswer[]>('POST', `/sites/${siteId}/bags`, input));
/** Bags go on, or their way ends. */
export const useMoveBags = () =>
  useChange((input: CustodyInput) => api<BagLineAnswer[]>('POST', '/bags/custody', input));
export const useSaveLaboratory = () => useSave<LaboratoryInput, LaboratoryAnswer>('/laboratories');
/** What is new at the laboratories. */
export const useAskLaboratories = () =>
  useChange((_now: null) => api<LaboratoryNewsAnswer>('POST', '/laboratories/news'));
/** Bring forward what simulated laboratories have in their calendar, and ask them. */
export const useHurryLaboratories = () =>
  useChange(async (days: number) => {
    await api('POST', '/laboratories/hurry', { days });
    return api<LaboratoryNewsAnswer>('POST', '/laboratories/news');
  });
export const useTakeAgain = () => useChange((bagId: string) => api<BagAnswer>('POST', `/bags/${bagId}/again`));
export const useLabNumber = () =>
  useChange(({ bagId, labNumber }: { bagId: string; labNumber: string | null }) =>
    api<BagLineAnswer>('PUT', `/bags/${bagId}/lab-number`, { labNumber }),
  );

/** One stroke on the plan of a site; strokes are saved one after the other. */
export function useChangePlan(siteId: string) {
  return useChange(
    (changes: DrawingChangesInput) => api<DrawingAnswer>('POST', `/sites/${siteId}/plan`, changes),
    `plan ${siteId}`,
  );
}
