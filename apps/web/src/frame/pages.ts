import { useMay } from '../ui/session.tsx';

/** The pages beside the first one that this person may open: name and path. */
export function usePages(): ReadonlyArray<readonly [name: string, path: string]> {
  const may = useMay();
  return [
    ...(may('work.read')
      ? [
          ['Today', '/today'] as const,
          ['Week', '/week'] as const,
          ['Bags', '/bags'] as const,
          [may('prices.read') ? 'Products' : 'Machines', '/products'] as const,
          ['Settings', '/settings'] as const,
          ['Tables', '/tables'] as const,
          ['Pocket', '/pocket'] as const,
        ]
      : []),
    ...(may('practice.manage') ? [['Practice', '/practice'] as const] : []),
  ];
}
