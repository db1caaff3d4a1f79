import type { TestProject } from 'vitest/node';
import { ensureServerBuilt } from '../../scripts/build.mjs';
import { startCluster } from '../../scripts/database.mjs';
import { connect, migrate } from '../database.ts';
import { loadDemo } from '../demo/load.ts';

declare module 'vitest' {
  interface ProvidedContext {
    clusterUrl: string;
    /** a database with the demo world in it, of which copies are made */
    demoName: string;
  }
}

/**
 * Starts a throwaway PostgreSQL for the server's tests, unless the caller brought one, and loads the demo world once: a copy of it
 * is there in a moment, and every file of tests has its own.
 */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  // once, before files that start whole servers run side by side
  ensureServerBuilt();
  const given = process.env.TEST_CLUSTER_URL;
  const cluster = given ? null : await startCluster(`.data/test-${process.pid}`, { throwaway: true });
  const url = given ?? cluster!.url('postgres');
  const name = `demo_${process.pid}_${Date.now()}`;
  const admin = connect(url);
  await admin.raw(`create database ${name}`);
  const demo = new URL(url);
  demo.pathname = `/${name}`;
  const db = connect(demo.href);
  await migrate(db);
  await loadDemo(db);
  await db.destroy();
  project.provide('clusterUrl', url);
  project.provide('demoName', name);
  return async () => {
    if (!cluster) await admin.raw(`drop database if exists ${name}`);
    await admin.destroy();
    cluster?.stop();
  };
}
