import { useAddCostCodesMutation } from '../api/api';
import { useState } from 'react';
import { faultOf } from '../faults';
import { Field } from '../../kit/Field';

/** Names the adding of codes, so that the page may wait for it. */
const ADDING_CODES = { fixedCacheKey: 'new-codes' };

/** Whether codes are being added: what is sent meanwhile would be refused for them. */
export function useAddingCodes(): boolean {
  const [, { isLoading }] = useAddCostCodesMutation(ADDING_CODES);
  return isLoading;
}

/** Cost codes the budget names and the company does not have yet. */
export function NewCodes({ codes }: { codes: readonly string[] }) {
  const [names, setNames] = useState<Record<string, string>>({});
  const [addCodes, { isLoading }] = useAddCostCodesMutation(ADDING_CODES);
  const [fault, setFault] = useState<string>();
  if (codes.length === 0) return null;
  const add = async (event: React.FormEvent) => {
    event.preventDefault();
    try {
      await addCodes({ body: { codes: codes.map((code) => ({ code, description: names[code] ?? '', unit: '' })) } }).unwrap();
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <form className="sheet mt-3 flex flex-wrap items-end gap-3 px-3 py-2" onSubmit={(event) => void add(event)}>
      <b className="self-center">New cost codes</b>
      {codes.slice(0, 40).map((code) => (
        <Field key={code} label={`Description of ${code}`}>
          <input required value={names[code] ?? ''} onChange={(event) => setNames({ ...names, [code]: event.target.value })} />
        </Field>
      ))}
      <button className="button" disabled={isLoading}>
        Add {codes.length === 1 ? codes[0] : `${codes.length} codes`} to the cost codes
      </button>
      {fault && (
        <span role="alert" className="fault">
          {fault}
        </span>
      )}
    </form>
  );
}
