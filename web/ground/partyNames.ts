import { useCallback, useMemo } from 'react';
import { useListsQuery } from './api/api';
import { useAsOf } from './asOf';

/** The name of a client by its code; the code itself until the names are here. */
export const useClientNames = () => useNames('clients');

/** The name of a vendor by its code; whoever else was paid is named as typed. */
export const useVendorNames = () => useNames('vendors');

function useNames(kind: 'clients' | 'vendors'): (code: string) => string {
  const { asOf } = useAsOf();
  const { data } = useListsQuery({ asOf });
  const names = useMemo(() => new Map((data?.[kind] ?? []).map((it) => [it.code, it.name])), [data, kind]);
  return useCallback((code: string) => names.get(code) || code, [names]);
}
