import { formatPercentShortest } from '../../../core/money/rate';
import type { Session } from '../../../wire/company';
import { useSaveCompanyMutation } from '../../ground/api/api';
import { faultOf } from '../../ground/faults';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { optional, percent, whole, words } from '../../kit/typed/codecs';

const MONTHS = 'January February March April May June July August September October November December'.split(' ');
const TAX_RATE_AT_FIRST = 200_000;

const FIELDS = {
  name: words('Enter the company name'),
  currency: words('Enter a currency, such as GBP'),
  taxName: words(),
  taxRate: optional(percent, 0),
  yearStartMonth: whole('a month'),
  address: words(),
  jobNumberPattern: words(),
  registrationNumber: words(),
  taxNumber: words(),
  phone: words(),
  email: words(),
  web: words(),
  bankDetails: words(),
  timeZone: words(),
  siteDays: whole('days'),
};

const ZONES = [
  ['', 'as the server'],
  ...Intl.supportedValuesOf('timeZone').map((it) => [it, it.replaceAll('_', ' ')] as const),
] as const;

/** Who keeps these books, and in what currency. */
export function CompanyForm({ company, verb, onSaved }: { company: Session['company']; verb: string; onSaved: () => void }) {
  const { input, choice, submit, refused } = useCodecForm(FIELDS, {
    name: company?.name ?? '',
    currency: company?.currency ?? 'GBP',
    taxName: company?.taxName ?? 'VAT',
    taxRate: formatPercentShortest(company?.taxRate ?? TAX_RATE_AT_FIRST),
    yearStartMonth: String(company?.yearStartMonth ?? 1),
    address: company?.address ?? '',
    jobNumberPattern: company?.jobNumberPattern ?? '',
    registrationNumber: company?.registrationNumber ?? '',
    taxNumber: company?.taxNumber ?? '',
    phone: company?.phone ?? '',
    email: company?.email ?? '',
    web: company?.web ?? '',
    bankDetails: company?.bankDetails ?? '',
    timeZone: company?.timeZone ?? '',
    siteDays: String(company?.siteDays ?? 30),
  });
  const [save, { isLoading }] = useSaveCompanyMutation();
  const onSubmit = submit(async (values) => {
    await save({ body: { ...values, currency: values.currency.toUpperCase() } }).unwrap();
    onSaved();
  }, faultOf);
  return (
    <form className="grid grid-cols-6 gap-x-4 gap-y-3" onSubmit={onSubmit} aria-label="Company" noValidate>
      <div className="col-span-3">{input('name', 'Company name')}</div>
      {input('currency', 'Currency')}
      {choice(
        'yearStartMonth',
        'Year starts in',
        MONTHS.map((name, i) => [String(i + 1), name] as const),
        { className: 'col-span-2' },
      )}
      <div className="col-span-2">{input('taxName', 'Tax name')}</div>
      {input('taxRate', 'Tax %')}
      <div className="col-span-2">{input('siteDays', 'Site phones stay signed in, days')}</div>
      <div className="col-span-3">
        {input('jobNumberPattern', 'Job numbers', { placeholder: 'YY-###, or numbered one by one' })}
      </div>
      <div className="col-span-6">{input('address', 'Address')}</div>
      {company && (
        <>
          <div className="col-span-2">{input('phone', 'Phone')}</div>
          <div className="col-span-2">{input('email', 'E-mail')}</div>
          <div className="col-span-2">{input('web', 'Web')}</div>
          <div className="col-span-3">{input('registrationNumber', 'Registration number')}</div>
          <div className="col-span-3">{input('taxNumber', 'Tax number')}</div>
          <div className="col-span-6">{choice('timeZone', 'Time zone: where the company’s day begins', ZONES)}</div>
          <div className="col-span-6">{input('bankDetails', 'Bank details', { hint: 'On invoices, as it is written here' })}</div>
        </>
      )}
      <div className="col-span-6 flex items-center gap-3">
        <button className="button main" disabled={isLoading}>
          {verb}
        </button>
        {refused && (
          <span role="alert" className="fault">
            {refused}
          </span>
        )}
      </div>
    </form>
  );
}
