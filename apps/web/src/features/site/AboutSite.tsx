import { climateOf, findGrass } from '@glenfold/agronomy';
import {
  type SiteAnswer,
  accessKeys,
  accessWords,
  settingNames,
  whereLies,
  withReadableDays,
} from '@glenfold/contract';
import { Box, Button, Link as MuiLink, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { Link, useParams } from 'react-router';
import { queries } from '../../api/queries.ts';
import { Empty, Trouble } from '../../ui/bits.tsx';
import { useMay, useTimeZone } from '../../ui/session.tsx';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { todayIn } from '../../ui/today.ts';
import { EraseClient } from './EraseClient.tsx';
import { PeopleForm } from './PeopleForm.tsx';
import { PlaceForm } from './PlaceForm.tsx';
import { YearOfPlace } from './YearOfPlace.tsx';

function Section({
  title,
  action,
  onClick,
  children,
}: {
  readonly title: string;
  readonly action?: string | undefined;
  readonly onClick?: () => void;
  readonly children: ReactNode;
}) {
  return (
    <Box component="section" aria-label={title} sx={{ borderTop: `2px solid ${colours.ink}`, pt: 1.25, mb: 3 }}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'baseline', mb: 1 }}>
        <Typography variant="h2">{title}</Typography>
        {action && (
          <Button size="small" variant="outlined" onClick={onClick} aria-label={`${action}: ${title}`}>
            {action}
          </Button>
        )}
      </Box>
      {children}
    </Box>
  );
}

function People({ site }: { readonly site: SiteAnswer }) {
  const { contacts } = site;
  if (!contacts?.length)
    return <Typography>Nobody yet. Whoever drives there wants to know whom to ring, and who decides.</Typography>;
  return (
    <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {contacts.map(({ name, role, phone, email, note }) => (
        <Box component="li" key={name} sx={{ borderTop: `1px solid ${colours.line}`, py: 1 }}>
          <strong>{name}</strong>, {role}
          <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap' }}>
            {phone && (
              <MuiLink href={`tel:${phone.replace(/[^\d+]/g, '')}`} sx={{ py: 0.75, fontWeight: 700 }}>
                {phone}
              </MuiLink>
            )}
            {email && (
              <MuiLink href={`mailto:${email}`} sx={{ py: 0.75 }}>
                {email}
              </MuiLink>
            )}
          </Box>
          {note && <Box sx={{ color: colours.faded }}>{note}</Box>}
        </Box>
      ))}
    </Box>
  );
}

function Access({ site: { access } }: { readonly site: SiteAnswer }) {
  const told = accessKeys.filter((key) => access?.[key]);
  if (told.length === 0)
    return <Typography>Nothing yet: the gate, the dog, and where a load can be tipped.</Typography>;
  return (
    <Box
      component="dl"
      sx={{ m: 0, display: 'grid', gridTemplateColumns: '128px minmax(0, 1fr)', rowGap: 0.75, columnGap: 2 }}
    >
      {told.map((key) => [
        <Box component="dt" key={key} sx={{ color: key === 'caution' ? colours.ochre : colours.faded }}>
          {accessWords[key]}
        </Box>,
        <Box
          component="dd"
          key={`${key} value`}
          sx={{ m: 0, whiteSpace: 'pre-line', fontWeight: key === 'caution' || key === 'dog' ? 700 : 400 }}
        >
          {access![key]}
        </Box>,
      ])}
    </Box>
  );
}

