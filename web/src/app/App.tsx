import { useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, useEffect } from 'react';
import { Navigate, Route, Routes, useLocation } from 'react-router';
import { api, Problem } from '../api/client';
import { sessionOpened } from '../api/sessionEnd';
import { SessionContext } from '../shell/session';
import { PartBoundary } from '../ui/PartBoundary';
import { SessionEnded } from './SessionEnded';
import { SignIn } from './SignIn';

const Workbench = lazy(() => import('./Workbench'));
const RevisionView = lazy(() => import('./RevisionView'));
const SetUp = lazy(() => import('./SetUp'));
const Rulebases = lazy(() => import('./Rulebases'));

/** Who is there decides what is seen: the set-up, the sign-in, or the bench. */
export function App() {
  const cache = useQueryClient();
  const location = useLocation();
  const session = useQuery({
    queryKey: ['session'],
    queryFn: api.person,
    staleTime: Infinity,
    refetchOnReconnect: false, // a session that has ended keeps its page
  });
  const signedIn = session.data !== undefined;
  useEffect(() => {
    if (signedIn) sessionOpened();
  }, [signedIn]);
  if (location.pathname === '/setup') {
    return (
      <PartBoundary>
        <SetUp />
      </PartBoundary>
    );
  }
  if (session.isPending) {
    return session.failureCount > 0 ? (
      <p role="status" className="p-6">
        The server does not answer. Trying again…
      </p>
    ) : null;
  }
  if (session.error) {
    return session.error instanceof Problem && session.error.body.status === 401 ? (
      <SignIn onSignedIn={(person) => cache.setQueryData(['session'], person)} />
    ) : (
      <p role="alert" className="p-6">
        {session.error.message}
      </p>
    );
  }
  const signOut = async () => {
    await api.signOut();
    cache.clear();
    window.location.assign('/');
  };
  return (
    <SessionContext.Provider value={{ person: session.data, signOut }}>
      <SessionEnded person={session.data} />
      <PartBoundary>
        <Routes>
          <Route path="/" element={<Rulebases />} />
          <Route path="/rulebases/:id/revisions/:number" element={<RevisionView />} />
          <Route path="/rulebases/:id/:place" element={<Workbench />} />
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </PartBoundary>
    </SessionContext.Provider>
  );
}
