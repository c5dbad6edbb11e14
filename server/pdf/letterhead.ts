import type { Content } from 'pdfmake';
import type { Company } from '../company/company';
import { svgOf } from '../company/safeLogo';
import { QUIET } from './typefaces';

/** What stands under the address of a company. */
export function senderLines({ phone, email, web, registrationNumber, taxNumber, taxName }: Company): string[] {
  return [
    [phone, email, web].filter(Boolean).join(' · '),
    [registrationNumber ? `Registered no. ${registrationNumber}` : '', taxNumber ? `${taxName || 'Tax'} no. ${taxNumber}` : '']
      .filter(Boolean)
      .join(' · '),
  ].filter(Boolean);
}

/** The head of every document: the company at the left, its logo at the right. */
export function letterhead(sender: {
  name: string;
  address: string;
  lines?: readonly string[] | undefined;
  logo?: string | undefined;
}): Content {
  const words = {
    width: '*',
    stack: [
      { text: sender.name, font: 'Serif', fontSize: 11 },
      { text: sender.address },
      ...(sender.lines ?? []).map((text) => ({ text, fontSize: 8, color: QUIET })),
    ],
  };
  const logo = sender.logo ?? '';
  if (logo === '') return { columns: [words], margin: [0, 0, 0, 22] };
  const svg = svgOf(logo);
  const image: Content =
    svg === null ? { image: logo, fit: [120, 48], alignment: 'right' } : { svg, fit: [120, 48], alignment: 'right' };
  return { columns: [words, { width: 'auto', stack: [image] }], margin: [0, 0, 0, 22] };
}

/** The head of a document of the company's own. */
export function companyLetterhead(company: Company, logo: string): Content {
  return letterhead({ name: company.name, address: company.address, lines: senderLines(company), logo });
}

/** What a document is to or for: a quiet label over its lines; empty lines are left out. */
export function labelled(label: string, ...lines: string[]): Content {
  return { stack: [{ text: label, fontSize: 8, color: QUIET }, ...lines.filter(Boolean).map((text) => ({ text }))] };
}
