import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { Instrument, InstrumentKind, NewInstrument } from '@zero-lash/contract/instruments';
import { parseLength } from '@zero-lash/core/length';
import { useMemo, useState, type FormEvent } from 'react';
import { problemFrom } from '../app/api.ts';
import { formatLength, numberTyped, ordinal, tenthsFromMm } from '@zero-lash/core/length';
import { useDraft } from '../app/useDraft.ts';
import { useSession } from '../app/useSession.ts';
import { Labelled, Select, TextArea } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { Tick } from '../app/Tick.tsx';
import { BladeFan } from '../drawings/BladeFan.tsx';
import { bladesTyped, measuredTyped } from './bladesTyped.ts';
import { useAddInstrumentMutation, useChangeInstrumentMutation } from './endpoints.ts';
import { TORQUE_UNIT, torqueText, torqueTyped } from './torqueTyped.ts';
import { STAMPED } from './useBench.ts';
import { KIND_WORDS } from './words.ts';

interface Props {
  /** the one that is changed; a new one where it is left out */
  readonly instrument?: Instrument;
  readonly onDone: () => void;
}

interface Values {
  name: string;
  kind: InstrumentKind;
  unit: 'mm' | 'in';
  uncertainty: string;
  angled: boolean;
  blades: string;
  missing: readonly number[];
  worn: string;
  measured: string;
  address: string;
  torqueFrom: string;
  torqueTo: string;
  checkDue: string;
  active: boolean;
  /** the version it was read at: what somebody else saved since is shown before it is overwritten */
  version: number;
}

const inSet = (blades: readonly number[], unit: 'mm' | 'in') =>
  blades
    .map((blade) => (unit === 'mm' ? String(blade) : `${Math.round((blade / 25.4) * 1e6) / 1e6}`))
    .join(', ');

/** How well a length is known by an instrument, in the unit it is written in. */
const spread = (mm: number, unit: 'mm' | 'in') => formatLength(tenthsFromMm(mm), STAMPED[unit]);

/** What sets of either unit are usually like, how well a drag is felt by them, and how what differs is written. */
const USUAL = {
  mm: { blades: '0.05–0.40 by 0.01', uncertainty: '0.01', is: '0.30 is 0.298, 0.40 is 0.401' },
  in: { blades: '0.0015, 0.002–0.025 by 0.001', uncertainty: '0.5', is: '0.006 is 0.0058' },
};
/** Good for, in percent of what a wrench is set to. */
const USUAL_WRENCH = '4';

function valuesOf(instrument: Instrument | undefined, unit: 'mm' | 'in'): Values {
  if (!instrument)
    return {
      name: '',
      kind: 'blade-set',
      unit,
      uncertainty: USUAL[unit].uncertainty,
      angled: false,
      blades: USUAL[unit].blades,
      missing: [],
      worn: '',
      measured: '',
      address: '127.0.0.1:4519',
      torqueFrom: '',
      torqueTo: '',
      checkDue: '',
      active: true,
      version: 1,
    };
  return {
    ...instrument,
    uncertainty:
      instrument.kind === 'torque-wrench'
        ? String(instrument.uncertainty)
        : spread(instrument.uncertainty, instrument.unit),
    blades: inSet(instrument.blades, instrument.unit),
    worn: inSet(instrument.worn, instrument.unit),
    measured: instrument.measured
      .map(({ blade, is }) => `${inSet([blade], instrument.unit)} is ${inSet([is], instrument.unit)}`)
      .join(', '),
    address: instrument.address ?? '127.0.0.1:4519',
    torqueFrom: instrument.torque ? torqueText(instrument.torque.from, TORQUE_UNIT[instrument.unit]) : '',
    torqueTo: instrument.torque ? torqueText(instrument.torque.to, TORQUE_UNIT[instrument.unit]) : '',
    checkDue: instrument.checkDue ?? '',
  };
}

/** What was refused, where it is of this field: of one blade among many, which. */
function atField(name: string, path: string, message: string): readonly string[] {
  if (path === name) return [message];
  const [field, place] = path.split('.');
  return field === name && place !== undefined && /^\d+$/.test(place)
    ? [`The ${ordinal(Number(place) + 1)} blade: ${message}.`]
    : [];
}

