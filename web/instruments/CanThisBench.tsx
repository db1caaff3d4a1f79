import { Box, Heading } from '@chakra-ui/react';
import { parseTorqueSteps, wrenchesFor, type WrenchFor } from '@zero-lash/core/assembly';
import { benchReach, type LimitReach } from '@zero-lash/core/measuring';
import { meansFor, ROLE_WORDS, rolesOf } from '@zero-lash/core/sheets';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { Caution } from '../app/Caution.tsx';
import { dayInWords } from '../app/dates.ts';
import { useLengths } from '../app/lengths.ts';
import { useBladeNames } from './useBladeNames.ts';
import type { BuildView } from '../builds/buildView.ts';
import { BenchChoice } from './BenchChoice.tsx';
import { useBench } from './useBench.ts';
import { useToolsQuery } from './endpoints.ts';

/** Whether this bench can measure the engine, worked out before anything is opened: its blades, its micrometer, its checks. */
export function CanThisBench({ build }: { readonly build: BuildView }) {
  const bench = useBench();
  const { pattern, limits } = build.sheet;
  const { blades, maxStack } = bench;
  const roles = useMemo(
    () =>
      rolesOf(pattern).flatMap((role) => {
        const spec = limits.find((each) => each.role === role);
        return spec ? [{ role, spec, ...benchReach({ blades, maxStack, spec }) }] : [];
      }),
    [pattern, limits, blades, maxStack],
  );
  const pieces = rolesOf(pattern).some((role) => 'sizes' in meansFor(pattern, role));
  const wrenches = useWrenches();
  const { torques } = build.sheet;
  const turned = useMemo(
    () =>
      torques.map(({ fastening, steps }) => {
        const read = parseTorqueSteps(steps);
        return { fastening, steps, found: 'error' in read ? null : wrenchesFor(read.steps, wrenches) };
      }),
    [torques, wrenches],
  );
  const inHand = new Set(turned.flatMap(({ found }) => found ?? []).map(({ wrench }) => wrench));
  const used = [
    bench.bladeSet,
    pieces ? bench.micrometer : null,
    ...wrenches.filter(({ id }) => inHand.has(id)),
  ].filter((each) => each !== null);
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
      {turned.length > 0 && (
        <Box as="ul" aria-label="What it is tightened with">
          {turned.map(({ fastening, steps, found }) => (
            <Box as="li" key={fastening} borderBottom="1px solid" borderColor="hairline" paddingY="2">
              <b>{fastening}</b> {steps}: <ByWrench found={found} wrenches={wrenches} />
            </Box>
          ))}
        </Box>
      )}
      {used
        .filter(({ overdue }) => overdue)
        .map(({ id, name, checkDue, torque }) => (
          <Caution key={id}>
            {name} was due for its check{checkDue && ` on ${dayInWords(checkDue)}`}: check it
            {torque ? ' against a tester' : ' against a block'} first.
          </Caution>
        ))}
    </Box>
  );
}

/** The shop's torque wrenches, with what each can be set to. */
function useWrenches() {
  const { data } = useToolsQuery();
  return useMemo(
    () =>
      (data?.instruments ?? []).flatMap((each) =>
        each.active && each.torque ? [{ ...each, from: each.torque.from, to: each.torque.to }] : [],
      ),
    [data],
  );
}

interface ByWrenchProps {
  /** which wrench does each torque; null where the sheet's words are not understood as torques */
  readonly found: readonly WrenchFor[] | null;
  readonly wrenches: readonly { readonly id: string; readonly name: string }[];
}

/** Which wrench does the torques of a fastening, and which of them none here reaches. */
function ByWrench({ found, wrenches }: ByWrenchProps) {
  if (found === null) return <>read it in the manual: these steps are not written as torques.</>;
  if (found.length === 0) return <>no wrench</>;
  const by = [...new Set(found.map(({ wrench }) => wrench).filter((each) => each !== null))];
  const without = found.filter(({ wrench }) => wrench === null);
  return (
    <>
      {by.length > 0 && `by ${by.map((id) => wrenches.find((each) => each.id === id)!.name).join(' and ')}`}
      {without.length > 0 && (
        <Box as="span" color="tight" fontWeight="600">
          {by.length > 0 && '; '}
          no wrench here reaches {without.map(({ asWritten }) => asWritten).join(' and ')}: have one that does
        </Box>
      )}
    </>
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
  const { length } = useLengths(bladeUnit);
  const { called } = useBladeNames(fan, bladeUnit);
  const held = by?.blades.map(called).join(' + ');
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
