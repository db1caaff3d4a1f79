import { useHotkeys } from 'react-hotkeys-hook';
import { useAppSelector } from './store.ts';

/** Does something at a key pressed anywhere but in an entry, unless shortcuts are turned off on this device. */
export function useShortcut(keys: string, work: (event: KeyboardEvent) => void): void {
  const enabled = useAppSelector((state) => state.preferences.shortcuts);
  useHotkeys(keys, work, { enabled }, [work]);
}
