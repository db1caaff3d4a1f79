import type { StageKey } from '@zero-lash/core/builds';
import { Box, Button, Flex, Heading } from '@chakra-ui/react';
import { OPERATION_WORDS } from '@zero-lash/core/headwork';
import { bothNames, gearParts, type Pattern } from '@zero-lash/core/sheets';
import { useState } from 'react';
import { Caution } from '../app/Caution.tsx';
import { useLengths } from '../app/lengths.ts';
import { Note } from '../app/Note.tsx';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { GapSteps } from '../drawings/GapSteps.tsx';
import { VerdictMark } from '../drawings/VerdictMark.tsx';
import { KnowHowOfForecasts } from './KnowHowOfForecasts.tsx';
import { Photographs } from '../photographs/Photographs.tsx';
import { useRole } from '../app/useRole.ts';
import { HeadWorkForm } from './HeadWorkForm.tsx';
import { useBudgets, type BudgetOfPoint } from './useBudgets.ts';
import { WorkList } from './WorkList.tsx';

interface Props {
  readonly build: BuildView;
  readonly stage: StageKey;
}

/** What the head work will do to every gap, before anybody cuts: planned, done as measured, and what will bring each back. */
export function BudgetPanel({ build, stage }: Props) {
  const put = useBenchWrite(build.id);
  const { mayWork } = useRole();
  const { lines, budgets } = useBudgets(build);
  const { pattern } = build.sheet;
  const enabled = mayWork && !build.closedAt && build.signOff === null;
  const write = (about: string, written: typeof lines) =>
    put({ kind: 'headwork', about, body: { lines: structuredClone(written) as never } });
  const failing = budgets.filter(({ budget }) => budget?.fails);
  const [chosen, setChosen] = useState<string | null>(null);
  const shown = budgets.find(({ point }) => point.key === chosen) ?? failing[0] ?? budgets[0]!;
  const unknown = budgets.filter(({ needsPiece }) => needsPiece);
  const notFound = budgets.filter(({ unknown: why }) => why !== null);
  const noStandout = budgets.filter(({ needsStandout }) => needsStandout);
  return (
    <Box as="section" aria-label="Lash budget" display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="3">
      <Heading as="h3" fontSize="lg" fontWeight="650">
        What it does to the gaps
      </Heading>
      {gearParts(pattern).camIn === 'head' && (
        <Box fontSize="sm" color="faded">
          The cams turn in this head: skimming it moves no gap, but the valve timing and the room over the
          pistons. Look at both before it is skimmed.
        </Box>
      )}
      {enabled && <HeadWorkForm buildId={build.id} pattern={pattern} onPlan={write} />}
      <WorkList lines={lines} enabled={enabled} onWrite={write} />
      {failing.length > 0 && (
        <Note tone="tight" role="alert">
          <b>
            {failing.length === 1 ? 'One valve' : `${failing.length} valves`} will not come in with anything
            that is made: {failing.map(({ point }) => point.key).join(', ')}.
          </b>{' '}
          Change the work before anybody cuts.
        </Note>
      )}
      {failing.length === 0 &&
        lines.length > 0 &&
        unknown.length === 0 &&
        notFound.length === 0 &&
        noStandout.length === 0 && (
          <Box>
            <b>Every gap comes in with what is made.</b>
          </Box>
        )}
      {unknown.length > 0 && lines.length > 0 && (
        <Note>
          Which pieces are in is not known at {unknown.map(({ point }) => point.key).join(', ')}: write them
          down at Wear, under “Piece as found”, and what is needed is worked out.
        </Note>
      )}
      {notFound.length > 0 && lines.length > 0 && (
        <Note>
          What the work leaves is not known at{' '}
          {notFound.map(({ point, unknown: why }) => `${point.key} (${UNKNOWN_WORDS[why!]})`).join(', ')}:
          nothing is worked out there.
        </Note>
      )}
      {noStandout.length > 0 && lines.length > 0 && (
        <Note>
          How much thread shows is not known at {noStandout.map(({ point }) => point.key).join(', ')}: whether
          thread enough is left there nobody can say.
        </Note>
      )}
      <KnowHowOfForecasts sheetId={build.sheet.sheetId} />
      <Stair shown={shown} />
      <BudgetTable pattern={pattern} budgets={budgets} chosen={shown.point.key} onChoose={setChosen} />
      <RefusedNotes buildId={build.id} which={({ kind }) => kind === 'headwork'} />
      <Photographs build={build} stage={stage} hint="seat 3E, after cutting" />
    </Box>
  );
}

