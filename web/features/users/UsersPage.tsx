import { useMemo, useState } from 'react';
import { ROLES } from '../../../core/rights/rights';
import type { SignInFailure, UserRow } from '../../../wire/users';
import {
  useEndUserSessionsMutation,
  useInviteAgainMutation,
  useInviteUserMutation,
  useListsQuery,
  useSaveUserMutation,
  useSignInFailuresQuery,
  useUsersQuery,
} from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { faultOf } from '../../ground/faults';
import { Loaded } from '../../ground/Loaded';
import { useAttempt } from '../../ground/useAttempt';
import { displayMoment } from '../../kit/displayMoment';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { PersonalData } from '../../ground/PersonalData';
import { PageHead } from '../../kit/PageHead';
import { leaveFor } from '../../kit/unsaved';
import { plural } from '../../../core/names/plural';
import { SureButton } from '../../kit/SureButton';
import { Refused } from '../../kit/States';
import { Table } from '../../kit/table/Table';
import { programOf } from './programOf';
import { oneOf, words, yes } from '../../kit/typed/codecs';
import { toast } from '../../kit/toast';

/** Who may sign in, and as what; the one that is chosen stands beside, to be changed or closed. */
export function UsersPage() {
  const users = useUsersQuery();
  const [chosen, setChosen] = useState<number | 'new' | null>(null);
  const [link, setLink] = useState<{ name: string; link: string } | null>(null);
  return (
    <div className="page">
      <PageHead title="Users">
        <button type="button" className="button main" onClick={() => leaveFor(() => setChosen('new'))}>
          Invite somebody
        </button>
      </PageHead>
      <Loaded of={users} what="the users">
        {(rows) => (
          <div className="grid grid-cols-[minmax(0,1fr)_360px] gap-8">
            <UserTable rows={rows} chosen={chosen} onChoose={(id) => leaveFor(() => setChosen(id))} />
            <Beside row={rows.find((it) => it.id === chosen) ?? null} isNew={chosen === 'new'} link={link} onLink={setLink} />
          </div>
        )}
      </Loaded>
      <Failures />
    </div>
  );
}

/** Sign-ins that failed: who was tried, and from where. */
function Failures() {
  const { data } = useSignInFailuresQuery();
  const kinds = useColumnKinds();
  const columns = useMemo(
    () => [
      kinds.text<SignInFailure>('at', 'When', (it) => displayMoment(it.at), { width: 160 }),
      kinds.text<SignInFailure>('who', 'Tried as', (it) => it.who, { cut: true }),
      kinds.text<SignInFailure>('name', 'User', (it) => it.name ?? 'no user', { width: 180 }),
      kinds.text<SignInFailure>('from', 'From', (it) => programOf(it.from), { cut: true }),
    ],
    [kinds],
  );
  if (!data || data.length === 0) return null;
  return (
    <>
      <h2 className="mb-1 mt-6">Failed sign-ins</h2>
      <p className="note mt-0">Those of the last 90 days; the newest 200 are shown.</p>
      <Table label="Failed sign-ins" columns={columns} rows={data} rowKey={(it) => String(it.id)} unsearched />
    </>
  );
}

interface TableProps {
  rows: readonly UserRow[];
  chosen: number | 'new' | null;
  onChoose: (id: number) => void;
}

function UserTable({ rows, chosen, onChoose }: TableProps) {
  const kinds = useColumnKinds();
  const columns = useMemo(
    () => [
      {
        ...kinds.text<UserRow>('name', 'Name', (it) => it.name),
        cell: (it: UserRow) => (
          <button type="button" className="fig" onClick={() => onChoose(it.id)}>
            {it.name}
          </button>
        ),
      },
      kinds.text<UserRow>('email', 'E-mail', (it) => it.email),
      kinds.text<UserRow>('role', 'Role', (it) => (it.role === 'manager' && it.allJobs ? 'manager, all jobs' : it.role)),
      kinds.text<UserRow>('state', 'State', (it) => it.state),
      kinds.text<UserRow>('seen', 'Last seen', (it) => (it.seenAt ? displayMoment(it.seenAt) : '')),
    ],
    [kinds, onChoose],
  );
  return (
    <Table
      label="Users"
      columns={columns}
      rows={rows}
      rowKey={(it) => String(it.id)}
      isCurrent={(it) => it.id === chosen}
      height="window"
    />
  );
}

interface BesideProps {
  row: UserRow | null;
  isNew: boolean;
  link: { name: string; link: string } | null;
  onLink: (link: { name: string; link: string }) => void;
}

