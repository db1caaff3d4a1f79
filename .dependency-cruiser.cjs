/** The rooms of the page, floor by floor: a room asks those below it and none beside or above it. */
const WEB_FLOORS = [
  ['app', 'drawings'],
  // a build's own data: what it is, how it is read, changed and sent
  ['builds', 'guide', 'owners'],
  ['instruments', 'knowHow', 'parts', 'photographs', 'ran', 'rechecks', 'turning'],
  ['assembly', 'fleet', 'headwork', 'live', 'measuring', 'sheets', 'signoff', 'wear'],
  ['engines'],
  ['pieces', 'today', 'usage'],
  ['people', 'setting'],
  // a build's page puts the rooms together, and the start every page
  ['buildPage'],
  ['start'],
];

/** The rooms of the server, floor by floor, in the same way. */
const SERVER_FLOORS = [
  ['migrations', 'papers', 'plugins'],
  ['gauges', 'health', 'owners', 'people', 'questions', 'share', 'sheets'],
  // a build's own data: how it is read, locked and written, whatever its rooms are
  ['builds', 'fleet', 'pieces', 'instruments'],
  ['knowHow', 'live', 'photographs', 'rechecks'],
  ['calendar', 'entries', 'reminders', 'setting', 'stages', 'usage'],
  ['parts', 'ran', 'today', 'wear'],
  ['measuring'],
  ['engines', 'headwork', 'turning'],
  ['records', 'signoff'],
  ['demo'],
];

const floorsOf = (part, all) =>
  all.flatMap((rooms, floor) => {
    const above = all.slice(floor).flat();
    return rooms.map((room) => ({
      name: `${part}-${room}-asks-only-below`,
      severity: 'error',
      from: { path: `^${part}/${room}/` },
      to: { path: `^${part}/(${above.filter((each) => each !== room).join('|') || '-'})/` },
    }));
  });

/** What is in no room: what the server's rooms ask for, and what puts them together, which none of them asks. */
const SERVER_BELOW = [
  'storedJson',
  'answerCache',
  'tableVersions',
  'answers',
  'background',
  'clock',
  'keyed',
  'length',
  'madeOnce',
  'onThread',
  'secret',
  'stored',
];

/** The arrows of the house: web and server know the contract, the contract knows the core, the core knows nobody. */
module.exports = {
  forbidden: [
    {
      name: 'core-knows-nobody',
      severity: 'error',
      from: { path: '^core/', pathNot: '^core/test/' },
      to: { path: '^(contract|server|web|e2e|scripts)/' },
    },
    {
      name: 'core-has-no-interface-and-no-database',
      severity: 'error',
      from: { path: '^core/', pathNot: '^core/(test|shell)' },
      to: { path: 'node_modules/(react|knex|pg|fastify|@chakra-ui|@reduxjs)/' },
    },
    {
      name: 'core-speaks-zod-only-at-its-shell',
      severity: 'error',
      from: { path: '^core/', pathNot: '^core/(compute\\.ts|operations/|test/)' },
      to: { path: 'node_modules/zod/' },
    },
    {
      name: 'contract-knows-the-core-only',
      severity: 'error',
      from: { path: '^contract/' },
      to: { path: '^(server|web|e2e|scripts)/' },
    },
    {
      name: 'server-and-web-never-meet',
      severity: 'error',
      from: { path: '^server/' },
      to: { path: '^web/' },
    },
    {
      name: 'web-and-server-never-meet',
      severity: 'error',
      from: { path: '^web/' },
      to: { path: '^server/' },
    },
    {
      name: 'drawings-know-nothing-of-http',
      severity: 'error',
      from: { path: '^web/drawings/' },
      to: { path: '^(contract|web/(?!drawings/)[^/]+)/' },
    },
    {
      name: 'routes-do-not-speak-sql',
      severity: 'error',
      from: { path: '^server/.+/routes\\.ts$' },
      to: { path: 'node_modules/knex/' },
    },
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      // types too: what two files say of one another belongs into a third
      to: { circular: true },
    },
    {
      name: 'every-room-of-the-page-has-its-floor',
      severity: 'error',
      from: {},
      to: {
        path: '^web/[^/]+/',
        pathNot: `^web/(${WEB_FLOORS.flat().join('|')}|bench|public|test|dist|node_modules)/`,
      },
    },
    ...floorsOf('web', WEB_FLOORS),
    {
      name: 'every-room-of-the-server-has-its-floor',
      severity: 'error',
      from: {},
      to: {
        path: '^server/[^/]+/',
        pathNot: `^server/(${SERVER_FLOORS.flat().join('|')}|test|node_modules)/`,
      },
    },
    ...floorsOf('server', SERVER_FLOORS),
    {
      name: 'no-room-of-the-server-knows-what-puts-it-together',
      severity: 'error',
      from: { path: '^server/[^/]+/', pathNot: '^server/(test|demo)/' },
      to: { path: '^server/[^/]+\\.ts$', pathNot: `^server/(${SERVER_BELOW.join('|')})\\.ts$` },
    },
    { name: 'no-lost-imports', severity: 'error', from: {}, to: { couldNotResolve: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|test-results)/' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'default', 'types'] },
  },
};
