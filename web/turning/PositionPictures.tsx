import { Box, Button, Flex, Image } from '@chakra-ui/react';
import type { SheetBody } from '@zero-lash/contract/sheets';
import { useState } from 'react';

type Picture = SheetBody['pictures'][number];

/** What a sheet shows of a position: each picture small beside the words, and as large as there is room for when it is tapped. */
export function PositionPictures({ pictures }: { readonly pictures: readonly Picture[] }) {
  const [large, setLarge] = useState<string | null>(null);
  if (pictures.length === 0) return null;
  return (
    <Flex gap="3" flexWrap="wrap" marginTop="2">
      {pictures.map(({ at, of, says, file }) => {
        const key = `${of} ${at} ${says}`;
        const opened = large === key;
        return (
          <Box as="figure" key={key} margin="0" maxWidth="100%" width={opened ? undefined : '150px'}>
            <Button
              variant="plain"
              padding="0"
              height="auto"
              aria-expanded={opened}
              onClick={() => setLarge(opened ? null : key)}
            >
              <Image
                src={`data:image/jpeg;base64,${file}`}
                alt={says}
                width={opened ? undefined : '150px'}
                height={opened ? undefined : '100px'}
                maxHeight={opened ? '60dvh' : undefined}
                objectFit={opened ? 'contain' : 'cover'}
                background="wash"
              />
            </Button>
            <Box as="figcaption" fontSize="sm">
              {says}
            </Box>
          </Box>
        );
      })}
    </Flex>
  );
}
