import {
  LARGEST_PHOTO,
  LARGEST_UNDERLAY,
  type PhotoAnswer,
  type PhotoInput,
  type PictureType,
  type UnderlayAnswer,
  type UnderlayInput,
  type UnderlayPlaceInput,
} from '@glenfold/contract';
import { Injectable, StreamableFile } from '@nestjs/common';
import { In } from 'typeorm';
import { EntryRecord } from '../entries/entry.entity.ts';
import { FieldTestRecord } from '../measurements/fieldTest.entity.ts';
import { notFound, refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { FileStore } from '../ports/fileStore.ts';
import { ofLivingZone } from '../sites/living.ts';
import { GroundService } from './ground.service.ts';
import { PhotoFiles } from './photoFiles.service.ts';
import { Underlay } from './underlay.entity.ts';
import { ZonePhoto } from './zonePhoto.entity.ts';

/** How files of each type begin; a WebP file tells its length between. */
const beginnings: Readonly<Record<PictureType, RegExp>> = {
  'image/jpeg': /^ffd8ff/,
  'image/png': /^89504e470d0a1a0a/,
  'image/webp': /^52494646.{8}57454250/,
};

/** Photos that one practice keeps: nobody fills the disk for the others. */
const MOST_PHOTOS = 50_000;

/** @throws a refusal for what is no picture of its type, or larger than is kept */
function checkPicture(field: string, type: PictureType, image: string, largest: number): void {
  const bytes = Math.floor((image.length * 3) / 4);
  const megabytes = (size: number): string => (size / 1e6).toFixed(1);
  if (bytes > largest)
    refuse([
      {
        field,
        message: `The picture has ${megabytes(bytes)} MB; ${megabytes(largest)} MB are kept at most. Make it smaller and send it again.`,
      },
    ]);
  if (!beginnings[type].test(Buffer.from(image.slice(0, 24), 'base64').toString('hex')))
    refuse([{ field, message: 'The file is not the JPEG, PNG or WebP picture that it says it is. Choose another.' }]);
}

/** Photos of zones, and images under plans. */
@Injectable()
export class PicturesService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly files: FileStore,
    private readonly photoFiles: PhotoFiles,
  ) {}

  async photos(siteId: string): Promise<PhotoAnswer[]> {
    const zones = await this.ground.zones(siteId);
    const zoneId = In(zones.map(({ id }) => id));
    return (await this.records.of(ZonePhoto).find({ zoneId }, { createdAt: 'ASC' })).map(photoAnswer);
  }

  async addPhoto(zoneId: string, input: PhotoInput): Promise<PhotoAnswer> {
    const {
      id,
      type,
      image,
      caption = null,
      takenOn = null,
      entryId = null,
      fieldTestId = null,
      keepPlace = false,
    } = input;
    await this.ground.zone(zoneId);
    checkPicture('image', type, image, LARGEST_PHOTO);
    const [entry] = entryId === null ? [] : await this.records.of(EntryRecord).find({ id: entryId, zoneId });
    if (entryId !== null && !entry)
      refuse([{ field: 'entryId', message: 'The entry that the photo shows is not in the book yet: send it first.' }]);
    const [test] = fieldTestId === null ? [] : await this.records.of(FieldTestRecord).find({ id: fieldTestId, zoneId });
    if (fieldTestId !== null && !test)
      refuse([{ field: 'fieldTestId', message: 'The test that the photo shows is not here yet: send it first.' }]);
    const kept = await this.photoFiles.keep(Buffer.from(image, 'base64'), type, keepPlace);
    return this.records.together(async (of) => {
      if (id) await this.records.alone(`photo ${id}`);
      const [known] = id ? await of(ZonePhoto).findEver({ id }) : [];
      if (!known) await this.#refuseTooMany();
      const values = { zoneId, ...kept, image: null, caption, takenOn, entryId, fieldTestId };
      return photoAnswer(known ?? (await of(ZonePhoto).add({ ...(id ? { id } : {}), ...values })));
    });
  }

  /** @throws a refusal where the practice has as many as are kept */
  async #refuseTooMany(): Promise<void> {
    const [{ kept } = { kept: 0 }] = await this.records.ask<{ kept: number }>(
      `SELECT count(*)::int AS "kept" FROM (SELECT FROM zone_photo WHERE "practiceId" = $1 LIMIT $2) p`,
      [MOST_PHOTOS],
    );
    if (kept >= MOST_PHOTOS)
      refuse([
        {
          field: 'image',
          message: `This practice keeps ${MOST_PHOTOS} photos already, which is as many as one may. Export it, and ask whoever runs the server.`,
        },
      ]);
  }

  removePhoto(id: string): Promise<void> {
    return this.records.of(ZonePhoto).remove(id);
  }

  async restorePhoto(id: string): Promise<PhotoAnswer> {
    return photoAnswer(await this.records.of(ZonePhoto).restore(id));
  }

  /** @param small for lists */
  async photo(id: string, small: boolean): Promise<StreamableFile> {
    const [photo] = await this.records.of(ZonePhoto).find({ id, zoneId: ofLivingZone() });
    const { digest, thumb, type } = photo ?? notFound();
    const file = small ? thumb : digest;
    if (!file) return this.#file(ZonePhoto, id);
    return new StreamableFile(await this.files.read(file), { type: small ? 'image/jpeg' : type });
  }

  async underlay(siteId: string): Promise<UnderlayAnswer | null> {
    const [found] = await this.records.of(Underlay).find({ siteId });
    return found ? underlayAnswer(found) : null;
  }

  /** Lay an image under the plan, in place of the one that was there. */
  async layUnder(siteId: string, { picture, matches, opacity }: UnderlayInput): Promise<UnderlayAnswer> {
    checkPicture('picture.image', picture.type, picture.image, LARGEST_UNDERLAY);
    const { type, image, name, width, height } = picture;
    return this.records.together(async (of) => {
      await this.ground.site(siteId);
      for (const { id } of await of(Underlay).find({ siteId })) await of(Underlay).remove(id);
      return underlayAnswer(await of(Underlay).add({ siteId, type, image, name, width, height, matches, opacity }));
    });
  }

  async placeUnderlay(id: string, { matches, opacity }: UnderlayPlaceInput, version: number): Promise<UnderlayAnswer> {
    const expected = { version, tell: underlayAnswer };
    return underlayAnswer(await this.records.of(Underlay).change(id, { matches, opacity }, expected));
  }

  removeUnderlay(id: string): Promise<void> {
    return this.records.of(Underlay).remove(id);
  }

  restoreUnderlay(id: string): Promise<UnderlayAnswer> {
    return this.records.together(async (of) => {
      const { siteId } = await of(Underlay).deleted(id);
      for (const other of await of(Underlay).find({ siteId })) await of(Underlay).remove(other.id);
      return underlayAnswer(await of(Underlay).restore(id));
    });
  }

  underlayImage(id: string): Promise<StreamableFile> {
    return this.#file(Underlay, id);
  }

  async #file(entity: typeof ZonePhoto | typeof Underlay, id: string): Promise<StreamableFile> {
    const { type } = await this.records.of<ZonePhoto | Underlay>(entity).one(id);
    const image = await this.records.scoped((manager) =>
      manager
        .createQueryBuilder<ZonePhoto | Underlay>(entity, 'picture')
        .select('picture.image', 'image')
        .where({ id })
        .getRawOne<{ readonly image: string }>(),
    );
    return new StreamableFile(Buffer.from((image ?? notFound()).image, 'base64'), { type });
  }
}

function photoAnswer({ id, version, zoneId, fieldTestId, caption, takenOn }: ZonePhoto): PhotoAnswer {
  return {
    id,
    version,
    zoneId,
    fieldTestId,
    caption,
    takenOn,
    address: `/api/photos/${id}/image`,
    small: `/api/photos/${id}/image?size=small`,
  };
}

function underlayAnswer({ id, version, name, width, height, matches, opacity }: Underlay): UnderlayAnswer {
  return { id, version, name, width, height, matches, opacity, address: `/api/underlays/${id}/image` };
}
