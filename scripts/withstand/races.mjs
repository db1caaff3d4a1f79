import { randomUUID } from 'node:crypto';
import { buildOf, classOf, countBy } from './shop.mjs';

/** The recheck that is planned in a build; one that is nowhere where none is any more. */
const recheckIn = ({ rechecks }) =>
  rechecks.find(({ status }) => status === 'planned') ?? { id: randomUUID(), version: 1 };
const plannedIn = (build) => recheckIn(build).id;
/** Pieces of the demo's own drawer. */
const DRAWN = { system: 'shim under-bucket 9.5', note: '' };
const daysOn = (days) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

/** Every kind of write, as it is begun again: what it is called, and how it is done with what is there now. */
function writesOf({ lead, bench, sheetBody }) {
  const name = () => `Race ${randomUUID().slice(0, 8)}`;
  const person = async (which) =>
    (await lead('GET', 'people')).body.find(({ name: called }) => called === which);
  const build = (engine = 'Frost fan 7') => buildOf(bench, engine);
  const shared = name();
  return {
    'a person edited': async () => {
      const { id, version, role } = await person('Petra Quell');
      return () => lead('PATCH', `people/${id}`, { version, role });
    },
    'a lead edited': async () => {
      const { id, version, role } = await person('Osk Velland');
      return () => lead('PATCH', `people/${id}`, { version, role });
    },
    'a person added': async () => () =>
      lead('POST', 'people', { name: shared, role: 'viewer', passphrase: 'long enough it is' }),
    'an engine added': async () => {
      const { sheet } = await build();
      const fields = { name: shared, serial: '', owner: '', duty: '', usage: 1 };
      return () => bench('POST', 'engines', { ...fields, sheetId: sheet.sheetId });
    },
    'a figure logged': async () => {
      const { engine } = await build();
      return () => bench('POST', `engines/${engine.id}/usages`, { usage: engine.usage + 0.1 });
    },
    'an engine edited': async () => {
      const { engine } = await build();
      const { body } = await bench('GET', `engines/${engine.id}`);
      const { name: called, serial, owner, duty, version } = body;
      return () => bench('PATCH', `engines/${engine.id}`, { name: called, serial, owner, duty, version });
    },
    'a build opened': async () => {
      const { engine, sheet } = await build('Trimmer');
      const body = { revisionId: sheet.id, complaint: 'again' };
      return () => bench('POST', `engines/${engine.id}/builds`, body);
    },
    'a build edited': async () => {
      const { id, version } = await build();
      return () => bench('PATCH', `builds/${id}`, { version, complaint: 'ticks', aim: 'middle' });
    },
    'a stage left': async () => {
      const { id, version } = await build('Frost fan 3');
      return () => bench('POST', `builds/${id}/stage`, { to: 'open-up', version });
    },
    'a tick': async () => {
      const { id } = await build('Frost fan 3');
      return () => bench('POST', `builds/${id}/ticks`, { stage: 'take-in', check: 'isolated', done: true });
    },
    'a note': async () => {
      const { id, stage } = await build();
      return () => bench('POST', `builds/${id}/notes`, { stage, text: 'seen' });
    },
    'a reading': async () => {
      const { rounds } = await build();
      const reading = {
        point: '1I',
        reading: { kind: 'bracket', go: 0.28, noGo: 0.3 },
        asTyped: '0.28 0.30',
      };
      return () => bench('POST', `rounds/${rounds.at(-1).id}/readings`, reading);
    },
    conditions: async () => {
      const { rounds } = await build();
      const said = { engineTempC: 18, hoursSinceRun: 20, condition: 'cold' };
      return () => bench('POST', `rounds/${rounds.at(-1).id}/conditions`, said);
    },
    'the crank turned': async () => {
      const { rounds } = await build();
      return () => bench('PUT', `rounds/${rounds.at(-1).id}/turning`, { school: 'fewest', at: 0, done: [0] });
    },
    'a piece fitted': async () => {
      const { id } = await build('Railcar 1');
      const fitted = { point: '1Ia', kind: 'fitted', installed: 2.5, fitted: 2.45 };
      return () => bench('POST', `builds/${id}/settings`, fitted);
    },
    'a wear figure': async () => {
      const { id } = await build('Head saw');
      const figure = { kind: 'figure', item: 'valve-margin', place: '1E', field: 'value', values: [1.1] };
      const line = { ...figure, asTyped: '1.1', how: 'measured', set: 'found', doubtKept: false };
      return () => bench('POST', `builds/${id}/wear`, { lines: [line] });
    },
    'head work': async () => {
      const { id } = await build('Railcar 2');
      const cut = { step: randomUUID(), valve: '1Ia', operation: 'seat-cut', depth: 0.01 };
      const line = { ...cut, normalDepth: null, seatAngle: null, done: null, dropped: false };
      return () => bench('POST', `builds/${id}/headwork`, { lines: [line] });
    },
    'parts counted': async () => {
      const { id } = await build('Fire pump, Brackwater');
      const line = { key: 'cover', group: 'cover', name: 'Cover', place: '', expected: 2, out: 2, in: null };
      return () => bench('POST', `builds/${id}/ledger`, { lines: [{ ...line, note: '', dropped: false }] });
    },
    'something learned': async () => {
      const { id, stage } = await build();
      return () => bench('POST', `builds/${id}/know-how`, { stage, text: 'A short key' });
    },
    'a recheck opened': async () => {
      const id = plannedIn(await build('Fire pump, Overmere Quay'));
      return () => bench('POST', `rechecks/${id}/round`, {});
    },
    'a recheck judged': async () => {
      const id = plannedIn(await build('Trimmer'));
      return () => bench('POST', `rechecks/${id}/outcome`);
    },
    'a recheck moved': async () => {
      const { id, version } = recheckIn(await build('Frost fan 12'));
      const day = daysOn(60);
      return () => lead('POST', `rechecks/${id}/move`, { kind: 'moved', day, why: 'away', version });
    },
    'a recheck dropped': async () => {
      const { id, version } = recheckIn(await build('Frost fan 16'));
      return () =>
        lead('POST', `rechecks/${id}/move`, { kind: 'dropped', why: 'looked at elsewhere', version });
    },
    'a day at the bench': async () => {
      const { id, version } = recheckIn(await build('Frost fan 12'));
      return () => bench('POST', `rechecks/${id}/bench-day`, { day: daysOn(2), version });
    },
    'a plan of its own': async () => {
      const { engine } = await build('Frost fan 12');
      const { body } = await bench('GET', `engines/${engine.id}`);
      const steps = [{ afterUsage: 90, afterDays: 60, points: ['1I', '4E'] }];
      return () => lead('PUT', `engines/${engine.id}/plan`, { steps, why: 'cold', version: body.version });
    },
    'a round of meters': async () => {
      const { engine } = await build('Frost fan 12');
      const { engine: other } = await build('Frost fan 16');
      const lines = [engine, other].map(({ id, usage }) => ({ engineId: id, usage: usage + 0.1 }));
      return () => bench('POST', 'usage/round', { lines });
    },
    'what an owner wishes': async () => {
      const { body } = await lead('GET', 'owners');
      const { id, name: called, email, tells, note, version } = body[0];
      return () => lead('PATCH', `owners/${id}`, { name: called, email, tells, note, version });
    },
    'reminders sent': async () => () => lead('POST', 'reminders/now'),
    'a piece bought': async () => () =>
      bench('POST', 'drawer/moves', { ...DRAWN, why: 'bought', lines: [{ thickness: 2.5, count: 1 }] }),
    'a drawer counted': async () => () =>
      bench('POST', 'drawer/counts', { ...DRAWN, lines: [{ thickness: 2.5, count: 4 }] }),
    'pieces ordered': async () => () =>
      bench('POST', 'drawer/orders', { ...DRAWN, buildId: null, lines: [{ thickness: 2.5, count: 1 }] }),
    'a sheet added': async () => () =>
      bench('POST', 'sheets', { name: shared, maker: 'Vessany', body: sheetBody }),
    'a draft published': async () => {
      const { body } = await bench('POST', 'sheets', { name: name(), maker: 'Vessany', body: sheetBody });
      return () => lead('POST', `sheet-revisions/${body.id}/publication`, { version: body.version });
    },
    'an instrument checked': async () => {
      const { instruments } = (await lead('GET', 'tools')).body;
      const check = { block: 1, found: 1, nextDue: '2031-01-01' };
      return () => bench('POST', `instruments/${instruments[0].id}/checks`, check);
    },
    'a bench added': async () => () =>
      bench('POST', 'benches', { name: shared, bladeSetId: null, maxStack: 1 }),
    'the shop edited': async () => {
      const { shop } = (await lead('GET', 'session')).body;
      return () => lead('PATCH', 'shop', shop);
    },
  };
}

/** Each kind of write against each other, and against itself, in the same moment: done or refused, never broken. */
export async function races(world, times) {
  const writes = Object.entries(writesOf(world));
  const statuses = [];
  const broke = [];
  for (const [index, [one, prepareOne]] of writes.entries())
    for (const [other, prepareOther] of writes.slice(index))
      for (let round = 0; round < times; round += 1) {
        const both = [await prepareOne(), await prepareOther()];
        for (const { status } of await Promise.all(both.map((write) => write()))) {
          statuses.push(classOf(status));
          if (status >= 500 || status === 0) broke.push(`${one} / ${other}: ${status}`);
        }
      }
  return { kinds: writes.length, pairs: statuses.length / 2, by: countBy(statuses), broke };
}
