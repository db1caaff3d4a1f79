import { Box, Button, Flex } from '@chakra-ui/react';
import { Link, useRouteError } from 'react-router';
import { Page } from './Page.tsx';

/** A part of the application that is gone: it was renewed on the server since this page was opened. */
const GONE = /dynamically imported module|module script failed|preload (CSS|css)|Loading chunk/i;

/** What is shown where a page broke: what happened, what is kept, and where to go. */
export function BrokenPage() {
  const error = useRouteError();
  const said = error instanceof Error ? error.message : String(error);
  const renewed = GONE.test(said);
  return (
    <Page title={renewed ? 'The application was renewed' : 'This page broke'}>
      <Box role="alert" display="grid" gap="3" maxWidth="680px">
        <Box>
          {renewed
            ? 'A part of it that this page needs is not there any more. Reload, and it comes in its new form.'
            : 'Something in the program failed while this page was drawn. That is our fault, and nothing you did.'}
        </Box>
        <Box>
          What was measured, ticked and written on this device is kept on it, and is sent as before. What
          stood half typed in a form may have to be typed again.
        </Box>
        {!renewed && (
          <Box fontSize="sm" color="faded" fontFamily="mono" overflowWrap="anywhere">
            {said.slice(0, 300)}
          </Box>
        )}
        <Flex gap="3" alignItems="center" flexWrap="wrap">
          <Button variant="solid" onClick={() => window.location.reload()}>
            Reload
          </Button>
          <Link to="/">Back to Today</Link>
        </Flex>
      </Box>
    </Page>
  );
}
