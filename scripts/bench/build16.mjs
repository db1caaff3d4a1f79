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
  await openedUp((path, body) => write(base, cookie, path, body), id, opened.changes[0].row.version);
  return id;
}

/** Takes a build from its first stage to As found; gives its version there. */
export async function openedUp(post, id, version) {
  // a count is not ticked over nothing without a word
  await post(`builds/${id}/notes`, { stage: 'open-up', text: 'Nothing comes off in the bench' });
  let at = version;
  for (const [stage, checks, to] of [
    ['take-in', ['cold', 'isolated', 'clean'], 'open-up'],
    ['open-up', ['marked', 'counted-out', 'plugged', 'gasket', 'lobes'], 'as-found'],
  ]) {
    for (const check of checks) await post(`builds/${id}/ticks`, { stage, check, done: true });
    at = (await post(`builds/${id}/stage`, { to, version: at })).changes[0].row.version;
  }
  return at;
}
