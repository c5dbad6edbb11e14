import { useMemo } from 'react';
import { toast } from '../../kit/toast';
import type { SessionRow } from '../../../wire/users';
import { useChangePasswordMutation, useEndSessionMutation, useSessionsQuery } from '../../ground/api/api';
import { faultOf } from '../../ground/faults';
import { Loaded } from '../../ground/Loaded';
import { useMay, usePerson } from '../../ground/person';
import { useAttempt } from '../../ground/useAttempt';
import { programOf } from './programOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { displayMoment } from '../../kit/displayMoment';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { PageHead } from '../../kit/PageHead';
import { Refused } from '../../kit/States';
import { Table } from '../../kit/table/Table';
import { newPassword, PASSWORD_HINT, secret } from '../../ground/password';
import { Absences } from './Absences';
import { SecondFactor } from './SecondFactor';

/** One's own account: the password, and where one is signed in. */
export function AccountPage() {
  const person = usePerson();
  const may = useMay();
  const sessions = useSessionsQuery();
  return (
    <div className="page">
      <PageHead title="Your account" />
      <p className="note mb-5 mt-0">
        {person?.name}, {person?.role}, {person?.email}
      </p>
      <div className="grid grid-cols-[320px_minmax(0,1fr)] gap-10">
        <div className="flex flex-col gap-8">
          <Password />
          {may('read-jobs') && <Absences />}
          <SecondFactor on={person?.secondFactor ?? false} />
        </div>
        <section>
          <h2 className="mb-2">Where you are signed in</h2>
          <Loaded of={sessions} what="your sessions">
            {(rows) => <Sessions rows={rows} />}
          </Loaded>
        </section>
      </div>
    </div>
  );
}

const FIELDS = { old: secret('Enter the password you have now'), password: newPassword };

function Password() {
  const [change] = useChangePasswordMutation();
  const form = useCodecForm(FIELDS, { old: '', password: '' });
  const onSubmit = form.submit(async (body) => {
    await change({ body }).unwrap();
    form.restart({ old: '', password: '' });
    toast('Password changed; all your other sessions have ended');
  }, faultOf);
  return (
    <form className="flex flex-col gap-3" aria-label="Change the password" onSubmit={onSubmit} noValidate>
      <h2 className="m-0">Password</h2>
      {form.input('old', 'Password now', { type: 'password', autoComplete: 'current-password' })}
      {form.input('password', 'New password', { type: 'password', autoComplete: 'new-password', hint: PASSWORD_HINT })}
      <button className="button main self-start" disabled={form.busy}>
        Change password
      </button>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}

function Sessions({ rows }: { rows: readonly SessionRow[] }) {
  const kinds = useColumnKinds();
  const [end] = useEndSessionMutation();
  const { refused, attempt } = useAttempt();
  const columns = useMemo(
    () => [
      kinds.text<SessionRow>('began', 'Signed in', (it) => displayMoment(it.beganAt)),
      kinds.text<SessionRow>('seen', 'Last used', (it) => displayMoment(it.seenAt)),
      kinds.text<SessionRow>('from', 'From', (it) => programOf(it.from)),
      {
        key: 'end',
        title: <span className="sr-only">End</span>,
        cell: (it: SessionRow) =>
          it.own ? (
            <span className="note">this one</span>
          ) : (
            <button
              type="button"
              className="button bare"
              onClick={() => void attempt(() => end({ id: it.id }).unwrap(), 'Session ended')}
            >
              End
            </button>
          ),
      },
    ],
    [kinds, end, attempt],
  );
  return (
    <>
      <Table label="Sessions" columns={columns} rows={rows} rowKey={(it) => String(it.id)} />
      {refused && <Refused message={refused.message} />}
    </>
  );
}
