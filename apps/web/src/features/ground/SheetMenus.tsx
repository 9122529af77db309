import type { DrawnGeometry } from '@glenfold/agronomy';
import { Plane, type Position } from '@glenfold/agronomy/geometry';
import type { DrawingAnswer, SiteAnswer, ZoneAnswer } from '@glenfold/contract';
import { Divider } from '@mui/material';
import { useMemo, useRef, useState } from 'react';
import { Trouble } from '../../ui/bits.tsx';
import { useMay, useSession } from '../../ui/session.tsx';
import { useUndo } from '../../ui/undo.tsx';
import { useUnits } from '../../ui/units.tsx';
import { ImportDialog } from './files/ImportDialog.tsx';
import { download } from '../../ui/download.ts';
import { type Format, formats, writePlan } from './files/writeFile.ts';
import { pictureOf } from './files/sheetPicture.ts';
import { shrink } from '../../ui/shrink.ts';
import type { Pen } from './drawing/DrawingEditor.tsx';
import { ToolMenu } from './drawing/DrawingTools.tsx';
import { type Laying, UnderlayDialog } from './underlay/UnderlayDialog.tsx';
import { BoundaryDialog } from './boundary/BoundaryDialog.tsx';

/** What the plan shows beside its zones. */
export interface SheetView {
  readonly tiles: boolean;
  readonly sections: boolean;
}

interface SheetMenusProps {
  readonly site: SiteAnswer;
  readonly plan: DrawingAnswer;
  readonly zone: ZoneAnswer | undefined;
  readonly pen: Pen | null;
  readonly view: SheetView;
  readonly onView: (view: SheetView) => void;
}

/** Long side of an image that is laid under, pixels. */
const LONGEST = 3600;

/** A place of the site, when anything is drawn. */
function placeOf({ zones, features }: DrawingAnswer): Position | null {
  const geometry = [...zones, ...features].find((entry) => entry.geometry)?.geometry;
  const [longitude, latitude] = geometry?.coordinates.flat(3) ?? [];
  return longitude === undefined || latitude === undefined ? null : [longitude, latitude];
}

