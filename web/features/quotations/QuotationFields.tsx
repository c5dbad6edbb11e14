import { useEstimateListQuery, useTermsQuery } from '../../ground/api/api';
import { useCurrency } from '../../ground/company';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import { columnsOf } from '../../kit/grid/rowCodecs';
import type { Option } from '../../kit/choice/options';
import type { PRESENTATIONS } from './quotationForm';
import type { QuotationDraft } from './useQuotationDraft';

interface FieldsProps {
  job: string;
  draft: QuotationDraft;
}

/** Everything of a quotation that is typed or chosen. */
export function QuotationFields({ job, draft }: FieldsProps) {
  return (
    <>
      <Heading job={job} draft={draft} />
      <h3 className="mt-3">Payment schedule: it must come to the price</h3>
      <Payments draft={draft} />
      <h3 className="mt-3">Alternates</h3>
      <Alternates draft={draft} />
      <Closing draft={draft} />
    </>
  );
}

const PRICED: readonly Option<(typeof PRESENTATIONS)[number]>[] = [
  ['lump-sum', 'in one sum'],
  ['section', 'by section'],
  ['line', 'by line'],
];

function Heading({ job, draft: { facts } }: FieldsProps) {
  const { data: estimates } = useEstimateListQuery({ job });
  const { presentation, quantities } = facts.text;
  return (
    <div className="grid grid-cols-3 gap-3">
      {facts.input('title', 'Title', { className: 'col-span-2' })}
      {facts.choice(
        'estimate',
        'From estimate',
        (estimates ?? []).map((it) => [String(it.number), `${it.number} ${it.name}`]),
      )}
      {facts.input('contact', 'Contact')}
      {facts.input('email', 'Contact e-mail')}
      {facts.input('validUntil', 'Valid until')}
      {facts.choice('presentation', 'Priced', PRICED)}
      <div className="col-span-2 flex items-end gap-5 pb-1">
        {facts.tick('quantities', 'quantities', presentation === 'section')}
        {facts.tick('unitPrices', 'unit prices', presentation !== 'line' || quantities === '')}
      </div>
      {facts.area('introduction', 'Introduction', 2, 'col-span-3')}
    </div>
  );
}

function Payments({ draft: { codecs, rows, setRows, faultsIn } }: Pick<FieldsProps, 'draft'>) {
  const { code } = useCurrency();
  return (
    <EntryGrid
      label="Payments"
      columns={columnsOf(codecs.payments, [
        { key: 'name', title: 'Payment', width: 'auto' },
        { key: 'part', title: `% or ${code}`, width: 110 },
        { key: 'when', title: 'Day, or stage', width: 170 },
      ])}
      rows={rows.payments}
      onRows={(payments) => setRows((before) => ({ ...before, payments }))}
      faults={faultsIn('payments.')}
      height={186}
      blank={Math.max(2, rows.payments.length + 1)}
    />
  );
}

function Alternates({ draft: { codecs, rows, setRows, faultsIn } }: Pick<FieldsProps, 'draft'>) {
  const { code } = useCurrency();
  return (
    <EntryGrid
      label="Alternates"
      columns={columnsOf(codecs.alternates, [
        { key: 'name', title: 'Alternate', width: 'auto' },
        { key: 'amount', title: `Change, +/−, ${code}`, width: 150 },
      ])}
      rows={rows.alternates}
      onRows={(alternates) => setRows((before) => ({ ...before, alternates }))}
      faults={faultsIn('alternates.')}
      height={120}
      blank={Math.max(1, rows.alternates.length + 1)}
    />
  );
}

function Closing({ draft: { facts } }: Pick<FieldsProps, 'draft'>) {
  const { data: terms } = useTermsQuery();
  return (
    <div className="mt-3 grid grid-cols-2 gap-3">
      {facts.area('exclusions', 'Exclusions, one per line', 4)}
      <div>
        {facts.area('terms', 'Terms', 4)}
        {terms && terms.length > 0 && (
          <p className="m-0 mt-1 flex flex-wrap gap-2 text-[12.5px]">
            <span className="note">From the library:</span>
            {terms.map((it) => (
              <button key={it.name} type="button" className="button bare h-5" onClick={() => facts.set('terms', it.body)}>
                {it.name}
              </button>
            ))}
          </p>
        )}
      </div>
    </div>
  );
}
