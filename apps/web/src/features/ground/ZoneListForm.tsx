import { grasses } from '@glenfold/agronomy';
import type { SiteAnswer, ZoneAnswer } from '@glenfold/contract';
import { Autocomplete, Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { type ClipboardEvent, useState } from 'react';

import { FormDialog } from '../../ui/FormDialog.tsx';
import { Trouble } from '../../ui/bits.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { type ZoneLine, isBlankLine, linesOf, zonesOf } from './zoneList.ts';
import { useChangeDrawing } from './api.ts';

const blank = (count: number): ZoneLine[] => Array.from({ length: count }, () => ({ name: '', area: '', grass: '' }));
const names = [...grasses.map(({ name }) => name), 'garden bed'];

/** Many small zones at once, typed or pasted as a list: name, area, grass. Nothing is drawn. */
export function ZoneListForm({
  site,
  zones,
  onClose,
}: {
  readonly site: SiteAnswer;
  readonly zones: readonly ZoneAnswer[];
  readonly onClose: () => void;
}) {
  const { system } = useUnits();
  const areaUnit = system === 'us' ? 'ft2' : 'm2';
  const [lines, setLines] = useState<readonly ZoneLine[]>(blank(6));
  const [usual, setUsual] = useState('tall fescue');
  const [tried, setTried] = useState(false);
  const save = useChangeDrawing(site.id);
  const filled = lines.filter((line) => !isBlankLine(line)).length;
  const read = zonesOf(lines, { siteName: site.name, labels: zones.map(({ label }) => label), areaUnit, grass: usual });
  const put = (at: number, change: Partial<ZoneLine>): void =>
    setLines((last) => {
      const next = last.map((line, index) => (index === at ? { ...line, ...change } : line));
      return at === last.length - 1 ? [...next, ...blank(1)] : next;
    });
  const onPaste = (event: ClipboardEvent, at: number): void => {
    const pasted = linesOf(event.clipboardData.getData('text/plain'));
    if (pasted.length < 2 && !pasted[0]?.area) return;
    event.preventDefault();
    setLines((last) => [...last.slice(0, at), ...pasted, ...last.slice(at + pasted.length), ...blank(1)]);
  };
  const onSave = (): void => {
    setTried(true);
    if (filled === 0 || read.problems.size > 0) return;
    save.mutate(
      { outlines: [], features: [], newZones: [...read.zones], newFeatures: [], remove: [] },
      {
        onSuccess: onClose,
      },
    );
  };
  return (
    <FormDialog
      title="Zones from a list"
      action={filled === 0 ? 'Add the zones' : `Add ${filled} ${filled === 1 ? 'zone' : 'zones'}`}
      onClose={onClose}
      onSave={onSave}
      saving={save}
      wide
    >
      <Typography>
        One line a zone. Paste from a spreadsheet or a message (name, area, grass), or type. They are measured as you
        say, not drawn; surface turf, medium intensity, full sun and clippings returned until you change one.
      </Typography>
      <Trouble error={save.error && save.error.fields.length > 0 ? save.error : null} />
      <TextField
        select
        label="Grass where a line says none"
        value={usual}
        onChange={(event) => setUsual(event.target.value)}
        sx={{ maxWidth: 300 }}
      >
        {grasses.map(({ name, label }) => (
          <MenuItem key={name} value={name}>
            {label}
          </MenuItem>
        ))}
      </TextField>
      <Box>
        {lines.map((line, at) => {
          const problem = (tried || (line.name !== '' && line.area !== '')) && read.problems.get(at);
          return (
            <Box
              key={at}
              sx={{
                display: 'grid',
                gridTemplateColumns: '28px minmax(0, 2fr) minmax(0, 1fr) minmax(0, 1.6fr)',
                gap: 1,
                mb: 0.75,
              }}
            >
              <Box sx={{ color: colours.faded, alignSelf: 'center', textAlign: 'right' }}>{at + 1}</Box>
              <TextField
                value={line.name}
                onChange={(event) => put(at, { name: event.target.value })}
                onPaste={(event) => onPaste(event, at)}
                placeholder={at === 0 ? 'Terrace 1' : ''}
                slotProps={{ htmlInput: { 'aria-label': `Name of line ${at + 1}` } }}
              />
              <TextField
                value={line.area}
                onChange={(event) => put(at, { area: event.target.value })}
                placeholder={at === 0 ? (system === 'us' ? '650' : '60') : ''}
                slotProps={{
                  input: /[a-z]/i.test(line.area)
                    ? {}
                    : { endAdornment: <span style={{ marginLeft: 4 }}>{system === 'us' ? 'ft²' : 'm²'}</span> },
                  htmlInput: { 'aria-label': `Area of line ${at + 1}` },
                }}
              />
              <Autocomplete
                freeSolo
                options={names}
                inputValue={line.grass}
                onInputChange={(_event, grass, reason) => reason !== 'reset' && put(at, { grass })}
                onChange={(_event, grass) => put(at, { grass: grass ?? '' })}
                value={line.grass}
                renderInput={(params) => (
                  <TextField
                    {...params}
                    placeholder={usual}
                    slotProps={{
                      ...params.slotProps,
                      htmlInput: { ...params.slotProps.htmlInput, 'aria-label': `Grass of line ${at + 1}` },
                    }}
                  />
                )}
              />
              {problem && (
                <Box role="alert" sx={{ gridColumn: '2 / -1', color: colours.ochre, fontSize: '0.9rem' }}>
                  {problem}
                </Box>
              )}
            </Box>
          );
        })}
        <Button size="small" onClick={() => setLines((last) => [...last, ...blank(10)])}>
          Ten more lines
        </Button>
      </Box>
      {tried && filled === 0 && (
        <Typography role="alert">Nothing is typed yet: give a zone its name and its area.</Typography>
      )}
    </FormDialog>
  );
}
