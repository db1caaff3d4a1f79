import { Box, Heading } from '@chakra-ui/react';
import { benchReach, stampOf, type LimitReach } from '@zero-lash/core/measuring';
import { meansFor, ROLE_WORDS, rolesOf } from '@zero-lash/core/sheets';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { Caution } from '../app/Caution.tsx';
import { dayInWords } from '../app/dates.ts';
import { useLengths } from '../app/lengths.ts';
import type { BuildView } from '../builds/buildView.ts';
import { BenchChoice } from '../measuring/BenchChoice.tsx';
import { useBench } from '../measuring/useBench.ts';

/** Whether this bench can measure the engine, worked out before anything is opened: its blades, its micrometer, its checks. */
export function CanThisBench({ build }: { readonly build: BuildView }) {
  const bench = useBench();
  const { pattern, limits } = build.sheet;
  const { blades, maxStack } = bench;
  const roles = useMemo(
    () =>
      rolesOf(pattern).map((role) => {
        const spec = limits.find((each) => each.role === role)!;
        return { role, spec, ...benchReach({ blades, maxStack, spec }) };
      }),
    [pattern, limits, blades, maxStack],
  );
  const pieces = rolesOf(pattern).some((role) => 'sizes' in meansFor(pattern, role));
  const used = [bench.bladeSet, pieces ? bench.micrometer : null].filter((each) => each !== null);
  return (
    <Box as="section" aria-label="Can this bench do it?">
      <Heading as="h3" fontSize="md" fontWeight="650">
        Can {bench.bench?.name ?? 'this bench'} do it?
      </Heading>
      {bench.benches.length > 1 && (
        <Box maxWidth="260px" marginTop="1">
          <BenchChoice bench={bench} />
        </Box>
      )}
      {!bench.bladeSet && (
        <Caution>
          No blades are written down for this bench: see <Link to="/instruments">Instruments</Link>.
        </Caution>
      )}
      {bench.bladeSet && (
        <Box as="ul">
          {roles.map(({ role, min, max }) => (
            <Box as="li" key={role} borderBottom="1px solid" borderColor="hairline" paddingY="2">
              <b>{ROLE_WORDS[role]}</b> <ReachOf limit={min} name="least" /> ·{' '}
              <ReachOf limit={max} name="greatest" />
            </Box>
          ))}
        </Box>
      )}
      {pieces && !bench.micrometer && (
        <Caution>Its pieces are read by micrometer, and none is written down under Instruments.</Caution>
      )}
      {used
        .filter(({ overdue }) => overdue)
        .map(({ id, name, checkDue }) => (
          <Caution key={id}>
            {name} was due for its check{checkDue && ` on ${dayInWords(checkDue)}`}: check it against a block
            first.
          </Caution>
        ))}
    </Box>
  );
}

/** How one limit is settled by what is there, or which blade to have for it. */
function ReachOf({
  limit: { at, by, short, reach },
  name,
}: {
  readonly limit: LimitReach;
  readonly name: string;
}) {
  const { fan, bladeUnit } = useBench();
  const { length, figure } = useLengths(bladeUnit);
  const held = by?.blades
    .map((blade) => {
      const stamp = figure(stampOf(fan, blade));
      return stamp === figure(blade) ? stamp : `${stamp}, which measures ${figure(blade)}`;
    })
    .join(' + ');
  if (reach === 'exact')
    return (
      <span>
        {name} {length(at)}: by {held}
      </span>
    );
  return (
    <Box
      as="span"
      color={reach === 'not' ? 'tight' : undefined}
      fontWeight={reach === 'not' ? 600 : undefined}
    >
      {name} {length(at)}:{' '}
      {by === null
        ? `nothing here lies in the band, so have a ${length(at)} blade`
        : `nearest is ${held}, ${length(short)} off${reach === 'not' ? `, so have a ${length(at)} blade` : ''}`}
    </Box>
  );
}
