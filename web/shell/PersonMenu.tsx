import { useState } from 'react';
import { Link } from 'react-router';
import { useSignOutMutation } from '../ground/api/api';
import { usePerson } from '../ground/person';
import { OnPress } from '../kit/OnPress';

/** Who is signed in, with the way to the account and out. */
export function PersonMenu() {
  const person = usePerson();
  const [signOut] = useSignOutMutation();
  const [open, setOpen] = useState(false);
  if (!person) return null;
  // The page is loaded anew: nothing that was shown stays in it.
  const leave = async () => {
    // Day sheets that were sent do not stay on this device either; what was not sent does.
    await import('../features/daySheets/phone/phoneStore').then((it) => it.forgetPhone()).catch(() => {});
    await signOut().finally(() => window.location.assign('/'));
  };
  return (
    <OnPress
      open={open}
      onOpen={setOpen}
      trigger={
        <button type="button" className="button bare" title={`${person.name}, ${person.role}`}>
          {initialsOf(person.name)}
          <span className="sr-only">, {person.name}: account and sign out</span>
        </button>
      }
      content={{
        align: 'end',
        sideOffset: 6,
        className: 'z-50 border p-4 bg-[var(--sheet)] border-[var(--rule)]',
        'aria-label': 'Account',
      }}
    >
      <p className="m-0">
        <b>{person.name}</b>
      </p>
      <p className="note mb-3 mt-0">{person.role}</p>
      <div className="flex items-center gap-4">
        <Link to="/account" onClick={() => setOpen(false)}>
          Your account
        </Link>
        <button type="button" className="button" onClick={() => void leave()}>
          Sign out
        </button>
      </div>
    </OnPress>
  );
}

function initialsOf(name: string): string {
  return name
    .split(/\s+/)
    .filter(Boolean)
    .map((it) => it.charAt(0).toUpperCase())
    .slice(0, 3)
    .join('');
}
