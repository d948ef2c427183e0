/** The layers of docs/architecture.md: data flows one way, and imports say so. */
const FOLDERS = ['core', 'wire', 'peer', 'client', 'session', 'agent', 'store', 'services', 'ui', 'app', 'programs'];

/** What each folder may import besides itself. Types of view models may come from further out; see `typesOnly`. */
const MAY_IMPORT = {
  core: [],
  wire: ['core'],
  peer: ['core', 'wire'],
  client: ['core', 'wire'],
  session: ['core', 'wire', 'client'],
  agent: ['core', 'wire', 'client', 'session'],
  store: ['core'],
  services: ['core', 'wire', 'store'],
  ui: ['core', 'wire', 'client', 'session', 'services'],
  app: ['core', 'wire', 'services', 'ui'],
  programs: FOLDERS,
};

const TESTS = ['\\.test\\.tsx?$', '-for-tests\\.ts$'];

/** Layers inside a folder: each may import those before it, and nothing after. `index.ts` gathers all of them. */
const INNER = {
  core: [
    'domain',
    'stats',
    'measure',
    'ceiling',
    'run',
    'judge',
    'over-time',
    'diagnose',
    'turns',
    'watch',
    'words',
    'ledger',
    'picture',
  ],
  services: [
    'console',
    'audit',
    'access',
    'office',
    'runs',
    'agents',
    'turns',
    'schedules',
    'diagnosis',
    'hunts',
    'cases',
    'views',
    'alarms',
    'upkeep',
  ],
  wire: ['fault', 'address', 'peer', 'forms', 'console'],
  programs: ['faults', 'folder', 'log', 'supervise', 'demo', 'agent', 'entry'],
};

const innerRules = Object.entries(INNER).flatMap(([folder, layers]) =>
  layers.slice(0, -1).map((layer, index) => ({
    name: `${folder}-${layer}-knows-nothing-later`,
    comment: `src/${folder}: ${layers.join(' < ')}`,
    severity: 'error',
    from: { path: `^src/${folder}/${layer}/`, pathNot: TESTS },
    to: { path: `^src/${folder}/(${layers.slice(index + 1).join('|')})/` },
  })),
);

const layerRules = FOLDERS.map((folder) => {
  const forbidden = FOLDERS.filter((other) => other !== folder && !MAY_IMPORT[folder].includes(other));
  return {
    name: `${folder}-imports-inward`,
    comment: `src/${folder} may import: ${MAY_IMPORT[folder].join(', ') || 'nothing'}`,
    severity: 'error',
    from: { path: `^src/${folder}/`, pathNot: TESTS },
    to: { path: forbidden.length === 0 ? '^$' : `^src/(${forbidden.join('|')})/` },
  };
});

module.exports = {
  forbidden: [
    ...layerRules,
    ...innerRules,
    {
      name: 'nothing-flat-in-services',
      comment: 'a use case lies in the folder of what it is about',
      severity: 'error',
      from: { path: '^src/services/[^/]+$', pathNot: '/index\\.ts$' },
      to: {},
    },
    {
      name: 'core-is-pure',
      comment: 'core uses no package and nothing of Node',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['npm', 'npm-dev', 'core'] },
    },
    {
      name: 'ui-takes-only-types-from-services',
      comment: 'a component gets its data as props; it may name their types',
      severity: 'error',
      from: { path: '^src/ui/' },
      to: { path: '^src/services/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'through-the-door',
      comment: 'import a folder by its index, not past it',
      severity: 'error',
      from: { path: '^src/([^/]+)/', pathNot: '^src/programs/' },
      to: {
        path: '^src/(core|wire|peer|client|session|agent|store|services|programs)/.+',
        pathNot: ['^src/$1/', '/index\\.ts$', '-for-tests\\.ts$', '^src/client/browser/measuring-worker\\.ts$'],
      },
    },
    {
      name: 'only-the-store-knows-sql',
      severity: 'error',
      from: { path: '^src/', pathNot: '^src/store/' },
      to: { path: 'node_modules/(sequelize|sqlite3|umzug)' },
    },
    { name: 'no-circles', severity: 'error', from: { path: '^src/' }, to: { circular: true } },
    {
      name: 'no-orphans',
      severity: 'error',
      from: {
        orphan: true,
        path: '^src/',
        pathNot: ['^src/app/', '^src/programs/entry/', '\\.test\\.tsx?$', '\\.d\\.ts$'],
      },
      to: {},
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'require', 'node', 'default'] },
  },
};