/** An instrument as it is written down: a blade set with the thicknesses that are really in it. */
export function InstrumentForm({ instrument, onDone }: Props) {
  const own = useSession()?.shop.unit === 'thou' ? 'in' : 'mm';
  // kept on the device as it is typed: leaving the page loses none of it
  const {
    texts: { form },
    type,
    clear,
  } = useDraft(`instrument:${instrument?.id ?? 'new'}`, { form: JSON.stringify(valuesOf(instrument, own)) });
  const values = useMemo(() => JSON.parse(form) as Values, [form]);
  const [complaints, setComplaints] = useState<Readonly<Record<string, string>>>({});
  const [add, adding] = useAddInstrumentMutation();
  const [change, changing] = useChangeInstrumentMutation();
  const error = adding.error ?? changing.error;
  const problem = problemFrom(error);
  const theirs = problem?.code === 'stale' ? (problem.current as Instrument) : null;
  const set = (next: Partial<Values>) => {
    // what is still as it is usual becomes what is usual in the other unit
    const usual = (key: 'blades' | 'uncertainty') =>
      next.unit && values[key] === USUAL[values.unit][key] ? { [key]: USUAL[next.unit][key] } : {};
    type('form', JSON.stringify({ ...values, ...usual('blades'), ...usual('uncertainty'), ...next }));
  };
  const { figure } = useLengths(STAMPED[values.unit]);
  const torqueUnit = TORQUE_UNIT[values.unit];
  const isSet = values.kind === 'blade-set';
  const isWrench = values.kind === 'torque-wrench';
  const typed = bladesTyped(isSet ? values.blades : '', values.unit);
  const blades = 'error' in typed ? [] : typed.blades;
  const worn = bladesTyped(isSet ? values.worn : '', values.unit);
  const measured = measuredTyped(isSet ? values.measured : '', values.unit);

  async function send(event: FormEvent) {
    event.preventDefault();
    const uncertainty = isWrench
      ? { mm: numberTyped(values.uncertainty) }
      : parseLength(values.uncertainty, STAMPED[values.unit]);
    const from = torqueTyped(values.torqueFrom, torqueUnit);
    const to = torqueTyped(values.torqueTo, torqueUnit);
    const torque = from !== null && to !== null ? { from, to } : null;
    const wrong: Record<string, string> = {
      ...(values.name.trim() === '' ? { name: 'Give it a name, such as Long blades, bench 2.' } : {}),
      ...('error' in uncertainty
        ? { uncertainty: `A length such as ${USUAL[values.unit].uncertainty}.` }
        : {}),
      ...(isWrench && !('error' in uncertainty) && Number.isNaN(uncertainty.mm)
        ? { uncertainty: `A share such as ${USUAL_WRENCH}.` }
        : {}),
      ...(isWrench && torque === null
        ? { torque: `What it can be set to in ${torqueUnit}, such as 2 and 25.` }
        : {}),
      ...('error' in typed
        ? { blades: typed.error }
        : isSet && blades.length === 0
          ? { blades: 'A set has blades.' }
          : {}),
      ...('error' in worn ? { worn: worn.error } : {}),
      ...('error' in measured ? { measured: measured.error } : {}),
    };
    setComplaints(wrong);
    if (Object.keys(wrong).length > 0 || 'error' in uncertainty) return;
    if ('error' in worn || 'error' in measured) return;
    const body: NewInstrument = {
      name: values.name.trim(),
      kind: values.kind,
      unit: values.unit,
      uncertainty: uncertainty.mm,
      angled: isSet && values.angled,
      blades: [...blades],
      missing: values.missing.filter((blade) => blades.includes(blade)),
      worn: [...worn.blades],
      measured: [...measured.measured],
      torque: isWrench ? torque : null,
      address: values.kind === 'digital-gauge' ? values.address.trim() : null,
      checkDue: values.checkDue === '' ? null : values.checkDue,
    };
    const result = instrument
      ? await change({ ...body, id: instrument.id, active: values.active, version: values.version })
      : await add(body);
    if ('error' in result) return;
    clear();
    onDone();
  }

  const fieldError = (name: string) =>
    complaints[name] ?? problem?.fields?.flatMap(({ path, message }) => atField(name, path, message))[0];
  return (
    <Box border="1px solid" borderColor="ink" background="raised" padding="4" marginY="3">
      <form onSubmit={(event) => void send(event)} noValidate>
        <Box display="grid" gap="4" gridTemplateColumns={{ base: '1fr', md: 'repeat(4, minmax(0, 1fr))' }}>
          <Labelled label="What it is called" error={fieldError('name')}>
            <Input
              value={values.name}
              onChange={(event) => set({ name: event.target.value })}
              maxLength={60}
            />
          </Labelled>
          <Labelled label="Kind">
            <Select
              value={values.kind}
              disabled={instrument !== undefined}
              onChange={(event) => {
                const kind = event.target.value as InstrumentKind;
                // how good a thing is, is said in what it measures
                const other = (kind === 'torque-wrench') !== isWrench;
                const usual = kind === 'torque-wrench' ? USUAL_WRENCH : USUAL[values.unit].uncertainty;
                set({ kind, ...(other ? { uncertainty: usual } : {}) });
              }}
            >
              {Object.entries(KIND_WORDS).map(([kind, words]) => (
                <option key={kind} value={kind}>
                  {words}
                </option>
              ))}
            </Select>
          </Labelled>
          <Labelled label="Marked in">
            <Select
              value={values.unit}
              onChange={(event) => set({ unit: event.target.value as 'mm' | 'in' })}
            >
              <option value="mm">{isWrench ? TORQUE_UNIT.mm : 'mm'}</option>
              <option value="in">{isWrench ? TORQUE_UNIT.in : 'inches'}</option>
            </Select>
          </Labelled>
          {isWrench && (
            <Flex gap="3">
              <Labelled
                label={`From, ${torqueUnit}`}
                error={fieldError('torque') ?? fieldError('torque.from')}
              >
                <Input
                  value={values.torqueFrom}
                  maxLength={20}
                  inputMode="decimal"
                  onChange={(event) => set({ torqueFrom: event.target.value })}
                />
              </Labelled>
              <Labelled label={`To, ${torqueUnit}`} error={fieldError('torque.to')}>
                <Input
                  value={values.torqueTo}
                  maxLength={20}
                  inputMode="decimal"
                  onChange={(event) => set({ torqueTo: event.target.value })}
                />
              </Labelled>
            </Flex>
          )}
          <Labelled
            label={
              isWrench
                ? 'Good for ±, %'
                : `${isSet ? 'A drag is felt to' : 'Good for'} ±, ${STAMPED[values.unit]}`
            }
            error={fieldError('uncertainty')}
          >
            <Input
              value={values.uncertainty}
              maxLength={20}
              inputMode="decimal"
              onChange={(event) => set({ uncertainty: event.target.value })}
            />
          </Labelled>
          <Labelled label="Check due on" error={fieldError('checkDue')}>
            <Input
              type="date"
              value={values.checkDue}
              onChange={(event) => set({ checkDue: event.target.value })}
            />
          </Labelled>
          {values.kind === 'digital-gauge' && (
            <Labelled label="Listens at" error={fieldError('address')}>
              <Input
                value={values.address}
                maxLength={80}
                onChange={(event) => set({ address: event.target.value })}
              />
            </Labelled>
          )}
          {isSet && (
            <Box gridColumn="1 / -1">
              <Labelled
                label="Blades in the set"
                hint={`${USUAL[values.unit].blades}; other units as 6 thou`}
                error={fieldError('blades')}
              >
                <TextArea
                  rows={2}
                  maxLength={2000}
                  value={values.blades}
                  onChange={(event) => set({ blades: event.target.value })}
                />
              </Labelled>
              <Box fontSize="sm" color="faded" marginTop="2">
                Tap the blades that are not in it any more.
              </Box>
              <BladeFan
                blades={blades.map((thickness) => ({
                  thickness,
                  missing: false,
                  result: values.missing.includes(thickness) ? ('wont' as const) : null,
                  tells: !values.missing.includes(thickness),
                }))}
                held={[]}
                suggested={[]}
                onTap={(blade) =>
                  set({
                    missing: values.missing.includes(blade)
                      ? values.missing.filter((other) => other !== blade)
                      : [...values.missing, blade],
                  })
                }
                figure={figure}
              />
            </Box>
          )}
          {isSet && (
            <Box
              gridColumn="1 / -1"
              display="grid"
              gap="4"
              gridTemplateColumns={{ base: '1fr', md: '1fr 1fr' }}
            >
              <Labelled
                label="Where a micrometer says otherwise"
                hint={`${USUAL[values.unit].is}: gaps go by what a blade is`}
                error={fieldError('measured')}
              >
                <Input
                  value={values.measured}
                  maxLength={600}
                  onChange={(event) => set({ measured: event.target.value })}
                />
              </Labelled>
              <Labelled
                label="With a worn tip"
                hint="They feel thicker than they are, and are not offered"
                error={fieldError('worn')}
              >
                <Input
                  value={values.worn}
                  maxLength={600}
                  onChange={(event) => set({ worn: event.target.value })}
                />
              </Labelled>
            </Box>
          )}
          <Flex gap="5" gridColumn="1 / -1">
            {isSet && (
              <Tick
                label="Bent, to reach behind a cam"
                checked={values.angled}
                onChange={(event) => set({ angled: event.target.checked })}
              />
            )}
            {instrument && (
              <Tick
                label="In use"
                checked={values.active}
                onChange={(event) => set({ active: event.target.checked })}
              />
            )}
          </Flex>
        </Box>
        <ProblemNote error={error} />
        <Flex gap="2" marginTop="3">
          {theirs ? (
            <Button
              onClick={() => {
                type('form', JSON.stringify(valuesOf(theirs, own)));
                changing.reset();
              }}
            >
              Take theirs into the form
            </Button>
          ) : (
            <Button type="submit" variant="solid" loading={adding.isLoading || changing.isLoading}>
              Save
            </Button>
          )}
          <Button
            variant="plain"
            onClick={() => {
              clear();
              onDone();
            }}
          >
            Cancel
          </Button>
        </Flex>
      </form>
    </Box>
  );
}
