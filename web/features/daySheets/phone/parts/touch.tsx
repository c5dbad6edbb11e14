import { useId, useState } from 'react';
import { formatShortest } from '../../../../../core/money/decimal';
import { parseQuantity, QUANTITY_DECIMALS } from '../../../../../core/money/rate';

interface NumberBoxProps {
  label: string;
  /** In ten-thousandths, or whole. */
  value: number;
  onValue: (value: number) => void;
  whole?: boolean;
  /** What a touch on − or + takes or adds, in the same measure; none: no such buttons. */
  step?: number;
  /** The label stands above; otherwise what is beside it says what it is. */
  labelled?: boolean;
  disabled?: boolean;
}

/** A number for cold fingers: typed, with nothing but figures taken, or by − and +. Never below zero. */
export function NumberBox({ label, value, onValue, whole = false, step, labelled = false, disabled = false }: NumberBoxProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const id = useId();
  const shown = typed ?? (value === 0 ? '' : whole ? String(value) : formatShortest(value, QUANTITY_DECIMALS));
  const take = (text: string) => {
    const [clean = ''] = (whole ? /^\d*/ : /^\d*\.?\d*/).exec(text.trim().replaceAll(',', '.')) ?? [];
    const read = whole ? { ok: true as const, value: Math.min(Number(clean), 9999) } : parseQuantity(clean === '' ? '0' : clean);
    setTyped(clean);
    if (read.ok) onValue(read.value);
  };
  const by = (more: number) => () => {
    setTyped(null);
    onValue(Math.max(0, value + more));
  };
  return (
    <span className="touch-number">
      <label htmlFor={id} className={labelled ? 'note' : 'sr-only'}>
        {label}
      </label>
      <span className="touch-row">
        {step !== undefined && (
          <button type="button" className="button touch" aria-label={`${label}, less`} disabled={disabled} onClick={by(-step)}>
            −
          </button>
        )}
        <input
          id={id}
          className="box touch num"
          inputMode={whole ? 'numeric' : 'decimal'}
          autoComplete="off"
          disabled={disabled}
          value={shown}
          onChange={(event) => take(event.target.value)}
          onFocus={(event) => event.target.select()}
          onBlur={() => setTyped(null)}
        />
        {step !== undefined && (
          <button type="button" className="button touch" aria-label={`${label}, more`} disabled={disabled} onClick={by(step)}>
            +
          </button>
        )}
      </span>
    </span>
  );
}

/** Something that is so or not, as large as a thumb. */
export function Toggle({
  text,
  on,
  onChange,
  disabled = false,
}: {
  text: string;
  on: boolean;
  onChange: (on: boolean) => void;
  disabled?: boolean;
}) {
  return (
    <button type="button" className="button touch toggle" aria-pressed={on} disabled={disabled} onClick={() => onChange(!on)}>
      <span aria-hidden="true">{on ? '✓ ' : ''}</span>
      {text}
    </button>
  );
}

/** Words, on one line or several. */
export function TextBox({
  label,
  value,
  onValue,
  long = false,
  options = [],
  disabled = false,
}: {
  label: string;
  value: string;
  onValue: (value: string) => void;
  long?: boolean;
  options?: readonly string[];
  disabled?: boolean;
}) {
  const id = useId();
  const props = {
    id,
    disabled,
    value,
    className: 'box touch',
    onChange: (event: { target: { value: string } }) => onValue(event.target.value),
  };
  return (
    <span className="touch-field">
      <label htmlFor={id} className="note">
        {label}
      </label>
      {long ? (
        <textarea rows={3} {...props} />
      ) : (
        <input autoComplete="off" list={options.length > 0 ? `${id}-known` : undefined} {...props} />
      )}
      {options.length > 0 && (
        <datalist id={`${id}-known`}>
          {options.map((it) => (
            <option key={it} value={it} />
          ))}
        </datalist>
      )}
    </span>
  );
}

/** One of several, by the phone's own list. */
export function ChoiceBox({
  label,
  value,
  options,
  onValue,
  disabled = false,
}: {
  label: string;
  value: string;
  options: readonly { value: string; text: string }[];
  onValue: (value: string) => void;
  disabled?: boolean;
}) {
  const id = useId();
  return (
    <span className="touch-field">
      <label htmlFor={id} className="note">
        {label}
      </label>
      <select id={id} className="box touch" disabled={disabled} value={value} onChange={(event) => onValue(event.target.value)}>
        {options.map((it) => (
          <option key={it.value} value={it.value}>
            {it.text}
          </option>
        ))}
      </select>
    </span>
  );
}
