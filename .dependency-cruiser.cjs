// Arrows point one way: core ← wire ← server and web; within server as below, within web kit ← ground ← features ← shell. Server and web meet only over HTTP.

/** What reads over many nouns, or serves them. */
const OVER_NOUNS = ['audit', 'waiting', 'reports', 'workings', 'screens', 'book', 'serving'];
/**
 * The folders of the server, lowest first: each imports those before it, and the tables of any. One that is not here imports any but the
 * last line, and none of these imports it: so a new noun need not be named until another one builds on it. What answers a call
 * (handlers), fills the sample company, or is worked in a thread of its own (workers/tasks) stands over all of them.
 */
const SERVER = [
  ...['db', 'acts', 'versions', 'sheets', 'stand-ins', 'attachments', 'ledger', 'workers', 'http'],
  ...['company', 'pdf', 'reportFiles', 'jobs', 'charging', 'costs', 'bookFormat', 'masters', 'users', 'approvals'],
  ...['budget', 'prices', 'plan', 'estimates', 'changes', 'billing', 'daywork', 'offers', 'quotations', 'instalments'],
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
  ...OVER_NOUNS,
];
const TOP = '/(handlers|demo[A-Z]\\w*|tasks|workers?)\\.ts$';
const TABLES = '/models\\.ts$';
/** A noun's files of the book: they follow the order of the book's own list. */
const BOOK_FILES = '^server/(?!book)\\w+/(bookFiles?\\.ts|savedLists\\.ts|awardFiles\\.ts|book/|timeBook/)';
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
      name: 'server-unlisted-is-not-built-on',
      severity: 'error',
      from: { path: `^server/(${SERVER.join('|')})/`, pathNot: ['\\.test\\.ts$', TOP, BOOK_FILES, '^server/book/bookFiles'] },
      to: { path: '^server/\\w+/', pathNot: [`^server/(${SERVER.join('|')}|test)/`, TABLES] },
    },
    {
      name: 'server-unlisted-under-screens',
      severity: 'error',
      from: { path: '^server/\\w+/', pathNot: ['\\.test\\.ts$', TOP, `^server/(${SERVER.join('|')}|test)/`] },
      to: { path: `^server/(${OVER_NOUNS.join('|')})/` },
    },
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
