import { present } from '../errors/known';

const KNOWN = new Set(Intl.supportedValuesOf('currency'));

/** True for an ISO 4217 code this platform knows. */
export function isCurrency(code: string): boolean {
  return KNOWN.has(code);
}

/** Decimals of a currency's minor unit: GBP 2, JPY 0. */
export function currencyDigits(code: string): number {
  return present(new Intl.NumberFormat('en', { style: 'currency', currency: code }).resolvedOptions().maximumFractionDigits);
}
