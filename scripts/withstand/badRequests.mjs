import { randomUUID } from 'node:crypto';
import { classOf, countBy, seeded } from './shop.mjs';

const FIELDS = [
  ...['version', 'name', 'point', 'reading', 'asTyped', 'usage', 'body', 'pattern', 'limits', 'stage', 'to'],
  ...[
    'text',
    'role',
    'passphrase',
    'zone',
    'unit',
    'kind',
    'blades',
    'address',
    'takenAt',
    'crankAngle',
    'at',
  ],
];
const ODD = [
  ...[null, '', ' ', 'a\u0000b', '\ud800', 'x'.repeat(5000), [], {}, true, -0, 1e308, -1, 2 ** 31, 0.1],
  ...['0000-01-01', '9999-12-31T23:59:59Z', '../..', "'; drop table people; --", '127.0.0.1:99999'],
];
const IDS = [randomUUID(), '1', 'null', '%00', '%ff', '..%2f..', 'x'.repeat(300), '%F0%9F%94%A7'];

/** Requests that fit nothing, over every route there is, signed in as a lead: none may break the server. */
export async function badRequests({ call, routes, each }) {
  const chance = seeded(11);
  const of = (list) => list[Math.floor(chance() * list.length)];
  const oddBody = () => {
    const fate = chance();
    if (fate < 0.1) return '{"half":';
    if (fate < 0.15) return `${'['.repeat(2000)}${']'.repeat(2000)}`;
    if (fate < 0.2) return JSON.stringify(of(ODD));
    return Object.fromEntries(
      Array.from({ length: 1 + Math.floor(chance() * 5) }, () => [of(FIELDS), of(ODD)]),
    );
  };
  const statuses = [];
  const broke = [];
  const stays = routes.filter((route) => !/ \/api\/(live|session|health)/.test(route));
  for (const route of stays)
    for (let times = 0; times < each; times += 1) {
      const [method, path] = route.split(' ');
      const target = path.slice(5).replace(/:\w+/g, () => of(IDS));
      const asked =
        method === 'GET' ? `${target}?search=${of(IDS)}&limit=${of(IDS)}&school=${of(IDS)}` : target;
      const { status } = await call(method, asked, method === 'GET' ? undefined : oddBody());
      statuses.push(classOf(status));
      if (status >= 500) broke.push(`${route} ${status}`);
    }
  return { routes: stays.length, sent: statuses.length, by: countBy(statuses), broke };
}
