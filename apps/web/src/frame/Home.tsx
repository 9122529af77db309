import { useMediaQuery } from '@mui/material';
import { Navigate, useLocation } from 'react-router';
import { Rounds } from '../features/rounds/Rounds.tsx';
import { deferred } from '../ui/deferred.tsx';
import { useMay, useSession } from '../ui/session.tsx';

const Reports = deferred(async () => (await import('../features/report/ReportPages.tsx')).Reports);

/** The first page: the rounds, for a client the reports, for a technician with a phone the day. */
export function Home() {
  const may = useMay();
  const { role } = useSession();
  const phone = useMediaQuery('(max-width: 599px)');
  // Whoever comes here from another page wants the rounds.
  const first = useLocation().key === 'default';
  if (role === 'technician' && phone && first) return <Navigate to="/today" replace />;
  return may('work.read') ? <Rounds /> : <Reports />;
}
