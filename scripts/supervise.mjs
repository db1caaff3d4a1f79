const FIRST_PAUSE_MS = 1000;
const LONGEST_PAUSE_MS = 60_000;
/** One that ran this long was well: the next fall begins with the short pause again. */
const WELL_AFTER_MS = 60_000;
/** The exit code of what starting again does not mend. */
export const UNSTARTABLE = 78;
const WATCH_MS = 500;

/**
 * Keeps a process running: what falls is started again, after a pause that grows while it keeps falling.
 *
 * @param {string} name as it is said to a person
 * @param {() => import('node:child_process').ChildProcess} start
 * @param {(text: string) => void} [say] where it is said that something fell
 * @param {{ firstPauseMs?: number, longestPauseMs?: number }} [pauses]
 * @returns {{ child: () => import('node:child_process').ChildProcess, stop: () => Promise<void>, ended: Promise<number> }}
 *   `ended` is what it exited with where it stopped of itself, or cannot be started at all
 */
export function keepRunning(name, start, say = (text) => process.stderr.write(`${text}\n`), pauses = {}) {
  const { firstPauseMs = FIRST_PAUSE_MS, longestPauseMs = LONGEST_PAUSE_MS } = pauses;
  let stopping = false;
  let timer;
  let pause = firstPauseMs;
  let child;
  let finish;
  const ended = new Promise((resolve) => {
    finish = resolve;
  });
  const run = () => {
    const since = Date.now();
    child = start();
    child.once('exit', (code, signal) => {
      if (stopping || code === 0 || code === UNSTARTABLE) {
        finish(code ?? 0);
        return;
      }
      if (Date.now() - since > WELL_AFTER_MS) pause = firstPauseMs;
      say(`${name} fell (${signal ?? `exit ${code}`}); started again in ${pause / 1000} s.`);
      timer = setTimeout(run, pause);
      pause = Math.min(pause * 2, longestPauseMs);
    });
  };
  run();
  return {
    child: () => child,
    ended,
    stop: async () => {
      stopping = true;
      clearTimeout(timer);
      if (child.exitCode === null && child.signalCode === null) child.kill('SIGTERM');
      else finish(child.exitCode ?? 0);
      await ended;
    },
  };
}

/**
 * Looks after something that is no process of ours, such as a database that runs by itself, and does what revives it.
 *
 * @param {() => boolean} revive does it where it is needed; says whether it is up
 * @returns {() => void} ends the watch
 */
export function keepReviving(revive, everyMs) {
  const watch = setInterval(revive, everyMs);
  return () => clearInterval(watch);
}

/** Resolves once this process is told to stop, or whoever started it is gone: npm does not always pass a signal on. */
export function toldToStop() {
  return new Promise((resolve) => {
    const parent = process.ppid;
    const watch = setInterval(() => process.ppid !== parent && told(), WATCH_MS);
    watch.unref();
    function told() {
      clearInterval(watch);
      resolve();
    }
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, told);
  });
}

/** What an interrupted script ends with. */
const INTERRUPTED = 130;

/**
 * Keeps how everything that a script started is stopped, and stops it, the last first: at its end, and as soon as the script is
 * told to stop. What is started while it is being stopped is stopped at once.
 *
 * @returns {{ add: (stop: () => unknown) => void, end: () => Promise<void> }}
 * @example const all = stopsAtEnd(); all.add(() => cluster.stop()); try { await work(); } finally { await all.end(); }
 */
export function stopsAtEnd() {
  const stops = [];
  let ending;
  const stopOne = async (stop) => {
    try {
      await stop();
    } catch (error) {
      process.stderr.write(`Not stopped: ${error.message}\n`);
    }
  };
  const end = () => {
    ending ??= (async () => {
      for (const stop of stops.toReversed()) await stopOne(stop);
    })();
    return ending;
  };
  void toldToStop().then(async () => {
    await end();
    process.exit(INTERRUPTED);
  });
  return {
    add: (stop) => {
      if (ending) void stopOne(stop);
      else stops.push(stop);
    },
    end,
  };
}
