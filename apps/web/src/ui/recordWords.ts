import {
  type BufferMethod,
  type Extractant,
  type ReportedValue,
  type Sense,
  type Analyte,
  type AnalysisKey,
  analysisEntries,
  analytes,
  basisName,
  isAnalyte,
  plainLabel,
  bufferNames,
  extractantNames,
} from '@glenfold/agronomy';
import { type AccessKey, accessWords } from '@glenfold/contract';
import { localTime } from './today.ts';

/** What the fields of records are called, wherever a record is shown field by field. */
const names: Readonly<Record<string, string>> = {
  aimPh: 'pH aim',
  aimReason: 'Why this aim',
  found: 'Table in the file',
  limeFactor: 'Lime factor',
  parcelId: 'Parcel',
  state: 'State',
  applications: 'Put down before',
  aspect: 'Falls toward',
  bagMass: 'Bag',
  bagPrice: 'Price of a bag',
  packSize: 'Pack holds',
  packUnit: 'Pack in',
  packPrice: 'Price of a pack',
  stock: 'In stock',
  pricedOn: 'Day of the price',
  deliveryPrice: 'Delivery of a load',
  loadSize: 'What a load brings',
  analysis: 'Analysis',
  nitrogenSource: 'Nitrogen as',
  seeds: 'Species',
  natural: 'Natural',
  dolomitic: 'Dolomitic',
  caustic: 'Caustic',
  width: 'Covers in one pass',
  holds: 'Hopper or tank',
  hireDay: 'Hire of a day',
  hiredFrom: 'Hired from',
  settings: 'Settings by product',
  timeZone: 'Time zone',
  contacts: 'People',
  access: 'Getting in',
  advice: 'The laboratory’s own advice',
  advised: 'Its advice in amounts',
  askedOf: 'Put to',
  askedOn: 'Asked on',
  askedBy: 'Asked by',
  question: 'Question',
  answer: 'Answer',
  answeredBy: 'Answered by',
  answeredOn: 'Answered on',
  laboratory: 'Laboratory',
  closed: 'Done',
  decided: 'Decided',
  record: 'As it was read',
  revision: 'Revision',
  doneBy: 'Done by',
  digest: 'Picture',
  thumb: 'Small picture',
  original: 'The file as it came',
  readAs: 'Read as',
  profileId: 'Laboratory’s way',
  dateOrder: 'Order of dates',
  mediaType: 'Kind of file',
  fieldTestId: 'Test of our own',
  units: 'Units',
  value: 'Decided',
  override: 'Decided by hand',
  material: 'Product',
  remedy: 'What',
  months: 'Months',
  reason: 'Why',
  out: 'Left out',
  added: 'Added by hand',
  startsOn: 'Begins on',
  handedOverAt: 'Handed over',
  kind: 'Kind',
  correct: 'When to correct',
  limeDepth: 'Lime reckoned for',
  leaveAloneFrom: 'Left alone from',
  leaveAloneTo: 'Left alone to',
  neutralBelow: 'Limed below',
  tables: 'Tables',
  waterStrip: 'Strip by water',
  shortage: 'What counts as a shortage',
  establishing: 'A new lawn without a shortage',
  proofYears: 'Years a proof is good for',
  proof: 'Proof to keep',
  off: 'Schools not shown',
  cores: 'Cores',
  nitrogenYear: 'N a year',
  nitrogenPass: 'N in one pass',
  prices: 'Prices',
  pEstablishing: 'P₂O₅ while establishing',
  p: 'P₂O₅',
  k: 'K₂O',
  bufferMethod: 'Buffer method',
  bufferPh: 'Buffer pH',
  choices: 'Products chosen',
  columns: 'Columns',
  content: 'File',
  demo: 'Demo',
  depth: 'Sampled depth',
  drySpell: 'Dry spell',
  drySpellOn: 'Dry spell of',
  email: 'E-mail',
  expiresAt: 'Open until',
  extractant: 'Extractant',
  fileName: 'File name',
  frostPocket: 'Frost pocket',
  geometry: 'Outline',
  grade: 'Grade',
  imported: 'Rows imported',
  invitedBy: 'Invited by',
  issued: 'Plan on paper',
  issuedAt: 'Handed over',
  irrigation: 'Watered by',
  layers: 'Laid over the soil',
  labNumber: 'Laboratory’s number',
  labResultId: 'Result',
  madeBy: 'Made by',
  organicMatter: 'Organic matter',
  personId: 'Person',
  probeStop: 'Probe stops at',
  position: 'Place in the list',
  rootDepth: 'Roots to',
  rows: 'Rows',
  sampledOn: 'Sampled on',
  sampleId: 'Bag',
  seaside: 'Sea wind',
  section: 'Section',
  sectionReason: 'Why this section',
  signs: 'Signs of trouble',
  siteId: 'Site',
  siteIds: 'Sites they read',
  resetAskedAt: 'A password link was sent',
  slowRelease: 'Slow release',
  soilGroup: 'Soil',
  sunHours: 'Direct sun',
  taped: 'Taped lengths',
  soilPh: 'Soil pH',
  use: 'Used for',
  usedAt: 'Taken up',
  bagId: 'Bag',
  beside: 'The report also said',
  byId: 'Person',
  clear: 'Off buried lines',
  coreId: 'Core',
  design: 'Places',
  edge: 'Off the edges',
  grassWanted: 'To grow there',
  insteadOf: 'In place of',
  parcel: 'Parcel',
  place: 'Place',
  plannedFor: 'Planned for',
  probe: 'Probe, inside',
  pushed: 'Pushed to',
  recovered: 'Core came up',
  seed: 'Places by number',
  since: 'There since',
  tap: 'As the device sent it',
  turn: 'In the walk',
  values: 'Values',
  nutrients: 'Nutrients',
  scientist: 'Soil scientist',
  depths: 'Depths',
  volume: 'Fills its bag',
  fees: 'Fees',
  daysLeast: 'Days to the report, least',
  daysMost: 'Days to the report, most',
  partOf: 'Parted from',
  joinedInto: 'Joined to',
  analyte: 'What',
  takenOn: 'Measured on',
  qualifier: 'Told as',
  depthFrom: 'From a depth of',
  depthTo: 'To a depth of',
  supersedesId: 'In place of',
  resultId: 'Result',
  reportId: 'Laboratory’s file',
  readBy: 'Reader',
  of: 'Sample of',
  share: 'Share of the bag',
  zoneIds: 'Zones',
  zoneId: 'Zone',
  earliest: 'Not before',
  latest: 'Not after',
  hold: 'On hold',
  holdSince: 'On hold since',
  movedBecause: 'Day set all the same',
  machineId: 'With',
  jobId: 'Job',
  doseId: 'Dose',
  on: 'Day',
  quantity: 'Used',
  cce: 'Strength (CCE)',
  correctsId: 'In place of',
  entryId: 'Entry',
  retestOn: 'Retest',
  retestWords: 'Why then',
  madeOn: 'Foretold on',
  revokedAt: 'Taken back',
};

