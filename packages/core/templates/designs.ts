import { at, Design, type Colour } from './build';
import type { Purpose, Season, Template } from './template';

/** The designs that ship with the application: one studio's hand, in the colours and fonts of the brand kit. */

type Draw = (d: Design) => void;

function make(id: string, title: string, purpose: Purpose, season: Season | null, draw: Draw): Template {
  const d = new Design();
  draw(d);
  return { id, title, purpose, season, document: d.shot() };
}

const SPREAD = { spread: true };

/** Icon and words side by side, as a row of a list. */
function feature(d: Design, icon: string, text: string, [x, y]: readonly [number, number], colour: Colour) {
  const link = `feature-${icon.replace(' ', '-')}`;
  d.shape('icon', at(x, y, 84, 84), 'accent', { icon, line: 6, link });
  d.text('body', text, at(x + 116, y - 6, 470, 98), 54, colour, {
    vertical: 'middle',
    hint: 'A feature',
    smallest: 28,
    tied: 'features',
    link,
  });
}

export const DESIGNS: readonly Template[] = [
  make('sale-burst', 'Sale with a starburst', 'sale', null, (d) => {
    d.ground('paper');
    d.panel(at(0, 0, 1600, 1600), 'accent', { panel: 'slant', box: at(-340, 0, 1300, 1600), ...SPREAD });
    d.product(at(620, 420, 860, 1020));
    d.text('label', 'Only this week', at(96, 110, 720, 60), 46, 'paper');
    d.text('headline', 'Autumn\nsale', at(96, 190, 760, 430), 196, 'paper');
    d.badge('saving', at(96, 980, 440, 440), 'main', {
      form: 'starburst',
      tips: 20,
      depth: 0.12,
      lead: 'Save',
      ring: null,
    });
    d.text('label', '{title}', at(96, 700, 480, 150), 50, 'paper', {
      hint: 'Title',
      capitals: false,
      tracking: 0,
    });
  }),
  make('sale-half', 'Sale, half and half', 'sale', null, (d) => {
    d.ground('paper');
    d.panel(at(0, 0, 720, 1600), 'main', SPREAD);
    d.text('label', 'Season’s end', at(96, 150, 530, 56), 46, 'quiet');
    d.text('headline', 'Good things, now less', at(96, 250, 540, 560), 150, 'paper');
    d.badge('was-now', at(96, 960, 500, 400), 'accent', {
      form: 'circle',
      box: at(126, 980, 440, 440),
      lead: '',
      ring: { inset: 18, width: 4, colour: '#f6f2e8' },
    });
    d.product(at(800, 300, 720, 1080));
    d.text('body', '{title}', at(800, 1420, 720, 90), 48, 'ink', { align: 'centre', hint: 'Title' });
  }),
  make('new-arrival', 'New arrival', 'new arrival', null, (d) => {
    d.ground('paper');
    d.panel(at(330, 260, 940, 1080), 'quiet', { panel: 'arch' });
    d.product(at(430, 470, 740, 800));
    d.text('headline', 'New on the bench', at(100, 84, 1400, 140), 124, 'ink', { align: 'centre' });
    d.text('label', '{title}', at(200, 1396, 1200, 60), 48, 'ink', { align: 'centre', hint: 'Title' });
    d.text('body', '{price}', at(400, 1460, 800, 66), 60, 'accent', { align: 'centre', hint: 'Price' });
    d.badge('words', at(1110, 300, 290, 290), 'accent', { text: 'New', form: 'seal', tips: 18 });
  }),
  make('feature-list', 'Feature list', 'feature list', null, (d) => {
    d.ground('paper');
    d.panel(at(820, 0, 780, 1600), 'quiet', SPREAD);
    d.product(at(880, 380, 660, 900));
    d.text('label', '{brand}', at(96, 130, 660, 54), 44, 'accent', { hint: 'Brand' });
    d.text('headline', 'Made for every day', at(96, 210, 660, 330), 132, 'ink');
    feature(d, 'sprout', 'Room for roots', [96, 640], 'ink');
    feature(d, 'droplet', 'Drains well', [96, 800], 'ink');
    feature(d, 'hand', 'Thrown by hand', [96, 960], 'ink');
    feature(d, 'recycle', 'Packed in paper', [96, 1120], 'ink');
    d.text('label', '{title}', at(96, 1400, 660, 100), 44, 'ink', {
      capitals: false,
      tracking: 0,
      hint: 'Title',
    });
  }),
  make('feature-callouts', 'Features pointed out', 'feature list', null, (d) => {
    d.ground('paper');
    d.text('headline', '{title}', at(120, 96, 1360, 200), 112, 'ink', { align: 'centre', hint: 'Title' });
    d.product(at(480, 440, 640, 980));
    d.callout('Glazed inside and out', { x: 0.2, y: 0.2 }, at(90, 480, 300, 130));
    d.callout('Even, stable wall', { x: 0.86, y: 0.46 }, at(1210, 720, 300, 130));
    d.callout('Tray catches the rest', { x: 0.2, y: 0.92 }, at(90, 1240, 300, 130));
  }),
  make('size-guide', 'Size guide', 'size guide', null, (d) => {
    d.ground('paper');
    d.panel(at(0, 1240, 1600, 360), 'quiet', SPREAD);
    d.product(at(440, 400, 760, 920));
    d.measure('width', { size: 48, offset: 70, edge: 'after', line: 4 });
    d.measure('height', { size: 48, offset: 90, edge: 'before', line: 4 });
    d.text('headline', 'How big is it?', at(96, 96, 1408, 150), 124, 'ink', { align: 'centre' });
    d.text('body', '{title}', at(200, 250, 1200, 80), 56, 'ink', { align: 'centre', hint: 'Title' });
  }),
  make('close-up', 'Close-up', 'close-up', null, (d) => {
    d.ground('quiet');
    d.product(at(90, 420, 800, 1060));
    d.inset(at(900, 560, 600, 600), {
      spot: { x: 0.5, y: 0.14 },
      across: 0.34,
      line: 5,
      ring: { width: 10, colour: '#24443a' },
    });
    d.text('headline', 'Look closer', at(96, 100, 1100, 190), 170, 'ink');
    d.text('body', 'Every glaze runs its own way. No two are alike.', at(96, 300, 780, 130), 54, 'ink');
    d.text('label', '{title}', at(900, 1240, 600, 110), 46, 'ink', { align: 'centre', hint: 'Title' });
  }),
  make('gift', 'A gift', 'gift', null, (d) => {
    d.ground('main');
    d.shape('frame', at(60, 60, 1480, 1480), 'quiet', { line: 7, double: true, spread: true });
    d.shape('decoration', at(500, 360, 600, 110), 'quiet', { decoration: 'flourish' });
    d.product(at(420, 500, 760, 840));
    d.text('script', 'A gift that grows', at(140, 140, 1320, 220), 190, 'paper', {
      align: 'centre',
      hint: 'Headline',
    });
    d.badge('words', at(350, 1330, 900, 150), 'accent', {
      form: 'ribbon',
      text: 'Wrapped by hand, sent for you',
      ring: null,
    });
  }),
  make('bundle', 'Bundle of three', 'bundle', null, (d) => {
    d.ground('quiet');
    d.panel(at(0, 1120, 1600, 480), 'paper', SPREAD);
    d.product(at(110, 640, 430, 560), 'One of the set');
    d.product(at(1060, 640, 430, 560), 'One of the set');
    d.product(at(520, 560, 560, 760), 'The product');
    d.text('headline', 'Better together', at(96, 100, 1408, 190), 160, 'ink', { align: 'centre' });
    d.text('body', 'Three for the windowsill', at(200, 300, 1200, 80), 64, 'ink', { align: 'centre' });
    d.badge('words', at(500, 1390, 600, 130), 'accent', { form: 'pill', text: 'Set of three', ring: null });
  }),
  make('review', 'Review', 'review', null, (d) => {
    d.ground('paper');
    d.panel(at(0, 0, 600, 1600), 'accent', SPREAD);
    d.product(at(60, 520, 660, 920));
    d.shape('icon', at(780, 170, 130, 130), 'accent', { icon: 'quote', line: 7 });
    d.text(
      'headline',
      'The nicest thing on our windowsill, and the plant thinks so too.',
      at(780, 330, 720, 620),
      100,
      'ink',
      { hint: 'What was said' },
    );
    d.stars(at(780, 1010, 720, 76), { text: '', rating: '5' });
    d.text('body', 'Wren, verified buyer', at(780, 1110, 720, 64), 54, 'ink', { hint: 'Who said it' });
    d.text('label', '{title}', at(780, 1380, 720, 100), 44, 'accent', {
      capitals: false,
      tracking: 0,
      hint: 'Title',
    });
  }),
  make('before-after', 'Before and after', 'before and after', null, (d) => {
    d.ground('paper');
    d.pair(at(96, 330, 1408, 1010));
    d.text('headline', 'A season later', at(96, 96, 1408, 180), 150, 'ink', { align: 'centre' });
    d.text('body', '{title}', at(200, 1390, 1200, 90), 60, 'ink', { align: 'centre', hint: 'Title' });
  }),
  make('spring', 'Spring', 'season', 'spring', (d) => {
    d.ground('paper');
    d.panel(at(180, 180, 1240, 1240), 'quiet', { panel: 'ellipse' });
    d.shape('decoration', at(60, 800, 480, 620), 'main', { decoration: 'leaves', count: 8 });
    d.shape('decoration', at(1150, 900, 340, 340), 'accent', { decoration: 'petals', count: 7 });
    d.product(at(460, 540, 700, 800));
    d.text('headline', 'Sow now', at(250, 240, 1100, 210), 190, 'main', { align: 'centre' });
    d.text('label', 'Spring on the bench', at(350, 1440, 900, 60), 48, 'ink', { align: 'centre' });
  }),
  make('summer', 'Summer', 'season', 'summer', (d) => {
    d.ground('paper');
    d.shape('decoration', at(-200, -300, 2000, 2000), 'quiet', {
      decoration: 'rays',
      count: 14,
      opacity: 0.42,
      brand: { colour: 'quiet', second: 'paper' },
    });
    d.product(at(420, 520, 760, 860));
    d.text('headline', 'Long days, green thumbs', at(140, 120, 1320, 330), 156, 'main', { align: 'centre' });
    d.badge('price', at(1130, 1080, 340, 340), 'accent', { form: 'circle' });
    d.shape('decoration', at(0, 1450, 1600, 120), 'main', { decoration: 'waves', count: 9 });
  }),
  make('autumn', 'Autumn', 'season', 'autumn', (d) => {
    d.ground('accent');
    d.panel(at(0, 1180, 1600, 420), 'main', SPREAD);
    d.shape('decoration', at(40, 480, 620, 520), 'paper', { decoration: 'leaves', count: 7, opacity: 0.35 });
    d.shape('decoration', at(960, 440, 620, 520), 'paper', {
      decoration: 'leaves',
      count: 8,
      opacity: 0.35,
      seed: 3,
    });
    d.product(at(430, 480, 740, 900));
    d.text('headline', 'Bring the garden in', at(120, 120, 1360, 300), 164, 'paper', { align: 'centre' });
    d.text('label', '{title}', at(200, 1430, 1200, 70), 50, 'paper', { align: 'centre', hint: 'Title' });
  }),
  make('winter', 'Winter', 'season', 'winter', (d) => {
    d.ground('main');
    d.shape('decoration', at(0, 0, 1600, 1600), 'paper', {
      decoration: 'snow',
      count: 12,
      opacity: 0.4,
      spread: true,
      brand: { colour: 'paper', second: 'quiet' },
    });
    d.panel(at(340, 460, 920, 960), 'quiet', { panel: 'arch' });
    d.product(at(460, 620, 680, 740));
    d.text('headline', 'Green through the cold', at(140, 110, 1320, 310), 154, 'paper', { align: 'centre' });
    d.text('label', '{title}', at(200, 1460, 1200, 64), 48, 'paper', { align: 'centre', hint: 'Title' });
  }),
  make('delivery', 'Delivery', 'delivery', null, (d) => {
    d.ground('quiet');
    d.product(at(700, 420, 780, 1020));
    d.text('headline', 'At your door in three days', at(96, 120, 900, 480), 142, 'ink');
    feature(d, 'truck', 'Free from £40', [96, 800], 'ink');
    feature(d, 'open package', 'Packed in paper', [96, 960], 'ink');
    feature(d, 'renew', 'Thirty days to return', [96, 1120], 'ink');
  }),
  make('care', 'Care guide', 'care', null, (d) => {
    d.ground('paper');
    d.panel(at(96, 1010, 1408, 494), 'quiet', { radius: 28 });
    d.product(at(520, 300, 560, 660));
    d.text('headline', 'Keep it well', at(96, 96, 1408, 170), 148, 'ink', { align: 'centre' });
    (
      [
        ['droplet', 'Wipe with a damp cloth'],
        ['sun', 'Happy in sun or shade'],
        ['snowflake', 'Bring in before frost'],
      ] as const
    ).forEach(([icon, words], i) => {
      const x = 150 + i * 440;
      const link = `advice-${icon}`;
      d.shape('icon', at(x + 155, 1080, 110, 110), 'accent', { icon, line: 7, link });
      d.text('body', words, at(x, 1230, 420, 190), 56, 'ink', {
        align: 'centre',
        tied: 'care',
        link,
        hint: 'Advice',
      });
    });
  }),
  make('price-tag', 'Price', 'price', null, (d) => {
    d.ground('paper');
    d.panel(at(0, 1080, 1600, 520), 'main', SPREAD);
    d.product(at(520, 200, 900, 1040));
    d.badge('price', at(96, 140, 420, 420), 'accent', { form: 'seal', tips: 22, depth: 0.06, each: 'each' });
    d.text('headline', '{title}', at(96, 1310, 1060, 190), 92, 'paper', {
      vertical: 'middle',
      hint: 'Title',
    });
    d.logo(at(1200, 1340, 304, 130));
  }),
  make('back-in-stock', 'Back in stock', 'new arrival', null, (d) => {
    d.ground('accent');
    d.shape('decoration', at(120, 1180, 1360, 240), 'paper', {
      decoration: 'brush mark',
      count: 9,
      opacity: 0.9,
      brand: { colour: 'paper', second: 'quiet' },
    });
    d.product(at(420, 420, 760, 920));
    d.text('script', 'Back on the shelf', at(100, 110, 1400, 240), 210, 'paper', {
      align: 'centre',
      hint: 'Headline',
    });
    d.text('label', '{title}', at(200, 1470, 1200, 64), 50, 'paper', { align: 'centre', hint: 'Title' });
  }),
  make('quality', 'One good reason', 'close-up', null, (d) => {
    d.ground('paper');
    d.panel(at(0, 0, 1600, 760), 'quiet', SPREAD);
    d.product(at(160, 360, 700, 1060));
    d.inset(at(1010, 180, 420, 420), {
      spot: { x: 0.5, y: 0.5 },
      across: 0.24,
      shape: 'rounded',
      radius: 40,
      leader: 'elbow',
      states: true,
    });
    d.text('headline', 'Fired twice', at(930, 860, 580, 300), 130, 'ink');
    d.text(
      'body',
      'Once for strength, once for colour. It stays outside all summer.',
      at(930, 1180, 580, 240),
      54,
      'ink',
    );
  }),
];
