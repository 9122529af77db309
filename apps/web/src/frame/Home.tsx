import { Reports } from '../features/report/ReportPages.tsx';
import { Rounds } from '../features/rounds/Rounds.tsx';
import { useMay } from '../ui/session.tsx';

/** The first page: the rounds, or for a client the reports. */
export function Home() {
  const may = useMay();
  return may('work.read') ? <Rounds /> : <Reports />;
}
