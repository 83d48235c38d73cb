/** How a lone separator before three digits is read: "1.200" as 1.2 or as 1200. */
export interface NumberHabits {
  /** A lone point groups thousands, as in a price: "1.250" is 1250. A lone comma always does, after a digit above 0. */
  pointGroups?: boolean;
  /** The writer's language has a decimal comma: a lone comma is one always, a lone point groups wherever it can. */
  decimalComma?: boolean;
}

const SPACES = /[ \u00a0\u2009\u202f'’]/g;

/**
 * A number as people write it: with point or comma for the decimals, and thousands grouped by comma, point, space or
 * apostrophe ("1,200", "1.250,00", "12 345.678", "0,5").
 * @returns null for what is no number
 */
export function readNumber(
  text: string,
  { pointGroups = false, decimalComma = false }: NumberHabits = {},
): number | null {
  const trimmed = text.trim();
  if (!/^[-+−]?[\d.,]/.test(trimmed)) return null;
  const sign = /^[-−]/.test(trimmed) ? -1 : 1;
  const plain = trimmed.replace(/^[-+−]/, '');
  // Spaces stand between groups of three and nowhere else.
  if (!/^[\d.,]+$/.test(plain) && !/^\d{1,3}(?:[ \u00a0\u2009\u202f'’]\d{3})+(?:[.,]\d+)?$/.test(plain))
    return null;
  const grouped = SPACES.test(plain);
  SPACES.lastIndex = 0;
  const digits = plain.replace(SPACES, '');
  const decimal = decimalMark(digits, grouped, decimalComma ? '.' : pointGroups && !grouped ? '.,' : ',');
  if (decimal === null) return null;
  const [whole, part = ''] = decimal ? digits.split(decimal) : [digits];
  if (!isGrouped(whole) || !/^\d*$/.test(part) || !(whole + part)) return null;
  return sign * Number(`${whole.replace(/[.,]/g, '') || '0'}.${part || '0'}`);
}

/**
 * The mark before the decimals, '' where there are none; null where it cannot be told.
 * @param groups the marks that group where they stand alone before three digits
 */
function decimalMark(digits: string, grouped: boolean, groups: string): string | null {
  const marks = digits.match(/[.,]/g) ?? [];
  if (!marks.length) return '';
  const last = marks[marks.length - 1];
  if (grouped) return last;
  if (marks.some((m) => m !== last)) return marks.filter((m) => m === last).length === 1 ? last : null;
  if (marks.length > 1) return '';
  return groups.includes(last) && /^[1-9]\d{0,2}[.,]\d{3}$/.test(digits) ? '' : last;
}

/** Digits alone, or in groups of three by one and the same mark. */
function isGrouped(whole: string): boolean {
  return /^\d*$/.test(whole) || /^\d{1,3}(?:([.,])\d{3})(?:\1\d{3})*$/.test(whole);
}

/** Millimetres of each unit of length that can be typed. */
const MILLIMETRES: Record<string, number> = { mm: 1, cm: 10, m: 1000, in: 25.4, '"': 25.4 };

/**
 * What is typed into a number field: a number, or a sum of numbers with + - * / and brackets, with or without units.
 * Lengths in mm, cm, m and in are converted to the field's own.
 * @param unit the field's unit; null for none
 * @returns null for what cannot be read, or comes in a unit that does not fit
 * @example readTyped('2 * (10 + 5.5)', 'px') // 31
 * @example readTyped('2 in', 'mm') // 50.8
 */
export function readTyped(text: string, unit: string | null, habits: NumberHabits = {}): number | null {
  const tokens =
    text
      .match(/[-+*/()×÷−]|[^-+*/()×÷−]+/g)
      ?.map((t) => t.trim())
      .filter(Boolean) ?? [];
  let at = 0;
  const sum = (): number | null => {
    let value = product();
    while (value !== null && ['+', '-', '−'].includes(tokens[at])) {
      const minus = tokens[at++] !== '+';
      const next = product();
      value = next === null ? null : minus ? value - next : value + next;
    }
    return value;
  };
  const product = (): number | null => {
    let value = term();
    while (value !== null && ['*', '/', '×', '÷'].includes(tokens[at])) {
      const divide = ['/', '÷'].includes(tokens[at++]);
      const next = term();
      value = next === null ? null : divide ? value / next : value * next;
    }
    return value;
  };
  const term = (): number | null => {
    const token = tokens[at++];
    if (token === '-' || token === '−' || token === '+') {
      const value = term();
      return value === null ? null : token === '+' ? value : -value;
    }
    if (token === '(') {
      const value = sum();
      return tokens[at++] === ')' ? value : null;
    }
    return token === undefined ? null : withUnit(token, unit, habits);
  };
  const value = sum();
  return value !== null && at === tokens.length && Number.isFinite(value) ? value : null;
}

function withUnit(text: string, unit: string | null, habits: NumberHabits): number | null {
  const [, digits, typed] = /^(.*?\d[.,]?)\s*([^\d\s.,]*)$/.exec(text) ?? [];
  const value = digits === undefined ? null : readNumber(digits, habits);
  if (value === null || !typed) return value;
  const own = unit?.toLowerCase();
  const theirs = typed.toLowerCase();
  if (theirs === own || (theirs === '°' && own === 'deg')) return value;
  const [from, to] = [MILLIMETRES[theirs], own ? MILLIMETRES[own] : undefined];
  return from && to ? (value * from) / to : null;
}
