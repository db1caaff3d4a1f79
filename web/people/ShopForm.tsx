import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { ShopChange } from '@zero-lash/contract/people';
import { ownPlace } from '@zero-lash/contract/places';
import { isZone } from '@zero-lash/contract/values';
import { numberTyped, parseLength } from '@zero-lash/core/length';
import { useState, type FormEvent } from 'react';
import { Caution } from '../app/Caution.tsx';
import { Labelled, Select } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import { PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { Tick } from '../app/Tick.tsx';
import { useDraft } from '../app/useDraft.ts';
import { useSessionQuery } from '../app/session.ts';
import { SingleRuleForm } from './SingleRuleForm.tsx';
import { useChangeShopMutation, useProposedAddressQuery } from './endpoints.ts';

/** What the shop is called, the unit it reads in, the zone its days are days of, and how far its gauges reach. */
export function ShopForm() {
  const { data: session } = useSessionQuery();
  const [change, { error }] = useChangeShopMutation();
  const { unit, figure } = useLengths();
  const { data: reached } = useProposedAddressQuery();
  if (!session) return null;
  const { shop } = session;
  const overOf = (role: Allowed) => shop.allowOver.find((each) => each.role === role)?.over ?? 0;
  const overFrom = (typed: string) => {
    const parsed = parseLength(typed, unit);
    return 'error' in parsed || parsed.mm > MOST_OVER ? null : parsed.mm;
  };
  const proposed = reached?.address ?? '';
  // one field at a time, and only that: what somebody else changes meanwhile, or one self a moment before, stays
  const send = (what: ShopChange) => change(what);
  return (
    <Box
      as="section"
      display="grid"
      gap="4"
      columnGap="8"
      alignItems="start"
      gridTemplateColumns={{ base: 'minmax(0, 1fr)', md: 'repeat(2, minmax(0, 1fr))' }}
    >
      <Part title="The shop" />
      <OneLine label="Shop name" value={shop.name} most={80} onSend={(name) => send({ name })} />
      <Labelled label="Units" hint="Each device can still show the other one.">
        <Select
          value={shop.unit}
          onChange={(event) => void send({ unit: event.target.value as ShopChange['unit'] })}
        >
          <option value="mm">millimetres</option>
          <option value="thou">thou (0.001 in)</option>
        </Select>
      </Labelled>
      <OneLine
        label="Time zone"
        hint="Days are shown and counted in this zone, such as Europe/Vienna."
        value={shop.zone}
        most={60}
        choices={ZONES}
        complain={(zone) => (isZone(zone) ? undefined : 'There is no such zone: choose one from the list.')}
        onSend={(zone) => send({ zone })}
      />
      <OneLine
        label="Address for others"
        hint={
          proposed === ''
            ? 'Labels and calendars lead there, such as https://192.0.2.7:5181.'
            : `Labels and calendars lead there. It is shared at ${proposed}.`
        }
        value={shop.address}
        proposed={proposed}
        most={120}
        mayBeEmpty
        complain={(typed) =>
          typed === '' || /^https?:\/\/[^/\s]+$/i.test(typed)
            ? undefined
            : 'An address such as https://192.0.2.7:5181, with nothing after it.'
        }
        onSend={(address) => send({ address })}
      />
      <Part title="Setting and proving" />
      <Labelled
        label="After a change, prove again"
        hint="At least what the change bears on; more where this shop wants it. It holds for builds opened from now on."
      >
        <Select
          value={shop.provesAgain}
          onChange={({ target }) => void send({ provesAgain: target.value as ShopChange['provesAgain'] })}
        >
          <option value="disturbed">what it bears on</option>
          <option value="cylinder">every point of that cylinder</option>
          <option value="head">every point of that head</option>
          <option value="every-point">every point of the engine</option>
        </Select>
      </Labelled>
      <Box>
        <Tick
          label="A screw’s reading after locking may stand as its proof"
          checked={shop.lockedStands}
          onChange={({ target }) => void send({ lockedStands: target.checked })}
        />
        <Box fontSize="sm" color="faded">
          Only where its shaft was not slackened, two full turns follow without resistance, and it lies clear
          of the least. Pieces, pivot nuts, bridges and closing sides are always read after the turns.
        </Box>
      </Box>
      <OneLine
        label="Cold after so many hours"
        hint="How long a stopped engine stands until it is cold, where its sheet does not say: overnight. It holds for builds opened from now on."
        value={String(shop.coldHours)}
        most={2}
        complain={(typed) => (/^([1-9]|[1-6]\d|7[0-2])$/.test(typed) ? undefined : 'Whole hours, 1 to 72.')}
        onSend={(typed) => send({ coldHours: numberTyped(typed) })}
      />
      {ALLOWED.map((role) => (
        <OneLine
          key={role}
          label={`Over the greatest ${role} clearance still taken, ${unit}`}
          hint="Where a gap is in spec only by this, it says so. Under the least nothing is ever taken. It holds for builds opened from now on."
          value={figure(overOf(role))}
          most={12}
          complain={(typed) => (overFrom(typed) === null ? `From 0 to ${figure(MOST_OVER)}.` : undefined)}
          onSend={(typed) =>
            send({
              allowOver: [{ role, over: overFrom(typed)! }],
            })
          }
        />
      ))}
      <SingleRuleForm
        key={`${unit} ${JSON.stringify(shop.singleRule)}`}
        rule={shop.singleRule}
        onSend={(singleRule) => send({ singleRule })}
      />
      <Part title="Rechecks and meters" />
      <OneLine
        label="Quiet hours, from"
        hint="Nobody is sent a reminder between these hours of the shop’s clock. The same time twice means no quiet hours."
        value={shop.quietFrom}
        most={5}
        complain={clockComplaint}
        onSend={(quietFrom) => send({ quietFrom })}
      />
      <OneLine
        label="Quiet hours, to"
        value={shop.quietTo}
        most={5}
        complain={clockComplaint}
        onSend={(quietTo) => send({ quietTo })}
      />
      <OneLine
        label="Reminded so many days before a recheck"
        value={String(shop.remindDays)}
        most={3}
        complain={(typed) => (/^(\d{1,2}|1[01]\d|120)$/.test(typed) ? undefined : 'Whole days, up to 120.')}
        onSend={(typed) => send({ remindDays: numberTyped(typed) })}
      />
      <OneLine
        label="Meter feed"
        hint="Where the meters of engines are read: an address and a port, on the server’s machine or the shop’s own network."
        value={shop.meterFeed}
        most={80}
        mayBeEmpty
        complain={(typed) =>
          typed === '' || ownPlace(typed)
            ? undefined
            : 'An address of this machine or of the shop’s own network and a port, such as 127.0.0.1:4529.'
        }
        onSend={(meterFeed) => send({ meterFeed })}
      />
      <Tick
        label="Gauges may be reached on the shop’s network"
        checked={shop.gaugesOnNetwork}
        onChange={({ target }) => void send({ gaugesOnNetwork: target.checked })}
      />
      {shop.gaugesOnNetwork && (
        <Caution>Whatever answers at a gauge’s address is believed. Allow it on a network you know.</Caution>
      )}
      <ProblemNote error={error} />
    </Box>
  );
}

/** What the fields below it are about. */
function Part({ title }: { readonly title: string }) {
  return (
    <Box gridColumn="1 / -1">
      <PartHeading>{title}</PartHeading>
    </Box>
  );
}

/** The roles that a shop may take a little over the greatest clearance. */
const ALLOWED = ['intake', 'exhaust'] as const;
type Allowed = (typeof ALLOWED)[number];
/** mm */
const MOST_OVER = 0.1;

const clockComplaint = (typed: string) =>
  /^([01]\d|2[0-3]):[0-5]\d$/.test(typed) ? undefined : 'A time of day, such as 19:00.';

const ZONES = Intl.supportedValuesOf('timeZone');

interface OneLineProps {
  readonly label: string;
  readonly hint?: string;
  readonly value: string;
  readonly most: number;
  /** what may be chosen from as it is typed */
  readonly choices?: readonly string[];
  /** stands there to be taken, where nothing was given yet */
  readonly proposed?: string;
  /** nothing is a value too */
  readonly mayBeEmpty?: boolean;
  /** what is wrong with what was typed */
  readonly complain?: (typed: string) => string | undefined;
  readonly onSend: (value: string) => Promise<object>;
}

/** One line that is changed by itself, with its own button. */
function OneLine({
  label,
  hint,
  value,
  most,
  choices,
  proposed = '',
  mayBeEmpty = false,
  complain,
  onSend,
}: OneLineProps) {
  const {
    texts: { text: now },
    type,
    clear,
  } = useDraft(`shop:${label}`, { text: value || proposed });
  const [wrong, setWrong] = useState<string>();
  const list = choices && `choices of ${label}`;
  async function send(event: FormEvent) {
    event.preventDefault();
    const complaint = complain?.(now.trim());
    setWrong(complaint);
    if (complaint) return;
    if (!('error' in (await onSend(now.trim())))) clear();
  }
  return (
    <form aria-label={label} onSubmit={(event) => void send(event)} noValidate>
      <Flex gap="2" alignItems="flex-end">
        <Box flex="1">
          <Labelled label={label}>
            <Input
              maxLength={most}
              value={now}
              list={list}
              aria-invalid={wrong ? true : undefined}
              onChange={(event) => type('text', event.target.value)}
            />
          </Labelled>
        </Box>
        <Button type="submit" disabled={now.trim() === value || (!mayBeEmpty && now.trim() === '')}>
          Save
        </Button>
      </Flex>
      {(wrong ?? hint) && (
        <Box fontSize="xs" color={wrong ? 'tight' : 'faded'} role={wrong ? 'alert' : undefined}>
          {wrong ?? hint}
        </Box>
      )}
      {choices && (
        <datalist id={list}>
          {choices.map((choice) => (
            <option key={choice} value={choice} />
          ))}
        </datalist>
      )}
    </form>
  );
}
