import type { PhotoInput } from '@glenfold/contract';
import { api } from '../api/client.ts';
import type { Doer, Entry, OutboxKind } from './outbox.ts';

/** A photo of a zone that was taken with or without a connection. */
export interface KeptPhoto {
  readonly zoneId: string;
  readonly photo: PhotoInput & { readonly id: string };
}

/** Longest side of a photo that is taken in the field, pixels. */
export const LONGEST_PHOTO = 1400;

interface PhotoKind {
  /** A photo on its way. */
  readonly toSend: (doer: Doer, body: KeptPhoto) => Entry<KeptPhoto>;
  readonly kind: OutboxKind<KeptPhoto>;
}

/** What the server is sent of a photo: what else the device knows of it, such as its size in pixels, is not asked for. */
const sentOf = ({
  id,
  type,
  image,
  caption,
  takenOn,
  keepPlace,
  entryId,
  fieldTestId,
}: KeptPhoto['photo']): PhotoInput => ({
  ...{ id, type, image, caption, takenOn, keepPlace, entryId, fieldTestId },
});

/** Photos as one sheet of the field sends them. @param name under which they wait on the device */
export function photoKind(name: string): PhotoKind {
  return {
    toSend: (doer, body) => ({ ...doer, id: body.photo.id, kind: name, body }),
    kind: {
      name,
      one: 'photo',
      atOnce: 1,
      send: async (entries) => {
        const [{ id, body }] = entries as readonly [Entry<KeptPhoto>];
        await api('POST', `/zones/${body.zoneId}/photos`, sentOf(body.photo));
        return [{ id }];
      },
      say: ({ body }) => `Photo${body.photo.caption ? ` “${body.photo.caption}”` : ''}`,
      refusal: ({ body }, words) => {
        const called = body.photo.caption ? ` “${body.photo.caption}”` : '';
        return `The photo${called} cannot be kept: ${words}`;
      },
      day: {
        of: ({ photo }) => photo.takenOn,
        put: (body, takenOn) => ({ ...body, photo: { ...body.photo, takenOn } }),
      },
      restsOn: ({ body }) => body.photo.fieldTestId ?? body.photo.entryId ?? undefined,
    },
  };
}
