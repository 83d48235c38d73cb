import { priceFormat } from '../../data/product-data';
import type { Row, RowPart } from '../rows';

export interface Price {
  amount: number;
  currency: string;
  locale: string;
}

/** A price in parts: the currency small and raised, whole digits large, small digits raised. */
export function priceParts({ amount, currency, locale }: Price, font: string, scale: number): RowPart[] {
  const parts: RowPart[] = [];
  const add = (text: string, at: number, raised: boolean) => {
    const last = parts[parts.length - 1];
    if (last && last.scale === at) last.text += text;
    else parts.push({ text, font, scale: at, raised });
  };
  for (const { type, value } of priceFormat(amount, currency, locale).formatToParts(amount)) {
    if (type === 'currency') add(value, scale * 0.5, true);
    else if (type === 'fraction') add(value, scale * 0.45, true);
    // Raised small digits stand off by themselves; the space before or after a currency is the row's own.
    else if (type !== 'decimal' && type !== 'literal') add(value, scale, false);
  }
  return parts;
}

/** What a customer saves, in whole hundredths where it is a share: never more than it is. */
export function savingText(now: Price, was: number, as: 'amount' | 'percent'): string {
  if (as === 'percent') {
    const share = Math.floor(((was - now.amount) / was) * 100 + 1e-9) / 100;
    return `−${new Intl.NumberFormat(now.locale, { style: 'percent' }).format(share)}`;
  }
  const saved = Math.round((was - now.amount) * 100) / 100;
  return priceFormat(saved, now.currency, now.locale).format(saved);
}

export const plainPrice = ({ amount, currency, locale }: Price) =>
  priceFormat(amount, currency, locale).format(amount);

export const smallRow = (text: string, font: string, scale = 0.3, struck = false): Row => ({
  parts: [{ text, font, scale, struck }],
  gap: 0.17,
});
