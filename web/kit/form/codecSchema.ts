import * as v from 'valibot';
import type { Codec } from '../typed/codecs';

export type Codecs = Record<string, Codec<unknown>>;
/** What is typed, field by field. */
export type Texts<Fields extends Codecs> = { [Name in keyof Fields]: string };
/** What it means. */
export type Values<Fields extends Codecs> = { [Name in keyof Fields]: Fields[Name] extends Codec<infer Value> ? Value : never };

/** The fields of a form as one Valibot schema: each text is read by its codec, and what cannot be read is a fault of that field. */
export function codecSchema<Fields extends Codecs>(fields: Fields): v.GenericSchema<Texts<Fields>, Values<Fields>> {
  const entries = Object.entries(fields).map(([name, codec]) => [name, fieldSchema(codec)]);
  return v.object(Object.fromEntries(entries)) as unknown as v.GenericSchema<Texts<Fields>, Values<Fields>>;
}

function fieldSchema(codec: Codec<unknown>) {
  return v.pipe(
    v.string(),
    v.rawTransform(({ dataset, addIssue, NEVER }) => {
      const read = codec.parse(dataset.value);
      if (read.ok) return read.value;
      addIssue({ message: read.message });
      return NEVER;
    }),
  );
}
