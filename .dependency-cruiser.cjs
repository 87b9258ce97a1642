/** Who may import whom; `docs/architecture.md` says why. */
const only = (from, to, extra = {}) => ({
  name: `${from} imports only its own layers`,
  severity: 'error',
  from: { path: from, ...extra },
  to,
});

module.exports = {
  forbidden: [
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'no-orphans',
      severity: 'error',
      from: {
        orphan: true,
        pathNot: [
          '\\.test\\.tsx?$',
          '\\.d\\.ts$',
          'config\\.(ts|js|cjs)$',
          '^(bench|e2e|scripts)/',
          '-worker\\.ts$',
          '^server/live/assets/',
        ],
      },
      to: {},
    },
    only('^core/', { path: '^(contract|server|web|demo|bench|e2e|scripts)/' }),
    only('^contract/', { path: '^(server|web|demo|bench|e2e|scripts)/' }),
    only('^server/', { path: '^(web|bench|e2e)/' }),
    only('^server/', { path: '^scripts/' }, { pathNot: '\\.test\\.ts$' }),
    only('^web/', { path: '^(server|demo|bench|e2e|scripts)/' }),
    only('^e2e/', { path: '^(server|web|core|bench)/', pathNot: '^server/testing/' }),
    {
      name: 'core: the model knows nothing above it',
      severity: 'error',
      from: { path: '^core/model/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/(operations|derive|changes|arrange|formats|testing)/' },
    },
    {
      name: 'core: operations know the model only',
      severity: 'error',
      from: { path: '^core/operations/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/(derive|changes|arrange|testing)/' },
    },
    {
      name: 'core: what is derived knows the model only',
      severity: 'error',
      from: { path: '^core/derive/', pathNot: '\\.test\\.ts$' },
      to: { path: '^core/(operations|changes|arrange|testing)/' },
    },
    {
      name: 'core brings no platform',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'only repositories, migrations and their folder know SQL',
      severity: 'error',
      from: {
        path: '^server/',
        pathNot: ['^server/database/', '-repository\\.ts$', '\\.test\\.ts$', '^server/testing/'],
      },
      to: { path: 'node_modules/(knex|pg)/' },
    },
    {
      name: "the visitors' side imports no editing",
      severity: 'error',
      from: { path: '^server/live/', pathNot: '\\.test\\.ts$' },
      to: { path: '^server/(edits|accounts|sites|history|events|contents)/' },
    },
    {
      name: 'no lens imports another lens',
      severity: 'error',
      from: { path: '^web/lenses/([^/]+)/' },
      to: { path: '^web/lenses/[^/]+/', pathNot: '^web/lenses/$1/' },
    },
    {
      name: 'ui knows nothing of Spur',
      severity: 'error',
      from: { path: '^web/ui/' },
      to: { path: '^web/(api|tree|workbench|lenses|pages|account)/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.node.json' },
    enhancedResolveOptions: {
      conditionNames: ['import', 'node', 'default', 'types'],
      exportsFields: ['exports'],
      extensions: ['.ts', '.tsx', '.js', '.mjs'],
    },
  },
};
