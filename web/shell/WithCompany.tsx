import { useRef } from 'react';
import { matchPath, Navigate, Outlet, useLocation } from 'react-router';
import { useSessionQuery } from '../ground/api/api';
import { usePlaces } from '../ground/places';
import { ownDrafts } from '../kit/draft/storedDraft';
import { Waiting } from '../kit/States';

/** Pages that need a company: in an empty database they lead to the welcome. Whoever works on site has few of them, and else the site's own. */
export function WithCompany() {
  const { data: session, isFetching } = useSessionQuery();
  const { pathname } = useLocation();
  const { places } = usePlaces();
  // Whose drafts the pages hold; whoever signs in again in the midst finds what was typed, another person finds pages of their own.
  const owner = useRef('');
  if (session?.user) owner.current = session.user.name;
  ownDrafts(owner.current);
  if (session?.user?.role === 'site' && !places.some(({ path }) => matchPath(path, pathname)))
    return <Navigate to="/site" replace />;
  if (session?.company) return <Outlet key={owner.current} />;
  return isFetching ? <Waiting what="the books" /> : <Navigate to="/" replace />;
}
