import { SureButton } from '../../kit/SureButton';
import { useRemoveTermsMutation, useSaveTermsMutation, useTermsQuery } from '../../ground/api/api';
import { useState } from 'react';
import { toast } from '../../kit/toast';
import { faultOf } from '../../ground/faults';
import { Field } from '../../kit/Field';
import { Refused, Waiting } from '../../kit/States';
import { leaveFor, useUnsaved } from '../../kit/unsaved';

/** The company's own library of terms, to be laid into quotations. */
export function TermsPage() {
  const { data } = useTermsQuery();
  const [form, setForm] = useState({ name: '', body: '' });
  const [saved, setSaved] = useState(form);
  useUnsaved(form.name !== saved.name || form.body !== saved.body);
  const [fault, setFault] = useState<string | null>(null);
  const [save] = useSaveTermsMutation();
  const [remove] = useRemoveTermsMutation();
  if (!data) return <Waiting what="the terms" />;
  const show = (terms: typeof form) =>
    leaveFor(() => {
      setForm(terms);
      setSaved(terms);
    });
  const attempt = async (work: () => Promise<unknown>, said: string) => {
    try {
      await work();
      setFault(null);
      toast(said);
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <div className="page">
      <h1 className="mb-4">Terms for quotations</h1>
      <div className="grid gap-10 grid-cols-[minmax(0,0.8fr)_minmax(0,1.2fr)]">
        <div>
          {data.length === 0 ? (
            <p className="note">No terms yet. Enter the first; a new quotation begins with them.</p>
          ) : (
            <table className="ledger even">
              <tbody>
                {data.map((it) => (
                  <tr key={it.name}>
                    <td>
                      <button type="button" className="fig" onClick={() => show(it)}>
                        <b>{it.name}</b>
                      </button>
                      <span className="note block truncate">{it.body}</span>
                    </td>
                    <td className="num w-[130px]">
                      <SureButton onSure={() => void attempt(() => remove({ name: it.name }).unwrap(), `${it.name} is removed`)}>
                        Remove
                      </SureButton>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </div>
        <form
          className="flex flex-col gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            void attempt(
              () =>
                save({ body: form })
                  .unwrap()
                  .then(() => setSaved(form)),
              `${form.name} saved`,
            );
          }}
        >
          <Field label="Name">
            <input value={form.name} onChange={(event) => setForm({ ...form, name: event.target.value })} />
          </Field>
          <Field label="Text">
            <textarea rows={14} value={form.body} onChange={(event) => setForm({ ...form, body: event.target.value })} />
          </Field>
          {fault && <Refused message={fault} />}
          <button className="button main self-start" disabled={form.name.trim() === '' || form.body.trim() === ''}>
            Save {form.name}
          </button>
        </form>
      </div>
    </div>
  );
}
