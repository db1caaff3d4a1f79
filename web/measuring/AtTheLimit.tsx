import { Button } from '@chakra-ui/react';
import { justGoes, type LimitedPoint } from '@zero-lash/core/measuring';
import { useLengths } from '../app/lengths.ts';
import { Note } from '../app/Note.tsx';
import { limitExplained } from '../app/preferences.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';

interface Props {
  readonly point: LimitedPoint;
  readonly gap: { readonly lo: number; readonly hi: number | null };
}

/** What it means that a blade of the greatest clearance just goes, with the allowance that decides it: said until somebody has read it. */
export function AtTheLimit({ point, gap }: Props) {
  const { length } = useLengths();
  const dispatch = useAppDispatch();
  const read = useAppSelector((state) => state.preferences.limitExplained);
  if (read || !justGoes(gap, point.limits)) return null;
  return (
    <Note role="status">
      The blade of the greatest clearance just goes: the gap is {length(point.max)}, or a little more.{' '}
      {point.allowOver > 0
        ? `Up to ${length(point.allowOver)} over it is taken here, as the allowance says; more is loose.`
        : 'Nothing over it is allowed here: a thicker blade that will not go still leaves it open. What a shop takes over the greatest stands on the spec sheet, where a lead puts it with a reason.'}{' '}
      <Button variant="plain" onClick={() => dispatch(limitExplained())}>
        Read
      </Button>
    </Note>
  );
}
