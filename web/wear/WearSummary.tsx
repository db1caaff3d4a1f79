import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { PARTS, type FateLine, type PartDisposition } from '@zero-lash/core/wear';
import { ORDER_WORDS } from '@zero-lash/core/parts';
import { memo, useState } from 'react';
import { Labelled, Select } from '../app/Labelled.tsx';
import { CYLINDER_WORDS, GradeMark } from '../drawings/GradeMark.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { saveFile } from '../app/saveFile.ts';
import { onDemand } from '../app/onDemand.tsx';
import type { WearWork } from './useWear.ts';

const ShareChart = onDemand(
  async () => (await import('./ShareChart.tsx')).ShareChart,
  <Box height="220px" />,
);

interface Props {
  readonly build: BuildView;
  readonly fates: readonly PartDisposition[];
  readonly work: WearWork;
}

/** What becomes of each part: by what was measured and seen, or by a person's word. */
export const WearSummary = memo(function WearSummary({ build, fates, work }: Props) {
  const [chosen, setChosen] = useState<string | null>(null);
  const shown = fates.filter(({ verdict }) => verdict !== null);
  const sorted = shown.toSorted((a, b) => rank(b) - rank(a));
  if (shown.length === 0)
    return <Box color="faded">Nothing is measured yet. What was found stands here part by part.</Box>;
  return (
    <Box as="section" aria-label="Result" display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="3">
      <Box>
        {(['replace', 'watch', 'keep'] as const).map((grade) => (
          <Box as="span" key={grade} marginRight="5">
            <GradeMark grade={grade} /> {shown.filter(({ verdict }) => verdict === grade).length}
          </Box>
        ))}
      </Box>
      <ShareChart fates={shown} />
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="Every part">
        <table>
          <thead>
            <Box as="tr" borderBottom="1px solid" borderColor="ink">
              <th scope="col">Part</th>
              <th scope="col">Result</th>
              <th scope="col">Why</th>
              <th scope="col">
                <span className="spoken">What becomes of it</span>
              </th>
            </Box>
          </thead>
          <tbody>
            {sorted.map((fate) => {
              const key = `${fate.part} ${fate.place}`;
              return (
                <FateRow
                  key={key}
                  fate={fate}
                  work={work}
                  open={chosen === key}
                  onOpen={() => setChosen(chosen === key ? null : key)}
                />
              );
            })}
          </tbody>
        </table>
      </Box>
      <Flex gap="4" flexWrap="wrap">
        <a href={`/api/builds/${build.id}/parts-list`} target="_blank" rel="noreferrer">
          Parts list as PDF
        </a>
        <Button variant="plain" onClick={() => void saveParts(build, fates)}>
          Parts list as CSV
        </Button>
      </Flex>
    </Box>
  );
});

/** Saves what is replaced and wanted, with how far it is on its way and why. */
async function saveParts(build: BuildView, fates: readonly PartDisposition[]): Promise<void> {
  const { writePartsCsv } = await import('../parts/csv.ts');
  saveFile(`${build.engine.name} build ${build.number} parts.csv`, writePartsCsv(build, fates));
}

const rank = ({ verdict, used }: PartDisposition) =>
  (verdict === 'replace' ? 20 : verdict === 'watch' ? 10 : 0) + Math.min(9, used ?? 0);

interface RowProps {
  readonly fate: PartDisposition;
  readonly work: WearWork;
  readonly open: boolean;
  readonly onOpen: () => void;
}

function FateRow({ fate, work, open, onOpen }: RowProps) {
  const { part, place, verdict, decided, reasons, measureNew } = fate;
  const name = `${PARTS[part].title} ${place}`;
  return (
    <>
      <Box as="tr" borderBottom="1px solid" borderColor="hairline">
        <Box
          as="th"
          {...{ scope: 'row' }}
          fontWeight="600"
          height="44px"
          whiteSpace="nowrap"
          paddingRight="3"
        >
          {name}
        </Box>
        <Box as="td" whiteSpace="nowrap" paddingRight="3">
          <GradeMark grade={verdict} words={part === 'cylinder' ? CYLINDER_WORDS : undefined} />
          {decided && (
            <Box as="span" fontSize="sm" color="faded">
              {' '}
              decided
            </Box>
          )}
        </Box>
        <Box as="td" fontSize="sm">
          {reasons.join('; ')}
          {verdict === 'replace' && decided && (
            <Box as="span" color="faded">
              {reasons.length > 0 && ' · '}
              {ORDER_WORDS[decided.order]}
            </Box>
          )}
          {measureNew.length > 0 && (
            <Box color="brass">
              Measure the new one before it goes in: {measureNew.join(', ').replaceAll('-', ' ')}.
            </Box>
          )}
        </Box>
        <td>
          {work.enabled && part !== 'cylinder' && (
            <Button variant="plain" aria-expanded={open} aria-label={`Decide about ${name}`} onClick={onOpen}>
              Decide
            </Button>
          )}
        </td>
      </Box>
      {open && (
        <tr>
          <td colSpan={4}>
            <FateForm fate={fate} work={work} onDone={onOpen} />
          </td>
        </tr>
      )}
    </>
  );
}

/** What a person decides of a part, with why, and how far a new one is on its way. */
function FateForm({
  fate: { part, place, verdict, decided },
  work,
  onDone,
}: {
  readonly fate: PartDisposition;
  readonly work: WearWork;
  readonly onDone: () => void;
}) {
  const [fate, setFate] = useState<FateLine['fate']>(decided?.fate ?? verdict ?? 'undecided');
  const [order, setOrder] = useState<FateLine['order']>(decided?.order ?? 'to-order');
  const [reason, setReason] = useState(decided?.reason ?? '');
  const name = `${PARTS[part].title} ${place}`;
  return (
    <Box
      as="form"
      aria-label={`What becomes of ${name}`}
      paddingBottom="3"
      onSubmit={(event) => {
        event.preventDefault();
        const said = fate === 'replace' ? order : 'none';
        work.write(`What becomes of ${name.toLowerCase()}`, [
          { kind: 'fate', part, place, fate, order: said, reason: reason.trim() },
        ]);
        onDone();
      }}
    >
      <Flex gap="2" alignItems="flex-end" flexWrap="wrap">
        <Box width="190px">
          <Labelled label="It is">
            <Select value={fate} onChange={({ target }) => setFate(target.value as FateLine['fate'])}>
              <option value="keep">kept</option>
              <option value="watch">watched</option>
              <option value="replace">replaced</option>
              <option value="undecided">as it was measured</option>
            </Select>
          </Labelled>
        </Box>
        {fate === 'replace' && (
          <Box width="150px">
            <Labelled label="The new one is">
              <Select value={order} onChange={({ target }) => setOrder(target.value as FateLine['order'])}>
                {Object.entries(ORDER_WORDS).map(([key, text]) => (
                  <option key={key} value={key}>
                    {text}
                  </option>
                ))}
              </Select>
            </Labelled>
          </Box>
        )}
        <Box flex="1" minWidth="180px">
          <Labelled label="Why">
            <Input value={reason} maxLength={200} onChange={({ target }) => setReason(target.value)} />
          </Labelled>
        </Box>
        <Button type="submit" variant="solid">
          Write down
        </Button>
      </Flex>
    </Box>
  );
}
