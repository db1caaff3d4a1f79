import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { BuildView } from '@zero-lash/contract/builds';
import type { Round } from '@zero-lash/contract/measuring';
import { memo, useState, type FormEvent } from 'react';
import { conditionCautions } from '@zero-lash/core/measuring';
import { Caution } from '../app/Caution.tsx';
import { ShopTime } from '../people/ShopTime.tsx';
import { Labelled, Select } from '../app/Labelled.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useSetConditionsMutation } from '../builds/endpoints.ts';

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
    const [temperature, setTemperature] = useState(
      round.engineTempC === null ? '' : String(round.engineTempC),
    );
    const [hours, setHours] = useState(round.hoursSinceRun === null ? '' : String(round.hoursSinceRun));
    const [condition, setCondition] = useState(round.condition ?? '');
    const [complaint, setComplaint] = useState<string>();
    const [send, { error, isLoading }] = useSetConditionsMutation();
    const changed =
      temperature !== String(round.engineTempC ?? '') ||
      hours !== String(round.hoursSinceRun ?? '') ||
      condition !== (round.condition ?? '');

    function keep(event: FormEvent) {
      event.preventDefault();
      const [engineTempC, hoursSinceRun] = [temperature, hours].map((text) =>
        text.trim() === '' ? null : Number(text.replace(',', '.')),
      ) as [number | null, number | null];
      const wrong =
        Number.isNaN(engineTempC ?? 0) || Number.isNaN(hoursSinceRun ?? 0) || (hoursSinceRun ?? 0) < 0;
      setComplaint(wrong ? 'Numbers only, such as 18 and 12.' : undefined);
      if (!wrong)
        void send({
          buildId: build.id,
          roundId: round.id,
          engineTempC,
          hoursSinceRun,
          condition: condition === '' ? null : (condition as 'cold' | 'hot'),
        });
    }

    return (
      <Box>
        <form onSubmit={keep} noValidate>
          <Flex gap="3" alignItems="flex-end" flexWrap="wrap">
            <Box width="120px">
              <Labelled label="Engine, °C">
                <Input
                  value={temperature}
                  disabled={!enabled}
                  inputMode="decimal"
                  onChange={(event) => setTemperature(event.target.value)}
                />
              </Labelled>
            </Box>
            <Box width="150px">
              <Labelled label="Hours since last run">
                <Input
                  value={hours}
                  disabled={!enabled}
                  inputMode="decimal"
                  onChange={(event) => setHours(event.target.value)}
                />
              </Labelled>
            </Box>
            <Box width="120px">
              <Labelled label="It is">
                <Select
                  value={condition}
                  disabled={!enabled}
                  onChange={(event) => setCondition(event.target.value as 'cold' | 'hot' | '')}
                >
                  <option value="">not said</option>
                  <option value="cold">cold</option>
                  <option value="hot">hot</option>
                </Select>
              </Labelled>
            </Box>
            {enabled && changed && (
              <Button type="submit" loading={isLoading}>
                Keep
              </Button>
            )}
          </Flex>
          {complaint && (
            <Box color="tight" fontSize="sm" role="alert">
              {complaint}
            </Box>
          )}
        </form>
        <ProblemNote error={error} />
        {conditionCautions(build.sheet, { ...round, condition: round.condition ?? null }).map((text) => (
          <Caution key={text}>{text}</Caution>
        ))}
        {saidBefore(round).map(({ by, at, cautions }) => (
          <Box key={at} fontSize="sm" color="faded">
            Said before, by {by}, <ShopTime at={at} />: {cautions.join(' ')}
          </Box>
        ))}
        <Box fontSize="sm" color="faded">
          Round opened by {round.openedBy}, <ShopTime at={round.openedAt} />
          {round.instruments.length > 0 && `; with ${round.instruments.join(', ')}`}.
        </Box>
      </Box>
    );
  },
  // a reading more changes nothing here, unless it names another instrument
  (before, after) =>
    before.enabled === after.enabled &&
    before.build.id === after.build.id &&
    before.round.id === after.round.id &&
    before.round.pastConditions === after.round.pastConditions &&
    before.round.instruments.join() === after.round.instruments.join(),
);

/** What was said of the conditions before and did not fit the sheet: it stays on the round's record. */
function saidBefore(round: Round): Round['pastConditions'] {
  return round.pastConditions.slice(0, -1).filter(({ cautions }) => cautions.length > 0);
}
