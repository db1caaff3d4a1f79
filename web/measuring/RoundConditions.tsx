import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { BuildView } from '../builds/buildView.ts';
import type { ConditionsRow, Round } from '@zero-lash/contract/measuring';
import { memo, useState, type FormEvent } from 'react';
import { meantAt } from '@zero-lash/core/builds';
import { conditionCautions } from '@zero-lash/core/measuring';
import { Caution } from '../app/Caution.tsx';
import { figureShown, figureTyped, numberTyped, unitShown, type ShownIn } from '@zero-lash/core/length';
import { useShownIn } from '../app/lengths.ts';
import { ShopTime } from '../app/ShopTime.tsx';
import { Labelled, Select } from '../app/Labelled.tsx';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
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
    const [temperature, setTemperature] = useState(saidTemperature);
    const [hours, setHours] = useState(String(said.hoursSinceRun ?? ''));
    const [condition, setCondition] = useState<'cold' | 'hot' | ''>(said.condition ?? '');
    const [complaint, setComplaint] = useState<string>();
    const put = useBenchWrite(build.id);
    const instruments = instrumentsOf(round);
    const changed =
      temperature !== saidTemperature ||
      hours !== String(said.hoursSinceRun ?? '') ||
      condition !== (said.condition ?? '');

    function keep(event: FormEvent) {
      event.preventDefault();
      // a thermometer may read in the other one
      const read = temperature.trim() === '' ? { value: null } : figureTyped(temperature, '°C', shown);
      const engineTempC = 'error' in read ? null : read.value;
      const hoursSinceRun = hours.trim() === '' ? null : numberTyped(hours);
      const wrong = 'error' in read || Number.isNaN(hoursSinceRun ?? 0) || (hoursSinceRun ?? 0) < 0;
      setComplaint(wrong ? 'Numbers, such as 18 (or 64 °F) and 12.' : undefined);
      if (!wrong)
        put({
          kind: 'conditions',
          roundId: round.id,
          body: { engineTempC, hoursSinceRun, condition: condition === '' ? null : condition },
        });
    }

    return (
      <Box>
        {enabled ? (
          <form onSubmit={keep} noValidate>
            <Flex gap="3" alignItems="flex-end" flexWrap="wrap">
              <Box width="120px">
                <Labelled label={`Engine, ${unitShown('°C', shown)}`}>
                  <Input
                    value={temperature}
                    inputMode="decimal"
                    onChange={(event) => setTemperature(event.target.value)}
                  />
                </Labelled>
              </Box>
              <Box width="150px">
                <Labelled label="Hours since last run">
                  <Input
                    value={hours}
                    inputMode="decimal"
                    onChange={(event) => setHours(event.target.value)}
                  />
                </Labelled>
              </Box>
              <Box width="120px">
                <Labelled label="It is">
                  <Select
                    value={condition}
                    onChange={(event) => setCondition(event.target.value as 'cold' | 'hot' | '')}
                  >
                    <option value="">not said</option>
                    <option value="cold">cold</option>
                    <option value="hot">hot</option>
                  </Select>
                </Labelled>
              </Box>
              {changed && <Button type="submit">Keep</Button>}
            </Flex>
            {complaint && (
              <Box color="tight" fontSize="sm" role="alert">
                {complaint}
              </Box>
            )}
          </form>
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
    hoursSinceRun !== null && `${hoursSinceRun} hours after it ran`,
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
