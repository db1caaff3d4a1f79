import type { TestProject } from 'vitest/node';
import { startCluster } from '../../scripts/database.mjs';

declare module 'vitest' {
  interface ProvidedContext {
    clusterUrl: string;
  }
}

/** Starts a throwaway PostgreSQL for the server's tests, unless the caller brought one. */
export default async function setup(project: TestProject): Promise<(() => void) | undefined> {
  const given = process.env.TEST_CLUSTER_URL;
  if (given) {
    project.provide('clusterUrl', given);
    return undefined;
  }
  const cluster = await startCluster(`.data/test-${process.pid}`, { throwaway: true });
  project.provide('clusterUrl', cluster.url('postgres'));
  return () => cluster.stop();
}
