import type { ReactNode } from 'react';
import type { UseFormRegisterReturn } from 'react-hook-form';
import type { Option } from '../choice/options';
import { Field } from '../Field';
import { yes, type Codec } from '../typed/codecs';
import { CodecChoice, CodecInput, type ChoiceLook, type InputProps } from './CodecFields';
import type { Codecs } from './codecSchema';

/** What the fields of a form are bound by. */
interface Binding<Name extends string> {
  text: Readonly<Record<string, string | undefined>>;
  faultAt: (name: Name) => string | undefined;
  set: (name: Name, typed: string) => void;
  register: (name: Name) => UseFormRegisterReturn;
}

/** Makes the fields of a form: each with its label, what is typed in it and its fault. */
export function formFields<Fields extends Codecs>(fields: Fields, form: Binding<keyof Fields & string>) {
  type Name = keyof Fields & string;
  const { text, faultAt, set, register } = form;
  return {
    input: (name: Name, label: string, props: InputProps = {}): ReactNode => (
      <CodecInput
        {...props}
        label={label}
        codec={fields[name] as Codec<unknown>}
        text={text[name] ?? ''}
        fault={faultAt(name)}
        own={register(name)}
        onText={(typed) => set(name, typed)}
      />
    ),
    choice: (name: Name, label: string, options: readonly Option[], props: ChoiceLook = {}): ReactNode => (
      <CodecChoice
        {...props}
        label={label}
        options={options}
        text={text[name] ?? ''}
        fault={faultAt(name)}
        onText={(chosen) => set(name, chosen)}
      />
    ),
    area: (name: Name, label: string, rows: number, className = ''): ReactNode => (
      <Field label={label} fault={faultAt(name)} className={className}>
        <textarea rows={rows} {...register(name)} />
      </Field>
    ),
    tick: (name: Name, label: string, disabled = false): ReactNode => (
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={text[name] === yes.format(true)}
          disabled={disabled}
          onChange={(event) => set(name, yes.format(event.target.checked))}
        />{' '}
        {label}
      </label>
    ),
  };
}
