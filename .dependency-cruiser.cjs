// Arrows point one way: core ← wire ← server and web; within server db ← acts ← ledger ← the rest, within web kit ← ground ← features ← shell. Server and web meet only over HTTP.
module.exports = {
  forbidden: [
    {
      name: 'core-imports-only-core',
      severity: 'error',
      from: { path: '^core', pathNot: '\\.test\\.ts$' },
      to: { pathNot: '^core' },
    },
    { name: 'wire-imports-core', severity: 'error', from: { path: '^wire' }, to: { path: '^(server|web)' } },
    { name: 'server-not-web', severity: 'error', from: { path: '^server' }, to: { path: '^web' } },
    { name: 'web-not-server', severity: 'error', from: { path: '^web' }, to: { path: '^server' } },
    { name: 'kit-has-no-domain', severity: 'error', from: { path: '^web/kit' }, to: { path: '^web/(ground|features|shell)' } },
    { name: 'ground-under-features', severity: 'error', from: { path: '^web/ground' }, to: { path: '^web/(features|shell)' } },
    { name: 'features-under-shell', severity: 'error', from: { path: '^web/features' }, to: { path: '^web/shell' } },
    {
      name: 'features-apart',
      severity: 'error',
      from: { path: '^web/features/([^/]+)/' },
      to: { path: '^web/features/', pathNot: '^web/features/$1/' },
    },
    {
      name: 'tables-under-all',
      severity: 'error',
      from: { path: '^server/db', pathNot: '\\.test\\.ts$' },
      to: { path: '^server/', pathNot: '^server/db' },
    },
    {
      name: 'acts-over-tables',
      severity: 'error',
      from: { path: '^server/acts', pathNot: '\\.test\\.ts$' },
      to: { path: '^server/', pathNot: '^server/(db|acts)/' },
    },
    {
      name: 'ledger-over-acts',
      severity: 'error',
      from: { path: '^server/ledger', pathNot: '(\\.test|/handlers)\\.ts$' },
      to: { path: '^server/', pathNot: '^server/(db|acts|ledger)/' },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } } },
  ],
  options: { tsConfig: { fileName: 'tsconfig.json' }, tsPreCompilationDeps: true, doNotFollow: { path: 'node_modules' } },
};
