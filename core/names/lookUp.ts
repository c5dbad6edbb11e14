/** What a record holds under a name somebody chose; undefined for names such as `constructor`, which every object answers to. */
export function lookUp<Value>(record: Readonly<Record<string, Value>>, name: string): Value | undefined {
  return Object.hasOwn(record, name) ? record[name] : undefined;
}
