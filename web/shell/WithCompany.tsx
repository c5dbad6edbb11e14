import { useSessionQuery } from '../ground/api/api';
import { Navigate, Outlet } from 'react-router';
import { Waiting } from '../kit/States';

/** Pages that need a company: in an empty database they lead to the welcome. */
export function WithCompany() {
  const { data: session, isFetching } = useSessionQuery();
  if (session?.user?.role === 'site') return <Navigate to="/site" replace />;
  if (session?.company) return <Outlet />;
  return isFetching ? <Waiting what="the books" /> : <Navigate to="/" replace />;
}
