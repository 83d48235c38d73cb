import { zlibSync } from 'fflate';
import sharp from 'sharp';
import { checkSvg, SVG_LIMITS } from './check-svg';
import { inkSvg, svgColours, svgFonts } from './svg-colours';

const svg = (body: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 9 9">${body}</svg>`;
/** `levels` groups, each of which shows the one before ten times. */
const nested = (levels: number, use = (id: string) => `<use href="#${id}"/>`) =>
  svg(
    `<defs><g id="g0"><path d="M0 0h1"/></g>${Array.from({ length: levels }, (_, n) => `<g id="g${n + 1}">${use(`g${n}`).repeat(10)}</g>`).join('')}</defs><use xlink:href="#g${levels}"/>`,
  );

test.each([
  ['parts used in parts without end', nested(9), 'used so often'],
  [
    'patterns filled with patterns',
    svg(
      Array.from(
        { length: 9 },
        (_, n) => `<pattern id="p${n}">${`<path fill="url(#p${n - 1})"/>`.repeat(12)}</pattern>`,
      ).join(''),
    ),
    'used so often',
  ],
  [
    'effects in effects',
    svg(
      `<filter id="f"><feTurbulence numOctaves="100"/><feMorphology radius="80"/></filter>${'<g filter="url(#f)">'.repeat(10)}${'</g>'.repeat(10)}`,
    ),
    'used so often',
  ],
  ['letters without end', svg(`<text>${'word '.repeat(30_000)}</text>`), '149,999 letters'],
  ['nesting without end', svg('<g>'.repeat(400) + '</g>'.repeat(400)), 'nested more than 250 deep'],
  [
    'filter effects without end',
    svg(`<filter id="f">${'<feGaussianBlur stdDeviation="90"/>'.repeat(300)}</filter>`),
    '200 filter effects',
  ],
  ['style sheets without end', svg('<style/>'.repeat(60)), 'more than 50 style sheets'],
  ['more bytes than are taken', svg(`<!--${' '.repeat(SVG_LIMITS.bytes)}-->`), 'up to 5'],
])('an SVG with %s is refused before it is drawn', (_, text, says) => {
  expect(() => checkSvg(text)).toThrow(says);
});

test('what refers to itself is no endless drawing, and a logo that is used a hundred times passes', () => {
  expect(() => checkSvg(svg('<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g>'))).not.toThrow();
  expect(() => checkSvg(nested(2))).not.toThrow();
  const shadow = '<filter id="s"><feGaussianBlur stdDeviation="3"/><feOffset dy="2"/><feMerge/></filter>';
  expect(() => checkSvg(svg(shadow + '<path filter="url(#s)"/>'.repeat(30)))).not.toThrow();
  expect(() => checkSvg(nested(1, (id) => `<path mask="url('#${id}')"/>`))).not.toThrow();
});

test('a picture embedded in it counts by its own size, not by its bytes', async () => {
  const embed = (png: Buffer) =>
    svg(`<image width="1" height="1" href="data:image/png;base64,${png.toString('base64')}"/>`);
  const small = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#fff' } })
    .png()
    .toBuffer();
  expect(() => checkSvg(embed(small))).not.toThrow();
  // Only its header says how large it would be.
  const large = Buffer.from(small);
  large.writeUInt32BE(20_000, 16);
  large.writeUInt32BE(20_000, 20);
  expect(() => checkSvg(embed(large))).toThrow('more than 60 megapixels');
  expect(() => checkSvg(embed(Buffer.from(zlibSync(new Uint8Array(20)))))).toThrow('cannot be read');
});

test('colours and fonts of a large SVG are listed without looking at all of it for each of its parts', () => {
  const text = svg('<style/><path class="a" style="fill:red"/><text font-family="A">a</text>'.repeat(20_000));
  // Were each part looked for in the whole file, this would take minutes.
  expect(svgColours(text)).toEqual(['#ff0000', '#000000']);
  expect(svgFonts(text)).toEqual(['A']);
}, 30_000);

test('colours that are changed leave everything else as it was written', () => {
  const text = svg(
    `<!-- <path fill="red"/> --><style><![CDATA[.a > .b{fill:red}]]></style><path  fill='red'\n d="M0 0h1"/><text fill="#00f">fill="red"</text>`,
  );
  expect(inkSvg(text, { '#ff0000': '#123456' })).toBe(
    text
      .replace('.b{fill:red}', '.b{fill:#123456}')
      .replace("fill='red'", 'fill="#123456"')
      .replace('fill="#00f"', 'fill="#0000ff"'),
  );
});
