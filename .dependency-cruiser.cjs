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
      name: 'reading-paints-nothing',
      comment: 'A shot is read, bound and fitted without loading any painting.',
      severity: 'error',
      from: { path: '^packages/core/shot/', pathNot: '[.]test[.]ts$' },
      to: { path: '^packages/core/(elements/([^/]+/paint|painters)[.]ts|paint/)', reachable: true },
    },
    {
      name: 'core-is-pure',
      comment: 'The core runs in browser, worker and Node alike.',
      severity: 'error',
      from: { path: '^packages/core/', pathNot: '[.]test[.]ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'contract-is-types-in-the-web',
      comment: 'The web is typed by the contract; its schemas stay on the server.',
      severity: 'error',
      from: { path: '^apps/web/', pathNot: '[.]test[.]tsx?$' },
      to: { path: '^packages/contract/(?!route[.]ts)', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'contract-knows-the-core',
      comment: 'The contract is made of the core and Joi alone.',
      severity: 'error',
      from: { path: '^packages/contract/', pathNot: '[.]test[.]ts$' },
      to: { path: '^packages/', pathNot: '^packages/(core|contract)/' },
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
