/** What may stand in an element: its children in the order of its schema. `*` may stand often, `a|b` is a choice. */
type Sequence = string;

interface Schema {
  readonly elements: Readonly<Record<string, Sequence>>;
  readonly attributes: Readonly<Record<string, Readonly<Record<string, RegExp>>>>;
  readonly texts: Readonly<Record<string, RegExp>>;
}

const degrees = (most: number): RegExp =>
  most === 90 ? /^-?(90|[1-8]?\d)(\.\d+)?$/ : /^-?(180|1[0-7]\d|\d?\d)(\.\d+)?$/;
const waypoint =
  'ele time magvar geoidheight name cmt desc src link* sym type fix sat hdop vdop pdop ageofdgpsdata dgpsid extensions';
const place = { lat: degrees(90), lon: degrees(180) };

/** GPX 1.1 (topografix.com/GPX/1/1/gpx.xsd), as far as plans and walks go. */
export const gpx11: Schema = {
  elements: {
    gpx: 'metadata wpt* rte* trk* extensions',
    metadata: 'name desc author copyright link* time keywords bounds extensions',
    wpt: waypoint,
    rte: 'name cmt desc src link* number type extensions rtept*',
    rtept: waypoint,
    trk: 'name cmt desc src link* number type extensions trkseg*',
    trkseg: 'trkpt* extensions',
    trkpt: waypoint,
  },
  attributes: { gpx: { version: /^1\.1$/, creator: /./ }, wpt: place, rtept: place, trkpt: place },
  texts: { ele: /^-?\d+(\.\d+)?$/, time: /^\d{4}-\d\d-\d\dT/ },
};

const feature =
  'name visibility open author link address phoneNumber Snippet description LookAt|Camera TimeStamp|TimeSpan styleUrl Style|StyleMap Region ExtendedData';
const geometry = 'Point|LineString|LinearRing|Polygon|MultiGeometry';
const places = 'extrude tessellate altitudeMode coordinates';
const tuples = /^\s*-?\d+(\.\d+)?,-?\d+(\.\d+)?(,-?\d+(\.\d+)?)?(\s+-?\d+(\.\d+)?,-?\d+(\.\d+)?(,-?\d+(\.\d+)?)?)*\s*$/;

/** OGC KML 2.2 (OGC 07-147r2), as far as plans go. */
export const kml22: Schema = {
  elements: {
    kml: 'Document|Folder|Placemark',
    Document: `${feature} Schema* Document|Folder|Placemark*`,
    Folder: `${feature} Document|Folder|Placemark*`,
    Placemark: `${feature} ${geometry}`,
    ExtendedData: 'Data* SchemaData*',
    Data: 'displayName value',
    MultiGeometry: `${geometry}*`,
    Polygon: 'extrude tessellate altitudeMode outerBoundaryIs innerBoundaryIs*',
    outerBoundaryIs: 'LinearRing',
    innerBoundaryIs: 'LinearRing',
    LinearRing: places,
    LineString: places,
    Point: places,
  },
  attributes: { Data: { name: /./ } },
  texts: { coordinates: tuples },
};

/** What of an XML text is not as its schema has it, a sentence each. */
export function complaints(text: string, { elements, attributes, texts }: Schema): string[] {
  const document = new DOMParser().parseFromString(text, 'text/xml');
  const found: string[] = [];
  for (const element of document.querySelectorAll('*')) {
    const { localName: name } = element;
    for (const [key, pattern] of Object.entries(attributes[name] ?? {}))
      if (!pattern.test(element.getAttribute(key) ?? '')) found.push(`${name} has ${key}="${element.getAttribute(key)}"`);
    const said = texts[name];
    if (said && !said.test(element.textContent)) found.push(`${name} says "${element.textContent.slice(0, 40)}"`);
    const sequence = elements[name]?.split(' ').map((part) => ({ often: part.endsWith('*'), names: part.replace('*', '').split('|') }));
    if (!sequence) {
      if (element.children.length > 0) found.push(`${name} has children that nobody knows`);
      continue;
    }
    let at = 0;
    let taken = 0;
    for (const { localName: child } of element.children) {
      let next = sequence.findIndex(({ names }, index) => index >= at && names.includes(child));
      if (next === at && taken > 0 && !sequence[at]!.often) next = -1;
      if (next < 0) {
        found.push(`${child} stands in ${name} where it may not`);
        break;
      }
      taken = next === at ? taken + 1 : 1;
      at = next;
    }
  }
  return [...new Set(found)];
} // prettier-ignore
