import { type BrandKit, type LogoPicture } from '@scenograph/core/brand/kit';
import { NO_EFFECTS } from '@scenograph/core/raster/effects';

/** Marrowby's brand kit. */
export function marrowbyKit(wordmark: LogoPicture, wordmarkLight: LogoPicture, mark: LogoPicture): BrandKit {
  return {
    title: 'Marrowby',
    locale: 'en-GB',
    colours: [
      { id: 'ink', title: 'Ink', colour: '#22261f' },
      { id: 'paper', title: 'Oat paper', colour: '#f6f2e8' },
      { id: 'main', title: 'Bottle green', colour: '#2f4a34' },
      { id: 'accent', title: 'Terracotta', colour: '#a94f2a' },
      { id: 'quiet', title: 'Sage', colour: '#b3bfa5' },
    ],
    fonts: [
      { id: 'headline', title: 'Headlines', font: 'fraunces-600' },
      { id: 'body', title: 'Running text', font: 'alegreya-sans-500' },
      { id: 'label', title: 'Labels', font: 'alegreya-sans-800' },
      { id: 'price', title: 'Prices', font: 'barlow-condensed-800' },
      { id: 'script', title: 'Handwriting', font: 'caveat-700' },
    ],
    texts: [
      { id: 'made', title: 'Made by hand', text: 'Made by hand in small batches' },
      { id: 'returns', title: 'Returns', text: 'Thirty days to change your mind' },
      { id: 'delivery', title: 'Delivery', text: 'Free delivery from £40' },
    ],
    logos: [
      { id: 'main', title: 'Wordmark', light: wordmark, dark: wordmarkLight },
      { id: 'mark', title: 'Mark', light: mark, dark: mark },
    ],
    effects: [
      {
        id: 'soft',
        title: 'Soft shadow',
        effects: { ...NO_EFFECTS, dropShadow: { x: 0, y: 8, blur: 28, colour: '#1c1712', opacity: 0.28 } },
      },
      {
        id: 'rim',
        title: 'Paper rim',
        effects: { ...NO_EFFECTS, outline: { width: 8, colour: '#f6f2e8', opacity: 1 } },
      },
    ],
  };
}

/** What the demo's variants know beyond title, size and price. */
export const FIELDS: Record<string, Record<string, string>> = {
  'Stoneware planter 16 cm': { was: '30', rating: '4.7', reviews: '128', material: 'Stoneware' },
  'Enamel watering can': { was: '45', rating: '4.9', reviews: '61', material: 'Enamelled steel' },
  'Garden twine on a spool': { rating: '4.6', reviews: '212', material: 'Jute' },
  'Hand trowel': { rating: '4.8', reviews: '94', material: 'Ash and steel' },
  'Brass plant tags, set of three': { was: '17.50', rating: '4.4', reviews: '37', material: 'Brass' },
  'Soil scoop': { rating: '4.5', reviews: '1', material: 'Ash' },
  'Glass cloche': { was: '52', rating: '4.9', reviews: '18', material: 'Glass and slate' },
};
