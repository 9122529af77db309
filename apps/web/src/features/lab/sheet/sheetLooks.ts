import { colours } from '../../../ui/theme.ts';

/** The grid in the colours of the house. */
export const sheetLooks = {
  '& .lab-sheet': {
    '--dsg-border-color': colours.faded,
    '--dsg-selection-border-color': colours.slate,
    '--dsg-selection-background-color': `${colours.slate}14`,
    '--dsg-selection-border-width': '2px',
    '--dsg-selection-border-radius': '0px',
    '--dsg-header-text-color': colours.faded,
    '--dsg-header-active-text-color': colours.ink,
    '--dsg-cell-background-color': colours.sheet,
    '--dsg-cell-disabled-background-color': colours.paper,
    fontSize: '1rem',
  },
  // What is typed in a cell lays out nothing but that cell.
  '& .lab-sheet, & .dsg-row': { contain: 'layout style' },
  '& .dsg-cell-header': { alignItems: 'end', padding: '4px 6px', fontSize: '0.88rem', background: colours.paper },
  '& .dsg-cell-header-container': { width: '100%', whiteSpace: 'normal', lineHeight: 1.15 },
  '& .sheet-cell': {
    font: 'inherit',
    width: '100%',
    height: '100%',
    border: 0,
    outline: 'none',
    background: 'none',
    padding: '0 8px',
    color: colours.ink,
  },
  '& .sheet-cell.wrong': { background: colours.ochreWash, boxShadow: `inset 0 0 0 2px ${colours.ochre}` },
  '& .dsg-cell-gutter': { padding: 0, textAlign: 'left' },
  '& .dsg-cell-header.dsg-cell-gutter': { padding: '4px 3px' },
  '& .sheet-zone': {
    padding: '2px 8px',
    alignSelf: 'stretch',
    lineHeight: 1.15,
    borderLeft: '4px solid transparent',
    width: '100%',
  },
  '& .sheet-zone.chosen': { borderLeftColor: colours.ink },
  '& .sheet-zone span': { display: 'block', color: colours.faded, fontSize: '0.88rem' },
} as const;
