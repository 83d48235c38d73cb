import type { PaintEnvironment } from '../environment';
import { parseAmount } from '../../data/product-data';
import { fillPath, strokePath, turnedPath } from '../../vector/outline';
import type { Words } from '../base';
import { bestRows, setRows, type Row } from '../rows';
import { paintWords } from '../words';
import { badgeShape } from './forms';
import { plainPrice, priceParts, savingText, smallRow, type Price } from './price-rows';
import type { ElementPainter } from '../painter';
import { BadgeElement } from './model';

export const badgePainter: ElementPainter<BadgeElement> = {
  inVectors: () => true,
  words: badgeWords,
  paint(e, canvas, environment) {
    const shape = badgeShape(e.form, e.box, e.tips, e.depth, e.corner);
    const alpha = canvas.globalAlpha;
    canvas.globalAlpha = alpha * e.fillOpacity;
    fillPath(canvas, shape.outline, e.fill);
    canvas.globalAlpha = alpha;
    if (e.ring && e.ring.width > 0)
      strokePath(canvas, shape.ring(e.ring.inset), { width: e.ring.width, colour: e.ring.colour });
    paintWords(badgeWords(e, environment), canvas);
  },
};

function badgeWords(e: BadgeElement, environment: PaintEnvironment): Words[] {
  const { inner, inside, turn } = badgeShape(e.form, e.box, e.tips, e.depth, e.corner);
  const fit = (rows: Row[]) => setRows(rows, inner, inside, e.ink, environment)?.size ?? 0;
  const set = setRows(rowsOf(e, fit), inner, inside, e.ink, environment);
  if (!set) return [];
  const about = { x: inner.x + inner.width / 2, y: inner.y + inner.height / 2 };
  return [turn ? { ...set, commands: turnedPath(set.commands, turn, about) } : set];
}

function rowsOf(e: BadgeElement, fit: (rows: Row[]) => number): Row[] {
  if (e.says === 'words') return bestRows(e.text, e.font, 1, fit);
  const amount = parseAmount(e.amount);
  const was = parseAmount(e.was);
  const price: Price = { amount: amount ?? 0, currency: e.currency ?? 'GBP', locale: e.locale ?? 'en-GB' };
  const big: Row = {
    parts:
      amount === null ? [{ text: '‹price›', font: e.font, scale: 0.6 }] : priceParts(price, e.numberFont, 1),
    gap: 0.2,
  };
  const lead = e.lead ? [smallRow(e.lead, e.font)] : [];
  const each = e.each ? [smallRow(e.each, e.font, 0.26)] : [];
  if (e.says === 'price' || amount === null) return [...lead, big, ...each];
  const known = was !== null && was > amount;
  if (e.says === 'was-now') {
    const before = smallRow(known ? plainPrice({ ...price, amount: was }) : '‹was›', e.font, 0.36, known);
    return [before, ...lead, big, ...each];
  }
  const saved = known ? savingText(price, was, e.savingAs) : '‹was›';
  return [...lead, { parts: [{ text: saved, font: e.numberFont, scale: 0.8 }], gap: 0.2 }, ...each];
}
