import { afterAll, describe, expect, test } from '@jest/globals';
import { cleanUp, everything, faultsOf, temporaryDatabase, TENDER_BOOK, type BookText } from '../test/books';

afterAll(cleanUp);

describe('a book with faults in its pricing', () => {
  const changed = (file: string, from: string, to: string): BookText => {
    if (!TENDER_BOOK[file]!.includes(from)) throw new Error(`${from} is not in ${file}`);
    return { ...TENDER_BOOK, [file]: TENDER_BOOK[file]!.replace(from, to) };
  };
  test.each<[string, BookText, string[]]>([
    [
      'a quotation of no estimate, sent without a day, paid in both ways',
      {
        ...TENDER_BOOK,
        quotations: 'job,quotation,estimate,title,status\nJ2,1,7,T,sent\n',
        quotation_payments: 'job,quotation,name,percent,amount\nJ2,1,a,5,5\nJ2,2,b,5,\n',
      },
      ['quotations:2:estimate', 'quotations:2:sent_on', 'quotation_payments:2:percent', 'quotation_payments:3:quotation'],
    ],
    ['an unknown cost code of an item', changed('price_items', 'labour,100', 'labour,777'), ['price_items:2:cost_code']],
    ['an unknown vendor', changed('price_items', ',PANEL,2031', ',NOBODY,2031'), ['price_items:3:vendor']],
    ['labour by another unit than the hour', changed('price_items', 'Roofer,h', 'Roofer,day'), ['price_items:2:unit']],
    ['a unit cost below nothing', changed('price_items', '0.1234', '-0.1234'), ['price_items:4:unit_cost']],
    ['a markup beyond its bounds', changed('price_items', '6.40,15', '6.40,1000.5'), ['price_items:5:markup_percent']],
    [
      'an item twice',
      changed('price_items', 'FIXING,', 'CREW,'),
      ['price_items:4:price_item', 'build_up_components:5:price_item'],
    ],
    ['history of no item', changed('price_history', 'MEMBRANE,2031', 'SLATE,2031'), ['price_history:3:price_item']],
    [
      'a component that is both',
      changed('build_up_components', 'ROOF,,BED', 'ROOF,CREW,BED'),
      ['build_up_components:6:price_item'],
    ],
    ['a circle', changed('build_up_components', 'BED,CREW,', 'BED,,ROOF'), ['build_up_components:6:component']],
    [
      'an estimate of no job',
      changed('estimates', 'J2,1', 'J9,1'),
      [
        'estimates:2:job',
        ...['markups:2', 'markups:3', 'markups:4', 'lines:2', 'lines:3', 'lines:4', 'parts:2', 'parts:3', 'parts:4'].map(
          (it) => `estimate_${it}:estimate`,
        ),
      ],
    ],
    ['sent without a day', changed('estimates', 'draft', 'sent'), ['estimates:2:sent_on']],
    ['a markup on nothing', changed('estimate_markups', ',,B,', ',,,'), ['estimate_markups:4:cost_type']],
    [
      'a line twice',
      changed('estimate_lines', '1,2,A', '1,1,A'),
      ['estimate_lines:3:estimate_line', 'estimate_parts:2:estimate_line'],
    ],
    ['an unknown build-up', changed('estimate_lines', 'ROOF', 'SLATE'), ['estimate_lines:2:build_up']],
    ['a part on no line', changed('estimate_parts', 'J2,1,3,,', 'J2,1,8,,'), ['estimate_parts:4:estimate_line']],
    [
      'a budget line of no accepted estimate',
      { ...TENDER_BOOK, budget: 'job,cost_code,cost_type,amount,estimate_line\nJ2,100,labour,5,1\n' },
      ['budget:2:estimate_line'],
    ],
    [
      'an award of no accepted estimate',
      { ...TENDER_BOOK, awards: 'job,sov_line,net,spread,difference\nJ1,1,5,5,5\n' },
      ['awards:2:job', 'awards:2:difference'],
    ],
  ])('%s', async (_what, book, faults) => {
    const fresh = await temporaryDatabase();
    const before = await everything(fresh);
    expect(await faultsOf(fresh, book)).toEqual(faults);
    expect(await everything(fresh)).toBe(before);
  });
});
