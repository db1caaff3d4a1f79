import { Box, Button, Flex, Heading } from '@chakra-ui/react';
import type { KnowHowRow } from '@zero-lash/contract/knowHow';
import { handlesCover, type StageKey } from '@zero-lash/core/builds';
import { memo, useState } from 'react';
import { TextArea } from '../app/Labelled.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { ShopTime } from '../app/ShopTime.tsx';
import { useRole } from '../app/useRole.ts';
import { useChangeKnowHowMutation } from './endpoints.ts';

interface Props {
  readonly buildId: string;
  readonly sheet: Pick<BuildView['sheet'], 'maker' | 'name'>;
  /** all that is known of the pattern */
  readonly known: BuildView['know-how'];
  readonly stage: StageKey;
}

/** What the shop has learned of this pattern at a stage: on every build of it, worded again by a lead. */
export const KnowHow = memo(function KnowHow({ buildId, sheet: { maker, name }, known, stage }: Props) {
  const { mayLead } = useRole();
  const atCover = handlesCover(stage);
  const rows = known.filter(
    (row) =>
      !row.dropped &&
      ((row.about === 'cover' && atCover) ||
        // a note of a stop stands there; whoever looks after them finds it at its stage too
        (row.stage === stage && (row.about === 'stage' || (row.about === 'stop' && mayLead)))),
  );
  if (rows.length === 0) return null;
  return (
    <Box as="section" aria-label="What the shop has learned">
      <Heading as="h3" fontSize="md" fontWeight="650">
        Learned on the {maker} {name}
      </Heading>
      {rows.map((row) => (
        <Note key={row.id} row={row} buildId={buildId} />
      ))}
    </Box>
  );
});

function Note({ row, buildId }: { readonly row: KnowHowRow; readonly buildId: string }) {
  const { mayLead } = useRole();
  const [change, { error, isLoading }] = useChangeKnowHowMutation();
  const [text, setText] = useState<string | null>(null);
  const send = async (dropped: boolean) => {
    const said = { id: row.id, buildId, version: row.version, text: (text ?? row.text).trim(), dropped };
    const answer = await change(said);
    if (!('error' in answer)) setText(null);
  };
  return (
    <Box borderTop="1px solid" borderColor="hairline" paddingY="1">
      {text === null ? (
        <Flex gap="2" alignItems="center" flexWrap="wrap">
          <Box flex="1" minWidth="200px">
            {row.crankAngle !== null && <b>At {row.crankAngle}°: </b>}
            {row.text}
            <Box as="span" fontSize="sm" color="faded">
              {' '}
              · {row.by}, <ShopTime at={row.at} day />
            </Box>
          </Box>
          {mayLead && (
            <Button variant="plain" onClick={() => setText(row.text)}>
              Edit
            </Button>
          )}
        </Flex>
      ) : (
        <Box>
          <TextArea
            aria-label="What was learned"
            value={text}
            maxLength={300}
            rows={2}
            onChange={({ target }) => setText(target.value)}
          />
          <Flex gap="2" paddingTop="1" flexWrap="wrap">
            <Button
              variant="solid"
              disabled={text.trim() === ''}
              loading={isLoading}
              onClick={() => void send(false)}
            >
              Save
            </Button>
            <Button onClick={() => void send(true)}>Take it away</Button>
            <Button variant="plain" onClick={() => setText(null)}>
              Leave it
            </Button>
          </Flex>
          <ProblemNote error={error} />
        </Box>
      )}
    </Box>
  );
}
