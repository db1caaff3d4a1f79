import { Box } from '@chakra-ui/react';
import { unknownsOf, type SheetFigures } from '@zero-lash/core/sheets';

interface Props {
  readonly sheet: SheetFigures;
  readonly title: string;
}

/** What a sheet does not know, each with what cannot be said for want of it; nothing where it knows everything. */
export function Unknowns({ sheet, title }: Props) {
  const unknown = unknownsOf(sheet);
  if (unknown.length === 0) return null;
  return (
    <Box as="section" aria-label={title} marginTop="2">
      <Box fontWeight="650">{title}</Box>
      <Box as="ul" paddingLeft="4" listStyleType="'– '">
        {unknown.map(({ key, title: figure, without }) => (
          <li key={key}>
            {figure}: {without}
          </li>
        ))}
      </Box>
    </Box>
  );
}
