import type { EngineRow } from '@zero-lash/contract/engines';
import { useLazyEnginesQuery } from './endpoints.ts';

/** How many are asked for at a time. */
const AT_ONCE = 500;

/** Asks for every engine of the shop, however many: among those that are put away, or those that are not. */
export function useEveryEngine() {
  const [ask, asking] = useLazyEnginesQuery();
  async function everyEngine(away = false): Promise<readonly EngineRow[]> {
    const found: EngineRow[] = [];
    for (;;) {
      const page = await ask({
        search: '',
        away: String(away),
        limit: AT_ONCE,
        offset: found.length,
      }).unwrap();
      found.push(...page.engines);
      if (page.engines.length === 0 || found.length >= page.total) return found;
    }
  }
  return { everyEngine, asking };
}
