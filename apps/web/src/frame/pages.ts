import { useMay } from '../ui/session.tsx';

/** The pages beside the first one that this person may open: name and path. */
export function usePages(): ReadonlyArray<readonly [name: string, path: string]> {
  const may = useMay();
  return [
    ...(may('prices.read') ? [['Products', '/products'] as const] : []),
    ...(may('work.read') ? [['Bags', '/bags'] as const, ['Tables', '/tables'] as const] : []),
    ...(may('practice.manage') ? [['Practice', '/practice'] as const] : []),
  ];
}
