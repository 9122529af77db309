import { type Permission, type SessionAnswer, allows } from '@glenfold/contract';
import { createContext, useContext } from 'react';

const SessionContext = createContext<SessionAnswer | null>(null);
export const SessionProvider = SessionContext;

/** Who is signed in; only under the entrance. */
export function useSession(): SessionAnswer {
  const session = useContext(SessionContext);
  if (!session) throw new Error('Nobody is signed in here.');
  return session;
}

/** Sign of the practice's money; under a shared link nobody is signed in, and the paper brings its own. */
export function useCurrency(): string {
  return useContext(SessionContext)?.practice?.currency ?? '$';
}

/** The time zone of a site's days: its own, else the practice's, else that of the device. */
export function useTimeZone(site?: { readonly timeZone?: string | null | undefined }): string {
  const session = useContext(SessionContext);
  return site?.timeZone ?? session?.practice?.timeZone ?? new Intl.DateTimeFormat().resolvedOptions().timeZone;
}

/** Whether the role includes something. The server decides; this only hides what it would refuse. */
export function useMay(): (permission: Permission) => boolean {
  const session = useContext(SessionContext);
  return (permission) => !!session?.role && allows(session.role, permission);
}