function Beside({ row, isNew, link, onLink }: BesideProps) {
  if (!row && !isNew)
    return (
      <div>
        <p className="note m-0">Choose somebody to change the role, to make a new link, or to close the account.</p>
        {link && <Invitation {...link} />}
      </div>
    );
  return (
    <aside>
      <h2 className="mb-2">{row ? row.name : 'Invite somebody'}</h2>
      <UserForm key={row?.seen ?? 'new'} row={row} onLink={onLink} />
      {row && row.sessions > 0 && <EndSessions row={row} />}
      {row?.can.newLink && <NewLink row={row} onLink={onLink} />}
      {row && <PersonalData key={`data ${row.id}`} name={row.name} onDone={() => undefined} />}
      {link && <Invitation {...link} />}
    </aside>
  );
}

/** Signs somebody out everywhere: a phone that was lost, say. */
function EndSessions({ row }: { row: UserRow }) {
  const [end] = useEndUserSessionsMutation();
  const { refused, attempt } = useAttempt();
  const count = plural(row.sessions, 'session');
  return (
    <p>
      <SureButton
        className="button"
        onSure={() => void attempt(() => end({ id: row.id }).unwrap(), `${row.name} is signed out everywhere`)}
      >
        {`End ${count}`}
      </SureButton>{' '}
      <span className="note">{row.seenAt ? `Last used ${displayMoment(row.seenAt)}. ` : ''}A lost phone is signed out so.</span>
      {refused && <Refused message={refused.message} />}
    </p>
  );
}

/** The link is shown once: only what it hashes to is saved. */
function Invitation({ name, link }: { name: string; link: string }) {
  return (
    <div role="status" className="mt-4 border-l-4 border-[var(--accent)] bg-[var(--band)] px-3 py-2">
      <p className="m-0 mb-1">
        Give this link to <b>{name}</b>. It opens once, within seven days, and is not shown again.
      </p>
      <input className="box" readOnly aria-label="Invitation link" value={link} onFocus={(event) => event.target.select()} />
      <button
        type="button"
        className="button mt-2"
        onClick={() => void navigator.clipboard.writeText(link).then(() => toast('Link copied'))}
      >
        Copy
      </button>
    </div>
  );
}

const FIELDS = {
  name: words('Enter a name'),
  email: words('Enter an e-mail'),
  role: oneOf(ROLES),
  allJobs: yes,
  closed: yes,
};

function UserForm({ row, onLink }: { row: UserRow | null; onLink: BesideProps['onLink'] }) {
  const { asOf } = useAsOf();
  const { data: lists } = useListsQuery({ asOf });
  const form = useCodecForm(FIELDS, {
    name: row?.name ?? '',
    email: row?.email ?? '',
    role: row?.role ?? 'accountant',
    allJobs: yes.format(row?.allJobs ?? false),
    closed: yes.format(row?.closed ?? false),
  });
  const [invite] = useInviteUserMutation();
  const [save] = useSaveUserMutation();
  const onSubmit = form.submit(async ({ closed, allJobs, ...values }) => {
    const body = { ...values, allJobs: allJobs && values.role === 'manager' };
    if (row) {
      await save({ id: row.id, body: { ...body, closed, seen: row.seen } }).unwrap();
      toast(`Saved ${body.name}`);
    } else {
      onLink({ name: body.name, link: (await invite({ body }).unwrap()).link });
      form.restart({ name: '', email: '' });
    }
  }, faultOf);
  return (
    <form aria-label={row ? `Change ${row.name}` : 'New user'} className="flex flex-col gap-3" onSubmit={onSubmit} noValidate>
      {form.input('name', 'Name', { list: 'people', autoFocus: row === null, hint: 'Exactly as on jobs' })}
      <datalist id="people">
        {lists?.people.map((it) => (
          <option key={it} value={it} />
        ))}
      </datalist>
      {form.input('email', 'E-mail')}
      {form.choice(
        'role',
        'Role',
        ROLES.map((it) => [it, it] as const),
      )}
      {form.text.role === 'manager' && form.tick('allJobs', 'Sees every job, not only those of the team')}
      {row && form.tick('closed', 'Closed: can no longer sign in')}
      <button className="button main self-start" disabled={form.busy || (row !== null && !form.changed)}>
        {row ? (form.changed ? 'Save' : 'Saved') : 'Make the invitation'}
      </button>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}

function NewLink({ row, onLink }: { row: UserRow; onLink: BesideProps['onLink'] }) {
  const [invite, { isLoading }] = useInviteAgainMutation();
  const { refused, attempt } = useAttempt();
  const make = () => attempt(async () => onLink({ name: row.name, link: (await invite({ id: row.id }).unwrap()).link }));
  return (
    <section className="mt-6 border-t border-[var(--hair)] pt-4">
      <button type="button" className="button" disabled={isLoading} onClick={() => void make()}>
        Make a new link for {row.name}
      </button>
      <p className="note mb-0 mt-1 text-[12.5px]">For a password that was lost; the one set now stays until the link is used.</p>
      {refused && <Refused message={refused.message} />}
    </section>
  );
}
