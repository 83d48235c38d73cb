/** Rooms of the core from the ground up: one imports only from those before it. Rooms of one line know nothing of each other. */
const ROOMS = [
  ['raster'],
  ['vector', 'retouch', 'surface', 'brand'],
  ['type', 'stage'],
  ['cutout', 'data'],
  ['elements', 'table', 'recipe'],
  ['shot'],
  ['paint', 'templates'],
  ['spec'],
  ['delivery'],
];

const room = (names) => `^packages/core/(${names.join('|')})/`;
const upward = ROOMS.map((level, i) => {
  const above = ROOMS.slice(i + 1).flat();
  return level.map((name) => ({
    name: `room-${name}`,
    comment: `${name} may import only from ${ROOMS.slice(0, i).flat().join(', ') || 'no other room'}.`,
    severity: 'error',
    from: { path: room([name]), pathNot: '[.]test[.]ts$' },
    to: { path: room([...above, ...level.filter((other) => other !== name)]) },
  }));
}).flat();

module.exports = {
  forbidden: [
    ...upward,
    {
      name: 'no-circles',
      comment: 'Files that need each other belong together, or something between them belongs below both.',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    {
      name: 'core-is-pure',
      comment: 'The core runs in browser, worker and Node alike.',
      severity: 'error',
      from: { path: '^packages/core/', pathNot: '[.]test[.]ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'one-way',
      comment: 'Packages know nothing of the applications.',
      severity: 'error',
      from: { path: '^packages/' },
      to: { path: '^apps/' },
    },
    {
      name: 'applications-apart',
      comment: 'Web and server speak by their routes alone.',
      severity: 'error',
      from: { path: '^apps/(web|server|cli)/', pathNot: '[.]test[.]tsx?$' },
      to: { path: '^apps/(web|server|cli)/', pathNot: '^apps/$1/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|node_modules)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types', 'default'] },
  },
};
