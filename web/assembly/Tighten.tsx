import { Box, Heading } from '@chakra-ui/react';
import {
  boltsInRows,
  passesOf,
  tightenOrder,
  torque,
  TORQUE_UNITS,
  type Pass,
  wrenchesFor,
} from '@zero-lash/core/assembly';
import { assemblyDone, passesDone, type StageKey, SETTING } from '@zero-lash/core/builds';
import { useMemo } from 'react';
import { Fold } from '../app/Fold.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { Check } from '../builds/Check.tsx';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { BoltDrawing } from '../drawings/BoltDrawing.tsx';
import { useToolsQuery } from '../instruments/endpoints.ts';
import { useRole } from '../app/useRole.ts';
import { checkKey } from '@zero-lash/core/builds';

interface Props {
  readonly build: BuildView;
  readonly stage: StageKey;
}

/** How the sheet says it is put together, each step ticked by whoever did it. */
export function PutTogether({ build }: { readonly build: BuildView }) {
  const put = useBenchWrite(build.id);
  const { mayWork } = useRole();
  const { assembly = [] } = build.sheet;
  if (assembly.length === 0) return null;
  const counted = assemblyDone(build);
  const done = new Map(
    build.ticks.filter(({ check }) => counted.has(check)).map(({ check, by }) => [check, by]),
  );
  return (
    <Fold title={<b>Put together</b>} ruled="above">
      <Box fontSize="sm" color="faded">
        Where anything was taken apart: as soon as a cam was out, or one step is ticked, those that may not be
        skipped are looked at before the engine is turned. What comes out again is put together again.
      </Box>
      {assembly.map(({ text, hold }, index) => (
        <Check
          key={checkKey('step', index)}
          text={`${text}${hold ? ' (not to be skipped)' : ''}`}
          by={done.get(checkKey('step', index))}
          enabled={mayWork && build.stage === SETTING && !build.closedAt}
          onTick={(isDone) =>
            put({ kind: 'tick', body: { stage: SETTING, check: checkKey('step', index), done: isDone } })
          }
        />
      ))}
    </Fold>
  );
}

/** What the sheet says is tightened, pass by pass, each ticked by whoever did it, in its order and by which wrench. */
export function Tighten({ build, stage }: Props) {
  const { torques } = build.sheet;
  const passes = useMemo(() => passesOf(torques), [torques]);
  if (passes.length === 0) return null;
  return (
    <Fold title={<b>Tighten, pass by pass</b>} ruled="above">
      <Box fontSize="sm" color="faded">
        Threads as the sheet says, dry or oiled, and blind holes empty of oil and water. Every bolt of a
        fastening is at one step before any goes on to the next; each is marked with paint when it is done.
        Cam caps first go down level, both bolts of each, half a turn at a time, until they are seated. The
        maker’s manual governs.
      </Box>
      {torques.map((each, row) => {
        const own = passes.filter(({ key }) => key.startsWith(`pass ${row}.`));
        return own.length > 0 ? (
          <Fastened key={each.fastening} build={build} stage={stage} torque={each} passes={own} />
        ) : null;
      })}
    </Fold>
  );
}

function Fastened({
  build,
  stage,
  torque: { fastening, order, rows, sequence },
  passes,
}: Props & { readonly torque: BuildView['sheet']['torques'][number]; readonly passes: readonly Pass[] }) {
  const put = useBenchWrite(build.id);
  const { mayWork } = useRole();
  const { data: tools } = useToolsQuery();
  const wrenches = (tools?.instruments ?? []).flatMap(({ id, kind, torque: range, active }) =>
    kind === 'torque-wrench' && active && range ? [{ id, from: range.from, to: range.to }] : [],
  );
  const bolts = useMemo(() => (rows.length > 0 ? boltsInRows(rows) : []), [rows]);
  const turned = useMemo(
    () =>
      sequence.length > 0 ? sequence.map(String) : bolts.length > 0 ? tightenOrder({ bolts }).tighten : [],
    [bolts, sequence],
  );
  // what was tightened before a cam came out again is not
  const counted = passesDone(build);
  const done = new Map(
    build.ticks.filter(({ check }) => counted.has(check)).map(({ check, by }) => [check, by]),
  );
  const next = passes.find(({ key }) => !done.has(key));
  return (
    <Box paddingY="2" borderBottom="1px solid" borderColor="hairline">
      <Heading as="h4" fontSize="md" fontWeight="650">
        {fastening}
      </Heading>
      {order && <Box fontSize="sm">{order}</Box>}
      {bolts.length > 0 && (
        <>
          {sequence.length === 0 && (
            <Box fontSize="sm" color="faded">
              The sheet gives no order: from the middle outward, crosswise, by where its bolts stand.
            </Box>
          )}
          <BoltDrawing bolts={bolts} order={turned} label={`${fastening}, tightened`} />
        </>
      )}
      {passes.map((pass) => {
        const { key, number, of, step } = pass;
        const [wrench] = step.kind === 'torque' ? wrenchesFor([step], wrenches) : [];
        const name = tools?.instruments.find(({ id }) => id === wrench?.wrench)?.name;
        return (
          <Check
            key={key}
            text={`${of > 1 ? `Pass ${number} of ${of}: ` : ''}${stepInWords(step)}${name ? `, with ${name}` : ''}`}
            by={done.get(key)}
            // one pass after another
            enabled={
              mayWork && build.stage === stage && !build.closedAt && (done.has(key) || next?.key === key)
            }
            onTick={(isDone) => put({ kind: 'tick', body: { stage, check: key, done: isDone } })}
          />
        );
      })}
    </Box>
  );
}

/** A step as it is written, and a torque in the other units too. */
function stepInWords(step: Pass['step']): string {
  if (step.kind === 'angle') return `on by ${step.degrees}°`;
  if (step.kind === 'by-hand') return step.asWritten;
  // the unit it is written in is not said twice, and small ones only of small torques
  const written = step.asWritten.replace(/[\s·.-]/g, '').toLowerCase();
  const others = TORQUE_UNITS.filter(
    (unit) => !written.includes(unit.replace('·', '').toLowerCase()) && (unit !== 'lbf·in' || step.nm < 20),
  ).map((to) => {
    const said = [step.nm, ...(step.toNm === undefined ? [] : [step.toNm])].map((nm) => {
      const { value } = torque({ value: nm, from: 'N·m', to });
      return value < 10 ? value.toFixed(1) : String(Math.round(value));
    });
    return `${said.join('–')} ${to}`;
  });
  return `${step.asWritten} (${others.join(', ')})`;
}