/** Why nothing is worked out from how a point was found. */
const UNKNOWN_WORDS = {
  'not-measured': 'not measured',
  'no-blade': 'no blade went',
  open: 'open at its upper end',
  conflict: 'its tries contradict each other',
} as const;

/** One point's gap, step by step. */
function Stair({ shown: { point, found, unknown, target, budget } }: { readonly shown: BudgetOfPoint }) {
  const { figure } = useLengths();
  return (
    <Box>
      <Heading as="h4" fontSize="md" fontWeight="650">
        {point.key}
      </Heading>
      {!found || !budget ? (
        <Box color="faded">
          {found
            ? 'The sheet does not say the rocker’s ratio, and this work moves the gap by it. Nothing is worked out.'
            : `As it was found: ${UNKNOWN_WORDS[unknown ?? 'not-measured']}. Nothing is worked out from that.`}
        </Box>
      ) : (
        <>
          <GapSteps
            label={`Gap of ${point.key}, step by step`}
            steps={[
              { label: 'as found', ...found, done: true },
              ...budget.rows.map(({ operation, lo, hi, done }) => ({
                label: OPERATION_WORDS[operation],
                lo,
                hi,
                done,
              })),
            ]}
            min={point.min}
            max={point.max}
            target={target}
            figure={figure}
          />
          {budget.ways.length > 0 && (
            <Box as="ul" aria-label={`What would bring ${point.key} in`}>
              {budget.ways.map((way) => (
                <Box as="li" key={way} paddingLeft="3">
                  – {way}
                </Box>
              ))}
            </Box>
          )}
          {budget.cautions.map((caution) => (
            <Caution key={caution}>{caution}</Caution>
          ))}
        </>
      )}
    </Box>
  );
}

interface TableProps {
  readonly pattern: Pattern;
  readonly budgets: readonly BudgetOfPoint[];
  readonly chosen: string;
  readonly onChoose: (point: string) => void;
}

function BudgetTable({ pattern, budgets, chosen, onChoose }: TableProps) {
  const { figure, interval, unit } = useLengths();
  const screws = budgets.some(({ budget }) => budget?.screw);
  return (
    <Box overflowX="auto" tabIndex={0} role="region" aria-label="Every point’s budget">
      <table>
        <thead>
          <Box as="tr" borderBottom="1px solid" borderColor="ink">
            <th scope="col">Point</th>
            <th scope="col">As found, {unit}</th>
            <th scope="col">Before setting</th>
            <th scope="col">{screws ? 'Thread showing' : 'Will need'}</th>
            <th scope="col">Leaves</th>
            <th scope="col">
              <span className="spoken">Step by step</span>
            </th>
          </Box>
        </thead>
        <tbody>
          {budgets.map(({ point, found, unknown, budget, needsPiece }) => (
            <Box
              as="tr"
              key={point.key}
              borderBottom="1px solid"
              borderColor="hairline"
              background={point.key === chosen ? 'wash' : undefined}
            >
              <Box as="th" {...{ scope: 'row' }} fontFamily="mono" height="44px">
                {bothNames(pattern, point.key)}
              </Box>
              <td>{found ? interval(found) : UNKNOWN_WORDS[unknown ?? 'not-measured']}</td>
              <td>{budget ? interval(budget) : '–'}</td>
              <td>
                {budget?.piece && (
                  <>
                    {figure(budget.piece.needed)} → {figure(budget.piece.nearest)}
                    {(budget.piece.underThinnest > 0 || budget.piece.beyondThickest > 0) && (
                      <Box as="span" color="tight">
                        {budget.piece.underThinnest > 0
                          ? `, ${figure(budget.piece.underThinnest)} under the thinnest`
                          : `, ${figure(budget.piece.beyondThickest)} over the thickest`}
                      </Box>
                    )}
                  </>
                )}
                {budget?.screw && (
                  <>
                    {figure(budget.screw.standout)}
                    {budget.screw.outside > 0 && (
                      <Box as="span" color="tight">
                        , {figure(budget.screw.outside)} beyond what it may
                      </Box>
                    )}
                  </>
                )}
                {needsPiece && 'piece not known'}
              </td>
              <td>
                {budget?.piece && (
                  <Flex gap="2" alignItems="center">
                    {interval(budget.piece.leaves)}
                    <VerdictMark state={budget.piece.verdict} />
                  </Flex>
                )}
              </td>
              <td>
                <Button
                  variant="plain"
                  paddingX="1"
                  aria-label={`Show ${point.key} step by step`}
                  aria-current={point.key === chosen || undefined}
                  onClick={() => onChoose(point.key)}
                >
                  Show
                </Button>
              </td>
            </Box>
          ))}
        </tbody>
      </table>
    </Box>
  );
}
