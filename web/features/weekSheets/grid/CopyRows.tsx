import { useState } from 'react';
import { addDays } from '../../../../core/calendar/plainDate';
import type { WeekSheetView } from '../../../../wire/weekSheets';
import { useWeekRegisterQuery, useWeekSheetQuery } from '../../../ground/api/api';
import { Pop } from '../../../kit/Pop';
import type { GridRow } from '../../../kit/grid/gridTypes';
import { rowsOfLines, typedRow, withoutHours, type SheetCodecs } from './readSheet';

interface Props {
  week: string;
  codecs: SheetCodecs;
  onRows: (rows: GridRow[]) => void;
}

const LAST_WEEK = -7;

/** The rows of a sheet of last week, without their hours. */
export function CopyRows({ week, codecs, onRows }: Props) {
  const [open, setOpen] = useState(false);
  const on = addDays(week, LAST_WEEK);
  const { data } = useWeekRegisterQuery({ on }, { skip: !open });
  const [chosen, setChosen] = useState<string | null>(null);
  const { data: sheet } = useWeekSheetQuery({ sheet: chosen ?? '', on }, { skip: chosen === null });
  const rows = sheet && sheet.sheet === chosen ? copied(sheet, codecs) : [];
  return (
    <Pop button="Copy last week's rows …" open={open} onOpen={setOpen} className="w-[340px] p-3">
      <fieldset className="m-0 border-0 p-0">
        <legend className="note mb-1 p-0">Rows of last week, without their hours</legend>
        {data?.sheets.length === 0 && <p className="m-0">There is no sheet of last week.</p>}
        {data?.sheets.map((it) => (
          <label key={it.sheet} className="flex items-center gap-2 py-0.5">
            <input type="radio" name="sheet" checked={chosen === it.sheet} onChange={() => setChosen(it.sheet)} />
            <span className="truncate">
              Sheet {it.sheet}: {it.employees.join(', ')}
            </span>
          </label>
        ))}
      </fieldset>
      <button
        type="button"
        className="button main mt-2"
        disabled={rows.length === 0}
        onClick={() => {
          onRows(rows);
          setOpen(false);
        }}
      >
        Copy {rows.length} {rows.length === 1 ? 'row' : 'rows'}
      </button>
    </Pop>
  );
}

/** What was worked, each once, whatever its day, class and state. */
function copied(sheet: WeekSheetView, codecs: SheetCodecs): GridRow[] {
  const rows = rowsOfLines(
    sheet.lines.filter((it) => it.reverses === null),
    (it) => JSON.stringify([it.employee, it.job, it.section, it.costCode, it.workKind, it.department, it.wageClass]),
  ).map((of) =>
    withoutHours(
      typedRow(
        of.map((it) => ({ ...it, pay: null, units: null, description: '' })),
        codecs,
        sheet.week,
      ),
    ),
  );
  return [...new Map(rows.map((it) => [JSON.stringify(it), it])).values()];
}
