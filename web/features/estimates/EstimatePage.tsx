import { useEstimateQuery, useListsQuery, usePriceListQuery } from '../../ground/api/api';
import { useMemo } from 'react';
import { useParams } from 'react-router';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { useStanding } from '../../ground/useStanding';
import { Refused, Waiting } from '../../kit/States';
import { EstimateDraft } from './draft/EstimateDraft';
import { EstimateRead } from './EstimateRead';

/** One estimate: typed while it is a draft, read once it was sent. */
export function EstimatePage() {
  const { number: job = '', estimate = '' } = useParams();
  const { asOf } = useAsOf();
  const { digits } = useCurrency();
  const {
    data: view,
    error,
    refetch,
  } = useStanding(useEstimateQuery({ job, estimate: Number(estimate) }, { refetchOnMountOrArgChange: true }));
  const { data: book } = usePriceListQuery();
  const { data: lists } = useListsQuery({ asOf });
  const context = useMemo(() => ({ digits, costCodes: new Set(lists?.costCodes.map((it) => it.code)) }), [digits, lists]);
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!view || !book || !lists) return <Waiting what={`estimate ${estimate}`} />;
  if (view.refused.edit !== null) return <EstimateRead view={view} />;
  return (
    <EstimateDraft
      key={`${job}/${view.number}`}
      view={view}
      book={book}
      lists={lists}
      context={context}
      onStale={() => void refetch()}
    />
  );
}
