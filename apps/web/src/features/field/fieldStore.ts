import { type LoadCheckInput, type MeasurementsInput, type ZoneAnswer, withReadableDays } from '@glenfold/contract';
import { ApiProblem, api } from '../../api/client.ts';
import type { Doer, Entry, OutboxKind } from '../../offline/outbox.ts';
import { photoKind } from '../../offline/photos.ts';

/** What was measured with a knife or a probe: only what somebody has read. */
export interface KeptMeasures {
  readonly siteId: string;
  readonly zoneId: string;
  readonly zone: string;
  readonly input: MeasurementsInput;
}

/** Words to the office. */
export interface KeptNote {
  readonly id: string;
  readonly siteId: string | null;
  readonly zoneId: string | null;
  readonly words: string;
}

const LOAD = 'load check';
const MEASURED = 'measured';
const NOTE = 'note';
const photos = photoKind('site photo');
export const photoToSend = photos.toSend;

export const loadToSend = (doer: Doer, body: LoadCheckInput): Entry<LoadCheckInput> => ({
  ...{ ...doer, id: `${body.id} ${crypto.randomUUID()}`, kind: LOAD, body },
});
export const measuresToSend = (doer: Doer, body: KeptMeasures): Entry<KeptMeasures> => ({
  ...{ ...doer, id: crypto.randomUUID(), kind: MEASURED, body },
});

/** What the server has refused, as words to the office with all that was written. */
export function noteToSend(doer: Doer, { body, refused }: Entry, said: string): Entry<KeptNote> {
  const of = body as { readonly siteId?: string; readonly zoneId?: string; readonly photo?: object };
  // A picture is no words.
  const { photo: _photo, ...told } = of;
  const words = `${said}: not taken${refused ? ` (${refused})` : ''}. ${JSON.stringify(told)}`.slice(0, 4000);
  const id = crypto.randomUUID();
  return { ...doer, id, kind: NOTE, body: { id, siteId: of.siteId ?? null, zoneId: of.zoneId ?? null, words } };
}

const loads: OutboxKind<LoadCheckInput> = {
  name: LOAD,
  one: 'delivery',
  atOnce: 1,
  send: async (entries) => {
    const [{ id, body }] = entries as readonly [Entry<LoadCheckInput>];
    await api('POST', '/load-checks', body);
    return [{ id }];
  },
  say: ({ body }) => `Delivery, ${body.name}, ${withReadableDays(body.on)}`,
  mendAt: ({ body }) => `/field/${body.siteId}?do=load&what=${encodeURIComponent(body.name)}`,
  refusal: ({ body }, words) => `The delivery of ${body.on} cannot be kept: ${words}`,
  day: { of: ({ on }) => on, put: (body, on) => ({ ...body, on }) },
  stateOf: ({ body }) => body.id,
};

/** How often a save is tried on top of what somebody else has saved at the same moment. */
const TRIES = 3;

const measures: OutboxKind<KeptMeasures> = {
  name: MEASURED,
  one: 'measurement',
  atOnce: 1,
  // What was not read here stays as the server has it, also what somebody else has read meanwhile.
  send: async (entries) => {
    const [{ id, body }] = entries as readonly [Entry<KeptMeasures>];
    for (let tries = 1; ; tries += 1) {
      const zones = await api<ZoneAnswer[]>('GET', `/sites/${body.siteId}/zones`);
      const zone = zones.find((one) => one.id === body.zoneId);
      if (!zone) throw new ApiProblem(404, 'The zone was deleted.', []);
      const { thatch = null, rootDepth = null, probeStop = null } = zone;
      try {
        await api('PUT', `/zones/${body.zoneId}/measurements`, { thatch, rootDepth, probeStop, ...body.input }, zone.version); // prettier-ignore
        return [{ id }];
      } catch (error) {
        if (!(error instanceof ApiProblem && error.conflict) || tries === TRIES) throw error;
      }
    }
  },
  say: ({ body }) => `Thatch, roots, probe, ${body.zone}`,
  mendAt: ({ body }) => `/field/${body.siteId}?do=measure`,
  refusal: ({ body }, words) => `What was measured on ${body.zone} cannot be kept: ${words}`,
};

const notes: OutboxKind<KeptNote> = {
  name: NOTE,
  one: 'note',
  atOnce: 1,
  send: async (entries) => {
    const [{ id, body }] = entries as readonly [Entry<KeptNote>];
    await api('POST', '/notes', body);
    return [{ id }];
  },
  say: ({ body }) => `Note to the office: ${body.words.slice(0, 60)}`,
  refusal: (_note, words) => `The note cannot be kept: ${words}`,
};

/** What is sent of a site beside cards, walks and tests. */
export const fieldKinds: ReadonlyArray<OutboxKind<never>> = [loads, measures, notes, photos.kind];
