import { Box, Button, Flex } from '@chakra-ui/react';
import type { Instrument } from '@zero-lash/contract/instruments';
import { parseLength } from '@zero-lash/core/length';
import { useEffect, useRef, useState } from 'react';
import { Caution } from '../app/Caution.tsx';
import { useLengths } from '../app/lengths.ts';
import { Labelled, Select } from '../app/Labelled.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import {
  useGaugesQuery,
  useLetGaugeGoMutation,
  useTakeGaugeMutation,
  type GaugeStatus,
} from '../instruments/endpoints.ts';
import { thisDevice } from '../app/device.ts';
import { zeroChecked, type GaugePress } from '../instruments/gauge.ts';
import { SimulatedGaugePanel } from './SimulatedGaugePanel.tsx';
import { useBench } from '../instruments/useBench.ts';
import type { Offer, useMeasure } from './useMeasure.ts';

interface Props {
  /** mm, where a gap is likely to lie here: what lies far outside is asked about */
  readonly expects: { readonly min: number; readonly max: number };
  readonly measure: ReturnType<typeof useMeasure>;
  /** what was kept decides whether another point comes */
  readonly onNext: (kept: Offer) => void;
}

/** A digital gauge: taken by this device, its button lands a value in the selected point. */
export function GaugePanel({ expects, measure, onNext }: Props) {
  const { gauges } = useBench();
  const device = thisDevice();
  const { data: links } = useGaugesQuery(device);
  const [chosen, setChosen] = useState<string | null>(null);
  const [take, { error }] = useTakeGaugeMutation();
  const [letGo] = useLetGaugeGoMutation();
  const mine = links?.find(({ heldHere }) => heldHere);
  const gauge = gauges.find(({ id }) => id === (chosen ?? mine?.instrument)) ?? gauges[0];
  const status = links?.find(({ instrument }) => instrument === gauge?.id);
  if (!gauge) return <Box color="faded">No digital gauge is written down under Instruments.</Box>;
  const held = status?.heldHere ?? false;
  return (
    <Box>
      {gauges.length > 1 && (
        <Labelled label="Gauge">
          <Select value={gauge.id} onChange={(event) => setChosen(event.target.value)}>
            {gauges.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Select>
        </Labelled>
      )}
      <Flex gap="2" alignItems="center">
        <Box flex="1" role="status">
          <b>{gauge.name}</b>: {linkInWords(status, held)}
        </Box>
        <Button
          onClick={() => void (held ? letGo : take)({ id: gauge.id, device })}
          variant={held ? 'outline' : 'solid'}
        >
          {held ? 'Let it go' : 'Take it'}
        </Button>
      </Flex>
      <ProblemNote error={error} />
      {gauge.overdue && <Caution>{gauge.name} is due for its check.</Caution>}
      {held && <Presses gauge={gauge} expects={expects} measure={measure} onNext={onNext} />}
      {status?.simulated && <SimulatedGaugePanel gauge={gauge.id} />}
    </Box>
  );
}

function linkInWords(status: GaugeStatus | undefined, held: boolean): string {
  if (!status?.connected) return 'not heard';
  if (held) return 'heard here';
  return status.heldBy ? `held by ${status.heldBy}` : 'heard, and free';
}

/** Takes each press: as the zero where that is being checked, else as the gap of the selected point. */
function Presses({ gauge, expects, measure, onNext }: Props & { readonly gauge: Instrument }) {
  const { length } = useLengths();
  const last = useAppSelector((state) => state.gauge.last);
  const taken = useRef(last?.number ?? 0);
  const [zeroing, setZeroing] = useState(false);
  const offBy = useAppSelector((state) => state.gauge.zeroOff[gauge.id] ?? null);
  const dispatch = useAppDispatch();
  const [note, setNote] = useState('Press its button with the tip in the gap.');

  function offerOf(press: GaugePress, mm: number, reason?: string): Offer {
    return {
      reading: { kind: 'value', value: mm, uncertainty: gauge.uncertainty },
      asTyped: press.text,
      instrumentId: gauge.id,
      ...(reason ? { reason } : {}),
    };
  }

  function hear(press: GaugePress): void {
    if (press.instrument !== gauge.id) return;
    const { value } = press;
    if (value === null || press.trouble === 'unreadable')
      return setNote('Its line came cut off and was not taken: press again.');
    if (zeroing) {
      const off = Math.abs(value) > gauge.uncertainty ? value : null;
      setZeroing(false);
      dispatch(zeroChecked({ instrument: gauge.id, off }));
      return setNote(off === null ? 'Its zero holds.' : '');
    }
    if (value < 0)
      return setNote('A clearance is never negative: its zero has moved, or it is set the wrong way.');
    if (offBy !== null) return setNote(`${press.text} is not taken while its zero is off.`);
    setNote(press.trouble === 'lost-before' ? 'A press before this one was lost on its way.' : '');
    const read = parseLength(`${value}mm`, 'mm', expects);
    const doubt = 'error' in read ? null : read.doubt;
    const offer = offerOf(press, value);
    if (!doubt) return measure.keep(offer, onNext);
    const meant = doubt.suggestions.map((mm) => ({ ...offer.reading, value: mm }) as Offer['reading']);
    measure.ask(offer, [value], meant, onNext);
  }

  useEffect(() => {
    if (!last || last.number <= taken.current) return;
    taken.current = last.number;
    hear(last);
  }, [last]);

  return (
    <Box marginTop="1">
      <Box aria-live="polite">{zeroing ? 'Close it on its zero and press its button.' : note}</Box>
      {offBy !== null && (
        <Caution>
          Its zero is off by {length(Math.abs(offBy))}: set it to zero and check again. Nothing is taken from
          it until then.
        </Caution>
      )}
      <Button variant="plain" paddingX="0" onClick={() => setZeroing(!zeroing)}>
        {zeroing ? 'Leave the zero' : 'Check its zero'}
      </Button>
    </Box>
  );
}
