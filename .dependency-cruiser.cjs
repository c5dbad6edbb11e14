// Arrows point one way: core ← wire ← server and web; within server as below, within web kit ← ground ← features ← shell. Server and web meet only over HTTP.

/**
 * The folders of the server, lowest first: each imports those before it, and the tables of any. What answers a call (handlers), fills the
 * sample company, or is worked in a thread of its own (workers/tasks) stands over all of them.
 */
const SERVER = [
  ...['db', 'acts', 'versions', 'sheets', 'stand-ins', 'attachments', 'ledger', 'workers', 'http'],
  ...['company', 'pdf', 'reportFiles', 'jobs', 'costs', 'bookFormat', 'masters', 'users', 'approvals'],
  ...['budget', 'prices', 'plan', 'estimates', 'changes', 'billing', 'offers', 'quotations', 'instalments'],
  ...[
    'labour',
    'corrections',
    'commitments',
    'forecasts',
    'weekSheets',
    'payroll',
    'jobFile',
    'jobSetUp',
    'daySheets',
    'people',
    'tenders',
    'site',
  ],
  ...['audit', 'waiting', 'reports', 'workings', 'screens', 'book', 'serving'],
];
const TOP = '/(handlers|demo[A-Z]\\w*|tasks|workers?)\\.ts$';
const TABLES = '/models\\.ts$';
/** A noun's files of the book: they follow the order of the book's own list. */
const BOOK_FILES = '^server/(?!book)\\w+/(bookFiles?\\.ts|awardFiles\\.ts|book/|timeBook/)';
const serverArrows = SERVER.map((folder, i) => ({
  name: `server-${folder}-under-later`,
  severity: 'error',
  from: { path: `^server/${folder}/`, pathNot: ['\\.test\\.ts$', TOP, BOOK_FILES] },
  to: { path: `^server/(${SERVER.slice(i + 1).join('|')})/`, pathNot: TABLES },
}));

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
    ...serverArrows,
    {
      name: 'tables-alone',
      severity: 'error',
      from: { path: `^server/\\w+${TABLES}` },
      to: { path: '^server/', pathNot: ['^server/db/', TABLES] },
    },
    {
      name: 'book-files-apart',
      severity: 'error',
      from: { path: '^server/([\\w-]+)/', pathNot: ['\\.test\\.ts$', BOOK_FILES, '^server/(book|test)/'] },
      to: { path: BOOK_FILES, pathNot: '^server/$1/' },
    },
    {
      name: 'book-files-under-screens',
      severity: 'error',
      from: { path: BOOK_FILES },
      to: { path: '^server/(book|reports|workings|screens|serving)/' },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } } },
  ],
  options: { tsConfig: { fileName: 'tsconfig.json' }, tsPreCompilationDeps: true, doNotFollow: { path: 'node_modules' } },
};
