import {
  useChangeQuery,
  useEstimateVersusActualQuery,
  useJobChangesQuery,
  useListsQuery,
  usePriceListQuery,
} from '../../ground/api/api';
import type { ReactNode } from 'react';
import { useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import type { TypedChange } from '../../../wire/changes';
import { useAsOf } from '../../ground/asOf';
import { faultOf } from '../../ground/faults';
import { useMay } from '../../ground/person';
import { useStanding } from '../../ground/useStanding';
import { Refused, Waiting } from '../../kit/States';
import { ChangeDraft } from './ChangeDraft';
import { ChangeRead } from './ChangeRead';

/** One change order: typed while it is a draft, read once it was issued. `attachments`: what is attached to it. */
export function ChangePage({ attachments }: { attachments: ReactNode }) {
  const { number: job = '', change = '' } = useParams();
  const { asOf } = useAsOf();
  const may = useMay();
  const { data: view, error, refetch } = useStanding(useChangeQuery({ job, change, asOf }, { refetchOnMountOrArgChange: true }));
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!view) return <Waiting what={`change ${change}`} />;
  if (view.refused.edit !== null || !may('change-orders')) return <ChangeRead view={view} attachments={attachments} />;
  return (
    <>
      <Draft key={view.number} view={view} onStale={() => void refetch()} />
      {attachments}
    </>
  );
}

/** A change that is being raised: a draft without a version yet. */
export function NewChangePage() {
  const { number: job = '' } = useParams();
  const { entryDay } = useAsOf();
  const { data: changes, refetch } = useJobChangesQuery({ job, asOf: '2199-12' });
  if (!changes) return <Waiting what="the change orders" />;
  const free = (count: number): string => (changes.some((it) => it.number === `CO${count}`) ? free(count + 1) : `CO${count}`);
  const view: TypedChange = {
    job,
    jobName: '',
    number: free(changes.length + 1),
    title: '',
    status: 'draft',
    raisedOn: entryDay,
    issuedOn: null,
    decidedOn: null,
    reference: '',
    reason: '',
    askedBy: '',
    daysAsked: null,
    daysGranted: null,
    decidedBy: '',
    decision: '',
    asked: 0,
    price: 0,
    cost: 0,
    hours: 0,
    version: 0,
    savedBy: '',
    savedAt: '',
    priceLines: [],
    costLines: [],
    effect: null,
  };
  return <Draft view={view} onStale={() => void refetch()} />;
}

function Draft({ view, onStale }: { view: TypedChange; onStale: () => void }) {
  const { asOf } = useAsOf();
  const { data: book } = usePriceListQuery();
  const { data: lists } = useListsQuery({ asOf });
  const { data: spent } = useEstimateVersusActualQuery({ job: view.job, asOf });
  if (!book || !lists || !spent) return <Waiting what={`what ${view.number} may be made of, ${displayDate(view.raisedOn)}`} />;
  return <ChangeDraft view={view} book={book} lists={lists} spent={spent} onStale={onStale} />;
}
