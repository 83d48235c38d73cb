const MB = 1024 * 1024;
const any = { background: { kind: 'any' }, formats: ['jpeg', 'webp'], maxBytes: 2 * MB };

/**
 * Sizes that most shops and feeds take, in pixels: to begin with where no marketplace's own spec sheet is at hand. What is
 * left out is given by the schema of spec sheets.
 */
export const READY_SHEET = {
  id: 'my-shop',
  marketplace: 'My shop',
  slots: [
    {
      id: 'front',
      title: 'Front, on white',
      width: 2000,
      height: 2000,
      formats: ['jpeg', 'png'],
      maxBytes: 3 * MB,
      background: { kind: 'white' },
      coverage: { min: 0.6, max: 0.96 },
      marginShare: 0.02,
      whole: true,
    },
    { ...any, id: 'square', title: 'Square', width: 1600, height: 1600 },
    { ...any, id: 'portrait', title: 'Portrait 4:5', width: 1080, height: 1350 },
    { ...any, id: 'story', title: 'Story 9:16', width: 1080, height: 1920, required: false },
    { ...any, id: 'wide', title: 'Wide link', width: 1200, height: 628, required: false },
  ],
};
