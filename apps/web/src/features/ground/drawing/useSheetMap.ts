import type { DrawingAnswer, TilesAnswer } from '@glenfold/contract';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useUnits } from '../../../ui/units.tsx';
import { originOf } from './sheetGeometry.ts';
import { SheetMap, type SheetItem, type SheetMark, type ZoneDress } from './sheetMap.ts';

interface Shown {
  readonly plan: DrawingAnswer;
  readonly chosen: SheetItem | null;
  readonly dress: ReadonlyMap<string, ZoneDress> | null;
  readonly marks: readonly SheetMark[];
  readonly tiles: TilesAnswer | null;
  /** Where the site lies. */
  readonly position: readonly number[] | null | undefined;
}

/** The map that shows a plan, and the ref that puts it on its paper. */
export function useSheetMap({ plan, chosen, dress, marks, tiles, position }: Shown) {
  const { system } = useUnits();
  const [map, setMap] = useState<SheetMap | null>(null);
  const [origin] = useState(() => originOf(plan, position));
  const attach = useCallback(
    (paper: HTMLElement) => {
      const made = new SheetMap(paper, origin);
      setMap(made);
      return () => {
        made.destroy();
        setMap(null);
      };
    },
    [origin],
  );
  useEffect(() => map?.setUnits(system), [map, system]);
  const fitted = useRef<SheetMap | null>(null);
  useEffect(() => {
    map?.show(plan);
    if (map && fitted.current !== map) map.fit();
    fitted.current = map;
  }, [map, plan]);
  useEffect(() => map?.choose(chosen), [map, chosen]);
  useEffect(() => map?.dress(dress), [map, dress]);
  useEffect(() => map?.showMarks(marks), [map, marks]);
  useEffect(() => map?.setTiles(tiles), [map, tiles]);
  const { underlay } = plan;
  useEffect(() => map?.setUnderlay(underlay), [map, underlay]);
  return { map, attach };
}
