import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { api, useAcceptInvitationMutation, useInvitationQuery } from '../../ground/api/api';
import { store } from '../../ground/api/store';
import { faultOf } from '../../ground/faults';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Refused, Waiting } from '../../kit/States';
import { newPassword, PASSWORD_HINT } from '../../ground/password';
import { Door } from './SignInPage';

/** Where an invitation leads: whoever was invited sets a password, and is signed in. */
export function InvitationPage() {
  const { token = '' } = useParams();
  const { data, error } = useInvitationQuery({ token });
  if (error)
    return (
      <Door title="This link does not open">
        <Refused message={faultOf(error).message} />
        <p>
          Have you set your password already? Then <a href="/">sign in</a> with it.
        </p>
      </Door>
    );
  if (!data) return <Waiting what="the invitation" />;
  return (
    <Door title={`Welcome, ${data.name}`}>
      <p>You are invited as {data.role}. Set the password you will sign in with.</p>
      <SetPassword token={token} />
    </Door>
  );
}

function SetPassword({ token }: { token: string }) {
  const [accept] = useAcceptInvitationMutation();
  const navigate = useNavigate();
  const [fields] = useState(() => ({ password: newPassword }));
  const form = useCodecForm(fields, { password: '' });
  const onSubmit = form.submit(async (body) => {
    await accept({ token, body }).unwrap();
    store.dispatch(api.util.resetApiState());
    void navigate('/', { replace: true });
  }, faultOf);
  return (
    <form className="flex flex-col gap-3" aria-label="Set a password" onSubmit={onSubmit} noValidate>
      {form.input('password', 'Password', {
        type: 'password',
        autoComplete: 'new-password',
        autoFocus: true,
        hint: PASSWORD_HINT,
      })}
      <button className="button main self-start" disabled={form.busy}>
        Set password and sign in
      </button>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}