const senses: Readonly<Record<string, Sense>> = {
  area: 'area',
  bagMass: 'mass',
  bagPrice: 'money',
  packPrice: 'money',
  deliveryPrice: 'money',
  hireDay: 'money',
  width: 'length',
  weight: 'mass',
  waterStrip: 'length',
  limeOnce: 'limeRate',
  limeYear: 'limeRate',
  nitrogenPass: 'nutrientRate',
  solubleNitrogenPass: 'nutrientRate',
  nitrogenYear: 'nutrientRate',
  potashPass: 'nutrientRate',
  sulfurOnce: 'nutrientRate',
  depth: 'depth',
  elevation: 'length',
  edge: 'length',
  clear: 'length',
  probe: 'depth',
  probeStop: 'depth',
  pushed: 'depth',
  recovered: 'depth',
  rootDepth: 'depth',
  sunHours: 'hours',
  thatch: 'depth',
};

export function fieldName(field: string): string {
  if (field.startsWith('values.')) {
    const analyte = field.slice('values.'.length);
    return isAnalyte(analyte) ? analytes[analyte].name : (names[analyte] ?? plainLabel(analyte));
  }
  return names[field] ?? field.charAt(0).toUpperCase() + field.slice(1);
}

/** A moment, as the database writes it. */
const MOMENT = /^\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}/;

/** Ids that stand for something with a name. */
export type NamesById = ReadonlyMap<string, string>;

const counted = (count: number, word: string): string => `${count} ${word}${count === 1 ? '' : 's'}`;

/**
 * A field's value in words, in the person's units.
 * @param say as of useUnits
 */
