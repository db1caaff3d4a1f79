import { Box, Flex, Input } from '@chakra-ui/react';
import type { BuildView } from '../builds/buildView.ts';
import type { ConditionsRow, Round } from '@zero-lash/contract/measuring';
import { memo, useState, type KeyboardEvent } from 'react';
import { meantAt } from '@zero-lash/core/builds';
import { conditionCautions } from '@zero-lash/core/measuring';
import { Caution } from '../app/Caution.tsx';
import {
  counted,
  figureShown,
  figureTyped,
  numberTyped,
  unitShown,
  type ShownIn,
} from '@zero-lash/core/length';
import { useShownIn } from '../app/lengths.ts';
import { ShopTime } from '../app/ShopTime.tsx';
import { Labelled, Select } from '../app/Labelled.tsx';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import { useDraft } from '../app/useDraft.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';

/** The temperature a round is taken at and the time since the engine ran; a mismatch with the sheet is shown. */
export const RoundConditions = memo(
  function RoundConditions({
    build,
    round,
    enabled,
  }: {
    readonly build: BuildView;
    readonly round: Round;
    readonly enabled: boolean;
  }) {
    const said = round.conditions.at(-1) ?? NOT_SAID;
    const shown = useShownIn(build.sheet.system);
    const saidTemperature = said.engineTempC === null ? '' : figureShown(said.engineTempC, '°C', shown);
    const { texts, type, changed, clear } = useDraft(`conditions:${round.id}`, {
      ...{ temperature: saidTemperature, hours: String(said.hoursSinceRun ?? '') },
    });
    const { temperature, hours } = texts;
    const [complaint, setComplaint] = useState<string>();
    const put = useBenchWrite(build.id);
    const instruments = instrumentsOf(round);

    /** What is typed is said as soon as its field is left: going on by whichever way loses none of it. */
    function say(condition = said.condition) {
      // a thermometer may read in the other one
      const read = temperature.trim() === '' ? { value: null } : figureTyped(temperature, '°C', shown);
      const ran = hours.trim() === '' ? null : numberTyped(hours);
      const wrong = 'error' in read || Number.isNaN(ran ?? 0) || (ran ?? 0) < 0;
      setComplaint(wrong ? 'Numbers, such as 18 (or 64 °F) and 12.' : undefined);
      const typed = Object.keys(changed).length > 0 && !wrong;
      if (!typed && condition === said.condition) return;
      // what cannot be read stays as it is typed, and holds nothing else back
      const { engineTempC, hoursSinceRun } =
        wrong || 'error' in read ? said : { engineTempC: read.value, hoursSinceRun: ran };
      put({ kind: 'conditions', roundId: round.id, body: { engineTempC, hoursSinceRun, condition } });
      if (!wrong) clear();
    }
    const onKeyDown = ({ key }: KeyboardEvent) => {
      if (key === 'Enter') say();
    };

    return (
      <Box>
        {enabled ? (
          <>
            <Flex gap="3" alignItems="flex-end" flexWrap="wrap">
              <Box width="120px">
                <Labelled label={`Engine, ${unitShown('°C', shown)}`}>
                  <Input
                    value={temperature}
                    inputMode="decimal"
                    maxLength={12}
                    onChange={(event) => type('temperature', event.target.value)}
                    onBlur={() => say()}
                    onKeyDown={onKeyDown}
                  />
                </Labelled>
              </Box>
              <Box width="150px">
                <Labelled label="Hours since last run">
                  <Input
                    value={hours}
                    inputMode="decimal"
                    maxLength={12}
                    onChange={(event) => type('hours', event.target.value)}
                    onBlur={() => say()}
                    onKeyDown={onKeyDown}
                  />
                </Labelled>
              </Box>
              <Box width="120px">
                <Labelled label="It is">
                  <Select
                    value={said.condition ?? ''}
                    onChange={({ target }) =>
                      say(target.value === '' ? null : (target.value as 'cold' | 'hot'))
                    }
                  >
                    <option value="">not said</option>
                    <option value="cold">cold</option>
                    <option value="hot">hot</option>
                  </Select>
                </Labelled>
              </Box>
            </Flex>
            {complaint && (
              <Box color="tight" fontSize="sm" role="alert">
                {complaint}
              </Box>
            )}
          </>
        ) : (
          <Box>{conditionsInWords(said, shown)}</Box>
        )}
        <RefusedNotes
          buildId={build.id}
          which={({ kind, within }) => kind === 'conditions' && within === round.id}
        />
        {conditionCautions(meantAt(build.sheet, round.kind)!, said).map((text) => (
          <Caution key={text}>{text}</Caution>
        ))}
        {saidBefore(build, round).map(({ id, by, at, cautions }) => (
          <Box key={id} fontSize="sm" color="faded">
            Said before, by {by}, <ShopTime at={at} />: {cautions.join(' ')}
          </Box>
        ))}
        <Box fontSize="sm" color="faded">
          Round opened by {round.openedBy}, <ShopTime at={round.openedAt} />
          {instruments.length > 0 && `; with ${instruments.join(', ')}`}.
        </Box>
      </Box>
    );
  },
  // a reading more changes nothing here, unless it names another instrument
  (before, after) =>
    before.enabled === after.enabled &&
    before.build.id === after.build.id &&
    before.round.id === after.round.id &&
    before.round.conditions === after.round.conditions &&
    instrumentsOf(before.round).join() === instrumentsOf(after.round).join(),
);

type Said = Pick<ConditionsRow, 'engineTempC' | 'hoursSinceRun' | 'condition'>;

const NOT_SAID: Said = { engineTempC: null, hoursSinceRun: null, condition: null };

/** What a round was taken under, where it is only looked at: `At 15 °C, 45 hours after it ran, cold.` */
function conditionsInWords({ engineTempC, hoursSinceRun, condition }: Said, shown: ShownIn): string {
  const parts = [
    engineTempC !== null && `at ${figureShown(engineTempC, '°C', shown)} ${unitShown('°C', shown)}`,
    hoursSinceRun !== null && `${counted(hoursSinceRun, 'hour')} after it ran`,
    condition,
  ].filter(Boolean);
  return parts.length > 0 ? `Taken ${parts.join(', ')}.` : 'Nobody said how warm the engine was.';
}

/** Every instrument that a round's readings name. */
const instrumentsOf = ({ readings }: Round) =>
  [...new Set(readings.map(({ instrument }) => instrument))].filter((name) => name !== null);

/** What was said of the conditions before and did not fit the sheet: it stays on the round's record. */
function saidBefore({ sheet }: BuildView, { kind, conditions }: Round) {
  return conditions
    .slice(0, -1)
    .map((said) => ({ ...said, cautions: conditionCautions(meantAt(sheet, kind)!, said) }))
    .filter(({ cautions }) => cautions.length > 0);
}
