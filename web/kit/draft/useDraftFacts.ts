import { useEffect, useRef } from 'react';
import type { GridRow } from '../grid/gridTypes';

interface FactsForm {
  text: Readonly<Record<string, string>>;
  fill: (texts: never) => void;
}

/**
 * Holds a form of facts and their row of a draft the same: what is typed goes into the draft, and what came into the draft from
 * elsewhere goes into the form.
 */
export function useDraftFacts(form: FactsForm, row: GridRow, onRow: (row: GridRow) => void): void {
  const names = Object.keys(form.text);
  const textOf = (of: Readonly<Record<string, string | undefined>>) => JSON.stringify(names.map((it) => of[it] ?? ''));
  const [typed, there] = [textOf(form.text), textOf(row)];
  const agreed = useRef(typed);
  const latest = useRef({ form, row, onRow });
  latest.current = { form, row, onRow };
  useEffect(() => {
    const now = latest.current;
    if (typed !== there && typed !== agreed.current) {
      now.onRow({ ...now.row, ...now.form.text });
      agreed.current = typed;
    } else if (typed !== there) {
      now.form.fill(now.row as never);
      agreed.current = there;
    }
  }, [typed, there]);
}
