/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { companyInput } from '../../../wire/company';
import * as v from 'valibot';
import { openPage } from '../../test/openPage';
import { choose, type } from '../../test/typing';
import { CompanyForm } from './CompanyForm';

afterEach(cleanup);

/** The form of a company that is not there yet. */
function open(saveCompany: unknown = {}) {
  let saved = 0;
  const Page = () => <CompanyForm company={null} verb="Save the company" onSaved={() => (saved += 1)} />;
  const page = openPage(Page, '/', '/', { saveCompany: saveCompany as never });
  return { ...page, saved: () => saved };
}
const save = () => fireEvent.click(screen.getByRole('button', { name: 'Save the company' }));

test('a company needs a name alone: the rest is proposed, and what is sent is what the server takes', async () => {
  const { sent, saved } = open();
  await screen.findByRole('form', { name: 'Company' });
  save();
  expect(await screen.findByText('Enter the company name')).toBeTruthy();
  expect(sent('saveCompany')).toEqual([]);
  type('Company name', 'Ashgrove Cladding');
  type('Currency', 'eur');
  await choose('Year starts in', 'April');
  type('Tax %', '17.5');
  save();
  await waitFor(() => expect(saved()).toBe(1));
  const [body] = sent('saveCompany');
  expect(body).toMatchObject({ name: 'Ashgrove Cladding', currency: 'EUR', taxRate: 175_000, yearStartMonth: 4, taxName: 'VAT' });
  expect(v.safeParse(companyInput, body).success).toBe(true);
});

test('a refusal stands at its field, and what was typed stays', async () => {
  const message = 'use # for the running number, such as YY-###, or leave it empty';
  const { saved } = open({ status: 400, body: { message, faults: [{ field: 'jobNumberPattern', message }] } });
  await screen.findByRole('form', { name: 'Company' });
  type('Company name', 'Ashgrove Cladding');
  type('Job numbers', 'YY');
  save();
  expect((await screen.findAllByText(message)).length).toBeGreaterThan(0);
  const field = screen.getByLabelText<HTMLInputElement>('Job numbers');
  expect([field.value, field.getAttribute('aria-invalid'), saved()]).toEqual(['YY', 'true', 0]);
});
