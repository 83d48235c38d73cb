import { inkSvg, svgColours, svgFonts } from './svg-colours';

const svg = (body: string, root = '') =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"${root}>${body}</svg>`;

test('an SVG tells its colours wherever they are written, the most used first', () => {
  const text = svg(
    `<style>.a{fill:#F00;stroke:none}</style><path class="a" d="M0 0h1"/><g fill="rgb(0,128,0)"><path style="stroke:#f00;fill:inherit" d="M0 0h1"/></g><stop stop-color='blue'/><path fill="url(#g)" d="M0 0h1"/>`,
  );
  expect(svgColours(text)).toEqual(['#ff0000', '#008000', '#0000ff']);
  const inked = inkSvg(text, { '#ff0000': '#123456' });
  expect(svgColours(inked)).toEqual(['#123456', '#008000', '#0000ff']);
  expect(inked).toContain('fill="url(#g)"');
  expect(inked).toContain('stroke:none');
});

test('what names no fill is black, and can be changed too', () => {
  const text = svg('<path d="M0 0h5v5z"/><path fill="#00ff00" d="M0 0h1v1z"/>');
  expect(svgColours(text).sort()).toEqual(['#000000', '#00ff00']);
  expect(inkSvg(text, { '#000000': '#aa0000' })).toContain('fill="#aa0000"');
  // Where everything is named nothing is added.
  expect(svgColours(svg('<g fill="#010203"><path d="M0 0h1v1z"/></g>'))).toEqual(['#010203']);
});

test('fonts that texts ask for are told; generic ones and unused ones are not', () => {
  expect(svgFonts(svg('<text font-family="Made Up Sans, sans-serif">a</text>'))).toEqual(['Made Up Sans']);
  expect(svgFonts(svg('<path font-family="Made Up Sans" d="M0 0h1"/>'))).toEqual([]);
});
