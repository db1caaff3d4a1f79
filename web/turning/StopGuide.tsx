import { Box, Button, Flex } from '@chakra-ui/react';
import type { SheetBody } from '@zero-lash/contract/sheets';
import type { KnowHowRow } from '@zero-lash/contract/knowHow';
import { crankHeldBy, type StageKey } from '@zero-lash/core/builds';
import { cylinderName, type Pattern } from '@zero-lash/core/sheets';
import {
  camByHandInWords,
  gonePastInWords,
  NO_MARK_CAUTION,
  picturesAt,
  pointsInWords,
  signsInWords,
  wayToStop,
} from '@zero-lash/core/turning';
import { memo, useState } from 'react';
import { Caution } from '../app/Caution.tsx';
import { useSteady } from '../app/useSteady.ts';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import { useStable } from '../app/useStable.ts';
import { StopNotes } from './StopNotes.tsx';
import { PositionPictures } from './PositionPictures.tsx';
import { WhichTdc } from './WhichTdc.tsx';
import type { TurningWork } from './useTurning.ts';

interface Props {
  readonly buildId: string;
  readonly sheet: Pick<SheetBody, 'pattern' | 'pictures'>;
  readonly stage: StageKey;
  /** what the shop knows of the pattern */
  readonly known: readonly KnowHowRow[];
  readonly work: TurningWork;
  readonly enabled: boolean;
  /** the crank was said to stand at a stop: this is its first point */
  readonly onArrive: (key: string) => void;
}

type Asked = 'signs' | 'tdc' | 'past' | null;

/** In a line: where the crank is, what is left here, and how to get to the next stop. */
export const StopGuide = memo(function StopGuide(props: Props) {
  const { buildId, sheet, stage, known, work, enabled, onArrive } = props;
  const { pattern } = sheet;
  const { progress, turning } = work;
  const { here, next, stops } = progress;
  const [asked, setAsked] = useState<Asked>(null);
  // it says less once the crank stands there, and the head below it is tapped meanwhile
  const steady = useSteady<HTMLDivElement>();
  const leaving = here === null || here.left.length === 0;
  const shown = leaving ? next : here;
  const [held] = crankHeldBy(work);
  const byHand = work.school === 'cam-by-hand';
  const toggle = useStable((what: Asked) => setAsked(asked === what ? null : what));
  const arrived = useStable(() => {
    if (!shown) return;
    work.standAt(shown.stop.angle);
    onArrive(shown.left[0]!);
  });
  return (
    <section aria-label="Where to turn" className="stop-guide">
      <div ref={steady} className="stop-guide-line">
        <div className="stop-guide-said" aria-live="polite">
          {held && <Caution>{held.text}</Caution>}
          {!held && byHand && (
            <>
              <b>Turn the cam by itself</b> until the lobe of the point you measure points straight away from
              its follower.
              {camByHandInWords.map((caution) => (
                <Caution key={caution}>{caution}</Caution>
              ))}
            </>
          )}
          {!held && !byHand && shown && pattern.marks.length === 0 && <Caution>{NO_MARK_CAUTION}</Caution>}
          {!held && !byHand && !shown && <b>All points measured.</b>}
          {!held && shown && (
            <>
              <b>
                Stop {shown.number} of {stops.length}
              </b>
              {shown === here
                ? `: the crank stands here. Measure ${pointsInWords(pattern, shown.left)}.`
                : `: ${wayToStop(pattern, shown.stop, turning.at)}${pairing(pattern, shown.stop)}. Then ${pointsInWords(pattern, shown.left)}.`}
            </>
          )}
        </div>
        {enabled && !held && shown && (
          <GuideButtons away={shown !== here} asked={asked} onAsk={toggle} onArrived={arrived} />
        )}
      </div>
      {shown && !held && (
        <StopNotes
          key={shown.stop.angle}
          {...{ buildId, known, stage }}
          angle={shown.stop.angle}
          enabled={enabled && asked === 'signs'}
        />
      )}
      {shown && asked === 'signs' && (
        <Box as="ul" marginTop="2" paddingLeft="4" listStyleType="'– '">
          {signsInWords(pattern, shown.stop).map((sign) => (
            <li key={sign}>{sign}</li>
          ))}
          <Box as="li" color="faded">
            Two signs that agree are worth more than one mark: marks are faint, and come round twice.
          </Box>
        </Box>
      )}
      {shown && asked === 'signs' && (
        <PositionPictures pictures={picturesAt(sheet.pictures, shown.stop.angle)} />
      )}
      {shown && asked === 'tdc' && (
        <WhichTdc pattern={pattern} stop={shown.stop} onStand={(angle) => work.standAt(angle)} />
      )}
      {shown && asked === 'past' && (
        <Box marginTop="2">
          {gonePastInWords(pattern)}
          <Caution>
            Any resistance you did not expect: stop
            {pattern.turnsBack === false ? '' : ', go back'}, find out why.
          </Caution>
        </Box>
      )}
      <RefusedNotes buildId={buildId} which={({ kind }) => kind === 'turning'} />
    </section>
  );
});

interface GuideButtonsProps {
  /** the crank is not said to stand at the stop */
  readonly away: boolean;
  readonly asked: Asked;
  readonly onAsk: (what: Exclude<Asked, null>) => void;
  readonly onArrived: () => void;
}

const GuideButtons = memo(function GuideButtons({ away, asked, onAsk, onArrived }: GuideButtonsProps) {
  return (
    <Flex gap="2" flexWrap="wrap">
      {away && (
        <Button variant="solid" onClick={onArrived}>
          In position
        </Button>
      )}
      <Button onClick={() => onAsk('signs')} aria-expanded={asked === 'signs'}>
        Signs
      </Button>
      <Button onClick={() => onAsk('tdc')} aria-expanded={asked === 'tdc'}>
        Which TDC?
      </Button>
      <Button onClick={() => onAsk('past')} aria-expanded={asked === 'past'}>
        Overshot
      </Button>
    </Flex>
  );
});

function pairing(
  pattern: Pattern,
  { fires, rocks }: { readonly fires: readonly string[]; readonly rocks: readonly string[] },
) {
  const named = (ids: readonly string[]) => ids.map((id) => cylinderName(pattern, id)).join(' and ');
  const parts = [
    fires.length > 0 && `cylinder ${named(fires)} at firing TDC`,
    rocks.length > 0 && `cylinder ${named(rocks)} rocking`,
  ].filter(Boolean);
  return parts.length > 0 ? `: ${parts.join(', ')}` : '';
}
