import { exportName } from './export-name';

const size = { width: 2000, height: 1500 };

test('a file is named by shot, variant and size', () => {
  expect(exportName({ shot: 'Morning sill', variant: 'Teal glaze', ...size }, 'jpeg')).toBe(
    'morning-sill-teal-glaze-2000x1500.jpg',
  );
  expect(exportName({ shot: 'Kürbis & Co', variant: null, ...size }, 'tiff')).toBe(
    'kurbis-co-2000x1500.tiff',
  );
  expect(exportName({ shot: 'Postcard', variant: null, width: 147.98, height: 105 }, 'pdf')).toBe(
    'postcard-148x105mm.pdf',
  );
});

test('where nothing is left of its words it is a picture; paths are none', () => {
  expect(exportName({ shot: '…', variant: '', ...size }, 'png')).toBe('picture-2000x1500.png');
  expect(exportName({ shot: '../../etc', variant: null, ...size }, 'png')).toBe('etc-2000x1500.png');
  expect(exportName({ shot: 'x'.repeat(400), variant: null, ...size }, 'webp').length).toBeLessThan(200);
});
