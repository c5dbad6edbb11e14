import * as v from 'valibot';
import type { ClientDocument } from '../core/offers/clientDocument';

const whole = v.pipe(v.number(), v.safeInteger());
const line = v.strictObject({
  line: v.string(),
  section: v.string(),
  description: v.string(),
  quantity: v.nullable(whole),
  unit: v.string(),
  unitPrice: v.nullable(whole),
  amount: v.nullable(whole),
});

/** A document for a client, as it is saved when it goes out and as a book brings it. */
export const clientDocument: v.GenericSchema<unknown, ClientDocument> = v.strictObject({
  kind: v.picklist(['quotation', 'change']),
  title: v.string(),
  reference: v.string(),
  dated: v.string(),
  company: v.strictObject({
    name: v.string(),
    address: v.string(),
    lines: v.optional(v.array(v.string())),
    logo: v.optional(v.pipe(v.string(), v.regex(/^data:image\/(png|svg\+xml);base64,[A-Za-z0-9+/=]+$/))),
  }),
  client: v.strictObject({ name: v.string(), contact: v.string() }),
  job: v.strictObject({ number: v.string(), name: v.string(), site: v.string() }),
  currency: v.string(),
  digits: v.pipe(whole, v.minValue(0), v.maxValue(4)),
  introduction: v.string(),
  lines: v.array(line),
  total: whole,
  alternates: v.array(v.strictObject({ name: v.string(), amount: whole })),
  exclusions: v.array(v.string()),
  payments: v.array(v.strictObject({ name: v.string(), when: v.string(), amount: whole })),
  days: v.nullable(whole),
  validUntil: v.nullable(v.string()),
  terms: v.string(),
});
