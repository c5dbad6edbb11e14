import { useSaveCompanyMutation } from '../../ground/api/api';
import { useState } from 'react';
import { formatPercentShortest, parsePercent } from '../../../core/money/rate';
import type { Session } from '../../../wire/company';
import { faultOf, type ShownFault } from '../../ground/faults';
import { Field } from '../../kit/Field';

/** Who keeps these books, and in what currency. */
export function CompanyForm({ company, verb, onSaved }: { company: Session['company']; verb: string; onSaved: () => void }) {
  const [form, setForm] = useState({
    name: company?.name ?? '',
    currency: company?.currency ?? 'GBP',
    taxName: company?.taxName ?? 'VAT',
    tax: formatPercentShortest(company?.taxRate ?? 200_000),
    month: String(company?.yearStartMonth ?? 1),
    address: company?.address ?? '',
    pattern: company?.jobNumberPattern ?? '',
  });
  const [fault, setFault] = useState<ShownFault | null>(null);
  const [save, { isLoading }] = useSaveCompanyMutation();
  const submit = async (event: React.FormEvent) => {
    event.preventDefault();
    const tax = parsePercent(form.tax || '0');
    if (!tax.ok)
      return setFault({
        message: '',
        faults: [{ field: 'taxRate', message: `"${form.tax}" is not a percentage from 0 to 100` }],
      });
    try {
      await save({
        body: {
          name: form.name,
          currency: form.currency.trim().toUpperCase(),
          taxName: form.taxName,
          taxRate: tax.value,
          yearStartMonth: Number(form.month),
          address: form.address,
          jobNumberPattern: form.pattern.trim(),
        },
      }).unwrap();
      setFault(null);
      onSaved();
    } catch (error) {
      setFault(faultOf(error));
    }
  };
  const input = (key: keyof typeof form, label: string, field: string = key, props: Record<string, unknown> = {}) => (
    <Field label={label} fault={fault?.faults.find((it) => it.field === field)?.message}>
      <input
        value={form[key]}
        autoComplete="off"
        onChange={(event) => setForm({ ...form, [key]: event.target.value })}
        {...props}
      />
    </Field>
  );
  return (
    <form className="grid grid-cols-6 gap-x-4 gap-y-3" onSubmit={submit} aria-label="Company">
      <div className="col-span-3">{input('name', 'Company name')}</div>
      {input('currency', 'Currency')}
      <Field label="Year starts in" className="col-span-2">
        <select value={form.month} onChange={(event) => setForm({ ...form, month: event.target.value })}>
          {MONTHS.map((name, i) => (
            <option key={name} value={i + 1}>
              {name}
            </option>
          ))}
        </select>
      </Field>
      <div className="col-span-2">{input('taxName', 'Tax name')}</div>
      {input('tax', 'Tax %', 'taxRate')}
      <div className="col-span-3">
        {input('pattern', 'Job numbers', 'jobNumberPattern', { placeholder: 'YY-###, or numbered one by one' })}
      </div>
      <div className="col-span-6">{input('address', 'Address')}</div>
      <div className="col-span-6 flex items-center gap-3">
        <button className="button main" disabled={isLoading}>
          {verb}
        </button>
        {fault?.message && (
          <span role="alert" className="fault">
            {fault.message}
          </span>
        )}
      </div>
    </form>
  );
}

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];
