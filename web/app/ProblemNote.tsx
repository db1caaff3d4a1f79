import { Box, Button } from '@chakra-ui/react';
import { TriangleAlert } from 'lucide-react';
import { problemFrom } from './api.ts';

interface Props {
  /** whatever a request failed with */
  readonly error: unknown;
  readonly onRetry?: (() => void) | undefined;
}

/** Says what went wrong, where it arose, and what can be done. */
export function ProblemNote({ error, onRetry }: Props) {
  const problem = problemFrom(error);
  if (!problem) return null;
  return (
    <Box
      role="alert"
      display="flex"
      gap="3"
      alignItems="flex-start"
      borderLeft="4px solid"
      borderColor="tight"
      background="raised"
      padding="3"
      marginY="2"
    >
      <Box color="tight" flexShrink={0} paddingTop="2px">
        <TriangleAlert size={18} aria-hidden />
      </Box>
      <Box flex="1">
        {problem.detail}
        {onRetry && (
          <Button variant="plain" onClick={onRetry} paddingX="1" marginLeft="2">
            Try again
          </Button>
        )}
      </Box>
    </Box>
  );
}