/** Menus of the whole sheet: files in and out, what lies under it, and a boundary that is walked. */
export function SheetMenus({ site, plan, zone, pen, view, onView }: SheetMenusProps) {
  const { system } = useUnits();
  const { tiles } = useSession();
  const may = useMay();
  const { remove } = useUndo();
  const [open, setOpen] = useState<'import' | 'walk' | null>(null);
  const [laying, setLaying] = useState<Laying | null>(null);
  const [pointing, setPointing] = useState(false);
  const [trouble, setTrouble] = useState<Error | null>(null);
  const chooser = useRef<HTMLInputElement>(null);
  const near = useMemo((): Position | null => {
    const drawn = placeOf(plan);
    const [longitude, latitude] = site.position ?? [];
    if (drawn) return drawn;
    return longitude === undefined || latitude === undefined ? null : [longitude, latitude];
  }, [plan, site.position]);
  const plane = useMemo(() => new Plane(near ?? [0, 0]), [near]);
  const { underlay } = plan;
  const mayDraw = may('work.write');
  const fileName = (ending: string): string => `${site.name.replace(/[^\w -]/g, '')} plan.${ending}`;
  const save = (format: Format): void =>
    download(fileName(format), writePlan(plan, format, system), formats[format].type);
  const tried = async (work: () => Promise<void>): Promise<void> => {
    setTrouble(null);
    try {
      await work();
    } catch (error) {
      setTrouble(error as Error);
    }
  };
  const savePicture = (): Promise<void> =>
    tried(async () => {
      const answer = await fetch(`/api/sites/${site.id}/drawing.svg?units=${system}`);
      if (!answer.ok) throw new Error('The server gives no plan just now. Try again.');
      download(fileName('png'), await pictureOf(await answer.text()), 'image/png');
    });
  const layNew = (file: File): Promise<void> =>
    tried(async () => {
      const picture = await shrink(file, LONGEST, 0.85);
      const { width, height, type, image } = picture;
      const address = `data:${type};base64,${image}`;
      setLaying({
        siteId: site.id,
        name: file.name,
        width,
        height,
        address,
        picture,
        lying: null,
        matches: [],
        opacity: 0.7,
      });
    });
  const layAgain = (): void => {
    if (!underlay) return;
    const { name, width, height, address, opacity } = underlay;
    const matches = underlay.matches.map(({ right, down, place: [longitude = 0, latitude = 0] }) => ({
      right,
      down,
      place: [longitude, latitude] as const,
    }));
    setLaying({ siteId: site.id, name, width, height, address, picture: null, lying: underlay, matches, opacity });
  };
  return (
    <>
      <ToolMenu label="File">
        {(item) => [
          item('Plan on paper (PDF)', () =>
            window.open(`/api/sites/${site.id}/drawing.pdf?units=${system}`, '_blank', 'noopener'),
          ),
          item('Plan as a picture (PNG)', () => void savePicture()),
          <Divider key="formats" />,
          ...(Object.keys(formats) as Format[]).map((format) => item(formats[format].label, () => save(format))),
          ...(mayDraw ? [<Divider key="in" />, item('Bring in a file…', () => setOpen('import'))] : []),
        ]}
      </ToolMenu>
      <ToolMenu label="Sheet">
        {(item) => [
          item(view.sections ? 'Zones by their hatching' : 'Zones by section', () =>
            onView({ ...view, sections: !view.sections }),
          ),
          ...(tiles
            ? [
                item(view.tiles ? 'Without map tiles' : 'Map tiles under the plan', () =>
                  onView({ ...view, tiles: !view.tiles }),
                ),
              ]
            : []),
          ...(mayDraw
            ? [
                <Divider key="image" />,
                item(underlay ? 'Another image under the plan…' : 'An image under the plan…', () =>
                  chooser.current?.click(),
                ),
                ...(underlay
                  ? [
                      item('Where the image lies…', layAgain),
                      item('Take the image away', () => remove(`/underlays/${underlay.id}`, 'The image')),
                    ]
                  : []),
                <Divider key="walk" />,
                item('Walk a boundary…', () => setOpen('walk')),
              ]
            : []),
        ]}
      </ToolMenu>
      <input
        ref={chooser}
        type="file"
        accept="image/*"
        hidden
        aria-label="Image to lay under the plan"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) void layNew(file);
          event.target.value = '';
        }}
      />
      <Trouble error={trouble} />
      {open === 'import' && (
        <ImportDialog
          plan={plan}
          near={near}
          onClose={() => setOpen(null)}
          onImport={async (stroke) => {
            await pen?.make(stroke);
            pen?.show();
          }}
        />
      )}
      {open === 'walk' && (
        <BoundaryDialog
          zone={zone}
          site={near ?? [0, 0]}
          onClose={() => setOpen(null)}
          onNewZone={(outline) => {
            setOpen(null);
            pen?.newZone(outline as DrawnGeometry);
          }}
          onOutline={(of, outline) => {
            setOpen(null);
            const to = outline as NonNullable<ZoneAnswer['geometry']>;
            void pen
              ?.make({ name: `Walk ${of.name}`, redrawn: [{ id: of.id, from: of.geometry, to, typedArea: of.area }] })
              .then(() => pen.show());
          }}
        />
      )}
      {laying && !pointing && (
        <UnderlayDialog
          laying={laying}
          plane={plane}
          onChange={setLaying}
          onClose={() => setLaying(null)}
          onPoint={(index) => {
            setPointing(true);
            pen?.mark('Click the place on the plan that matches the point on the image.', (at) => {
              setPointing(false);
              setLaying({
                ...laying,
                matches: laying.matches.map((match, place) => (place === index ? { ...match, place: at } : match)),
              });
            });
          }}
        />
      )}
    </>
  );
}
