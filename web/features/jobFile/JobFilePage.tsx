import { useStanding } from '../../ground/useStanding';
import { displayMoment } from '../../kit/displayMoment';
import { addressOf } from '../../ground/addressOf';
import { useJobFileQuery } from '../../ground/api/api';
import { Link, useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import type { JobFileView } from '../../../wire/jobFile';
import { useWithMonth } from '../../ground/asOf';
import { faultOf } from '../../ground/faults';
import { HistoryLink } from '../../ground/HistoryLink';
import { Refused, Waiting } from '../../kit/States';
import { StableForm } from '../../kit/StableForm';
import { Checklist } from './Checklist';
import { Events } from './Events';
import { FactsForm } from './FactsForm';
import { Files } from './Files';
import { People } from './People';

/** What is known of a job beside its figures: facts, people, what happened, attachments, and what is still to be done. */
export function JobFilePage() {
  const { number: job = '' } = useParams();
  const { data, error, refetch } = useStanding(useJobFileQuery({ job }));
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!data) return <Waiting what="the job file" />;
  return (
    <>
      <Missing view={data} />
      <StableForm of={data} stamp={data.seen.facts}>
        {(opened, onTyped) => <FactsForm job={job} view={opened} onTyped={onTyped} />}
      </StableForm>
      <div className="mt-6 grid gap-8 grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <div className="flex flex-col gap-6">
          <StableForm of={data} stamp={data.seen.people}>
            {({ people, seen }, onTyped) => <People job={job} people={people} seen={seen.people} onTyped={onTyped} />}
          </StableForm>
          <StableForm of={data} stamp={data.seen.checklist}>
            {({ checklist, seen }, onTyped) => (
              <Checklist job={job} items={checklist} templates={data.templates} seen={seen.checklist} onTyped={onTyped} />
            )}
          </StableForm>
          <Moves job={job} view={data} />
        </div>
        <div className="flex flex-col gap-6">
          <Events job={job} events={data.events} />
          <Files job={job} files={data.files} />
        </div>
      </div>
    </>
  );
}

function Missing({ view }: { view: JobFileView }) {
  const withMonth = useWithMonth();
  if (view.missing.length === 0) return null;
  return (
    <section className="sheet mb-4 px-4 py-2" aria-label="Missing for site">
      <h2 className="mb-1">Missing for site</h2>
      <ul className="m-0 list-none p-0">
        {view.missing.map((it) => (
          <li key={it.text}>
            <Link to={withMonth(addressOf(it.to))}>{it.text}</Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Moves({ job, view }: { job: string; view: JobFileView }) {
  return (
    <section aria-label="Status history">
      <div className="mb-1 flex items-baseline justify-between">
        <h2>Status history</h2>
        <HistoryLink job={job} />
      </div>
      <table className="ledger static-foot">
        <tbody>
          {view.moves.map((it, i) => (
            <tr key={i}>
              <td>{it.was ? `${it.was} → ${it.became}` : it.became}</td>
              <td>{displayDate(it.onDay)}</td>
              <td className="note">{it.reason}</td>
              <td className="note num">
                {it.actor}, {displayMoment(it.at)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
