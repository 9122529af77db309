import { type CardAnswer, type EntryInput, type EntryWrittenAnswer, withReadableDays } from '@glenfold/contract';
import { createStore, del, get, set, setMany, values } from 'idb-keyval';
import { ApiProblem, api } from '../../api/client.ts';
import { isHolders } from '../../offline/holder.ts';
import { type Doer, type Entry, type OutboxKind, signedIn } from '../../offline/outbox.ts';
import { photoKind } from '../../offline/photos.ts';

/** A card as it is taken along, to be worked without a connection. */
export interface PackedCard {
  readonly card: CardAnswer;
  readonly practiceId: string;
  readonly person: { readonly id: string; readonly name: string } | null;
  readonly packedAt: string;
  /** What was written of it on this device. */
  readonly written?: EntryInput;
}

const store = createStore('glenfold-cards', 'kept');

/** Who works with what was taken along. */
export const workerOf = ({ practiceId, person }: PackedCard): Doer => ({ practiceId, person });

async function pack(cards: readonly CardAnswer[]): Promise<PackedCard[]> {
  const session = await signedIn();
  const { person, practice } = session;
  const packed = await Promise.all(
    cards.map(async (card): Promise<PackedCard> => {
      const before = await get<PackedCard>(card.job.id, store);
      const closed = card.job.state === 'done' || card.job.state === 'not done';
      return {
        ...{ card, practiceId: practice?.id ?? '', packedAt: new Date().toISOString() },
        person: person ? { id: person.id, name: person.name } : null,
        // What was written here and has not come back in the job yet.
        ...(before?.written && !closed ? { written: before.written } : {}),
      };
    }),
  );
  await setMany(
    packed.map((one) => [one.card.job.id, one]),
    store,
  );
  return packed;
}

/** What came of taking cards along. */
export interface TakenCards {
  readonly packed: readonly PackedCard[];
  /** Of those that were there before: another program has superseded them. */
  readonly superseded: readonly PackedCard[];
}

/** Take the cards of this week along, or those until a day. @throws without a connection */
export async function packCards(units: string, until = '9999'): Promise<TakenCards> {
  await signedIn();
  const cards = await api<CardAnswer[]>('GET', `/season/cards?units=${units}`);
  const packed = await pack(cards.filter(({ job }) => (job.day ?? '') <= until));
  return { packed, superseded: await freshen(units, new Set(packed.map(({ card }) => card.job.id))) };
}

/**
 * Ask what has become of the cards that were taken along before: what another program has superseded, or somebody has
 * done, does not stay as open work. What was written on a card stays.
 *
 * @returns those that another program has superseded
 * @throws without a connection
 */
export async function freshen(units: string, fresh: ReadonlySet<string> = new Set()): Promise<PackedCard[]> {
  const { practice } = await signedIn();
  const kept = (await packedCards()).filter(
    ({ card, practiceId }) => practiceId === practice?.id && !fresh.has(card.job.id),
  );
  const found: PackedCard[] = [];
  for (const { card } of kept)
    try {
      found.push(...(await pack([await api<CardAnswer>('GET', `/jobs/${card.job.id}/card?units=${units}`)])));
    } catch (error) {
      if (!(error instanceof ApiProblem) || error.status !== 404) throw error;
      await del(card.job.id, store);
    }
  return found.filter(({ card }) => card.job.state === 'superseded');
}

/** A card, fresh where there is a connection, else as it was taken along. @throws when there is neither */
export async function openCard(jobId: string, units: string): Promise<PackedCard> {
  const kept = await get<PackedCard>(jobId, store);
  try {
    await signedIn();
    const [fresh] = await pack([await api<CardAnswer>('GET', `/jobs/${jobId}/card?units=${units}`)]);
    return fresh!;
  } catch (error) {
    if (kept && isHolders(kept) && error instanceof ApiProblem && error.status === 0) return kept;
    throw error;
  }
}

/** Cards that who holds the device has taken along, by their days. */
export async function packedCards(): Promise<PackedCard[]> {
  const kept = await values<PackedCard>(store);
  return kept
    .filter((one) => isHolders(one))
    .filter(({ card, written }) => !written && (card.job.state === 'open' || card.job.state === 'partly done'))
    .sort((one, other) => (one.card.job.day ?? '9').localeCompare(other.card.job.day ?? '9'));
}

/** Note on the card what was written of it, so that it is not worked twice here; nothing, to write it anew. */
export async function noteWritten(jobId: string, written: EntryInput | undefined): Promise<void> {
  const kept = await get<PackedCard>(jobId, store);
  if (!kept) return;
  const { written: _before, ...card } = kept;
  await set(jobId, written ? { ...card, written } : card, store);
}

const ENTRY = 'logbook entry';
/** Photos of what was done. */
const photos = photoKind('entry photo');
export const photoToSend = photos.toSend;
export const entryToSend = (doer: Doer, body: EntryInput): Entry<EntryInput> => ({
  ...doer,
  id: body.id,
  kind: ENTRY,
  body,
});
const written: OutboxKind<EntryInput> = {
  name: ENTRY,
  one: 'entry',
  atOnce: 1,
  send: async (entries) => {
    const [{ id, body }] = entries as readonly [Entry<EntryInput>];
    const { notes } = await api<EntryWrittenAnswer>('POST', '/entries', body);
    return [{ id, notes }];
  },
  say: ({ body }) => `${body.words ?? body.kind}, ${body.state}, ${withReadableDays(body.on)}`,
  mendAt: ({ body }) => (body.jobId ? `/cards/${body.jobId}` : '/today'),
  day: { of: ({ on }) => on, put: (body, on) => ({ ...body, on }) },
  refusal: ({ body }, words) => `The entry of ${body.on} cannot be kept: ${words}`,
};
/** What a card sends. */
export const cardKinds: ReadonlyArray<OutboxKind<never>> = [written, photos.kind];
