import { useState } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { RUNG_WORDS, type LookedAt, type Rung } from '../../../core/labour/payRates';
import type { PayClass } from '../../../core/labour/payClass';
import { formatScaled } from '../../../core/money/decimal';
import { UNIT_COST_DECIMALS } from '../../../core/prices/unitCost';
import { useTimeRateQuery } from '../../ground/api/api';
import { Loaded } from '../../ground/Loaded';
import { Pop } from '../../kit/Pop';

export const rateText = (rate: number) => formatScaled(rate, UNIT_COST_DECIMALS);

const OUTCOMES: Record<LookedAt['outcome'], string> = {
  nothing: 'no rate',
  taken: 'this one',
  lower: 'at least, and another is higher',
  'not-reached': 'an earlier one holds',
};

/** The rungs as they were looked at, in their order: which won, and what became of the others. */
export function RungTable({ looked }: { looked: readonly LookedAt[] }) {
  return (
    <table className="ledger static-foot">
      <thead>
        <tr>
          <th className="text-left">A rate for</th>
          <th className="text-left">From</th>
          <th className="text-right">Rate</th>
          <th className="text-left">Outcome</th>
        </tr>
      </thead>
      <tbody>
        {looked.map(({ rung, found, outcome }) => (
          <tr key={rung} className={outcome === 'taken' ? 'font-semibold' : ''}>
            <td>{RUNG_WORDS[rung]}</td>
            <td className="whitespace-nowrap">{found ? displayDate(found.from) : '–'}</td>
            <td className="figure">{found ? rateText(found.rate) : '–'}</td>
            <td>
              {OUTCOMES[outcome]}
              {found?.atLeast && outcome === 'taken' ? ', at least' : ''}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

interface LineProps {
  sheet: string;
  line: string;
  pay: PayClass;
  rung: string;
}

/** What a line of time has its rate from; pressed, how it was found. */
export function RateOfLine({ rung, ...of }: LineProps) {
  const [open, setOpen] = useState(false);
  return (
    <Pop
      button={rung === 'piece' ? 'piece rate' : RUNG_WORDS[rung as Rung]}
      label={`Rate of line ${of.sheet}/${of.line}`}
      open={open}
      onOpen={setOpen}
      align="end"
      inLine
      className="w-[560px] p-4"
    >
      {open && <Found of={of} />}
    </Pop>
  );
}

function Found({ of }: { of: Omit<LineProps, 'rung'> }) {
  const found = useTimeRateQuery(of);
  return (
    <Loaded of={found} what="the rate">
      {({ rate, rung, looked }) => (
        <>
          <p className="mt-0">
            Rate {rateText(rate)}
            {rung === 'piece' ? ' for one, by the piece' : ' an hour'}
          </p>
          {looked.length > 0 && <RungTable looked={looked} />}
        </>
      )}
    </Loaded>
  );
}
