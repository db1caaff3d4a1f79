import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { Shop } from '@zero-lash/contract/people';
import { parseLength } from '@zero-lash/core/length';
import { singleBand } from '@zero-lash/core/sheets';
import { useState, type FormEvent } from 'react';
import { Labelled } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import { useDraft } from '../app/useDraft.ts';

type Rule = NonNullable<Shop['singleRule']>;

interface Props {
  readonly rule: Shop['singleRule'];
  readonly onSend: (rule: Shop['singleRule']) => Promise<object>;
}

const FIELDS = ['size', 'underSmall', 'overSmall', 'underLarge', 'overLarge'] as const;
type Field = (typeof FIELDS)[number];

/** What the form begins with where the shop has no band of its own: the usual one, which a tenth of a figure so great is not under. */
const SIZE = 0.25;
const USUAL: Rule = { size: SIZE, upTo: singleBand(SIZE, null), over: singleBand(SIZE, null) };
/** mm, by field: more than that is another limit. */
const MOST: Readonly<Record<Field, number>> = {
  ...{ size: 5, underSmall: 0.1, overSmall: 0.2, underLarge: 0.1, overLarge: 0.2 },
};

/** The band that the shop lays round a figure which a maker prints alone: smaller ones and greater ones. */
export function SingleRuleForm({ rule, onSend }: Props) {
  const { unit, figure, length } = useLengths();
  const said = rule ?? USUAL;
  const {
    texts: typed,
    type,
    clear,
  } = useDraft<Readonly<Record<Field, string>>>(`shop:single-rule:${unit}`, {
    size: figure(said.size),
    underSmall: figure(said.upTo.below),
    overSmall: figure(said.upTo.above),
    underLarge: figure(said.over.below),
    overLarge: figure(said.over.above),
  });
  const [complaints, setComplaints] = useState<Partial<Record<Field, string>>>({});
  const read = (field: Field) => {
    const parsed = parseLength(typed[field], unit);
    return 'error' in parsed || parsed.mm > MOST[field] + 1e-9 ? null : parsed.mm;
  };

  async function keep(event: FormEvent) {
    event.preventDefault();
    const wrong = Object.fromEntries(
      FIELDS.filter((field) => read(field) === null).map((field) => [
        field,
        `From 0 to ${figure(MOST[field])} ${unit}.`,
      ]),
    );
    setComplaints(wrong);
    if (Object.keys(wrong).length > 0) return;
    const answer = await onSend({
      size: read('size')!,
      upTo: { below: read('underSmall')!, above: read('overSmall')! },
      over: { below: read('underLarge')!, above: read('overLarge')! },
    });
    if (!('error' in answer)) clear();
  }

  const field = (name: Field, label: string) => (
    <Box width="150px">
      <Labelled label={label} error={complaints[name]}>
        <Input
          value={typed[name]}
          inputMode="decimal"
          maxLength={12}
          autoComplete="off"
          onChange={({ target }) => type(name, target.value)}
        />
      </Labelled>
    </Box>
  );
  return (
    <Box as="form" onSubmit={(event: FormEvent) => void keep(event)} gridColumn="1 / -1">
      <Box fontWeight="650">Band round a single maker’s figure</Box>
      <Box fontSize="sm" color="faded">
        {rule
          ? 'This is the shop’s own band.'
          : `The usual band: ${length(USUAL.over.below)} either side, and no more than a tenth of the figure.`}{' '}
        It is shown as the shop’s and never as the maker’s, and holds for builds opened from now on. A gap
        under the maker’s figure is the dangerous side: a valve that does not close burns.
      </Box>
      <Flex gap="3" flexWrap="wrap" alignItems="flex-end" marginTop="2">
        {field('size', `Small figures, up to, ${unit}`)}
        {field('underSmall', `Small: minus, ${unit}`)}
        {field('overSmall', `Small: plus, ${unit}`)}
        {field('underLarge', `Larger: minus, ${unit}`)}
        {field('overLarge', `Larger: plus, ${unit}`)}
        <Button type="submit">Save this band</Button>
        {rule && (
          <Button variant="plain" onClick={() => void onSend(null)}>
            Use the usual band
          </Button>
        )}
      </Flex>
    </Box>
  );
}
