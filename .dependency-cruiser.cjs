// Imports go down only: ui -> engine -> protocol -> core, and app -> server -> engine -> protocol -> core; server and
// command line -> linked -> core. Types count as imports.
const from = (name, path, to) => ({ name, severity: 'error', from: { path }, to: { path: to } });

const TESTS = '[.]test[.]ts$';

/** The floors of core, lowest first: a file imports from its own floor and from those below it. */
const FLOORS = ['values', 'looks', 'sheet', 'stats', 'formula', 'rules', '(edit|findings|sharing|exchange)'];
/** Within formula and rules as well. */
const FORMULA_FLOORS = ['syntax', 'values', 'functions', 'resolve', 'run', 'calculate'];
const RULE_FLOORS = ['compile', 'kinds', 'propose', 'shape', 'evaluate', '(explain|move|suggest|advice|induce|sql)'];

const floorRules = (folder, floors) =>
  floors.slice(0, -1).map((floor, at) => ({
    name: `${folder.replaceAll('/', '-')}-${floor}-imports-down`,
    severity: 'error',
    from: { path: `^src/${folder}/${floor}/`, pathNot: TESTS },
    to: { path: `^src/${folder}/(${floors.slice(at + 1).join('|')})/` },
  }));

module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-imports-nothing-of-ours',
      severity: 'error',
      from: { path: '^src/core', pathNot: TESTS },
      to: { path: '^src/(?!core)' },
    },
    ...floorRules('core', FLOORS),
    ...floorRules('core/formula', FORMULA_FLOORS),
    ...floorRules('core/rules', RULE_FLOORS),
    {
      name: 'core-has-no-platform',
      severity: 'error',
      from: { path: '^src/core' },
      to: { path: '^(react|react-dom|next|postgres|@mantine)', dependencyTypes: ['npm'] },
    },
    {
      name: 'core-has-no-node',
      severity: 'error',
      from: { path: '^src/core', pathNot: TESTS },
      to: { dependencyTypes: ['core'] },
    },
    from('protocol-imports-core-only', '^src/protocol', '^src/(?!core|protocol)'),
    from('engine-imports-down', '^src/engine', '^src/(?!core|protocol|engine)'),
    from('texts-import-core-only', '^src/texts', '^src/(?!core|texts)'),
    from('linked-imports-core-only', '^src/linked', '^src/(?!core|linked)'),
    from('server-imports-down', '^src/server', '^src/(?!core|linked|protocol|engine|server|texts)'),
    from('ui-imports-down', '^src/ui', '^src/(?!core|protocol|engine|texts|ui)'),
    from('demo-imports-down', '^src/demo', '^src/(?!core|protocol|server|demo)'),
    from('command-line-imports-down', '^src/cli', '^src/(?!core|linked|protocol|cli|demo/logger)'),
    from('logger-imports-nothing-of-ours', '^src/demo/logger', '^src/(?!demo/logger)'),
    from('only-app-imports-app', '^src/(?!app)', '^src/app'),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
