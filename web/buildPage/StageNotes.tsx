import { Box, Button, Flex, Heading } from '@chakra-ui/react';
import { handlesCover, stageIn, type JobKey, type StageKey } from '@zero-lash/core/builds';
import { memo } from 'react';
import { ShopTime } from '../app/ShopTime.tsx';
import { TextArea } from '../app/Labelled.tsx';
import { useDraft } from '../app/useDraft.ts';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';

/** What a shop keeps of a pattern is a sentence or two. */
const MOST_LEARNED = 300;

interface Props {
  readonly buildId: string;
  readonly notes: BuildView['notes'];
  readonly job: JobKey;
  readonly stage: StageKey;
  readonly enabled: boolean;
}

/** What was written down at a stage, and where more is: for this build, or kept for its pattern. */
export const StageNotes = memo(function StageNotes({ buildId, notes: all, job, stage, enabled }: Props) {
  const { texts, type, clear } = useDraft(`note:${buildId}:${stage}`, { text: '' });
  const { text } = texts;
  const put = useBenchWrite(buildId);
  const notes = all.filter((note) => note.stage === stage);
  const send = () => {
    put({ kind: 'note', body: { stage, text: text.trim() } });
    clear();
  };
  const learn = (about: 'stage' | 'cover') => {
    put({ kind: 'know-how', body: { stage, about, text: text.trim() } });
    clear();
  };
  if (!enabled && notes.length === 0) return null;
  return (
    <Box as="section">
      <Heading as="h3" fontSize="md" fontWeight="650">
        Written down here
      </Heading>
      {notes.map((note) => (
        <Box key={note.id} borderTop="1px solid" borderColor="hairline" paddingY="2">
          <Box whiteSpace="pre-wrap">{note.text}</Box>
          <Box fontSize="sm" color="faded">
            {note.by}, <ShopTime at={note.at} />
          </Box>
        </Box>
      ))}
      {enabled && (
        <Flex gap="2" marginTop="1" alignItems="flex-end" flexWrap="wrap">
          <TextArea
            flex="1 1 300px"
            width="auto"
            aria-label={`Note at ${stageIn(job, stage).title}`}
            value={text}
            onChange={(event) => type('text', event.target.value)}
            maxLength={1000}
            minHeight="44px !important"
            rows={1}
            placeholder="What was seen or done"
          />
          <Button disabled={text.trim() === ''} onClick={send}>
            Add
          </Button>
          <Button
            variant="plain"
            disabled={text.trim() === '' || text.trim().length > MOST_LEARNED}
            title="Shown at this stage on every later build of this pattern"
            onClick={() => learn('stage')}
          >
            Keep for this pattern
          </Button>
          {handlesCover(stage) && (
            <Button
              variant="plain"
              disabled={text.trim() === '' || text.trim().length > MOST_LEARNED}
              title="Shown wherever the cover comes off or goes on, on every later build of this pattern"
              onClick={() => learn('cover')}
            >
              Keep with its cover
            </Button>
          )}
        </Flex>
      )}
      {text.trim().length > MOST_LEARNED && (
        <Box fontSize="sm" color="faded">
          What is kept for the pattern is said in {MOST_LEARNED} characters; this is a note of the build.
        </Box>
      )}
      <RefusedNotes buildId={buildId} which={({ kind }) => kind === 'note' || kind === 'know-how'} />
    </Box>
  );
});
