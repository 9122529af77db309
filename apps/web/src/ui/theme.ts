import { colours } from '@glenfold/contract';
import { createTheme } from '@mui/material/styles';

export { colours };

const heading = { fontFamily: 'Bitter, Georgia, serif', fontWeight: 700, lineHeight: 1.2 };

/** On a dark bar: what is lit up by the focus is seen there too. */
export const onDark = {
  background: colours.ink,
  color: colours.paper,
  '& :focus-visible': { outlineColor: colours.paper },
} as const;

export const theme = createTheme({
  palette: {
    mode: 'light',
    primary: { main: colours.ink, contrastText: colours.paper },
    secondary: { main: colours.slate },
    warning: { main: colours.ochre },
    error: { main: colours.ochre },
    success: { main: colours.lichen },
    info: { main: colours.slate },
    background: { default: colours.paper, paper: colours.sheet },
    text: { primary: colours.ink, secondary: colours.faded },
    divider: colours.line,
  },
  shape: { borderRadius: 2 },
  shadows: Array.from({ length: 25 }, () => 'none') as never,
  typography: {
    fontFamily: '"Atkinson Hyperlegible", system-ui, sans-serif',
    fontSize: 15,
    h1: { ...heading, fontSize: '1.75rem' },
    h2: { ...heading, fontSize: '1.3rem' },
    h3: { ...heading, fontSize: '1.05rem' },
    button: { textTransform: 'none', fontWeight: 700 },
  },
  transitions: { duration: { enteringScreen: 120, leavingScreen: 100 } },
  // Nothing moves for those who have asked their device for that.
  motion: { reducedMotion: 'system' },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        body: { fontVariantNumeric: 'tabular-nums', backgroundColor: colours.paper },
        sub: { fontSize: '0.72em', lineHeight: 0 },
        a: { color: colours.slate },
        ':focus-visible': { outline: `2px solid ${colours.slate}`, outlineOffset: 2 },
      },
    },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: {
      defaultProps: { disableElevation: true },
      styleOverrides: {
        root: { minHeight: 36, paddingInline: 14, borderRadius: 2 },
        outlined: { borderColor: colours.ink },
      },
    },
    MuiTextField: { defaultProps: { size: 'small' } },
    MuiSelect: { defaultProps: { size: 'small' } },
    MuiOutlinedInput: {
      styleOverrides: { root: { backgroundColor: colours.sheet }, notchedOutline: { borderColor: colours.faded } },
    },
    MuiTableCell: {
      styleOverrides: {
        root: { borderColor: colours.line, padding: '6px 12px 6px 0', fontSize: '0.95rem', verticalAlign: 'top' },
        head: { color: colours.faded, fontWeight: 400, fontSize: '0.85rem', borderBottom: `1px solid ${colours.ink}` },
      },
    },
    MuiDrawer: { styleOverrides: { paper: { borderLeft: `1px solid ${colours.ink}` } } },
    MuiDialogTitle: { styleOverrides: { root: { ...heading, fontSize: '1.3rem' } } },
    MuiDialog: { styleOverrides: { paper: { border: `1px solid ${colours.ink}` } } },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          padding: '3px 10px',
          borderColor: colours.faded,
          color: colours.ink,
          textTransform: 'none',
          '&.Mui-selected': {
            backgroundColor: colours.ink,
            color: colours.paper,
            '&:hover': { backgroundColor: colours.ink },
          },
        },
      },
    },
    MuiTooltip: { styleOverrides: { tooltip: { backgroundColor: colours.ink, fontSize: '0.85rem' } } },
    MuiLink: { styleOverrides: { root: { color: colours.ink, textDecorationColor: colours.faded } } },
  },
});
