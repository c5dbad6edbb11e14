import { valibotResolver } from '@hookform/resolvers/valibot';
import { useEffect, useMemo, useRef, useState, type FormEvent } from 'react';
import { useForm, type DefaultValues, type Path, type PathValue } from 'react-hook-form';
import { actFailed } from '../actsByKey';
import type { Fault } from '../../../core/errors/ledrinError';
import type { Faults } from '../typed/codecs';
import { useUnsaved } from '../unsaved';
import { formFields } from './formFields';
import { codecSchema, type Codecs, type Texts, type Values } from './codecSchema';

/** What the server refused, and at which fields. */
interface Refusal {
  message: string;
  faults: readonly Fault[];
}

interface FormOptions {
  /** The form's field that a field of the server's reply is; the same name where it says nothing. */
  fieldOf?: (field: string) => string;
  /** The page itself tells what is typed and not saved, since the form is a part of it, or saves it as it is typed. */
  partOfPage?: boolean;
}

/**
 * A form of texts, each read by its codec: a fault stands at its field, what the server refuses stands at the fields it
 * names, and what was typed stays. Leaving the page with something typed and not sent is asked about.
 */
export function useCodecForm<Fields extends Codecs>(
  fields: Fields,
  start: Texts<Fields>,
  { fieldOf = (it) => it, partOfPage = false }: FormOptions = {},
) {
  type Name = Path<Texts<Fields>>;
  const resolver = useMemo(() => valibotResolver(codecSchema(fields)), [fields]);
  const form = useForm<Texts<Fields>, unknown, Values<Fields>>({
    defaultValues: start as DefaultValues<Texts<Fields>>,
    mode: 'onBlur',
    reValidateMode: 'onChange',
    resolver: resolver as never,
  });
  const [refused, setRefused] = useState<string | null>(null);
  const { errors, isDirty, isSubmitting } = form.formState;
  const text = form.watch();
  const faultAt = (name: string) => (errors as Record<string, { message?: string } | undefined>)[name]?.message;
  // A fault goes with the key that mends it: gone only when the field is left, it would move what is about to be pressed.
  const before = useRef(text);
  useEffect(() => {
    for (const [name, typed] of Object.entries(text))
      if (faultAt(name) !== undefined && before.current[name] !== typed && fields[name]?.parse(typed ?? '').ok)
        form.clearErrors(name as Name);
    before.current = { ...text };
  });
  const [sent, setSent] = useState<string | null>(null);
  const settled = useUnsaved(!partOfPage && isDirty && JSON.stringify(text) !== sent);
  const set = (name: keyof Fields & string, typed: string) =>
    form.setValue(name as Name, typed as PathValue<Texts<Fields>, Name>, { shouldDirty: true, shouldValidate: true });

  const refuse = ({ message, faults }: Refusal) => {
    const own = faults.filter(({ field }) => Object.hasOwn(fields, fieldOf(field)));
    for (const it of own) form.setError(fieldOf(it.field) as Name, { message: it.message });
    setRefused(own.length === faults.length && own.length > 0 ? null : message);
  };

  /** What a field's text means now; null where it cannot be read. */
  const valueOf = <N extends keyof Fields & string>(name: N): Values<Fields>[N] | null => {
    const read = fields[name]?.parse(text[name] ?? '');
    return read?.ok ? (read.value as Values<Fields>[N]) : null;
  };

  const made = formFields(fields, { text, faultAt, set, register: (name) => form.register(name as Name) });

  /** Reads the form and does the work with what it says; what `work` throws is shown by `asFault`. */
  const submit =
    (work: (values: Values<Fields>) => Promise<unknown>, asFault: (error: unknown) => Refusal) => (event?: FormEvent) => {
      setRefused(null);
      void form.handleSubmit(async (values) => {
        const asItIs = () => setSent(JSON.stringify(form.getValues()));
        try {
          // Done, the page may be left in the same breath; what the work itself empties or fills in is no typing.
          asItIs();
          settled();
          await work(values);
          asItIs();
        } catch (error) {
          setSent(null);
          refuse(asFault(error));
          actFailed();
        }
      })(event);
    };

  return {
    ...made,
    text,
    set,
    valueOf,
    faultAt,
    submit,
    refused,
    refuse,
    /** Types into many fields at once. */
    fill: (texts: Partial<Texts<Fields>>) => {
      for (const [name, typed] of Object.entries(texts)) if (Object.hasOwn(fields, name)) set(name, typed as string);
    },
    /** Shows faults at the form's own fields, by their names after `under`. */
    show: (faults: Faults, under = '') => {
      for (const [at, message] of faults)
        if (at.startsWith(under) && Object.hasOwn(fields, at.slice(under.length)))
          form.setError(at.slice(under.length) as Name, { message });
    },
    /** Begins again after it was sent, with these texts and no faults. */
    restart: (texts: Partial<Texts<Fields>>) => {
      form.reset({ ...form.getValues(), ...texts }, { keepDefaultValues: true });
    },
    changed: isDirty,
    busy: isSubmitting,
  };
}
