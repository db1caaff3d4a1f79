import type { FastifyInstance } from 'fastify';

/** Every route a server has, as `POST /api/engines`, read from what it says of them itself. */
export function routesOf(app: FastifyInstance): string[] {
  const above: string[] = [];
  return app
    .printRoutes({ commonPrefix: false })
    .split('\n')
    .flatMap((text) => {
      const line = /^([│├└─ ]*)([^│├└─ ]\S*) \((.*)\)$/.exec(text);
      if (!line) return [];
      const depth = line[1]!.length / 4;
      above[depth - 1] = line[2]!;
      const path = above.slice(0, depth).join('');
      return line[3]!
        .split(', ')
        .filter((method) => method !== 'HEAD')
        .map((method) => `${method} ${path}`);
    });
}
