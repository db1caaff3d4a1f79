import { randomUUID } from 'node:crypto';

/** Writes as somebody of the bench. */
async function write(base, cookie, path, body) {
  const answer = await fetch(`${base}/api/${path}`, {
    method: 'POST',
    headers: { cookie, 'content-type': 'application/json', 'idempotency-key': randomUUID() },
    body: JSON.stringify(body),
  });
  if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
  return answer.json();
}

/** Puts a 16-valve engine on the stand, at As found; gives its build's id. */
export async function build16(base, cookie, name) {
  const sheets = await (await fetch(`${base}/api/sheets`, { headers: { cookie } })).json();
  const sheet = sheets.find((each) => each.name === 'T16 Rack');
  const engine = await write(base, cookie, 'engines', {
    ...{ name, serial: '', owner: '', duty: '' },
    ...{ sheetId: sheet.id, usage: 1 },
  });
  const opened = await write(base, cookie, `engines/${engine.id}/builds`, {
    revisionId: sheet.revisionId,
    complaint: 'Bench',
  });
  const id = opened.build;
  let { version } = opened.changes[0].row;
  for (const [stage, checks, to] of [
    ['take-in', ['cold', 'isolated', 'clean'], 'open-up'],
    ['open-up', ['marked', 'counted-out', 'gasket', 'lobes'], 'as-found'],
  ]) {
    for (const check of checks) await write(base, cookie, `builds/${id}/ticks`, { stage, check, done: true });
    const moved = await write(base, cookie, `builds/${id}/stage`, { to, version });
    ({ version } = moved.changes[0].row);
  }
  return id;
}
