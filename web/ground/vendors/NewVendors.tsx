import { NO_MORE } from '../../../core/masters/masters';
import { useState } from 'react';
import { proposedCode } from '../../../core/costs/vendorOf';
import type { Lists } from '../../../wire/company';
import { Field } from '../../kit/Field';
import { useAddMasterMutation } from '../api/api';
import { faultOf } from '../faults';

interface Props {
  /** What was typed for vendors that are not there. */
  names: readonly string[];
  vendors: Lists['vendors'];
  /** Added under a code, which takes the place of what was typed. */
  onAdded: (name: string, code: string) => void;
}

const SHOWN = 5;

/** Vendors that costs name and the company does not have yet: added in place, so that later bills and orders find them. */
export function NewVendors({ names, vendors, onAdded }: Props) {
  const [codes, setCodes] = useState<Record<string, string>>({});
  const [add, { isLoading }] = useAddMasterMutation();
  const [fault, setFault] = useState<string>();
  if (names.length === 0) return null;
  const codeOf = (name: string) => codes[name] ?? proposedCode(name, vendors);
  const save = async (name: string) => {
    const code = codeOf(name).trim();
    const body = { ...NO_MORE, code, name, closed: false };
    try {
      await add({ kind: 'vendors', body }).unwrap();
      setFault(undefined);
      onAdded(name, code);
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <section aria-label="New vendors" className="sheet mt-3 px-3 py-2">
      <b>Not a vendor yet: choose another, or add it</b>
      {names.slice(0, SHOWN).map((name) => (
        <div key={name} className="mt-1 flex flex-wrap items-end gap-3">
          <span className="self-center">{name}</span>
          <Field label={`Code of ${name}`} className="w-[140px]">
            <input value={codeOf(name)} onChange={(event) => setCodes({ ...codes, [name]: event.target.value })} />
          </Field>
          <button type="button" className="button" disabled={isLoading} onClick={() => void save(name)}>
            Add {name} as a vendor
          </button>
        </div>
      ))}
      {names.length > SHOWN && <p className="note m-0">{names.length - SHOWN} more</p>}
      {fault && (
        <span role="alert" className="fault">
          {fault}
        </span>
      )}
    </section>
  );
}
