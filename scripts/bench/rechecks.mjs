const RUNS = 60;

/** The time under which all but a twentieth are. */
const p95 = (figures) => figures.toSorted((a, b) => a - b)[Math.floor(figures.length * 0.95)];

/** The data of the pages that are read anew each time, one request after another, by turns with a bare one. */
export async function benchRechecks(base, cookie) {
  const read = async (path) => {
    const started = performance.now();
    const answer = await fetch(`${base}${path}`, { headers: { cookie } });
    const body = await answer.text();
    if (!answer.ok) throw new Error(`${path}: ${answer.status} ${body}`);
    return { ms: performance.now() - started, body };
  };
  const [pattern] = JSON.parse((await read('/api/fleet')).body);
  const day = new Date().toISOString().slice(0, 10);
  const later = new Date(Date.now() + 30 * 86_400_000).toISOString().slice(0, 10);
  const pages = [
    { name: 'Rechecks, as a list', path: '/api/rechecks?limit=50', most: 100 },
    {
      name: 'Rechecks, a month of them',
      path: `/api/rechecks?limit=500&from=${day}&to=${later}`,
      most: 100,
    },
    { name: 'What our engines say', path: `/api/fleet/${pattern.sheetId}`, most: 300 },
  ];
  const bare = [];
  const taken = pages.map(() => []);
  for (let run = 0; run < RUNS; run += 1) {
    bare.push((await read('/api/health')).ms);
    for (const [index, { path }] of pages.entries()) taken[index].push((await read(path)).ms);
  }
  return pages.map((page, index) => ({ ...page, ms: p95(taken[index]), bareMs: p95(bare) }));
}
