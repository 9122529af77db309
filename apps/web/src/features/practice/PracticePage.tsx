import { Box } from '@mui/material';
import { useParams } from 'react-router';
import { PartsPage } from '../../ui/PartsPage.tsx';
import { Empty } from '../../ui/bits.tsx';
import { useMay, useSession } from '../../ui/session.tsx';
import { Changes } from './Changes.tsx';
import { Data } from './Data.tsx';
import { Outbox } from './Outbox.tsx';
import { People } from './People.tsx';

const parts = [
  { name: 'people', title: 'People', about: 'who belongs, and as what', Screen: People },
  { name: 'outbox', title: 'Outbox', about: 'messages to people', Screen: Outbox },
  { name: 'changes', title: 'Changes', about: 'who changed what', Screen: Changes },
  { name: 'data', title: 'Data', about: 'name, days, money, export', Screen: Data },
] as const;

/** The owner's pages: people, messages, the record of changes, the way out with everything. */
export function PracticePage() {
  const { part } = useParams();
  const { practice } = useSession();
  const may = useMay();
  if (!may('practice.manage'))
    return (
      <Box component="main" sx={{ px: 3 }}>
        <Empty whole title="For the owner" to="/" action="Back to the first page">
          People and settings of {practice?.name} are its owner’s business.
        </Empty>
      </Box>
    );
  const chosen = parts.find(({ name }) => name === part) ?? parts[0];
  return (
    <PartsPage of={practice?.name ?? ''} label="Practice" base="/practice" parts={parts} chosen={chosen}>
      <chosen.Screen />
    </PartsPage>
  );
}
