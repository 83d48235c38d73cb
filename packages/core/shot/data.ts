import type { OwnShadowLayer } from '../elements/product/definition';
import type { ProductBase } from '../stage/base';
import { IntlMessageFormat } from 'intl-messageformat';

/** What texts and pictures of a shot may be bound to: one variant of a product. */
export interface ProductData {
  title: string;
  variant: string;
  sku: string;
  /** In whole currency units, or null where there is no price. */
  price: number | null;
  currency: string;
  /** Real size in mm, where known. */
  widthMm: number | null;
  heightMm: number | null;
  depthMm: number | null;
  /** The variant's cutout. */
  cutout: {
    picture: string;
    width: number;
    height: number;
    shadow?: OwnShadowLayer | null;
    base?: ProductBase | null;
  } | null;
}

const LOCALE = 'en-GB';

/**
 * Fills the ICU placeholders of a text ({title}, {price}, {variant}, {sku}, {size}; plural and number forms
 * work on {amount} and the millimetres). What is missing stays to be seen as its placeholder and is listed.
 */
export function bindText(text: string, data: ProductData | null): { text: string; missing: string[] } {
  if (!text.includes('{')) return { text, missing: [] };
  const values: Record<string, string | number | null> = {
    title: data?.title || null,
    variant: data?.variant || null,
    sku: data?.sku || null,
    price: data?.price == null ? null : formatPrice(data.price, data.currency),
    amount: data?.price ?? null,
    width: data?.widthMm ?? null,
    height: data?.heightMm ?? null,
    depth: data?.depthMm ?? null,
    size:
      data?.widthMm && data.heightMm ? `${Math.round(data.widthMm)} × ${Math.round(data.heightMm)} mm` : null,
  };
  const missing = new Set<string>();
  const filled = text.replace(/\{\s*(\w+)\s*\}/g, (_whole, name: string) => {
    if (values[name] != null) return String(values[name]);
    missing.add(name);
    return `‹${name}›`;
  });
  if (!filled.includes('{')) return { text: filled, missing: [...missing] };
  try {
    const present = Object.fromEntries(Object.entries(values).filter(([, v]) => v != null));
    return { text: String(new IntlMessageFormat(filled, LOCALE).format(present)), missing: [...missing] };
  } catch {
    // A form that cannot be filled is shown as it was written, never printed half.
    for (const match of filled.matchAll(/\{\s*(\w+)/g)) missing.add(match[1]);
    return { text: filled, missing: [...missing] };
  }
}

export function formatPrice(amount: number, currency: string): string {
  const whole = Number.isInteger(amount);
  return new Intl.NumberFormat(LOCALE, {
    style: 'currency',
    currency,
    minimumFractionDigits: whole ? 0 : 2,
    maximumFractionDigits: whole ? 0 : 2,
  }).format(amount);
}