export function fieldValue(
  field: string,
  value: unknown,
  say: (sense: Sense, value: number) => string,
  named: NamesById = new Map(),
): string {
  if (value === null || value === undefined || value === '') return 'none';
  const sense = senses[field];
  if (typeof value === 'number') {
    if (sense) return say(sense, value);
    return field.endsWith('Ph') ? value.toFixed(1) : `${value}${/organicMatter|slowRelease/.test(field) ? ' %' : ''}`;
  }
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') {
    if (field === 'extractant') return extractantNames[value as Extractant];
    if (field === 'bufferMethod') return bufferNames[value as BufferMethod];
    if (field === 'analyte') return isAnalyte(value) ? analytes[value].name : value;
    if (field === 'content') return `${value.length} characters`;
    if (MOMENT.test(value)) return localTime(value);
    return named.get(value) ?? (field.endsWith('Id') ? 'another record' : value);
  }
  if (Array.isArray(value)) return listed(field, value as unknown[], named);
  return structured(field, value as Record<string, unknown>, named);
}

/** A value of a decision, briefly. */
function plainly(value: unknown): string {
  if (Array.isArray(value))
    return value
      .map((one) => ((one as { name?: unknown }).name ? String((one as { name: unknown }).name) : plainly(one)))
      .join(', ');
  if (typeof value === 'object' && value !== null)
    return Object.values(value)
      .filter((one) => one !== null)
      .map(String)
      .join(' ');
  return String(value);
}

function listed(field: string, values: readonly unknown[], named: NamesById): string {
  if (field === 'siteIds')
    return values.length === 0 ? 'none' : values.map((id) => named.get(id as string) ?? 'a deleted site').join(', ');
  if (['contacts', 'targets', 'prices', 'tables', 'settings', 'seeds', 'blackouts'].includes(field))
    return values.length === 0 ? 'none' : values.map((one) => namedEntry(one, named)).join(', ');
  return counted(values.length, field === 'columns' ? 'column' : 'entry');
}

/** What an entry of a list is called. */
function namedEntry(entry: unknown, named: NamesById): string {
  const { name, grass, share, productId, setting, what, from } = entry as Readonly<Record<string, string | undefined>>;
  if (name) return name;
  if (grass) return `${share ?? ''} % ${grass}`;
  if (productId) return `${named.get(productId) ?? 'a product'} at ${setting ?? ''}`;
  return `${what ?? ''} from ${from ?? ''}`.trim();
}

/** "P₂O₅ 92 lb/acre", or the amount alone where its name stands beside. */
function valueWords(
  analyte: string,
  { value, unit, basis, belowDetection, rated }: ReportedValue,
  named: boolean,
): string {
  if (rated) return `${named ? `${basisName(analyte as Analyte, basis)} ` : ''}“${rated}”`;
  const name = named || basis === 'oxide' ? `${basisName(analyte as Analyte, basis)} ` : '';
  return `${name}${belowDetection ? '<' : ''}${value} ${unit === 'pH' ? '' : unit}`.trim();
}

function structured(field: string, value: Readonly<Record<string, unknown>>, named: NamesById): string {
  const entries = Object.entries(value);
  if (field.startsWith('values.'))
    return valueWords(field.slice('values.'.length), value as unknown as ReportedValue, false);
  switch (field) {
    case 'values':
    case 'nutrients':
      return (
        entries.map(([analyte, reported]) => valueWords(analyte, reported as ReportedValue, true)).join(', ') || 'none'
      );
    case 'analysis':
      return (
        entries
          .flatMap(([key, number]) =>
            typeof number === 'number' ? [`${analysisEntries[key as AnalysisKey].label} ${number}`] : [],
          )
          .join(', ') || 'none'
      );
    case 'access':
      return (
        entries
          .flatMap(([key, text]) =>
            typeof text === 'string' && text !== '' ? [`${accessWords[key as AccessKey]}: ${text}`] : [],
          )
          .join('; ') || 'none'
      );
    case 'p':
    case 'k':
    case 'pEstablishing':
      return entries.map(([rating, rate]) => `${rating} ${String(rate)} g/m²`).join(', ');
    case 'value':
    case 'override':
      return entries
        .flatMap(([key, inner]) =>
          inner === null || inner === undefined ? [] : [`${fieldName(key)} ${plainly(inner)}`],
        )
        .join('; ');
    case 'grade':
      return entries.map(([, percent]) => String(percent)).join('-');
    case 'geometry':
      return 'an outline';
    case 'issued':
      return 'as it was printed';
    case 'imported':
      return counted(entries.length, 'row');
    case 'choices':
    case 'lime':
      return (
        entries
          .map(([key, inner]) => `${key} ${named.get(String(inner)) ?? (field === 'lime' ? String(inner) : 'chosen')}`)
          .join(', ') || 'none'
      );
    default:
      return counted(entries.length, 'entry');
  }
}
