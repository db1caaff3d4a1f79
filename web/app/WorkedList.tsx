import { Box } from '@chakra-ui/react';
import { useState, type ReactNode } from 'react';
import { useSteady } from './useSteady.ts';

interface Props<Item> {
  readonly items: readonly Item[];
  readonly keyOf: (item: Item) => string;
  /** what stands in the place of one that was answered */
  readonly answered: string;
  readonly children: (item: Item) => ReactNode;
}

/**
 * A list that is worked off from the top: what is answered leaves its place as high as it was, and what is new comes at the
 * end, so that no answer to the next one moves under the finger that is coming down on it. Opened again it holds only what is
 * still to be answered. Key it by what it is the list of.
 *
 * @example <WorkedList items={questions} keyOf={({ id }) => id} answered="Answered.">{(one) => <Question {...one} />}</WorkedList>
 */
export function WorkedList<Item>({ items, keyOf, answered, children }: Props<Item>) {
  const [order, setOrder] = useState<readonly string[]>(() => items.map(keyOf));
  const here = new Map(items.map((item) => [keyOf(item), item]));
  const known = new Set(order);
  const more = [...here.keys()].filter((key) => !known.has(key));
  if (more.length > 0) setOrder([...order, ...more]);
  return [...order, ...more].map((key) => {
    const item = here.get(key);
    return (
      <Place key={key}>
        {item === undefined ? (
          <Box fontSize="sm" color="faded">
            {answered}
          </Box>
        ) : (
          children(item)
        )}
      </Place>
    );
  });
}

/** The place of one in the list, as high as it ever was. */
function Place({ children }: { readonly children: ReactNode }) {
  const ref = useSteady<HTMLDivElement>();
  // its margins count as its height: they would go with it
  return (
    <Box ref={ref} display="flow-root">
      {children}
    </Box>
  );
}
