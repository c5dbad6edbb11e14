import { useState, type ReactNode } from 'react';
import type { Session } from '../../../wire/company';
import { api, useDemoSignInMutation, useMakeOwnerMutation, useSignInMutation } from '../../ground/api/api';
import { store } from '../../ground/api/store';
import { faultOf } from '../../ground/faults';
import { useAttempt } from '../../ground/useAttempt';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Refused } from '../../kit/States';
import { words } from '../../kit/typed/codecs';
import { newPassword, PASSWORD_HINT, secret } from '../../ground/password';

/** What is asked of somebody who is not signed in: to sign in, or, the first time of all, to become the owner. `inTheMidst`: of work that stays. */
export function SignInPage({ session, inTheMidst = false }: { session: Session; inTheMidst?: boolean }) {
  return (
    <Door title={session.needsOwner ? 'Set up the owner' : inTheMidst ? 'Sign in to go on' : 'Sign in'}>
      {session.needsOwner ? <FirstOwner /> : <SignIn inTheMidst={inTheMidst} />}
      {session.demo.length > 0 && <Demo people={session.demo} />}
    </Door>
  );
}

/** The sheet that stands before everything else. */
export function Door({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="narrow mx-auto max-w-[420px] px-4 pt-[9vh]">
      <p className="brand mb-6">Ledrin</p>
      <h1 className="mb-4">{title}</h1>
      {children}
    </main>
  );
}

/** Everything is read again, by somebody else perhaps; what is typed on a page under the sheet stays. */
function readAgain(inTheMidst: boolean): void {
  store.dispatch(inTheMidst ? api.util.invalidateTags(['books']) : api.util.resetApiState());
}

const SIGN_IN = { who: words('Enter your name or e-mail'), password: secret('Enter your password'), code: words() };

function SignIn({ inTheMidst }: { inTheMidst: boolean }) {
  const [signIn] = useSignInMutation();
  const [asksCode, setAsksCode] = useState(false);
  const form = useCodecForm(SIGN_IN, { who: '', password: '', code: '' });
  const onSubmit = form.submit(async (body) => {
    const { code } = await signIn({ body }).unwrap();
    if (code) setAsksCode(true);
    else readAgain(inTheMidst);
  }, faultOf);
  return (
    <form className="flex flex-col gap-3" aria-label="Sign in" onSubmit={onSubmit} noValidate>
      {form.input('who', 'Name or e-mail', { autoFocus: true, autoComplete: 'username' })}
      {form.input('password', 'Password', { type: 'password', autoComplete: 'current-password' })}
      {asksCode &&
        form.input('code', 'Code', {
          autoFocus: true,
          autoComplete: 'one-time-code',
          hint: 'Six digits of the app on your second device, or a recovery code',
        })}
      <button className="button main self-start" disabled={form.busy}>
        {form.busy ? 'Signing in …' : 'Sign in'}
      </button>
      {form.refused && <Refused message={form.refused} />}
      <p className="note m-0 text-[12.5px]">Password lost? The owner makes a new link for you, in Set-up, Users.</p>
    </form>
  );
}

function FirstOwner() {
  const [make] = useMakeOwnerMutation();
  const [fields] = useState(() => ({ name: words('Enter your name'), email: words('Enter your e-mail'), password: newPassword }));
  const form = useCodecForm(fields, { name: '', email: '', password: '' });
  const onSubmit = form.submit(async (body) => {
    await make({ body }).unwrap();
    readAgain(false);
  }, faultOf);
  return (
    <form className="flex flex-col gap-3" aria-label="Owner" onSubmit={onSubmit} noValidate>
      <p className="m-0">Create the owner account.</p>
      {form.input('name', 'Your name', { autoFocus: true, autoComplete: 'name' })}
      {form.input('email', 'E-mail', { autoComplete: 'username' })}
      {form.input('password', 'Password', { type: 'password', autoComplete: 'new-password', hint: PASSWORD_HINT })}
      <button className="button main self-start" disabled={form.busy}>
        Become the owner
      </button>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}

const DOES: Record<Session['demo'][number]['role'], string> = {
  owner: 'everything, and who may come in',
  accountant: 'the books: costs, billing, reports, ledger',
  manager: 'the jobs of the team: changes, forecasts, applications',
  estimator: 'tenders, prices, quotations',
  site: 'own jobs, without money',
};

/** The sample company's people, one press each. */
function Demo({ people }: { people: Session['demo'] }) {
  const [signIn] = useDemoSignInMutation();
  const { refused, attempt } = useAttempt();
  const press = async (role: Session['demo'][number]['role']) => {
    if (await attempt(() => signIn({ body: { role } }).unwrap())) readAgain(false);
  };
  return (
    <section className="mt-8 border-t border-[var(--rule)] pt-4" aria-label="Demo">
      <h2 className="mb-2">Try the sample company as</h2>
      <div className="flex flex-col gap-2">
        {people.map(({ role, name }) => (
          <button key={role} type="button" className="button block h-auto py-2 text-left" onClick={() => void press(role)}>
            <b>{role}</b> {name}
            <span className="note block font-normal">{DOES[role]}</span>
          </button>
        ))}
      </div>
      {refused && <Refused message={refused.message} />}
    </section>
  );
}
