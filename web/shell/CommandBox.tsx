import { useListsQuery, useSessionQuery } from '../ground/api/api';
import { Command } from 'cmdk';
import { useMatch, useNavigate } from 'react-router';
import { usePlaces } from '../ground/places';
import { useAsOf, useKeepMonth } from '../ground/asOf';
import { COMMAND_FIELD, COMMAND_SHEET } from './commandLook';

/** Goes to any job, code, party or action by a few letters. */
export function CommandBox({
  typed,
  onTyped,
  onOpen,
}: {
  typed: string;
  onTyped: (typed: string) => void;
  onOpen: (open: boolean) => void;
}) {
  const { month } = useAsOf();
  const { data: session } = useSessionQuery();
  const { data: lists } = useListsQuery({ asOf: month }, { skip: !session?.company });
  const { places, jobParts } = usePlaces();
  const job = useMatch('/jobs/:number/*')?.params.number;
  const navigate = useNavigate();
  const keep = useKeepMonth();
  const go = (to: string) => () => {
    onOpen(false);
    void navigate(keep(to));
  };
  return (
    <Command.Dialog
      open
      onOpenChange={onOpen}
      label="Go to"
      overlayClassName="fixed inset-0 z-50 bg-black/30"
      contentClassName={COMMAND_SHEET}
    >
      <Command.Input
        placeholder="A job, a cost code, a supplier, or what you want to do"
        className={COMMAND_FIELD}
        value={typed}
        onValueChange={onTyped}
      />
      <Command.List className="max-h-[360px] overflow-auto p-2 [&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-[12.5px] [&_[cmdk-item][data-selected=true]]:[background:var(--accent-soft)] [&_[cmdk-item]]:cursor-pointer [&_[cmdk-item]]:px-2 [&_[cmdk-item]]:py-1">
        <Command.Empty className="note p-3">No matches</Command.Empty>
        <Command.Group heading="Places">
          {places
            .filter(({ path }) => !path.includes(':'))
            .map(({ path, title, band }) => (
              <Command.Item key={path} value={`${title} ${band}`} onSelect={go(path)}>
                {title}
              </Command.Item>
            ))}
        </Command.Group>
        {job && (
          <Command.Group heading={`Job ${job}`}>
            {jobParts
              .filter(({ path }) => !path.includes(':'))
              .map(({ path, title }) => (
                <Command.Item
                  key={path}
                  value={`${title} of job ${job}`}
                  onSelect={go(`/jobs/${encodeURIComponent(job)}${path && `/${path}`}`)}
                >
                  {title}
                </Command.Item>
              ))}
          </Command.Group>
        )}
        <Command.Group heading="Jobs">
          {lists?.jobs.map((job) => (
            <Command.Item
              key={job.number}
              value={`${job.number} ${job.name}`}
              onSelect={go(`/jobs/${encodeURIComponent(job.number)}`)}
            >
              <b className="mr-2">{job.number}</b>
              {job.name}
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Cost of a code">
          {lists?.costCodes.map((code) => (
            <Command.Item
              key={code.code}
              value={`${code.code} ${code.description}`}
              onSelect={go(`/costs/ledger?code=${encodeURIComponent(code.code)}`)}
            >
              <b className="mr-2">{code.code}</b>
              {code.description}
            </Command.Item>
          ))}
        </Command.Group>
        <Command.Group heading="Cost of a supplier">
          {lists?.vendors.map((vendor) => (
            <Command.Item
              key={vendor.code}
              value={`${vendor.code} ${vendor.name}`}
              onSelect={go(`/costs/ledger?party=${encodeURIComponent(vendor.code)}`)}
            >
              <b className="mr-2">{vendor.code}</b>
              {vendor.name}
            </Command.Item>
          ))}
        </Command.Group>
      </Command.List>
    </Command.Dialog>
  );
}
