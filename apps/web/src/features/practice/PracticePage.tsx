import { Box, Typography } from '@mui/material';
import { Link, useParams } from 'react-router';
import { colours } from '../../theme.ts';
import { Empty } from '../../ui/bits.tsx';
import { useMay, useSession } from '../../ui/session.tsx';
import { Changes } from './Changes.tsx';
import { Data } from './Data.tsx';
import { Outbox } from './Outbox.tsx';
import { People } from './People.tsx';

const parts = [
  ['people', 'People', 'who belongs, and as what', People],
  ['outbox', 'Outbox', 'messages to people', Outbox],
  ['changes', 'Changes', 'who changed what', Changes],
  ['data', 'Data', 'name, export', Data],
] as const;

/** The owner's pages: people, messages, the record of changes, the way out with everything. */
export function PracticePage() {
  const { part = 'people' } = useParams();
  const { practice } = useSession();
  const may = useMay();
  if (!may('practice.manage'))
    return (
      <Box component="main" sx={{ px: 3 }}>
        <Empty title="For the owner" to="/" action="Back to the first page">
          People and settings of {practice?.name} are its owner’s business.
        </Empty>
      </Box>
    );
  const [, title, , Screen] = parts.find(([name]) => name === part) ?? parts[0];
  return (
    <Box
      sx={{
        flex: 1,
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '228px minmax(0, 1fr)' },
        gridTemplateRows: { xs: 'auto 1fr', md: '1fr' },
      }}
    >
      <Box
        component="nav"
        aria-label="Practice"
        sx={{
          background: colours.sheet,
          borderRight: { md: `1px solid ${colours.line}` },
          borderBottom: { xs: `1px solid ${colours.line}`, md: 0 },
          pt: { md: 2 },
          display: { xs: 'flex', md: 'block' },
          overflowX: 'auto',
        }}
      >
        <Typography
          sx={{ px: 2, pb: 1.5, fontFamily: 'Bitter, serif', fontWeight: 700, display: { xs: 'none', md: 'block' } }}
        >
          {practice?.name}
        </Typography>
        {parts.map(([name, words, about]) => {
          const chosen = words === title;
          return (
            <Box
              key={name}
              component={Link}
              to={`/practice/${name}`}
              aria-current={chosen ? 'page' : undefined}
              sx={{
                display: 'block',
                px: 2,
                py: 1,
                color: colours.ink,
                textDecoration: 'none',
                borderLeft: { md: `4px solid ${chosen ? colours.ink : 'transparent'}` },
                borderBottom: { xs: `4px solid ${chosen ? colours.ink : 'transparent'}`, md: 0 },
                background: chosen ? colours.paper : 'none',
                '&:hover': { textDecoration: 'underline' },
              }}
            >
              <Box sx={{ fontWeight: 700 }}>{words}</Box>
              <Box sx={{ fontSize: '0.85rem', color: colours.faded, display: { xs: 'none', md: 'block' } }}>
                {about}
              </Box>
            </Box>
          );
        })}
      </Box>
      <Box component="main" sx={{ px: { xs: 2, md: 4 }, py: 2.5, minWidth: 0, maxWidth: 1040 }}>
        <Typography variant="h1" sx={{ mb: 1.5 }}>
          {title}
        </Typography>
        <Screen />
      </Box>
    </Box>
  );
}
