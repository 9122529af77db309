import { accessKeys } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { AuditEntry } from '../platform/auditEntry.entity.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Invitation } from '../people/invitation.entity.ts';
import { Membership } from '../people/membership.entity.ts';
import { Site } from '../sites/site.entity.ts';
import { erasedColumns } from './erasedColumns.ts';
import { freeWords, namesIn } from './forgetting.ts';

/** Letters of what may stand in copies elsewhere: shorter is a common word, longer a file. */
const COPIED = { least: 8, most: 400 } as const;

/** A label that is no common word: letters of a name with a number. */
const LABEL = /^(?=.*\p{L})(?=.*\d).{3,}$/u;

/** Somebody who reads the site's report, or was asked to. */
export interface Client {
  readonly personId: string;
  /** Of no other site. */
  readonly onlyHere: boolean;
}

/** What tells whose a site is, now and before. */
export interface Names {
  readonly clients: readonly Client[];
  /** Addresses of people who are of this site alone. */
  readonly emails: readonly string[];
  /** To be struck out wherever they stand. */
  readonly struck: readonly string[];
}

/** Finds all by which somebody would be known: names, addresses, numbers, and what was written freely of them. */
@Injectable()
export class NamesOfSite {
  constructor(
    private readonly records: Records,
    private readonly work: Work,
  ) {}

  /** @param rows ids of the site's rows by table */
  async of(site: Site, rows: ReadonlyMap<string, readonly string[]>): Promise<Names> {
    const clients = await this.#clients(site.id);
    const leaving = clients.filter(({ onlyHere }) => onlyHere).map(({ personId }) => personId);
    const people = await this.records.ask<{ readonly name: string; readonly email: string }>(
      `SELECT p."name", p."email" FROM person p WHERE $1::uuid IS NOT NULL AND p."id" = ANY($2)`,
      [leaving],
    );
    const asked = await this.#asked(site.id);
    const emails = [...new Set([...people.map(({ email }) => email), ...asked])];
    const struck = [
      ...(await this.#formerly(site)).flatMap(namesOf),
      ...people.flatMap(({ name }) => namesIn(name)),
      ...emails,
      ...(await this.#written(rows)),
      ...(await this.#marks(rows)),
    ];
    return { clients, emails, struck: [...new Set(struck)].filter((one) => one.trim().length > 2) };
  }

  async #clients(siteId: string): Promise<Client[]> {
    const found = await this.records.scoped((manager) =>
      manager
        .createQueryBuilder(Membership, 'member')
        .where({ practiceId: this.work.practiceId, role: 'client' })
        .andWhere('member."siteIds" @> :site::jsonb', { site: JSON.stringify([siteId]) })
        .withDeleted()
        .getMany(),
    );
    return found.map(({ personId, siteIds }) => ({ personId, onlyHere: siteIds.every((one) => one === siteId) }));
  }

  /** Addresses that were asked in for this site and no other. */
  async #asked(siteId: string): Promise<string[]> {
    const found = await this.records.of(Invitation).findEver({ role: 'client' });
    return found
      .filter(({ siteIds }) => siteIds.length > 0 && siteIds.every((one) => one === siteId))
      .map(({ email }) => email);
  }

  /** The site as it is, and as the record of changes knows it from before. */
  async #formerly(site: Site): Promise<ReadonlyArray<Partial<Site>>> {
    const changes = await this.records.scoped((manager) =>
      manager.find(AuditEntry, { where: { practiceId: this.work.practiceId, kind: 'site', recordId: site.id } }),
    );
    return [
      site,
      ...changes.flatMap(({ before, after, recordName }) => [{ name: recordName }, before ?? {}, after ?? {}]),
    ];
  }

  /** What was written freely in the site's rows: it goes there, and out of every copy. */
  async #written(rows: ReadonlyMap<string, readonly string[]>): Promise<string[]> {
    const found: string[] = [];
    for (const [table, ids] of rows) {
      const { emptied = {}, written = [] } = erasedColumns[table] ?? {};
      const texts = await this.#columns(table, Object.keys(emptied), 'text');
      for (const column of texts)
        for (const { said } of await this.records.ask<{ readonly said: string }>(
          `SELECT DISTINCT "${column}" AS said FROM "${table}" WHERE "practiceId" = $1 AND "id" = ANY($2)
           AND length("${column}") BETWEEN ${COPIED.least} AND ${COPIED.most} AND "${column}" LIKE '% %'`,
          [ids],
        ))
          found.push(said);
      for (const column of written)
        for (const { said } of await this.records.ask<{ readonly said: unknown }>(
          `SELECT "${column}" AS said FROM "${table}" WHERE "practiceId" = $1 AND "id" = ANY($2) AND "${column}" IS NOT NULL`,
          [ids],
        ))
          found.push(...freeWords(said).filter((one) => one.length >= COPIED.least && one.includes(' ')));
    }
    return found;
  }

  /** Labels, numbers and names of files, which say whose it is to whoever knows the bags, the laboratory or the folder. */
  async #marks(rows: ReadonlyMap<string, readonly string[]>): Promise<string[]> {
    const of = (table: string): readonly string[] => rows.get(table) ?? [];
    const found = await this.records.ask<{ readonly label: string | null; readonly mark: string | null }>(
      `SELECT "label", NULL AS mark FROM zone WHERE "practiceId" = $1 AND "id" = ANY($2)
       UNION SELECT "label", NULL FROM sample WHERE "practiceId" = $1 AND "id" = ANY($3)
       UNION SELECT NULL, unnest(ARRAY["labNumber", nullif("origin", 'typed')]) FROM lab_result WHERE "practiceId" = $1 AND "id" = ANY($4)
       UNION SELECT NULL, unnest(ARRAY["labNumber", "parcel"]) FROM bag WHERE "practiceId" = $1 AND "id" = ANY($5)
       UNION SELECT NULL, "fileName" FROM lab_report WHERE "practiceId" = $1 AND "id" = ANY($6)`,
      [of('zone'), of('sample'), of('lab_result'), of('bag'), of('lab_report')],
    );
    return found.flatMap(({ label, mark }) => [
      ...(label && LABEL.test(label) ? [label] : []),
      ...(mark && mark.length > 3 ? [mark] : []),
    ]);
  }

  async #columns(table: string, among: readonly string[], type: string): Promise<string[]> {
    const found = await this.records.ask<{ readonly name: string }>(
      `SELECT column_name AS name FROM information_schema.columns WHERE $1::uuid IS NOT NULL
       AND table_schema = 'public' AND table_name = $2 AND column_name = ANY($3) AND data_type = $4`,
      [table, among, type],
    );
    return found.map(({ name }) => name);
  }
}

/** By what a site is known, as it is told in one place. */
function namesOf({ name, place, contacts, access }: Partial<Site>): string[] {
  const ways = accessKeys.flatMap((key) => access?.[key]?.split('\n') ?? []);
  const notes = (contacts ?? []).flatMap(({ note }) => note ?? []);
  return [
    ...namesIn(name ?? ''),
    ...(place?.split(/[,\n]/u) ?? []),
    ...(contacts ?? []).flatMap((one) => [...namesIn(one.name), one.phone ?? '', one.email ?? '']),
    // One word alone, such as “Tap”, tells of nobody.
    ...[...ways, ...notes].filter((one) => /\S\s+\S|\d/u.test(one)),
  ].map((one) => one.trim());
}
