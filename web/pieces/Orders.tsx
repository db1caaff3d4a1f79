import { numberTyped } from '@zero-lash/core/length';
import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { DrawerSystem, PieceOrder } from '@zero-lash/contract/pieces';
import { Printer } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { Labelled } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import { PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useRole } from '../app/useRole.ts';
import { useShopTimes } from '../app/useShopTimes.ts';
import { useDrawerOrdersQuery, useTakeDeliveryMutation } from './endpoints.ts';

/** What is ordered of a system and not all there yet, and what came. */
export function Orders({ system }: { readonly system: DrawerSystem }) {
  const { data } = useDrawerOrdersQuery(undefined, { refetchOnMountOrArgChange: true });
  const own = data?.filter((order) => order.system === system.system) ?? [];
  if (own.length === 0) return null;
  return (
    <Box as="section" aria-label="Orders">
      <PartHeading>Ordered</PartHeading>
      {own.map((order) => (
        <Order key={order.id} order={order} stamped={system.stamped} />
      ))}
    </Box>
  );
}

interface OrderProps {
  readonly order: PieceOrder;
  /** the unit its pieces are stamped in */
  readonly stamped: DrawerSystem['stamped'];
}

function Order({ order, stamped }: OrderProps) {
  const { mayWork } = useRole();
  const times = useShopTimes();
  const { length } = useLengths(stamped);
  const said = order.lines
    .map(
      ({ thickness, count, came }) =>
        `${length(thickness)} × ${count}${came > 0 && came < count ? ` (${came} came)` : ''}`,
    )
    .join(', ');
  return (
    <Box borderBottom="1px solid" borderColor="hairline" paddingY="2">
      <Flex gap="3" flexWrap="wrap" alignItems="center">
        <Box flex="1" minWidth="260px">
          {said}
          <Box fontSize="sm" color="faded">
            {order.by}, {times.day(order.at)}
            {order.buildId && order.engine && (
              <>
                , for <Link to={`/builds/${order.buildId}`}>{order.engine}</Link>
              </>
            )}
            {order.note && `, ${order.note}`}
            {!order.open && ', closed'}
          </Box>
        </Box>
        <a className="zl-tool" href={`/api/drawer/orders/${order.id}/paper`} target="_blank" rel="noreferrer">
          <Printer size={18} aria-hidden /> Order (PDF)
        </a>
      </Flex>
      {order.open && mayWork && <Delivery order={order} stamped={stamped} />}
    </Box>
  );
}

/** What came: everything that is waited for, unless somebody says otherwise. */
function Delivery({ order, stamped }: OrderProps) {
  const { figure, unit } = useLengths(stamped);
  const [take, { error, isLoading }] = useTakeDeliveryMutation();
  const [open, setOpen] = useState(false);
  const waits = order.lines.filter(({ count, came }) => came < count);
  const [typed, setTyped] = useState<Readonly<Record<number, string>>>({});
  const many = ({ thickness, count, came }: (typeof waits)[number]) =>
    typed[thickness] === undefined ? count - came : numberTyped(typed[thickness]);
  const wrong = waits.filter((line) => {
    const count = many(line);
    return !Number.isInteger(count) || count < 0 || count > line.count - line.came;
  });
  const send = (closes: boolean) =>
    take({
      id: order.id,
      closes,
      lines: waits
        .map((line) => ({ thickness: line.thickness, count: many(line) }))
        .filter(({ count }) => count > 0),
    });
  if (!open)
    return (
      <Button marginTop="1" onClick={() => setOpen(true)}>
        It came…
      </Button>
    );
  return (
    <Box marginTop="2">
      <Flex gap="3" flexWrap="wrap">
        {waits.map((line) => (
          <Box key={line.thickness} width="130px">
            <Labelled
              label={`${figure(line.thickness)} ${unit}, came`}
              error={wrong.includes(line) ? `From 0 to ${line.count - line.came}.` : undefined}
            >
              <Input
                value={typed[line.thickness] ?? String(line.count - line.came)}
                inputMode="numeric"
                maxLength={3}
                onChange={({ target }) => setTyped({ ...typed, [line.thickness]: target.value })}
              />
            </Labelled>
          </Box>
        ))}
      </Flex>
      <Flex gap="2" marginTop="2" flexWrap="wrap">
        <Button
          variant="solid"
          loading={isLoading}
          disabled={wrong.length > 0}
          onClick={() => void send(false)}
        >
          Into the drawer
        </Button>
        <Button disabled={wrong.length > 0} onClick={() => void send(true)}>
          That is all that will come
        </Button>
        <Button variant="plain" onClick={() => setOpen(false)}>
          Not yet
        </Button>
      </Flex>
      <ProblemNote error={error} />
    </Box>
  );
}
