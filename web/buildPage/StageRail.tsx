import { Box, Button } from '@chakra-ui/react';
import { memo, useEffect, useRef } from 'react';
import { scrollAlong } from '../drawings/scrollAlong.ts';
import { jobOf, stageIn, type JobKey, type StageKey } from '@zero-lash/core/builds';

interface Props {
  /** the stage the build is at */
  readonly at: StageKey;
  /** what is done to the engine: it has these stages and no others */
  readonly job: JobKey;
  readonly looking: StageKey;
  readonly onLook: (stage: StageKey) => void;
}

/** The order of the work down one side: what is done, where the build is, what is still to come. */
export const StageRail = memo(function StageRail({ at: stageAt, job, looking, onLook }: Props) {
  const { stages } = jobOf(job);
  const at = stages.indexOf(stageAt);
  const rail = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const shownStages = rail.current;
    scrollAlong(
      shownStages?.querySelector('[aria-pressed="true"]'),
      shownStages?.querySelector('ol') ?? null,
    );
  }, [looking]);
  return (
    <Box as="nav" aria-label="Stages of the build" ref={rail}>
      <Box as="ol" display={{ base: 'flex', lg: 'block' }} overflowX={{ base: 'auto', lg: 'visible' }}>
        {stages
          .map((key) => stageIn(job, key))
          .map((stage, index) => {
            const place = index < at ? 'done' : index === at ? 'here' : 'to come';
            return (
              <Box as="li" key={stage.key} position="relative" flexShrink={0}>
                <Button
                  variant="plain"
                  textDecoration="none"
                  width="100%"
                  justifyContent="flex-start"
                  paddingX="2"
                  minHeight="44px"
                  gap="3"
                  disabled={!shown(place)}
                  opacity={shown(place) ? 1 : '0.62 !important'}
                  fontWeight={place === 'here' ? 700 : 500}
                  background={looking === stage.key ? 'wash' : 'transparent'}
                  aria-current={place === 'here' ? 'step' : undefined}
                  aria-pressed={looking === stage.key}
                  onClick={() => onLook(stage.key)}
                >
                  <StageDot place={place} number={index + 1} />
                  {stage.title}
                  <span className="spoken">, {place}</span>
                </Button>
              </Box>
            );
          })}
      </Box>
    </Box>
  );
});

type Place = 'done' | 'here' | 'to come';

const shown = (place: Place) => place === 'done' || place === 'here';

function StageDot({ place, number }: { readonly place: Place; readonly number: number }) {
  return (
    <Box
      as="span"
      display="inline-grid"
      placeItems="center"
      width="26px"
      height="1.625rem"
      flexShrink={0}
      border="1px solid"
      borderColor={shown(place) ? 'ink' : 'hairline'}
      background={place === 'here' ? 'brass' : place === 'done' ? 'ink' : 'transparent'}
      color={shown(place) ? 'paper' : 'ink'}
      fontSize="xs"
      fontWeight="650"
      aria-hidden
    >
      {place === 'done' ? '✓' : number}
    </Box>
  );
}
