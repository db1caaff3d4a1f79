import type { LiveEvent } from '@zero-lash/contract/live';
import { useEffect } from 'react';
import { useStore } from 'react-redux';
import { api } from '../app/api.ts';
import { thisDevice } from '../app/device.ts';
import { serverReached } from '../app/outbox.ts';
import { wake, whenAnswered } from '../app/sender.ts';
import { useAppDispatch, type RootState } from '../app/store.ts';
import { sequenceOf } from '../builds/updateSequence.ts';
import { applyUpdate, readAgain, readBehind } from '../builds/endpoints.ts';
import { gaugeSaid } from '../instruments/gauge.ts';

type BuildUpdate = Extract<LiveEvent, { kind: 'build' }>;

/** How long a stream that was refused rests before it is opened again. */
const REOPEN_MS = 3000;

/** Hears what changes in a build while its page is open, and what a gauge held by this device says. */
export function useLive(buildId: string): void {
  const dispatch = useAppDispatch();
  const store = useStore<RootState>();
  useEffect(() => {
    let source: EventSource;
    let reopening: ReturnType<typeof setTimeout> | undefined;
    const open = () => {
      source = new EventSource(`/api/live?build=${buildId}&device=${thisDevice()}`);
      source.onopen = () => {
        dispatch(serverReached(true));
        wake();
      };
      source.onerror = failed;
      source.onmessage = told;
    };
    const failed = () => {
      if (source.readyState !== EventSource.CLOSED) {
        dispatch(serverReached(false));
        return;
      }
      // refused, and not only broken off: the browser gives up, so this asks who is signed in, and comes again
      dispatch(api.util.invalidateTags(['Session']));
      clearTimeout(reopening);
      reopening = setTimeout(open, REOPEN_MS);
    };
    const updated = async (update: BuildUpdate) => {
      await whenAnswered(update.changes.map(({ row }) => row !== null && 'id' in row && row.id));
      await applyUpdate(dispatch, store.getState, update);
    };
    const told = ({ data }: MessageEvent<string>) => {
      const event = JSON.parse(data) as LiveEvent;
      if (event.kind === 'build') void updated(event);
      else if (event.kind === 'here') {
        // what was written while no stream was open was not heard
        const missed = sequenceOf(event.build).begin(event.seq);
        if (missed === 'all') dispatch(readAgain(event.build));
        if (missed === 'something') readBehind(dispatch, store.getState(), event);
      } else if (event.kind === 'tools') dispatch(api.util.invalidateTags(['Tools', 'Drawer']));
      else if (event.kind === 'gauge-link') dispatch(api.util.invalidateTags(['Gauges']));
      else {
        const { kind: _, device: _device, ...said } = event;
        dispatch(gaugeSaid(said));
      }
    };
    open();
    return () => {
      clearTimeout(reopening);
      source.close();
    };
  }, [buildId]);
}
