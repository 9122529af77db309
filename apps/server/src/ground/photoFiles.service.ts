import { Injectable, Logger } from '@nestjs/common';
import sharp from 'sharp';
import { IsNull, Not } from 'typeorm';
import { Practice } from '../people/practice.entity.ts';
import { troubleOf } from '../platform/databaseTrouble.ts';
import { Door } from '../platform/door.ts';
import { refuse } from '../platform/problem.ts';
import { Records, type RecordsOf } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { FileStore } from '../ports/fileStore.ts';
import { type RunAtWork, RunKinds } from '../runs/runKinds.ts';
import { RunsService } from '../runs/runs.service.ts';
import { ZonePhoto } from './zonePhoto.entity.ts';

const KIND = 'photos';
/** Longest sides, pixels: of a photo as it is kept, and of the small one in lists. */
const LONGEST = 2400;
const SMALL = 320;

/** What is kept of a photo in its row. */
type Files = Pick<ZonePhoto, 'digest' | 'thumb' | 'type'>;

/** Photos as files: upright, no larger than they need to be, and without the place that a phone writes into them. */
@Injectable()
export class PhotoFiles {
  readonly #log = new Logger(PhotoFiles.name);

  constructor(
    private readonly records: Records,
    private readonly door: Door,
    private readonly work: Work,
    private readonly files: FileStore,
    private readonly runs: RunsService,
    kinds: RunKinds,
  ) {
    kinds.register({ name: KIND, begin: () => this.begin(), work: (run) => this.move(run) });
  }

  /**
   * Keep a photo.
   * @param withPlace what the camera wrote into it stays, its position too
   * @throws a 422 problem for what is no picture that can be opened
   */
  async keep(bytes: Buffer, type: ZonePhoto['type'], withPlace: boolean): Promise<Files> {
    try {
      const { width, height, exif, orientation } = await sharp(bytes).metadata();
      const isPlain = exif === undefined && (orientation ?? 1) === 1 && Math.max(width, height) <= LONGEST;
      const small = sharp(bytes).autoOrient().resize(SMALL, SMALL, { fit: 'inside', withoutEnlargement: true });
      const thumb = await this.files.keep(await small.jpeg({ quality: 72 }).toBuffer());
      // What holds nothing but the picture is kept byte for byte.
      if (isPlain) return { digest: await this.files.keep(bytes), thumb, type };
      const large = sharp(bytes).autoOrient().resize(LONGEST, LONGEST, { fit: 'inside', withoutEnlargement: true });
      const jpeg = await (withPlace ? large.keepExif() : large).jpeg({ quality: 85 }).toBuffer();
      return { digest: await this.files.keep(jpeg), thumb, type: 'image/jpeg' };
    } catch (error) {
      // The picture may be whole, and the disk full.
      if (troubleOf(error)) throw error;
      return refuse([
        { field: 'image', message: 'The picture cannot be opened: a part of it is missing. Take or send it again.' },
      ]);
    }
  }

  /** Ask for the move in every practice that has photos in its rows. */
  async begin(): Promise<void> {
    const practices = await this.door.open((manager) => manager.find(Practice));
    for (const { id: practiceId } of practices)
      await this.work.run({ practiceId, person: null, role: null }, async () => {
        if ((await this.#inRows()).length > 0) await this.runs.start(KIND, 'Moving photos out of the database');
      });
  }

  /** Each photo moves by itself, once. */
  async move(run: RunAtWork): Promise<string> {
    const old = await this.#inRows();
    let failed = 0;
    for (const [index, { id }] of old.entries()) {
      await run.at(index, old.length);
      await this.records
        .together((of) => this.#move(of, id))
        .catch((error: unknown) => {
          failed += 1;
          this.#log.error(error);
        });
    }
    await run.at(old.length, old.length);
    const moved = `${old.length - failed} photos are files now`;
    return failed > 0 ? `${moved}; ${failed} cannot be opened and stayed where they were.` : `${moved}.`;
  }

  #inRows(): Promise<Array<Pick<ZonePhoto, 'id'>>> {
    return this.records.of(ZonePhoto).findWithout(['image'], { image: Not(IsNull()) }, undefined, true);
  }

  async #move(of: RecordsOf, id: string): Promise<void> {
    const [row] = await this.records.ask<{ image: string | null; type: ZonePhoto['type'] }>(
      `SELECT "image", "type" FROM zone_photo WHERE "practiceId" = $1 AND "id" = $2`,
      [id],
    );
    if (!row?.image) return;
    const files = await this.keep(Buffer.from(row.image, 'base64'), row.type, false);
    const [photo] = await of(ZonePhoto).findEver({ id });
    if (photo?.deletedAt) await of(ZonePhoto).restore(id);
    await of(ZonePhoto).change(id, { ...files, image: null });
    if (photo?.deletedAt) await of(ZonePhoto).remove(id);
  }
}
