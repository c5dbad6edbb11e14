import { displayDate } from '../calendar/displayDate';
import { addDays, type PlainDate } from '../calendar/plainDate';
import { displayExact } from '../money/display';
import type { Cents } from '../money/cents';

/** A line of cost that can be posted as it is, though something about it is unusual. */
export interface UnusualLine {
  job: string;
  section: string;
  dated: PlainDate;
  costType: string;
  party: string;
  reference: string;
  amount: Cents;
}

/** What is known of what a line is posted to, before it is. */
export interface KnownOfLine {
  /** The document of this party that has the same reference already. */
  sameReference: number | null;
  /** A line above it in its batch is of the same party, reference and amount. */
  twice: boolean;
  /** Sections the job has; none where it has no sections. */
  sections: ReadonlySet<string>;
  awardedOn: PlainDate | null;
  /** What an entry on the cost line is on average, without its sign; null where there are too few to say. */
  usual: Cents | null;
  /** Whether the party is a vendor; null where the company has none, or for cost that nobody is paid for. */
  isVendor: boolean | null;
}

export interface CostWarning {
  field: 'dated' | 'section' | 'party' | 'reference' | 'amount';
  message: string;
}

/** Days from the day of the batch on which cost is still expected. */
const FAR = 366;
const MANY_TIMES = 10;

/** What has to be seen before a line of cost is posted `asOf`: none of it is refused. */
export function costWarnings(line: UnusualLine, known: KnownOfLine, asOf: PlainDate, digits: number): CostWarning[] {
  const warnings: CostWarning[] = [];
  const { dated, section, amount } = line;
  if (dated < addDays(asOf, -FAR) || dated > addDays(asOf, FAR))
    warnings.push({ field: 'dated', message: `${displayDate(dated)} is more than a year from ${displayDate(asOf)}` });
  else if (known.awardedOn !== null && dated < known.awardedOn)
    warnings.push({
      field: 'dated',
      message: `${displayDate(dated)} is before job ${line.job} was awarded, ${displayDate(known.awardedOn)}`,
    });
  if (section !== '' && known.sections.size > 0 && !known.sections.has(section))
    warnings.push({ field: 'section', message: `${section} is a new section of job ${line.job}` });
  if (known.isVendor === false && line.party !== '')
    warnings.push({ field: 'party', message: `There is no vendor ${line.party}; choose one, or add it` });
  if (known.sameReference !== null)
    warnings.push({
      field: 'reference',
      message: `${line.reference}${line.party && ` of ${line.party}`} is posted already, as document ${known.sameReference}`,
    });
  else if (known.twice)
    warnings.push({
      field: 'reference',
      message: `${line.reference}${line.party && ` of ${line.party}`} appears twice with ${displayExact(amount, digits)}`,
    });
  if (known.usual !== null && Math.abs(amount) >= MANY_TIMES * known.usual)
    warnings.push({
      field: 'amount',
      message: `${displayExact(amount, digits)} is ${MANY_TIMES} times the usual ${displayExact(known.usual, digits)} of this line, or more`,
    });
  return warnings;
}
