import { Rounds } from '../features/rounds/Rounds.tsx';
import { deferred } from '../ui/deferred.tsx';
import { useMay } from '../ui/session.tsx';

const Reports = deferred(async () => (await import('../features/report/ReportPages.tsx')).Reports);

/** The first page: the rounds, or for a client the reports. */
export function Home() {
  const may = useMay();
  return may('work.read') ? <Rounds /> : <Reports />;
}
