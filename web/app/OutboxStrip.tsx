import { Box, Flex } from '@chakra-ui/react';
import { CloudOff, Send } from 'lucide-react';
import { useAppSelector } from './store.ts';
import { useSession } from '../people/useSession.ts';

/** Says, on every page, what this device still holds and whether the server is reached. */
export function OutboxStrip() {
  const { items, reached } = useAppSelector((state) => state.outbox);
  const waiting = items.filter(({ refused }) => refused === null);
  const refused = items.filter(({ refused: why }) => why !== null);
  const me = useSession()?.person.id;
  const others = [...new Set(waiting.filter(({ personId }) => personId !== me).map(({ by }) => by))];
  if (reached && items.length === 0) return null;
  return (
    <Box
      role="status"
      borderTop="1px solid"
      borderColor="ink"
      background="raised"
      paddingX="4"
      paddingY="1.5"
      fontSize="sm"
    >
      <Flex gap="3" alignItems="center" flexWrap="wrap">
        {reached ? <Send size={16} aria-hidden /> : <CloudOff size={16} aria-hidden />}
        <Box flex="1">
          {!reached && 'The server is not reached. Go on: what you do at the bench is kept on this device. '}
          {waiting.length > 0 && `Waiting to be sent, ${waiting.length}: ${namesOf(waiting)}. `}
          {others.map((name) => `What ${name} did is sent when ${name} signs in here again. `)}
          {refused.length > 0 && `Refused, ${refused.length}: ${whereItSays(refused)} why.`}
        </Box>
      </Flex>
    </Box>
  );
}

/** Where what was refused says so: in its build, or on the page of the meters. */
function whereItSays(refused: readonly { readonly buildId: string }[]): string {
  const ofMeters = refused.filter(({ buildId }) => buildId === '').length;
  if (ofMeters === 0) return 'the build says';
  return ofMeters === refused.length ? 'Usage says' : 'the build and Usage say';
}

const SHOWN = 8;

function namesOf(items: readonly { readonly about: string }[]): string {
  const names = [...new Set(items.map(({ about }) => about))];
  return names.length > SHOWN ? `${names.slice(0, SHOWN).join(', ')} …` : names.join(', ');
}
