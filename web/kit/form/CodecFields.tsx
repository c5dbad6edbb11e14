import type { InputHTMLAttributes, SelectHTMLAttributes } from 'react';
import type { UseFormRegisterReturn } from 'react-hook-form';
import { Field } from '../Field';
import { tidyOf, type Codec } from '../typed/codecs';
import { DayButton } from './DayButton';

export type InputProps = InputHTMLAttributes<HTMLInputElement> & { hint?: string };
export type SelectProps = SelectHTMLAttributes<HTMLSelectElement>;
/** A value, with a title of its own where it has one. */
export type Choice = string | readonly [value: string, title: string];

interface OwnProps {
  label: string;
  fault: string | undefined;
  /** What the form binds the field with. */
  own: UseFormRegisterReturn;
}

interface CodecInputProps extends InputProps, OwnProps {
  codec: Codec<unknown>;
  text: string;
  onText: (typed: string) => void;
}

/** A text read by its codec: tidied when it is left, figures to the right, a calendar beside a day. */
export function CodecInput({ label, fault, own, codec, text, onText, hint, className = '', ...props }: CodecInputProps) {
  const field = (
    <Field label={label} fault={fault} hint={hint} className={className}>
      <input
        autoComplete="off"
        {...props}
        {...own}
        className={codec.look === 'figure' ? 'figure' : ''}
        onBlur={(event) => {
          const tidied = tidyOf(codec)(event.target.value);
          if (tidied !== event.target.value) onText(tidied);
          void own.onBlur(event);
        }}
      />
    </Field>
  );
  if (codec.look !== 'day') return field;
  const read = codec.parse(text);
  return (
    <div className="with-day">
      {field}
      <DayButton day={read.ok ? (read.value as string | null) : null} onDay={onText} />
    </div>
  );
}

/** One of a list. */
export function CodecSelect({
  label,
  fault,
  own,
  options,
  className,
  ...props
}: SelectProps & OwnProps & { options: readonly Choice[] }) {
  return (
    <Field label={label} fault={fault} className={className}>
      <select {...props} {...own}>
        {options.map((option) => {
          const [value, title] = typeof option === 'string' ? [option, option] : option;
          return (
            <option key={value} value={value}>
              {title}
            </option>
          );
        })}
      </select>
    </Field>
  );
}
