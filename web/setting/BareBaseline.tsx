import { Box, Flex } from '@chakra-ui/react';
import { checkKey, lastChange, pointsBare, SETTING } from '@zero-lash/core/builds';
import { pieceFound, seatOffsetAt } from '@zero-lash/core/setting';
import { Caution } from '../app/Caution.tsx';
import { useLengths } from '../app/lengths.ts';
import type { BuildView } from '../builds/buildView.ts';
import { Check } from '../builds/Check.tsx';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import type { BaselineSystem } from './baselineSystems.ts';
import { Everywhere } from './Everywhere.tsx';

interface Props {
  readonly build: BuildView;
  readonly system: BaselineSystem;
  readonly enabled: boolean;
}

/** Nothing in at any point: what that can break, and by which offset a bare gap is then reckoned. */
export function BareBaseline({ build, system, enabled }: Props) {
  const put = useBenchWrite(build.id);
  const { length } = useLengths();
  const accepted = build.ticks.find(
    ({ stage, check, done }) => done && stage === SETTING && check === checkKey('turned-bare'),
  );
  const allowed = accepted !== undefined;
  const { points } = system;
  const offsets = points.map((point) => ({ point, offset: seatOffsetAt(build, point) }));
  const known = offsets.flatMap(({ offset }) => (offset === null ? [] : [offset]));
  const measured = known.filter(({ from }) => from === 'measured').map(({ mm }) => mm);
  const unknown = offsets.filter(({ offset }) => offset === null).map(({ point }) => point.key);
  const sheet = known.find(({ from }) => from === 'sheet')?.mm;
  const bareNow = new Set(pointsBare(build.settings));

  function takenOut(): void {
    for (const { key } of points.filter(({ key: point }) => !bareNow.has(point))) {
      const installed = lastChange(build.settings, key)?.fitted ?? pieceFound(build, key);
      put({
        kind: 'setting',
        body: {
          ...{ point: key, kind: 'bare', installed, to: installed === null ? 'unsaid' : 'drawer' },
          note: 'nothing in, as the maker allows',
        },
      });
    }
  }

  return (
    <Box display="grid" gap="1">
      <b>{system.title}</b>
      <Caution>
        A lobe turned onto a bucket with nothing in it can push the collets out, and the valve drops. Lay the
        cam in with its lobes away first; turn it only where the maker’s manual allows turning with no shim
        in.
      </Caution>
      <Box fontSize="sm">
        {sheet !== undefined && `The sheet’s offset is ${length(sheet)}. `}
        {measured.length > 0 &&
          `Measured here at ${measured.length} point${measured.length === 1 ? '' : 's'}${
            measured.length > 1
              ? `, from ${length(Math.min(...measured))} to ${length(Math.max(...measured))}`
              : ''
          }. `}
        {sheet !== undefined &&
          known.length > measured.length &&
          'One offset for all is wrong by as much as it differs from valve to valve: with one known shim each is found, under Wear, Seat offset.'}
        {unknown.length > 0 &&
          `No offset is known at ${unknown.join(', ')}: find it with one known shim, under Wear, Seat offset.`}
      </Box>
      {bareNow.size > 0 && <Box>Nothing is in at {[...bareNow].join(', ')}.</Box>}
      <Check
        text="The maker allows it, and the lobes are laid away: accepted for this build"
        by={accepted?.by}
        enabled={enabled}
        onTick={(done) =>
          put({ kind: 'tick', body: { stage: SETTING, check: checkKey('turned-bare'), done } })
        }
      />
      <Flex>
        <Everywhere label="Nothing is in, at every point" enabled={enabled && allowed} onDo={takenOut} />
      </Flex>
    </Box>
  );
}
