import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { formatLength, mmFromTenths, parseLength, tenthsFromMm } from '@zero-lash/core/length';
import { pieceWarning, type NotPlanned, type PiecePoint } from '@zero-lash/core/setting';
import { meansFor } from '@zero-lash/core/sheets';
import { useRef, useState } from 'react';
import { Labelled } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import type { BuildView } from '../builds/buildView.ts';
import { useEnginePiecesQuery } from '../engines/endpoints.ts';
import { pieceIn } from '../wear/pieceIn.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';

const NOT_YET: Readonly<Record<Exclude<NotPlanned, 'need-piece' | 'fitted'>, string>> = {
  'not-measured': 'Measure first',
  'no-blade': 'No blade goes: fit a thinner piece until one does, then measure',
  undecided: 'Undecided: measure finer first',
  contradicts: 'The tries contradict each other: measure again',
  bare: 'Nothing is in: measure it bare, each lobe straight away',
  'no-offset':
    'Measured bare; how deep a shim lies there is not known: find its seat offset with one known shim',
};

interface NotYetProps {
  readonly points: readonly PiecePoint[];
  readonly build: BuildView;
  readonly enabled: boolean;
}

/** What is not planned for yet, and why; where only the piece that is in is not known, it is typed here. */
export function NotYet({ points, build, enabled }: NotYetProps) {
  const keysOf = (why: NotPlanned) => points.filter((each) => each.why === why).map(({ point }) => point.key);
  // a field that was asked for stays as it is filled: none moves up under the hands
  const [everAsked, setEverAsked] = useState<readonly string[]>([]);
  const fresh = points.filter(({ point, why }) => why === 'need-piece' && !everAsked.includes(point.key));
  if (fresh.length > 0) setEverAsked([...everAsked, ...fresh.map(({ point }) => point.key)]);
  const asked = points.filter(({ point }) => everAsked.includes(point.key));
  const put = useBenchWrite(build.id);
  const { data: pieces } = useEnginePiecesQuery(build.engine.id);
  const lastIn = (key: string) =>
    pieces?.find(({ point, buildId, thickness }) => point === key && buildId !== build.id && thickness);
  const known = points.filter(({ point, why }) => why === 'need-piece' && lastIn(point.key));
  const takeLast = () => {
    for (const { point } of known) {
      const { thickness } = lastIn(point.key)!;
      put(pieceIn(point.key, thickness!, formatLength(tenthsFromMm(thickness!), point.stamped), false));
    }
  };
  return (
    <>
      {(Object.keys(NOT_YET) as (keyof typeof NOT_YET)[])
        .filter((why) => keysOf(why).length > 0)
        .map((why) => (
          <Box key={why} color="brass">
            {NOT_YET[why]}: {keysOf(why).join(', ')}
          </Box>
        ))}
      {asked.length > 0 && (
        <Flex gap="3" flexWrap="wrap" alignItems="flex-end">
          {asked.map((each) => (
            <PieceThere
              key={each.point.key}
              each={each}
              build={build}
              enabled={enabled}
              last={lastIn(each.point.key)}
            />
          ))}
        </Flex>
      )}
      {enabled && known.length > 1 && (
        <Button variant="plain" paddingX="0" alignSelf="start" onClick={takeLast}>
          Take what was last in at {known.length} points
        </Button>
      )}
    </>
  );
}

/** What was fitted and waits to be proved. It stands under what is worked off, and moves nothing of it. */
export function Fitted({ points }: Pick<NotYetProps, 'points'>) {
  const keys = points.filter(({ why }) => why === 'fitted').map(({ point }) => point.key);
  return keys.length === 0 ? null : <Box color="faded">Fitted, and to be proved: {keys.join(', ')}</Box>;
}

type PieceLastIn = NonNullable<ReturnType<typeof useEnginePiecesQuery>['data']>[number];

interface PieceThereProps {
  readonly each: PiecePoint;
  /** what an earlier build left there */
  readonly last: PieceLastIn | undefined;
  readonly build: BuildView;
  readonly enabled: boolean;
}

/** The piece that is in at a point, typed from its mark or the micrometer; one that is not made is asked about. */
function PieceThere({ each, build, enabled, last }: PieceThereProps) {
  const put = useBenchWrite(build.id);
  const { unit, figure, length } = useLengths(each.point.stamped);
  // eslint-disable-next-line no-restricted-syntax -- it is sent as it is typed
  const [text, setText] = useState('');
  const [said, setSaid] = useState<string | undefined>();
  const asked = useRef<number | null>(null);
  const sent = useRef<number | null>(null);
  const { key, role } = each.point;
  const means = meansFor(build.sheet.pattern, role);

  function send(byEnter: boolean) {
    if (text.trim() === '') return setSaid(undefined);
    const read = parseLength(text, unit);
    if ('error' in read || read.mm < 0.1 || read.mm > 50)
      return setSaid(`A thickness such as ${figure(2.4)}.`);
    const { mm } = read;
    // leaving the field after Enter writes nothing again
    if (sent.current === mm) return undefined;
    const warning = 'sizes' in means ? pieceWarning(tenthsFromMm(mm), means.sizes, null) : null;
    const again = byEnter && asked.current === mm;
    if (warning && !again) {
      asked.current = mm;
      const meant = warning.meant === null ? '' : ` Did you mean ${figure(mmFromTenths(warning.meant))}?`;
      return setSaid(`${length(mm)} is not made.${meant} Enter keeps it.`);
    }
    setSaid(undefined);
    sent.current = mm;
    return put(pieceIn(key, mm, text.trim(), warning !== null));
  }

  return (
    <Box width="120px">
      <Labelled
        label={`In at ${key}, ${unit}`}
        error={said}
        hint={
          last?.thickness
            ? `${figure(last.thickness)} was last ${last.how} in, build ${last.build}`
            : undefined
        }
      >
        <Input
          value={text}
          inputMode="decimal"
          maxLength={12}
          disabled={!enabled}
          onChange={({ target }) => setText(target.value)}
          onBlur={() => send(false)}
          onKeyDown={({ key: pressed }) => void (pressed === 'Enter' && send(true))}
        />
      </Labelled>
    </Box>
  );
}
