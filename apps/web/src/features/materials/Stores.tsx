import { useParams } from 'react-router';
import { PartsPage } from '../../ui/PartsPage.tsx';
import { useMay } from '../../ui/session.tsx';
import { Machines } from './Machines.tsx';
import { Products } from './Products.tsx';
import { groups } from './kinds.ts';

const machines = { name: 'machines', title: 'Machines', about: 'spreaders, sprayers, hire' } as const;

/** What is spread and what it is spread with: products with their prices for those who see them, and machines. */
export function Stores() {
  const { part } = useParams();
  const may = useMay();
  const parts = [...(may('prices.read') ? groups : []), machines];
  const chosen = parts.find(({ name }) => name === part) ?? parts[0]!;
  const group = groups.find(({ name }) => name === chosen.name);
  return (
    <PartsPage of="Products and machines" label="Products and machines" base="/products" parts={parts} chosen={chosen}>
      {group ? <Products key={group.name} group={group} /> : <Machines />}
    </PartsPage>
  );
}
