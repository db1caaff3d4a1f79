import { Box } from '@chakra-ui/react';
import type { SheetBody } from '@zero-lash/contract/sheets';
import { marksInWords } from '@zero-lash/core/turning';
import { PositionPictures } from './PositionPictures.tsx';

/** What the marks of an engine look like, as its sheet says: what is looked for when they are checked. */
export function MarksToSee({ sheet }: { readonly sheet: Pick<SheetBody, 'pattern' | 'pictures'> }) {
  const lines = marksInWords(sheet.pattern);
  if (lines.length + sheet.pictures.length === 0) return null;
  return (
    <Box paddingLeft="10" paddingBottom="2" fontSize="sm">
      {lines.map((line) => (
        <Box key={line}>{line}</Box>
      ))}
      <PositionPictures pictures={sheet.pictures} />
    </Box>
  );
}
