import { Empty } from './bits.tsx';
import { useMay } from './session.tsx';
import { stepPath } from './steps.ts';

/** What stands when a zone has no test yet; shared by Reading and Rates. */
export function NoTest({
  siteId,
  zone,
}: {
  readonly siteId: string;
  readonly zone: { readonly id: string; readonly name: string; readonly label: string };
}) {
  const may = useMay();
  const action = may('work.write') ? { to: stepPath(siteId, 'lab', zone.id), action: 'Enter its result' } : {};
  return (
    <Empty title={`${zone.name} has no test yet`} {...action}>
      Without a test there is nothing to read and no lime, phosphorus or potassium to set. The bag carries the label{' '}
      {zone.label}.
    </Empty>
  );
}
