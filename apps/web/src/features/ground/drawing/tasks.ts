import { type FeatureKind, type DrawnGeometry, exclusionKinds, lineKinds, pointKinds } from '@glenfold/agronomy';

/** What the pen is up to. */
export type Task =
  | { readonly do: 'choose' | 'edit' | 'split' | 'cut' | 'strip' | 'join' | 'outline' }
  | { readonly do: 'draw'; readonly kind: FeatureKind | 'zone' }
  /** Point at a place for somebody beside the plan. */
  | { readonly do: 'mark'; readonly words: string };

/** What has to be answered before a stroke is made. */
export type Question =
  | { readonly ask: 'new zone'; readonly geometry: DrawnGeometry }
  | { readonly ask: 'shape' }
  | { readonly ask: 'spot height'; readonly geometry: DrawnGeometry }
  | { readonly ask: 'tree'; readonly geometry: DrawnGeometry }
  | { readonly ask: 'strip width'; readonly edge: DrawnGeometry }
  | { readonly ask: 'canopy ring' }
  | {
      readonly ask: 'parted';
      readonly title: string;
      readonly suggestion: string;
      readonly rest: DrawnGeometry;
      readonly part: DrawnGeometry;
    }
  | { readonly ask: 'join'; readonly other: string };

export const drawGroups: ReadonlyArray<readonly [title: string, kinds: readonly FeatureKind[]]> = [
  ['Not treated', exclusionKinds],
  ['Lines', lineKinds],
  ['Points', pointKinds],
];

/** Where a task leaves the hand: what to do next, in words. */
export function instructionOf(task: Task, chosen: string | undefined): string {
  const polygon = 'Click its corners; double-click or press Enter to close it.';
  switch (task.do) {
    case 'choose':
      return chosen
        ? `${chosen} is chosen.`
        : 'Click a zone or a thing to choose it. Drag to move the sheet, scroll to zoom.';
    case 'edit':
      return 'Drag a corner, or drag a side to make a new one. Alt-click takes a corner out.';
    case 'split':
      return `Draw a line right across ${chosen}: start and end outside it, double-click to end.`;
    case 'cut':
      return `Draw what ${chosen} is to lose. ${polygon}`;
    case 'strip':
      return 'Follow the edge from one end to the other; double-click to end. Then give the width.';
    case 'join':
      return `Click the zone that joins ${chosen}.`;
    case 'outline':
      return `Draw the outline of ${chosen}. ${polygon}`;
    case 'mark':
      return task.words;
    case 'draw':
      if (task.kind === 'zone') return `Draw the zone. ${polygon}`;
      if ((pointKinds as readonly string[]).includes(task.kind)) return `Click where the ${task.kind} is.`;
      if ((lineKinds as readonly string[]).includes(task.kind)) return `Draw the ${task.kind}; double-click to end.`;
      return `Draw the ${task.kind}; it may reach over a border. ${polygon}`;
  }
}
