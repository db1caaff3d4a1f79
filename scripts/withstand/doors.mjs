import { BENCH, LEAD } from './shop.mjs';

const AT_ONCE = 50;
const WAIT_MS = 30_000;

/** Fifty people sign in at once, by turns at two servers, all from one address and on devices that nobody knows. */
export async function honestSignIns({ here, there }) {
  const began = performance.now();
  const answers = await Promise.all(
    Array.from({ length: AT_ONCE }, async (_, index) => {
      const [name, passphrase] = index % 3 ? BENCH : LEAD;
      const answer = await fetch(`${index % 2 ? here : there}/api/session`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ name, passphrase }),
        signal: AbortSignal.timeout(WAIT_MS),
      }).catch(() => ({ status: 0 }));
      return { status: answer.status, ms: performance.now() - began };
    }),
  );
  return {
    people: AT_ONCE,
    in: answers.filter(({ status }) => status === 200).length,
    slowest: Math.max(...answers.map(({ ms }) => ms)) / 1000,
  };
}
