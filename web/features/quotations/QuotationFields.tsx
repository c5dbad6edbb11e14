import { amount, tidyOf, type Faults } from '../../kit/typed/codecs';
import { useEstimateListQuery, useTermsQuery } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import { DayInput } from '../../kit/form/DayInput';
import { Field } from '../../kit/Field';
import { part } from '../../kit/typed/parts';
import { Choice } from '../../kit/choice/Choice';
import type { Option } from '../../kit/choice/options';
import type { QuotationForm } from './quotationForm';

interface FieldsProps {
  job: string;
  form: QuotationForm;
  setForm: React.Dispatch<React.SetStateAction<QuotationForm>>;
  faults: Faults;
}

type Typed = 'title' | 'contact' | 'email' | 'introduction' | 'exclusions' | 'terms';

/** How the fields of a quotation are typed into its form. */
function useFields(form: QuotationForm, setForm: FieldsProps['setForm']) {
  const set = <K extends keyof QuotationForm>(key: K, value: QuotationForm[K]) =>
    setForm((before) => ({ ...before, [key]: value }));
  const typed = (key: Typed) => ({
    value: form[key],
    onChange: (event: { target: { value: string } }) => set(key, event.target.value),
  });
  return { set, typed };
}

/** Everything of a quotation that is typed or chosen. */
export function QuotationFields(props: FieldsProps) {
  return (
    <>
      <Heading {...props} />
      <h3 className="mt-3">Payment schedule: it must come to the price</h3>
      <Payments {...props} />
      <h3 className="mt-3">Alternates</h3>
      <Alternates {...props} />
      <Closing {...props} />
    </>
  );
}

function Heading({ job, form, setForm, faults }: FieldsProps) {
  const { month } = useAsOf();
  const { data: estimates } = useEstimateListQuery({ job });
  const { set, typed } = useFields(form, setForm);
  return (
    <div className="grid grid-cols-3 gap-3">
      <Field label="Title" fault={faults.get('title')} className="col-span-2">
        <input {...typed('title')} />
      </Field>
      <Field label="From estimate">
        <Choice
          value={String(form.estimate)}
          options={(estimates ?? []).map((it) => [String(it.number), `${it.number} ${it.name}`])}
          onChange={(number) => set('estimate', Number(number))}
        />
      </Field>
      <Field label="Contact">
        <input {...typed('contact')} />
      </Field>
      <Field label="Contact e-mail">
        <input {...typed('email')} />
      </Field>
      <Field label="Valid until" fault={faults.get('validUntil')}>
        <DayInput value={form.validUntil} month={month} onText={(text) => set('validUntil', text)} />
      </Field>
      <Shown form={form} setForm={setForm} />
      <Field label="Introduction" className="col-span-3">
        <textarea rows={2} {...typed('introduction')} />
      </Field>
    </div>
  );
}

const PRICED: readonly Option<QuotationForm['presentation']>[] = [
  ['lump-sum', 'in one sum'],
  ['section', 'by section'],
  ['line', 'by line'],
];

/** How much of its prices the client is shown. */
function Shown({ form, setForm }: Pick<FieldsProps, 'form' | 'setForm'>) {
  const { set } = useFields(form, setForm);
  const tick = (key: 'quantities' | 'unitPrices', label: string, disabled: boolean) => (
    <label className="flex items-center gap-2">
      <input type="checkbox" checked={form[key]} disabled={disabled} onChange={(event) => set(key, event.target.checked)} />{' '}
      {label}
    </label>
  );
  return (
    <>
      <Field label="Priced">
        <Choice value={form.presentation} options={PRICED} onChange={(shown) => set('presentation', shown)} />
      </Field>
      <div className="col-span-2 flex items-end gap-5 pb-1">
        {tick('quantities', 'quantities', form.presentation === 'section')}
        {tick('unitPrices', 'unit prices', form.presentation !== 'line' || !form.quantities)}
      </div>
    </>
  );
}

/** The faults of one grid, by its own cells. */
function faultsUnder(faults: Faults, prefix: string): Map<string, string> {
  return new Map([...faults].filter(([at]) => at.startsWith(prefix)).map(([at, text]) => [at.slice(prefix.length), text]));
}

function Payments({ form, setForm, faults }: FieldsProps) {
  const { month } = useAsOf();
  const { digits, code } = useCurrency();
  const { set } = useFields(form, setForm);
  return (
    <EntryGrid
      label="Payments"
      columns={[
        { key: 'name', title: 'Payment', width: 'auto' },
        { key: 'part', title: `% or ${code}`, width: 110, numeric: true, tidy: tidyOf(part(digits)) },
        { key: 'when', title: 'Day, or stage', width: 170, month },
      ]}
      rows={form.payments}
      onRows={(rows) => set('payments', rows)}
      faults={faultsUnder(faults, 'payments.')}
      height={186}
      blank={Math.max(2, form.payments.length + 1)}
    />
  );
}

function Alternates({ form, setForm, faults }: FieldsProps) {
  const { digits, code } = useCurrency();
  const { set } = useFields(form, setForm);
  return (
    <EntryGrid
      label="Alternates"
      columns={[
        { key: 'name', title: 'Alternate', width: 'auto' },
        { key: 'amount', title: `Change, +/−, ${code}`, width: 150, numeric: true, tidy: tidyOf(amount(digits)) },
      ]}
      rows={form.alternates}
      onRows={(rows) => set('alternates', rows)}
      faults={faultsUnder(faults, 'alternates.')}
      height={120}
      blank={Math.max(1, form.alternates.length + 1)}
    />
  );
}

function Closing({ form, setForm }: FieldsProps) {
  const { data: terms } = useTermsQuery();
  const { set, typed } = useFields(form, setForm);
  return (
    <div className="mt-3 grid grid-cols-2 gap-3">
      <Field label="Exclusions, one per line">
        <textarea rows={4} {...typed('exclusions')} />
      </Field>
      <div>
        <Field label="Terms">
          <textarea rows={4} {...typed('terms')} />
        </Field>
        {terms && terms.length > 0 && (
          <p className="m-0 mt-1 flex flex-wrap gap-2 text-[12.5px]">
            <span className="note">From the library:</span>
            {terms.map((it) => (
              <button key={it.name} type="button" className="button bare h-5" onClick={() => set('terms', it.body)}>
                {it.name}
              </button>
            ))}
          </p>
        )}
      </div>
    </div>
  );
}
