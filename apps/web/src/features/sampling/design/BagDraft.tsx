import { samplingPurposes, type Draft, type DraftChoices } from '@glenfold/agronomy';
import { Box, Button, Checkbox, ListSubheader, Menu, MenuItem, TextField } from '@mui/material';
import { useState } from 'react';
import { colours } from '../../../ui/theme.ts';

interface BagDraftProps {
  readonly draft: Draft;
  readonly others: readonly Draft[];
  readonly choices: DraftChoices;
  readonly onChoose: (next: Partial<DraftChoices>) => void;
}

const withEntry = <T,>(map: ReadonlyMap<string, T>, key: string, value: T): Map<string, T> =>
  new Map([...map, [key, value]]);
const withMember = (set: ReadonlySet<string>, key: string, member: boolean): Set<string> =>
  new Set(member ? [...set, key] : [...set].filter((other) => other !== key));

const groupLook = { background: 'none', color: colours.faded, lineHeight: 2.2, fontSize: '0.85rem' } as const;

/** A bag that is proposed: who is in it and why, how many cores, and what may be decided otherwise. */
export function BagDraft({ draft, others, choices, onChoose }: BagDraftProps) {
  const { key, zones, part, spots, why, cores, purpose } = draft;
  const { left, ownCores, ownPurpose, paired, joined } = choices;
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  /** The number of cores while it is being typed, which begins with nothing. */
  const [typed, setTyped] = useState<string | null>(null);
  const [only] = zones;
  const names = `${zones.map(({ name }) => name).join(', ')}${part ? `, ${part} part` : ''}`;
  const choose = (next: Partial<DraftChoices>): void => {
    setAnchor(null);
    onChoose(next);
  };
  const mates = others.filter((other) => other.key !== key && !other.part);
  return (
    <Box sx={{ borderTop: `1px solid ${colours.line}`, py: 1, display: 'flex', gap: 1, alignItems: 'flex-start' }}>
      <Checkbox
        checked={!left.has(key)}
        onChange={(event) => onChoose({ left: withMember(left, key, !event.target.checked) })}
        slotProps={{ input: { 'aria-label': `Sample ${names}` } }}
        sx={{ p: 0.5 }}
      />
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <strong>{names}</strong>
        <Box sx={{ fontSize: '0.88rem', color: colours.faded }}>{why}</Box>
        {zones.length === 1 && !part && spots.length > 0 && (
          <Button
            size="small"
            onClick={() => choose({ paired: withMember(paired, only!.id, true) })}
            sx={{ px: 0.5, minWidth: 0, mr: 1 }}
          >
            Bad and healthy part as a pair
          </Button>
        )}
        <Button
          size="small"
          aria-label={`Decide otherwise on ${names}`}
          onClick={(event) => setAnchor(event.currentTarget)}
          sx={{ px: 0.5, minWidth: 0 }}
        >
          {purpose === 'routine' ? 'Otherwise…' : `For: ${purpose}…`}
        </Button>
        <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
          {part && (
            <MenuItem onClick={() => choose({ paired: withMember(paired, only!.id, false) })}>
              No pair: the whole zone
            </MenuItem>
          )}
          {zones
            .filter(({ id }) => joined.has(id))
            .map((zone) => (
              <MenuItem
                key={zone.id}
                onClick={() => choose({ joined: new Map([...joined].filter(([id]) => id !== zone.id)) })}
              >
                {zone.name} apart again
              </MenuItem>
            ))}
          {zones.filter(({ id }) => !joined.has(id)).length > 1 && (
            <MenuItem onClick={() => choose({ alone: true, joined: new Map() })}>Every zone a bag of its own</MenuItem>
          )}
          <ListSubheader sx={groupLook}>What for</ListSubheader>
          {samplingPurposes.map((name) => (
            <MenuItem
              key={name}
              selected={name === purpose}
              onClick={() => choose({ ownPurpose: withEntry(ownPurpose, key, name) })}
            >
              {name}
            </MenuItem>
          ))}
          {zones.length === 1 && !part && mates.length > 0 && (
            <ListSubheader sx={groupLook}>Mix it, against the proposal, with</ListSubheader>
          )}
          {zones.length === 1 &&
            !part &&
            mates.map((other) => (
              <MenuItem
                key={other.key}
                onClick={() => choose({ alone: false, joined: withEntry(joined, only!.id, other.zones[0]!.id) })}
              >
                {other.zones.map(({ name }) => name).join(', ')}
              </MenuItem>
            ))}
        </Menu>
      </Box>
      <TextField
        type="number"
        label="cores"
        value={typed ?? cores}
        onChange={({ target }) => {
          setTyped(target.value);
          const wanted = Math.round(Number(target.value));
          if (wanted >= 1) onChoose({ ownCores: withEntry(ownCores, key, Math.min(200, wanted)) });
        }}
        onBlur={() => setTyped(null)}
        sx={{ width: 84 }}
        slotProps={{ htmlInput: { min: 1, max: 200, 'aria-label': `Cores of ${names}` } }}
      />
    </Box>
  );
}