/** Where a site lies: people, access, place and climate, and what was decided for it. */
export function AboutSite() {
  const { siteId = '' } = useParams();
  const { data: state, error } = useQuery(queries.siteState(siteId));
  const { data: zones = [] } = useQuery(queries.zones(siteId));
  const { data: settings = [] } = useQuery(queries.settings());
  const site = state?.site;
  const zone = useTimeZone(site);
  const may = useMay();
  const [open, setOpen] = useState<'people' | 'place' | 'erase' | null>(null);
  if (error)
    return (
      <Box component="main" sx={{ px: 3 }}>
        <Trouble error={error} />
        <Empty whole title="This site cannot be shown" to="/" action="Back to the rounds">
          It may have been deleted.
        </Empty>
      </Box>
    );
  if (!site) return <Typography sx={{ p: 3, color: colours.faded }}>Opening the site…</Typography>;
  const write = may('work.write');
  // Where the ground is drawn it is known where it lies.
  const position = whereLies(site, zones);
  const climate = climateOf({ climate: site.climate, normals: site.normals, latitude: position?.[1] });
  const found = [...new Set(zones.flatMap(({ grass }) => (grass ? [findGrass(grass).season] : [])))].sort();
  const seasons = found.length > 0 ? found : (['cool', 'warm'] as const);
  const decided = settings.filter((one) => one.siteId === siteId || zones.some(({ id }) => id === one.zoneId));
  const names = new Map(zones.map(({ id, name }) => [id, name]));
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 4 }, py: 2, maxWidth: 1240 }}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'baseline', flexWrap: 'wrap', mb: 2 }}>
        <Typography variant="h1">{site.name}</Typography>
        <Typography sx={{ color: colours.faded, flex: 1 }}>{site.place}</Typography>
        <Button component={Link} to={stepPath(siteId, 'ground')} variant="outlined" size="small">
          To its work
        </Button>
      </Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 5fr) minmax(0, 7fr)' },
          columnGap: 5,
        }}
      >
        <Box>
          <Section title="People" action={write ? 'Change' : undefined} onClick={() => setOpen('people')}>
            <People site={site} />
          </Section>
          <Section title="Getting in" action={write ? 'Change' : undefined} onClick={() => setOpen('people')}>
            <Access site={site} />
          </Section>
          {may('practice.manage') && (
            <Section title="Forgetting the client">
              <Typography sx={{ mb: 1 }}>
                Whoever asks to be forgotten is: what is personal goes for good, the figures of the ground stay without
                a name.
              </Typography>
              <Button size="small" variant="outlined" color="error" onClick={() => setOpen('erase')}>
                Erase the client…
              </Button>
            </Section>
          )}
        </Box>
        <Box>
          <Section title="Place and climate" action={write ? 'Change' : undefined} onClick={() => setOpen('place')}>
            <Typography>
              It is {withReadableDays(todayIn(zone))} there, by {zone}
              {site.timeZone ? '' : ' (that of the practice)'}.
              {position &&
                ` ${Math.abs(position[1]).toFixed(3)}° ${position[1] < 0 ? 'S' : 'N'}, ${Math.abs(position[0]).toFixed(3)}° ${position[0] < 0 ? 'W' : 'E'}${site.position ? '' : ', from the drawing'}.`}
            </Typography>
            {climate ? (
              <>
                <Typography
                  sx={climate.madeUp ? { borderLeft: `3px solid ${colours.ochre}`, pl: 1.25, my: 1 } : { my: 1 }}
                >
                  {climate.basis}.
                </Typography>
                <YearOfPlace climate={climate} seasons={seasons} />
              </>
            ) : (
              <Typography sx={{ mt: 1 }}>
                Its climate is not known: choose a class that stands in, or enter the place’s own normals. Nothing is
                assumed meanwhile.
              </Typography>
            )}
          </Section>
          <Section title="Decided for this site">
            {decided.length === 0 && (
              <Typography>Nothing of its own: it is advised as the practice decides.</Typography>
            )}
            <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
              {decided.map(({ id, kind, zoneId }) => (
                <li key={id}>
                  {settingNames[kind]}
                  {zoneId && `, for ${names.get(zoneId)}`}
                </li>
              ))}
            </Box>
            <Button component={Link} to={`/settings?site=${siteId}`} size="small" variant="outlined" sx={{ mt: 1 }}>
              Settings of this site
            </Button>
          </Section>
        </Box>
      </Box>
      {open === 'people' && <PeopleForm site={site} onClose={() => setOpen(null)} />}
      {open === 'erase' && <EraseClient site={site} onClose={() => setOpen(null)} />}
      {open === 'place' && <PlaceForm site={site} onClose={() => setOpen(null)} />}
    </Box>
  );
}
