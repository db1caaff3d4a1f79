import type { ShimPlanInput } from '@zero-lash/core/setting';
import { planAll } from './plans.ts';

/** Plans beside the page, which goes on answering taps meanwhile. */
self.onmessage = ({
  data: { id, questions },
}: MessageEvent<{ readonly id: number; readonly questions: readonly ShimPlanInput[] }>) => {
  try {
    self.postMessage({ id, plans: planAll(questions) });
  } catch (error) {
    self.postMessage({ id, failed: String(error) });
  }
};
