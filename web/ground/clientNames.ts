import { useCallback, useMemo } from 'react';
import { useListsQuery } from './api/api';
import { useAsOf } from './asOf';

/** The name of a client by its code; the code itself until the names are here. */
export function useClientNames(): (code: string) => string {
  const { asOf } = useAsOf();
  const { data } = useListsQuery({ asOf });
  const names = useMemo(() => new Map((data?.clients ?? []).map((it) => [it.code, it.name])), [data]);
  return useCallback((code: string) => names.get(code) ?? code, [names]);
}
