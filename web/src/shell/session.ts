import { createContext, useContext } from 'react';
import type { Person } from '../api/types';

export interface Session {
  person: Person;
  signOut(): Promise<void>;
}

export const SessionContext = createContext<Session | null>(null);

export function useSession(): Session {
  return useContext(SessionContext)!;
}

/** Whether the person may publish drafts. The server asks again. */
export function mayPublish(person: Person): boolean {
  return person.role === 'publisher' || person.role === 'admin';
}

/** Whether the person may change rulebases. The server asks again. */
export function mayEdit(person: Person): boolean {
  return person.role !== 'viewer';
}
