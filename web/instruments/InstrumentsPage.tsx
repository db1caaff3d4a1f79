import { Box, Button, Flex } from '@chakra-ui/react';
import type { Instrument, InstrumentCheck } from '@zero-lash/contract/instruments';
import { useState } from 'react';
import { dayInWords } from '../app/dates.ts';
import { useShopTimes } from '../app/useShopTimes.ts';
import { torqueShown } from '@zero-lash/core/assembly';
import { useLengths } from '../app/lengths.ts';
import { STAMPED } from './useBench.ts';
import { Empty, Page, PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useRole } from '../app/useRole.ts';
import { Benches } from './Benches.tsx';
import { CheckForm } from './CheckForm.tsx';
import { useToolsQuery } from './endpoints.ts';
import { InstrumentForm } from './InstrumentForm.tsx';
import { KIND_WORDS } from './words.ts';

/** What the shop measures with: each instrument with what it is good for and when its check is due, and the benches. */
export default function InstrumentsPage() {
  const { data, error, refetch } = useToolsQuery();
  const { mayWork } = useRole();
  const [adding, setAdding] = useState(false);
  return (
    <Page
      title="Instruments"
      under="Blades, indicators, gauges: what each is good for, and when it is checked"
      actions={
        mayWork && (
          <Button variant="solid" onClick={() => setAdding(!adding)}>
            New instrument
          </Button>
        )
      }
    >
      <ProblemNote error={error} onRetry={refetch} />
      {adding && <InstrumentForm onDone={() => setAdding(false)} />}
      <Box
        display="grid"
        gap="8"
        gridTemplateColumns={{ base: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) 360px' }}
      >
        <Box as="section" minWidth="0">
          {data?.instruments.length === 0 && (
            <Empty>No instrument yet. Write down the blades you have first.</Empty>
          )}
          {data?.instruments.map((instrument) => (
            <InstrumentRow key={instrument.id} instrument={instrument} mayWork={mayWork} />
          ))}
        </Box>
        <Box as="section">
          <PartHeading>Benches</PartHeading>
          {data && <Benches tools={data} mayWork={mayWork} />}
        </Box>
      </Box>
    </Page>
  );
}

function InstrumentRow({
  instrument,
  mayWork,
}: {
  readonly instrument: Instrument;
  readonly mayWork: boolean;
}) {
  const times = useShopTimes();
  const [open, setOpen] = useState<'change' | 'check' | null>(null);
  const { length, figure } = useLengths(STAMPED[instrument.unit]);
  const torqued = (...nm: number[]) => torqueShown(nm, instrument.unit === 'in' ? 'inch' : 'metric');
  const foundOn = ({ block, found }: InstrumentCheck) =>
    instrument.torque
      ? `${torqued(found)} where it was set to ${torqued(block)}`
      : `${length(found)} on a block of ${length(block)}`;
  const { kind, name, blades, missing, worn, measured, lastCheck, overdue, checkDue, active } = instrument;
  return (
    <Box as="article" aria-label={name} borderBottom="1px solid" borderColor="hairline" paddingY="2">
      <Flex gap="3" alignItems="baseline" flexWrap="wrap">
        <Box flex="1" minWidth="220px">
          <b>{name}</b>
          {!active && ', retired'}
          <Box fontSize="sm" color="faded">
            {KIND_WORDS[kind]}
            {instrument.torque
              ? `, ${torqued(instrument.torque.from, instrument.torque.to)}, good for ±${instrument.uncertainty} %`
              : `${instrument.angled ? ', angled' : ''}, in ${instrument.unit === 'mm' ? 'mm' : 'inches'}, good for ±${length(instrument.uncertainty)}`}
            {blades.length > 0 &&
              ` · ${blades.length - missing.length} blades, ${figure(blades[0]!)} to ${length(blades.at(-1)!)}`}
            {worn.length > 0 && `; worn tips ${worn.map(figure).join(', ')}`}
            {measured.length > 0 &&
              `; ${measured.map(({ blade, is }) => `${figure(blade)} is ${figure(is)}`).join(', ')}`}
            {missing.length > 0 && `; missing ${missing.map(figure).join(', ')}`}
            {instrument.address && ` · at ${instrument.address}`}
          </Box>
          <Box fontSize="sm" color="faded">
            {lastCheck
              ? `Checked ${times.moment(lastCheck.at)} by ${lastCheck.by}: ${foundOn(lastCheck)}, ${lastCheck.passed ? 'good' : 'not good'}`
              : 'Never checked'}
          </Box>
        </Box>
        <Box fontWeight="600" color={overdue ? 'tight' : 'ink'}>
          {checkDue
            ? `${overdue ? 'check overdue since' : 'check due'} ${dayInWords(checkDue)}`
            : 'no check due'}
        </Box>
        {mayWork && (
          <Flex gap="2">
            <Button onClick={() => setOpen(open === 'check' ? null : 'check')}>Check it</Button>
            <Button variant="plain" onClick={() => setOpen(open === 'change' ? null : 'change')}>
              Change
            </Button>
          </Flex>
        )}
      </Flex>
      {open === 'check' && <CheckForm instrument={instrument} onDone={() => setOpen(null)} />}
      {open === 'change' && <InstrumentForm instrument={instrument} onDone={() => setOpen(null)} />}
    </Box>
  );
}
