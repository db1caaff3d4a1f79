import { useState } from 'react';
import { Tick } from '../app/Tick.tsx';

interface Props {
  readonly text: string;
  /** who ticked it; nobody where it is not ticked */
  readonly by: string | undefined;
  /** what stands at the end of its line while nobody has ticked it */
  readonly aside?: string;
  readonly enabled: boolean;
  readonly onTick: (done: boolean) => void;
}

/**
 * Something ticked off at the bench: it is as it was tapped at once, and not only when everything round it has followed.
 *
 * @example <Check text="Cover on" by={row?.by} enabled onTick={(done) => put(done)} />
 */
export function Check({ text, by, aside, enabled, onTick }: Props) {
  // what was tapped holds until what it was tapped at has followed
  const [meant, setMeant] = useState<{ readonly at: string | undefined; readonly done: boolean } | null>(
    null,
  );
  const tapped = meant?.at === by ? meant : null;
  return (
    <Tick
      label={text}
      aside={by ?? aside}
      checked={tapped?.done ?? by !== undefined}
      disabled={!enabled}
      onChange={({ target: { checked } }) => {
        setMeant({ at: by, done: checked });
        onTick(checked);
      }}
    />
  );
}
