import type { InputHTMLAttributes } from 'react';
import type { UseFormRegisterReturn } from 'react-hook-form';
import { Field } from '../Field';
import { tidyOf, type Codec } from '../typed/codecs';
import { Choice } from '../choice/Choice';
import type { Option } from '../choice/options';
import { DayButton } from './DayButton';

export type InputProps = InputHTMLAttributes<HTMLInputElement> & { hint?: string };

interface OwnProps {
  label: string;
  fault: string | undefined;
  text: string;
  onText: (typed: string) => void;
}

interface CodecInputProps extends InputProps, OwnProps {
  codec: Codec<unknown>;
  /** What the form binds the field with. */
  own: UseFormRegisterReturn;
}

export type ChoiceLook = Pick<InputProps, 'className' | 'hint' | 'disabled'>;

interface ChoiceProps extends OwnProps, ChoiceLook {
  options: readonly Option[];
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
  if (codec.month === undefined) return field;
  return (
    <div className="with-day field-day">
      {field}
      <DayButton text={text} month={codec.month} onDay={onText} />
    </div>
  );
}

/** One of a list. */
export function CodecChoice({ label, fault, options, text, onText, className, hint, disabled }: ChoiceProps) {
  return (
    <Field label={label} fault={fault} hint={hint} className={className}>
      <Choice disabled={disabled} value={text} options={options} onChange={onText} />
    </Field>
  );
}
