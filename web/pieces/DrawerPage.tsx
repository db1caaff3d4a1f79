// Long because the drawer is one page: what lies in it, what comes and goes, and what was moved.
import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { DrawerMove, DrawerSystem } from '@zero-lash/contract/pieces';
import { useState } from 'react';
import { Link } from 'react-router';
import { CSV, FileButton } from '../app/FileButton.tsx';
import { Choice } from '../app/Choice.tsx';
import { counted, numberTyped } from '@zero-lash/core/length';
import { useDraft } from '../app/useDraft.ts';
import { Labelled, Select } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import { Note } from '../app/Note.tsx';
import { Page, PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { saveFile } from '../app/saveFile.ts';
import { PieceDrawer } from '../drawings/PieceDrawer.tsx';
import { useShopTimes } from '../app/useShopTimes.ts';
import { useRole } from '../app/useRole.ts';
import {
  EXAMPLES,
  piecesTyped,
  readKitCsv,
  readSizePrices,
  writeOrderCsv,
  writeSizePrices,
  type KitLine,
} from './drawerCsv.ts';
import { Orders } from './Orders.tsx';
import {
  useChangeSystemMutation,
  useCountPiecesMutation,
  useDrawerMovesQuery,
  useDrawerQuery,
  useMovePiecesMutation,
  useOrderPiecesMutation,
} from './endpoints.ts';

/** The drawer of graded pieces: what lies there by size, what came and went, and what is to be ordered. */
export default function DrawerPage() {
  const { data, error, refetch } = useDrawerQuery(undefined, { refetchOnMountOrArgChange: true });
  const [chosen, setChosen] = useState<string | null>(null);
  if (error && !data) return <ProblemNote error={error} onRetry={refetch} />;
  if (!data) return null;
  const system =
    data.systems.find((each) => each.system === chosen) ??
    data.systems.toSorted((a, b) => piecesIn(b) - piecesIn(a))[0];
  return (
    <Page title="Drawer" under="Shims, buckets and caps: every piece that came, and where it went">
      {!system && <Box>No spec sheet here is set by graded pieces.</Box>}
      {system && (
        <Box display="grid" gridTemplateColumns="minmax(0, 1fr)" gap="5">
          <Box maxWidth="360px">
            <Labelled label="Pieces">
              <Select value={system.system} onChange={({ target }) => setChosen(target.value)}>
                {data.systems.map(({ system: key, title }) => (
                  <option key={key} value={key}>
                    {title}
                  </option>
                ))}
              </Select>
            </Labelled>
          </Box>
          <InDrawer key={system.system} system={system} />
        </Box>
      )}
    </Page>
  );
}

const piecesIn = ({ sizes }: DrawerSystem) => sizes.reduce((sum, { count }) => sum + count, 0);

function InDrawer({ system }: { readonly system: DrawerSystem }) {
  const { mayWork } = useRole();
  const { length } = useLengths(system.stamped);
  // a size that never lay here is none the shop works with
  const low = system.sizes.filter(({ count }) => count < system.reorder);
  const [order, { error, isLoading }] = useOrderPiecesMutation();
  return (
    <>
      <PieceDrawer system={system} length={length} />
      {low.length > 0 && (
        <Flex gap="3" alignItems="center" flexWrap="wrap">
          <Box flex="1 1 260px">
            <b>To order,</b> so that {system.reorder} of each are there:{' '}
            {low.map(({ thickness }) => length(thickness)).join(', ')}
          </Box>
          {mayWork && (
            <Button
              loading={isLoading}
              onClick={() =>
                void order({
                  system: system.system,
                  note: '',
                  lines: low.map(({ thickness, count }) => ({ thickness, count: system.reorder - count })),
                })
              }
            >
              Order these
            </Button>
          )}
          <Button onClick={() => saveFile('order.csv', writeOrderCsv(system))}>Order list as CSV</Button>
        </Flex>
      )}
      <ProblemNote error={error} />
      <Orders system={system} />
      {mayWork && <Moving system={system} />}
      {mayWork && <PriceForm system={system} />}
      <Moved system={system} />
    </>
  );
}

const WAYS = {
  bought: 'Came in, bought',
  kit: 'Came in, a kit',
  scrapped: 'Scrapped',
  counted: 'Counted: so many lie there',
} as const;
type Way = keyof typeof WAYS;

/** What came, went or was counted, typed as sizes with how many, or read from a kit's CSV. */
function Moving({ system }: { readonly system: DrawerSystem }) {
  const [way, setWay] = useState<Way>('bought');
  const {
    texts: { text, note },
    type,
    clear,
  } = useDraft(`moves:${system.system}`, { text: '', note: '' });
  const [kit, setKit] = useState<readonly KitLine[] | null>(null);
  const [move, moving] = useMovePiecesMutation();
  const [count, counting] = useCountPiecesMutation();
  const typed = piecesTyped(text, system.made, system.stamped);
  const bad = kit?.filter(({ error }) => error !== null) ?? [];
  async function send(lines: readonly { readonly thickness: number; readonly count: number }[]) {
    const body = { system: system.system, note: note.trim() };
    const result =
      way === 'counted'
        ? await count({ ...body, lines: [...lines] })
        : await move({
            ...{ ...body, why: way },
            lines: lines.map((line) => ({ ...line, count: way === 'scrapped' ? -line.count : line.count })),
          });
    if ('error' in result) return;
    clear();
    setKit(null);
  }
  return (
    <Box as="section" aria-label="Stock movements">
      <PartHeading>Stock movements</PartHeading>
      <Flex
        as="form"
        aria-label="Write pieces down"
        gap="3"
        alignItems="flex-end"
        flexWrap="wrap"
        onSubmit={(event) => {
          event.preventDefault();
          if ('lines' in typed && typed.lines.length > 0) void send(typed.lines);
        }}
      >
        <Box width="240px">
          <Labelled label="What">
            <Choice of={WAYS} value={way} onChoose={setWay} />
          </Labelled>
        </Box>
        <Box flex="1" minWidth="240px">
          <Labelled
            label={`Sizes, ${system.stamped}, with how many`}
            error={'error' in typed && text.trim() !== '' ? typed.error : undefined}
          >
            <Input
              value={text}
              placeholder={EXAMPLES[system.stamped].some}
              maxLength={400}
              onChange={({ target }) => type('text', target.value)}
            />
          </Labelled>
        </Box>
        <Box width="200px">
          <Labelled label="Note">
            <Input value={note} maxLength={120} onChange={({ target }) => type('note', target.value)} />
          </Labelled>
        </Box>
        <Button
          type="submit"
          variant="solid"
          disabled={'error' in typed}
          loading={moving.isLoading || counting.isLoading}
        >
          Write down
        </Button>
        <FileButton
          what="CSV of pieces"
          accept={CSV}
          onFile={async (file) => setKit(readKitCsv(await file.text(), system.made))}
        >
          Read a CSV…
        </FileButton>
      </Flex>
      {kit && (
        <Note tone={bad.length > 0 ? 'tight' : 'brass'} marginTop="2">
          {kit.length - bad.length} of {counted(kit.length, 'line')} understood: {WAYS[way].toLowerCase()}.
          {bad.map(({ line, error }) => (
            <Box key={line}>
              Line {line}: {error}
            </Box>
          ))}
          <Flex gap="2" marginTop="2">
            <Button
              disabled={bad.length === kit.length}
              onClick={() =>
                void send(
                  kit.flatMap(({ thickness, count: many, error }) =>
                    error === null ? [{ thickness: thickness!, count: many! }] : [],
                  ),
                )
              }
            >
              Take the {kit.length - bad.length}
            </Button>
            <Button variant="plain" onClick={() => setKit(null)}>
              Leave it
            </Button>
          </Flex>
        </Note>
      )}
      <ProblemNote error={moving.error ?? counting.error} />
    </Box>
  );
}

/** What a piece costs, and how many of each size are to be there. */
function PriceForm({ system }: { readonly system: DrawerSystem }) {
  const {
    texts: { price, reorder, own },
    type,
    clear,
  } = useDraft(`prices:${system.system}`, {
    ...{
      price: String(system.price),
      reorder: String(system.reorder),
      own: writeSizePrices(system.sizePrices, system.stamped),
    },
  });
  const [change, { error, isLoading }] = useChangeSystemMutation();
  const figures = { price: numberTyped(price), reorder: numberTyped(reorder) };
  const sizePrices = readSizePrices(own, system.made, system.stamped);
  const wrong = {
    price: !(figures.price >= 0) ? 'A price such as 7.50.' : undefined,
    reorder: /^\d{1,2}$/.test(reorder.trim()) ? undefined : 'A whole number.',
    own: 'error' in sizePrices ? sizePrices.error : undefined,
  };
  return (
    <Flex
      as="form"
      aria-label="Price and reorder level"
      gap="3"
      alignItems="flex-end"
      flexWrap="wrap"
      onSubmit={(event) => {
        event.preventDefault();
        if (wrong.price || wrong.reorder || 'error' in sizePrices) return;
        void change({
          ...{ system: system.system, ...figures, version: system.version },
          sizePrices: [...sizePrices.prices],
        }).then((answer) => {
          if (!('error' in answer)) clear();
        });
      }}
    >
      <Box width="140px">
        <Labelled label="Price of one" error={wrong.price}>
          <Input
            value={price}
            maxLength={12}
            inputMode="decimal"
            onChange={({ target }) => type('price', target.value)}
          />
        </Labelled>
      </Box>
      <Box width="200px">
        <Labelled label="Of each size at least" error={wrong.reorder}>
          <Input
            value={reorder}
            maxLength={4}
            inputMode="numeric"
            onChange={({ target }) => type('reorder', target.value)}
          />
        </Labelled>
      </Box>
      <Box width="240px">
        <Labelled label="Other prices" error={wrong.own}>
          <Input
            value={own}
            placeholder={EXAMPLES[system.stamped].prices}
            maxLength={400}
            onChange={({ target }) => type('own', target.value)}
          />
        </Labelled>
      </Box>
      <Button type="submit" loading={isLoading}>
        Save
      </Button>
      <ProblemNote error={error} />
    </Flex>
  );
}

const WHY_WORDS: Readonly<Record<DrawerMove['why'], string>> = {
  bought: 'bought',
  kit: 'a kit',
  scrapped: 'scrapped',
  counted: 'counted',
  fitted: 'fitted at',
  'taken-out': 'taken out at',
  'taken-back': 'taken back at',
  found: 'found there',
};

/** The ledger: every movement, newest first. */
function Moved({ system }: { readonly system: DrawerSystem }) {
  const { data } = useDrawerMovesQuery(system.system, { refetchOnMountOrArgChange: true });
  const times = useShopTimes();
  const { length } = useLengths(system.stamped);
  if (!data || data.length === 0) return null;
  return (
    <Box as="section" aria-label="Ledger">
      <PartHeading>Ledger</PartHeading>
      <Box overflowX="auto" tabIndex={0} role="region" aria-label="Movements">
        <table>
          <tbody>
            {data.map(({ id, thickness, count, why, point, buildId, engine, note, by, at }) => (
              <Box as="tr" key={id} borderBottom="1px solid" borderColor="hairline">
                <Box as="td" fontFamily="mono" fontWeight="650">
                  {count > 0 ? `+${count}` : `−${-count}`}
                </Box>
                <Box as="td" whiteSpace="nowrap">
                  {length(thickness)}
                </Box>
                <td>
                  {[WHY_WORDS[why], point].filter(Boolean).join(' ')}
                  {buildId && engine && (
                    <>
                      {' '}
                      of <Link to={`/builds/${buildId}`}>{engine}</Link>
                    </>
                  )}
                  {note && `, ${note}`}
                </td>
                <Box as="td" color="faded" whiteSpace="nowrap">
                  {by}, {times.moment(at)}
                </Box>
              </Box>
            ))}
          </tbody>
        </table>
      </Box>
    </Box>
  );
}
