import { useState } from 'react';
import { toast } from '../../kit/toast';
import { useBeginSecondFactorMutation, useConfirmSecondFactorMutation, useEndSecondFactorMutation } from '../../ground/api/api';
import { faultOf } from '../../ground/faults';
import { secret } from '../../ground/password';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { Refused } from '../../kit/States';
import { words } from '../../kit/typed/codecs';

/** A code of an app on a second device, asked for at each sign-in: turned on and off. */
export function SecondFactor({ on }: { on: boolean }) {
  const [begun, setBegun] = useState<{ key: string; image: string } | null>(null);
  const [recovery, setRecovery] = useState<readonly string[] | null>(null);
  return (
    <section aria-label="Second factor">
      <h2 className="mb-2">Second factor</h2>
      {recovery && <Recovery codes={recovery} />}
      {on ? (
        <TurnOff />
      ) : begun ? (
        <Confirm text={begun.key} image={begun.image} onDone={setRecovery} />
      ) : (
        <Begin onBegun={setBegun} />
      )}
    </section>
  );
}

function Begin({ onBegun }: { onBegun: (begun: { key: string; image: string }) => void }) {
  const [begin] = useBeginSecondFactorMutation();
  const form = useCodecForm(PASSWORD, { password: '' });
  const onSubmit = form.submit(async (body) => onBegun(await begin({ body }).unwrap()), faultOf);
  return (
    <form className="flex flex-col gap-3" aria-label="Begin the second factor" onSubmit={onSubmit} noValidate>
      <p className="note m-0">
        In addition to the password, a code of an app on your phone: the password alone is no longer enough.
      </p>
      {form.input('password', 'Your password', { type: 'password', autoComplete: 'current-password' })}
      <button className="button self-start" disabled={form.busy}>
        Turn it on …
      </button>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}

const PASSWORD = { password: secret('Enter your password') };

const CODE = { code: words('Enter the six digits that the app shows') };

/** `text` is the key, for an app that cannot scan. */
function Confirm({ text, image, onDone }: { text: string; image: string; onDone: (codes: readonly string[]) => void }) {
  const [confirm] = useConfirmSecondFactorMutation();
  const form = useCodecForm(CODE, { code: '' });
  const onSubmit = form.submit(async (body) => onDone((await confirm({ body }).unwrap()).recovery), faultOf);
  return (
    <form className="flex flex-col gap-3" aria-label="Turn on the second factor" onSubmit={onSubmit} noValidate>
      <p className="m-0">Scan this with the app, then type the code it shows.</p>
      <img src={image} width={220} height={220} alt="Key of the second factor, to be scanned" />
      <p className="note m-0 break-all text-[12.5px]">Or type this key: {text}</p>
      {form.input('code', 'Code', { autoFocus: true, autoComplete: 'one-time-code' })}
      <button className="button main self-start" disabled={form.busy}>
        Turn it on
      </button>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}

/** Shown once: only what they hash to is saved. */
function Recovery({ codes }: { codes: readonly string[] }) {
  return (
    <div role="status" className="mb-4 border-l-4 border-[var(--accent)] bg-[var(--band)] px-3 py-2">
      <p className="m-0 mb-1">
        It is on. Write these recovery codes down, and store them where the phone is not: each opens once in place of a code. They
        are not shown again.
      </p>
      <ul className="figure m-0 grid list-none grid-cols-2 p-0">
        {codes.map((it) => (
          <li key={it}>{it}</li>
        ))}
      </ul>
    </div>
  );
}

function TurnOff() {
  const [end] = useEndSecondFactorMutation();
  const form = useCodecForm(PASSWORD, { password: '' });
  const onSubmit = form.submit(async (body) => {
    await end({ body }).unwrap();
    toast('The second factor is off');
  }, faultOf);
  return (
    <form className="flex flex-col gap-3" aria-label="Turn off the second factor" onSubmit={onSubmit} noValidate>
      <p className="note m-0">It is on: a code is asked for at each sign-in.</p>
      {form.input('password', 'Your password', { type: 'password', autoComplete: 'current-password' })}
      <button className="button self-start" disabled={form.busy}>
        Turn it off
      </button>
      {form.refused && <Refused message={form.refused} />}
    </form>
  );
}
