// Imports go down only: ui -> engine -> protocol -> core, and app -> server -> engine -> protocol -> core.
const from = (name, path, to) => ({ name, severity: 'error', from: { path }, to: { path: to } });

module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    from('core-imports-nothing-of-ours', '^src/core', '^src/(?!core)'),
    {
      name: 'core-has-no-platform',
      severity: 'error',
      from: { path: '^src/core' },
      to: { path: '^(react|react-dom|next|postgres|@mantine)', dependencyTypes: ['npm'] },
    },
    { name: 'core-has-no-node', severity: 'error', from: { path: '^src/core', pathNot: '[.]test[.]ts$' }, to: { dependencyTypes: ['core'] } },
    from('protocol-imports-core-only', '^src/protocol', '^src/(?!core|protocol)'),
    from('engine-imports-down', '^src/engine', '^src/(?!core|protocol|engine)'),
    from('server-imports-down', '^src/server', '^src/(?!core|protocol|engine|server)'),
    from('ui-imports-down', '^src/ui', '^src/(?!core|protocol|engine|ui)'),
    from('demo-imports-down', '^src/demo', '^src/(?!core|protocol|server|demo)'),
    from('command-line-imports-down', '^src/cli', '^src/(?!core|protocol|cli|demo/logger)'),
    from('logger-imports-nothing-of-ours', '^src/demo/logger', '^src/(?!demo/logger)'),
    from('only-app-imports-app', '^src/(?!app)', '^src/app'),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'require', 'node', 'default', 'types'] },
  },
};
