import { Box, Button, Flex } from '@chakra-ui/react';
import { addedTo, STAGES } from '@zero-lash/core/builds';
import { Labelled, TextArea } from '../app/Labelled.tsx';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { ShopTime } from '../app/ShopTime.tsx';
import { useRole } from '../app/useRole.ts';
import { useKeptText } from '../app/useKeptText.ts';

const CLOSING = STAGES.find(({ demands }) => demands.includes('signed-off'))!.key;

/** What was added to a sign-off after it was signed: it is never changed, only added to, with the day and a lead's name. */
export function Additions({ build }: { readonly build: BuildView }) {
  const put = useBenchWrite(build.id);
  const { mayLead } = useRole();
  const [text, setText] = useKeptText(`added:${build.id}`);
  if (!build.signOff) return null;
  const added = addedTo(build.signOff, build.notes);
  return (
    <Box marginTop="2">
      {added.map((note) => (
        <Box key={note.id} borderTop="1px solid" borderColor="hairline" paddingY="1">
          Added by {note.by}, <ShopTime at={note.at} day />: {note.text}
        </Box>
      ))}
      {mayLead && !build.closedAt && (
        <Box as="details">
          <Box as="summary" minHeight="44px" paddingY="2" cursor="pointer">
            Put something right, or add to it
          </Box>
          <Flex gap="2" alignItems="flex-end" flexWrap="wrap">
            <Box flex="1" minWidth="240px">
              <Labelled label="Added to the sign-off, which itself stays as it was signed">
                <TextArea value={text} maxLength={1000} onChange={({ target }) => setText(target.value)} />
              </Labelled>
            </Box>
            <Button
              disabled={text.trim() === ''}
              onClick={() => {
                put({ kind: 'note', body: { stage: CLOSING, text: text.trim() } });
                setText('');
              }}
            >
              Add to it
            </Button>
          </Flex>
        </Box>
      )}
      <RefusedNotes buildId={build.id} which={({ kind }) => kind === 'note'} />
    </Box>
  );
}
