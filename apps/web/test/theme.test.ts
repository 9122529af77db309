import { colours, onDark, theme } from '../src/ui/theme.ts';

/** Relative luminance of a colour, WCAG 2.2. */
function luminance(hex: string): number {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map((at) => {
    const channel = Number.parseInt(hex.slice(at, at + 2), 16) / 255;
    return channel <= 0.04045 ? channel / 12.92 : ((channel + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

function contrast(one: string, other: string): number {
  const [light = 0, dark = 0] = [luminance(one), luminance(other)].sort((a, b) => b - a);
  return (light + 0.05) / (dark + 0.05);
}

const { paper, sheet, ink, faded, line, ochre, lichen, slate, ochreWash, lichenWash, slateWash } = colours;

describe('the colours', () => {
  it('measure contrast as the standard does', () => {
    expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5);
    expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2);
  });

  // Text of every size: 4.5 to 1 (WCAG 2.2, 1.4.3).
  it.each([
    ['ink on paper', ink, paper],
    ['faded on paper', faded, paper],
    ['faded on a sheet', faded, sheet],
    ['ochre on paper', ochre, paper],
    ['ochre on a sheet', ochre, sheet],
    ['slate on paper', slate, paper],
    ['slate on a sheet', slate, sheet],
    ['ink on what needs action', ink, ochreWash],
    ['ink on what is done', ink, lichenWash],
    ['ink on information', ink, slateWash],
    ['paper on ink', paper, ink],
  ])('%s can be read', (_name, text, ground) => expect(contrast(text, ground)).toBeGreaterThanOrEqual(4.5));

  // Marks that carry meaning: 3 to 1 (1.4.11).
  it.each([
    ['the mark of what is done', lichen, sheet],
    ['the mark of what needs action', ochre, sheet],
    ['the frame of a field', faded, sheet],
    ['the ring of the focus', slate, paper],
    ['the ring of the focus on a dark bar', onDark['& :focus-visible'].outlineColor, onDark.background],
    ['the frame of a choice on a dark bar', line, onDark.background],
  ])('%s can be seen', (_name, mark, ground) => expect(contrast(mark, ground)).toBeGreaterThanOrEqual(3));

  it('are the only ones the theme uses', () => {
    const { primary, warning, error, success, info, background, text } = theme.palette;
    const used = [
      primary.main,
      warning.main,
      error.main,
      success.main,
      info.main,
      background.default,
      background.paper,
      text.primary,
      text.secondary,
    ];
    for (const colour of used) expect(Object.values(colours)).toContain(colour);
  });
});
