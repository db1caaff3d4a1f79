import { counted } from '@zero-lash/core/length';
import { Box, chakra } from '@chakra-ui/react';
import { headsToTorque, jobOf, statusOf, SETTING, subjectOf } from '@zero-lash/core/builds';
import type { BuildView } from '../builds/buildView.ts';
import { Check } from '../builds/Check.tsx';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { useRole } from '../app/useRole.ts';

/** The head tightened again at a first check: once every gap was felt, and every gap is read again after it. */
export function HeadAgain({ build }: { readonly build: BuildView }) {
  const put = useBenchWrite(build.id);
  const { mayWork } = useRole();
  if (!jobOf(build.job).tightensHead || !build.sheet.runIn.retorque) return null;
  const isTicked = (key: string) =>
    build.ticks.find(({ stage, check, done }) => done && stage === SETTING && check === key);
  // once a head is tightened its gaps are read again: of the other it still counts how they were found
  const { points, asFound, set, unreached, apart } = statusOf(build);
  const unfelt = points.some(
    (key) => !asFound.has(key) && !set.has(key) && !unreached.includes(key) && !apart.includes(key),
  );
  return (
    <fieldset>
      <chakra.legend fontWeight="650">The head, tightened again</chakra.legend>
      <Box fontSize="sm" color="faded">
        Every gap is felt first. Then the head is tightened again, cold, in the order and to the figures of
        the maker’s manual; and since that moves them, every gap is read again, and set.
      </Box>
      {headsToTorque(build.sheet.pattern).map(({ key, points: under }, _, heads) => (
        <Check
          key={key}
          text={
            heads.length > 1
              ? `Head of bank ${subjectOf('head', key)} tightened again`
              : 'Head tightened again'
          }
          by={isTicked(key)?.by}
          aside={counted(under.length, 'point')}
          enabled={
            mayWork && !build.closedAt && build.stage === SETTING && (!unfelt || isTicked(key) !== undefined)
          }
          onTick={(done) => put({ kind: 'tick', body: { stage: SETTING, check: key, done } })}
        />
      ))}
    </fieldset>
  );
}
