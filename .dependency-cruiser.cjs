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
      to: { path: '^(contract|web/(app|builds|engines|people|sheets|today))/' },
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
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
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
