import { useListsQuery, useSessionQuery } from '../ground/api/api';
import { Command, defaultFilter } from 'cmdk';
import { useMatch, useNavigate } from 'react-router';
import { usePlaces } from '../ground/places';
import { useAsOf, useWithMonth } from '../ground/asOf';
import { PART_WORDS, PLACE_WORDS } from './actWords';
import { COMMAND_FIELD, COMMAND_SHEET } from './commandLook';

export interface BoxProps {
  typed: string;
  onTyped: (typed: string) => void;
  onOpen: (open: boolean) => void;
}

/** Something to go to: what it is found by, and its address. */
interface Target {
  key: string;
  title: string;
  /** Found by this beside its key and title. */
  also?: string;
  /** What people come for, in their words. */
  words?: string;
  to: string;
  /** The key is shown before the title. */
  coded?: boolean;
}

const LIST =
  'max-h-[360px] overflow-auto p-2 [&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-[12.5px] [&_[cmdk-item][data-selected=true]]:[background:var(--accent-soft)] [&_[cmdk-item]]:cursor-pointer [&_[cmdk-item]]:px-2 [&_[cmdk-item]]:py-1';

/** Letters that only happen to stand in the same order. */
const FAR_APART = 0.1;

/** Words that begin as it is typed, those it is called by before those it is also found by; then what it is called with the letters in their order. */
function byWords(value: string, typed: string, also: readonly string[] = []): number {
  const wanted = ` ${typed.toLowerCase().trim()}`;
  const at = ` ${value.toLowerCase()}`.indexOf(wanted);
  if (at >= 0) return 1 - at / 1000;
  const beside = ` ${also.join(' ').toLowerCase()}`.indexOf(wanted);
  if (beside >= 0) return 0.8 - beside / 1000;
  const letters = defaultFilter(value, typed);
  return letters < FAR_APART ? 0 : 0.5 * letters;
}

/** Goes to any job, code, party or action by a few letters. */
export function CommandBox({ typed, onTyped, onOpen }: BoxProps) {
  const navigate = useNavigate();
  const withMonth = useWithMonth();
  const go = (to: string) => {
    onOpen(false);
    void navigate(withMonth(to));
  };
  return (
    <Command.Dialog
      open
      onOpenChange={onOpen}
      label="Go to"
      filter={byWords}
      overlayClassName="fixed inset-0 z-50 bg-black/30"
      contentClassName={COMMAND_SHEET}
    >
      {/* Focused as it appears: the dialog itself would do so a moment later, and select what was typed before. */}
      <Command.Input
        autoFocus
        placeholder="A job, a cost code, a supplier, or what you want to do"
        className={COMMAND_FIELD}
        value={typed}
        onValueChange={onTyped}
      />
      <Command.List className={LIST}>
        <Command.Empty className="note p-3">No matches</Command.Empty>
        {useTargets().map(({ heading, targets }) => (
          <Command.Group key={heading} heading={heading}>
            {targets.map(({ key, title, also = '', words = '', to, coded }) => (
              <Command.Item
                key={key}
                value={coded ? `${key} ${title}` : `${title} ${also}`}
                keywords={[words]}
                onSelect={() => go(to)}
              >
                {coded && <b className="mr-2">{key}</b>}
                {title}
              </Command.Item>
            ))}
          </Command.Group>
        ))}
      </Command.List>
    </Command.Dialog>
  );
}

/** All there is to go to, in groups: places, parts of the job that is open, jobs, cost of a code and of a supplier. */
function useTargets(): { heading: string; targets: Target[] }[] {
  const { asOf } = useAsOf();
  const { data: session } = useSessionQuery();
  const { data: lists } = useListsQuery({ asOf }, { skip: !session?.company });
  const { places, jobParts } = usePlaces();
  const job = useMatch('/jobs/:number/*')?.params.number;
  const whole = <Registered extends { path: string }>(of: readonly Registered[]) => of.filter(({ path }) => !path.includes(':'));
  const jobAt = (number: string, part = '') => `/jobs/${encodeURIComponent(number)}${part && `/${part}`}`;
  const coded = (key: string, title: string, to: string): Target => ({ key, title, to, coded: true });
  const ledgerOf = (by: 'code' | 'party', code: string) => `/costs/ledger?${by}=${encodeURIComponent(code)}`;
  return [
    {
      heading: 'Places',
      targets: whole(places).map(({ path, title, band }) => ({
        key: path,
        title,
        also: band,
        words: PLACE_WORDS[path] ?? '',
        to: path,
      })),
    },
    {
      heading: `Job ${job}`,
      targets: job
        ? whole(jobParts).map(({ path, title }) => ({
            key: path,
            title,
            also: `of job ${job}`,
            words: PART_WORDS[path] ?? '',
            to: jobAt(job, path),
          }))
        : [],
    },
    { heading: 'Jobs', targets: (lists?.jobs ?? []).map((it) => coded(it.number, it.name, jobAt(it.number))) },
    {
      heading: 'Cost of a code',
      targets: (lists?.costCodes ?? []).map((it) => coded(it.code, it.description, ledgerOf('code', it.code))),
    },
    {
      heading: 'Cost of a supplier',
      targets: (lists?.vendors ?? []).map((it) => coded(it.code, it.name, ledgerOf('party', it.code))),
    },
  ].filter(({ targets }) => targets.length > 0);
}
