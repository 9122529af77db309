/** What becomes of the words of a table with rows of a site, once its client is erased. Numbers, days and ids stay. */
export interface ErasedTable {
  /** Columns that are emptied, each with what stands there instead, as SQL. */
  readonly emptied?: Readonly<Record<string, string>>;
  /** Text or JSON of ours, or in the words of the trade: names are struck out of it. */
  readonly told?: readonly string[];
  /** JSON that somebody filled in: what they wrote freely goes, names are struck out of the rest, places in it are moved. */
  readonly written?: readonly string[];
  /** Places and outlines, moved with the whole drawing. */
  readonly moved?: readonly string[];
  /** Words from lists, figures in JSON, and codes: of the ground, of nobody. */
  readonly stays?: readonly string[];
}

const NONE = 'NULL';
const NOW = 'now()';
const EMPTY = `''`;

/**
 * Every table of a site, and every column of it that can hold words: a test compares it with the database, so that none is
 * forgotten. Two tables are the database's own business, since nobody may rewrite them: `entry` and `audit`.
 */
export const erasedColumns: Readonly<Record<string, ErasedTable>> = {
  site: {
    emptied: {
      place: NONE,
      contacts: NONE,
      access: NONE,
      normals: `CASE WHEN "normals" IS NOT NULL THEN jsonb_set("normals", '{source}', '"a station near by"') END`,
    },
    // Its name and position are set by the erasure itself.
    stays: ['name', 'position', 'timeZone', 'climate'],
  },
  zone: {
    emptied: {
      name: `'Zone ' || "position"`,
      // Of zones that were deleted there may be two of one position.
      label: `'Z' || "position" || CASE WHEN "deletedAt" IS NULL THEN '' ELSE '-' || left("id"::text, 4) END`,
      aimReason: NONE,
      properties: NONE,
    },
    written: ['facts'],
    moved: ['geometry'],
    stays: ['grass', 'surface', 'intensity', 'shade', 'clippings', 'soilGroup', 'taped'],
  },
  ground_feature: { emptied: { name: NONE, properties: NONE }, moved: ['geometry'], stays: ['kind'] },
  underlay: {
    emptied: { name: `'erased'`, matches: `'[]'`, image: EMPTY, deletedAt: NOW },
    stays: ['type'],
  },
  zone_photo: {
    emptied: { caption: NONE, digest: NONE, thumb: NONE, image: NONE, deletedAt: NOW },
    stays: ['type', 'takenOn'],
  },
  bag: {
    emptied: { note: NONE, parcel: NONE, labNumber: NONE },
    stays: ['code', 'zoneIds', 'purpose', 'panels', 'design', 'state', 'laboratory', 'grassWanted'],
  },
  bag_custody: { emptied: { note: NONE }, stays: ['state', 'by'] },
  core: { emptied: { note: NONE }, moved: ['place'], stays: ['state', 'moisture', 'reason', 'by'] },
  core_tap: { emptied: { tap: `'{}'` }, stays: ['by', 'outcome'] },
  sample: { emptied: { label: `'S-' || left("id"::text, 8)` }, stays: ['of'] },
  sample_zone: {},
  lab_report: {
    emptied: {
      ...{ fileName: `'erased'`, content: EMPTY, original: NONE, mediaType: NONE, readAs: NONE, choices: NONE },
      ...{ found: NONE, imported: `'{}'`, deletedAt: NOW },
    },
    stays: ['extractant', 'bufferMethod', 'dateOrder'],
  },
  lab_result: {
    emptied: {
      ...{ labNumber: NONE, beside: NONE, advice: NONE },
      advised: `(SELECT coalesce(jsonb_agg(one - 'words' - 'product' - 'target'), '[]') FROM jsonb_array_elements("advised") AS one)`,
      origin: `CASE WHEN "origin" = 'typed' THEN 'typed' ELSE 'a file that was erased' END`,
    },
    stays: ['extractant'],
  },
  lab_question: {
    emptied: { question: EMPTY, answer: NONE, askedOf: NONE, answeredBy: NONE, deletedAt: NOW },
    stays: ['laboratory', 'askedBy'],
  },
  field_test: { written: ['record'], moved: ['place'], stays: ['kind', 'doneBy'] },
  load_check: {
    emptied: { name: `'Load'`, reason: NONE, record: `"record" - 'words' - 'source'` },
    stays: ['kind', 'decided', 'by'],
  },
  measurement: {
    emptied: { source: NONE },
    moved: ['place'],
    stays: ['analyte', 'method', 'unit', 'basis', 'qualifier'],
  },
  setting: { told: ['name'], written: ['value'], stays: ['kind'] },
  program: { emptied: { price: 'NULL' }, stays: ['state', 'units'] },
  program_zone: {
    emptied: {
      issued: `"issued" || (
        SELECT jsonb_build_object('siteName', s."name", 'zoneName', 'Zone ' || z."position", 'zoneLabel', 'Z' || z."position")
        FROM zone z JOIN site s ON s."id" = z."siteId" WHERE z."id" = "zoneId")`,
      // Sums of what is emptied elsewhere would tell everything as changed.
      decided: 'NULL',
    },
    told: ['issued'],
  },
  treatment: { written: ['override'], stays: ['key', 'remedy', 'unit'] },
  dose: {},
  quote: {
    emptied: {
      ...{ note: NONE, answerWords: NONE },
      answeredBy: `CASE WHEN "answeredBy" IS NOT NULL THEN 'The owner' END`,
      state: `CASE WHEN "state" = 'open' THEN 'withdrawn' ELSE "state" END`,
    },
    stays: ['units', 'currency'],
  },
  quote_line: {
    emptied: { zone: `(SELECT 'Zone ' || z."position" FROM zone z WHERE z."id" = "zoneId")` },
    told: ['name', 'words', 'amount', 'doneIn', 'caution'],
    stays: ['key', 'remedy', 'answer'],
  },
  owner_report: {
    emptied: { letter: NONE, made: NONE, state: `'superseded'`, deletedAt: NOW },
    stays: ['units'],
  },
  job: {
    emptied: {
      ...{ words: `'[]'`, movedBecause: NONE },
      hold: `CASE WHEN "hold" IS NOT NULL THEN jsonb_build_object('reason', 'a reason that was erased', 'words', NULL, 'since', "hold" -> 'since', 'by', NULL) END`,
    },
    told: ['name', 'dose', 'cautions', 'mixed', 'was'],
    stays: ['key', 'remedy', 'sense', 'unit', 'state', 'part'],
  },
  prediction: { told: ['retestWords'], stays: ['days'] },
  message: { emptied: { author: `'…'`, words: `'erased'` }, stays: ['side'] },
  site_date: { emptied: { name: `'A date'` }, stays: ['kind'] },
  share_link: {
    emptied: { purpose: `'erased'`, expiresAt: `least("expiresAt", now())`, deletedAt: NOW },
    stays: ['madeBy', 'tokenHash'],
  },
  standin_sample: {
    emptied: { siteName: `'erased'` },
    // Of a bag that is on its way still; with its code and figures.
    stays: ['laboratory', 'report', 'fault', 'soils', 'printed', 'printedFirst', 'printedTwice'],
  },
};

/** Tables whose rows of a site nobody may change: the database erases there by itself. */
export const erasedByDatabase: ReadonlySet<string> = new Set(['entry', 'audit']);
