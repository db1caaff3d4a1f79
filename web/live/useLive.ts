import type { LiveEvent } from '@zero-lash/contract/live';
import { useEffect } from 'react';
import { api } from '../app/api.ts';
import { useAppDispatch } from '../app/store.ts';
import { readingArrived } from '../builds/endpoints.ts';
import { thisDevice } from '../measuring/device.ts';
import { gaugeSaid } from '../instruments/gauge.ts';
import { serverReached } from '../measuring/outbox.ts';
import { wake } from '../measuring/sender.ts';

/** Several changes in this time are fetched once. */
const GATHER_MS = 120;
/** How long a stream that was refused rests before it is opened again. */
const REOPEN_MS = 3000;

/** Hears what changes in a build while its page is open, and what a gauge held by this device says. */
export function useLive(buildId: string): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    let source: EventSource;
    let reopening: ReturnType<typeof setTimeout> | undefined;
    let broken = false;
    let gathering: ReturnType<typeof setTimeout> | undefined;
    const fetchAnew = () => {
      gathering ??= setTimeout(() => {
        gathering = undefined;
        dispatch(api.util.invalidateTags([{ type: 'Build', id: buildId }]));
      }, GATHER_MS);
    };
    const open = () => {
      source = new EventSource(`/api/live?build=${buildId}&device=${thisDevice()}`);
      source.onopen = opened;
      source.onerror = failed;
      source.onmessage = told;
    };
    const opened = () => {
      dispatch(serverReached(true));
      wake();
      // what happened meanwhile was not heard
      if (broken) fetchAnew();
      broken = false;
    };
    const failed = () => {
      broken = true;
      if (source.readyState !== EventSource.CLOSED) {
        dispatch(serverReached(false));
        return;
      }
      // refused, and not only broken off: the browser gives up, so this asks who is signed in, and comes again
      dispatch(api.util.invalidateTags(['Session']));
      clearTimeout(reopening);
      reopening = setTimeout(open, REOPEN_MS);
    };
    const told = ({ data }: MessageEvent<string>) => {
      const event = JSON.parse(data) as LiveEvent;
      if (event.kind === 'build') fetchAnew();
      else if (event.kind === 'reading') dispatch(readingArrived(event.build, event.reading));
      else if (event.kind === 'tools') dispatch(api.util.invalidateTags(['Tools']));
      else if (event.kind === 'gauge-link') dispatch(api.util.invalidateTags(['Gauges']));
      else {
        const { kind: _, device: _device, ...said } = event;
        dispatch(gaugeSaid(said));
      }
    };
    open();
    return () => {
      clearTimeout(reopening);
      clearTimeout(gathering);
      source.close();
    };
  }, [buildId]);
}
