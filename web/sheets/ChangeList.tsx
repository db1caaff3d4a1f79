import { Box } from '@chakra-ui/react';
import type { SheetBody } from '@zero-lash/contract/sheets';
import { useShownIn } from '../app/lengths.ts';
import { changesBetween } from './inWords.ts';

interface Props {
  readonly from: SheetBody;
  readonly to: SheetBody;
  /** what each of them is called */
  readonly before: string;
  readonly after: string;
}

/** What two revisions of a sheet do not share, line by line. */
export function ChangeList({ from, to, before, after }: Props) {
  const changes = changesBetween(from, to, useShownIn(to.system));
  if (changes.length === 0) return <Box color="faded">They say the same.</Box>;
  return (
    <Box overflowX="auto" tabIndex={0} role="region" aria-label="What changed">
      <table>
        <thead>
          <Box as="tr" borderBottom="1px solid" borderColor="ink">
            {['What', before, after].map((title) => (
              <Box as="th" key={title} {...{ scope: 'col' }} fontWeight="650" paddingRight="4" paddingY="2">
                {title}
              </Box>
            ))}
          </Box>
        </thead>
        <tbody>
          {changes.map((change) => (
            <Box
              as="tr"
              key={change.name}
              borderBottom="1px solid"
              borderColor="hairline"
              verticalAlign="top"
            >
              <Box as="th" {...{ scope: 'row' }} fontWeight="600" paddingRight="4" paddingY="2">
                {change.name}
              </Box>
              <Box as="td" paddingRight="4" paddingY="2" color="faded">
                {change.before ?? 'not said'}
              </Box>
              <Box as="td" paddingY="2">
                {change.after ?? 'no longer said'}
              </Box>
            </Box>
          ))}
        </tbody>
      </table>
    </Box>
  );
}
