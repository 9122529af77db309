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

/** Whether the role includes something. The server decides; this only hides what it would refuse. */
export function useMay(): (permission: Permission) => boolean {
  const session = useContext(SessionContext);
  return (permission) => !!session?.role && allows(session.role, permission);
}
