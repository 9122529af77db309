import type { SettingAnswer, SettingKind } from '@glenfold/contract';
import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import { queries } from '../../api/queries.ts';

/** For whom something is decided: the practice, one of its sites, or one of its zones. */
export interface Scope {
  readonly at: 'practice' | 'site' | 'zone';
  readonly siteId?: string | undefined;
  readonly zoneId?: string | undefined;
  readonly name: string;
}

/** The scope that the address names, and how to go to another one. */
export function useScope(): {
  readonly scope: Scope;
  readonly go: (siteId: string, zoneId?: string) => void;
  readonly zones: ReadonlyArray<{ readonly id: string; readonly name: string }>;
  readonly search: string;
  /** What the address names is known. */
  readonly ready: boolean;
} {
  const [params, setParams] = useSearchParams();
  const [siteId, zoneId] = [params.get('site') ?? undefined, params.get('zone') ?? undefined];
  const { data: named, isPending: noSites } = useQuery(queries.sitesNamed(siteId ? [siteId] : []));
  const { data: zones = [], isPending: noZones } = useQuery({ ...queries.zones(siteId ?? ''), enabled: !!siteId });
  const ready = !siteId || (!noSites && (!zoneId || !noZones));
  const [site, zone] = [named?.sites[0], zones.find(({ id }) => id === zoneId)];
  const scope: Scope = zone
    ? { at: 'zone', siteId, zoneId, name: zone.name }
    : site
      ? { at: 'site', siteId, name: site.name }
      : { at: 'practice', name: 'the whole practice' };
  const go = (site: string, zone?: string): void =>
    setParams({ ...(site ? { site } : {}), ...(site && zone ? { zone } : {}) });
  return { scope, go, zones, search: params.size > 0 ? `?${params.toString()}` : '', ready };
}

const isOf = ({ siteId, zoneId }: SettingAnswer, scope: Pick<Scope, 'at' | 'siteId' | 'zoneId'>): boolean =>
  scope.at === 'zone'
    ? zoneId === scope.zoneId
    : scope.at === 'site'
      ? siteId === scope.siteId && zoneId === null
      : siteId === null && zoneId === null;

/** What was decided for exactly this scope, and what holds there otherwise, from the site or the practice. */
export function useDecision(kind: SettingKind, scope: Scope) {
  const { data: all, error } = useQuery(queries.settings());
  const of = (all ?? []).filter((setting) => setting.kind === kind);
  const own = of.find((setting) => isOf(setting, scope));
  const above =
    (scope.at === 'zone' && of.find((setting) => isOf(setting, { at: 'site', siteId: scope.siteId }))) ||
    (scope.at !== 'practice' && of.find((setting) => isOf(setting, { at: 'practice' }))) ||
    undefined;
  return { known: all !== undefined, error, own, above };
}
