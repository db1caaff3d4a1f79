import { Box, Button, Flex } from '@chakra-ui/react';
import { zodResolver } from '@hookform/resolvers/zod';
import type { NewSheet, SheetRevision } from '@zero-lash/contract/sheets';
import type { Pattern, SingleRule } from '@zero-lash/core/sheets';
import { useEffect, useMemo, useState, type MouseEvent } from 'react';
import { FormProvider, useForm, useFormContext, useWatch } from 'react-hook-form';
import { problemFrom } from '../app/api.ts';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { draftTyped } from '../app/drafts.ts';
import { useUnit } from '../app/lengths.ts';
import { useSession } from '../app/useSession.ts';
import { useShared } from '../app/useShared.ts';
import { useStable } from '../app/useStable.ts';
import { patternOf, readForm, sheetCodec, valuesFrom } from './sheetCodec.ts';
import { ChangeList } from './ChangeList.tsx';
import { unitToOpenIn } from './bareFigures.ts';
import { limitWarningsOf, meansWarningsOf } from './warnings.ts';
import { FormPart, TextField } from './FormField.tsx';
import { rolesOfPattern, valuesKept, type SheetValues } from './formValues.ts';
import { LimitFields } from './LimitFields.tsx';
import { MeansFields } from './MeansFields.tsx';
import { PatternFields } from './PatternFields.tsx';
import { PatternPreview } from './PatternPreview.tsx';
import { TableDifferences } from '../turning/TableDifferences.tsx';
import { OriginFields } from './OriginFields.tsx';
import { PositionFields } from './PositionFields.tsx';
import { PlanFields } from './PlanFields.tsx';

interface Props {
  /** where what is typed is kept on this device until it is sent */
  readonly place: string;
  readonly start: SheetValues;
  /** a sheet that was published keeps its name */
  readonly named: boolean;
  readonly keepWords: string;
  /** `over` is what somebody else wrote meanwhile, where it is to be written over */
  readonly onKeep: (sheet: NewSheet, over?: SheetRevision) => Promise<unknown>;
  readonly onCancel: () => void;
  readonly error: unknown;
  readonly sending: boolean;
}

/** A spec sheet as it is written, with its head map and crank wheel beside it as they come to hold. */
export function SheetForm(props: Props) {
  const { place, start } = props;
  const [kept] = useState(useAppSelector((state) => state.drafts[place]));
  const rule = useSession()?.shop.singleRule ?? null;
  const unit = useUnit();
  const form = useForm<SheetValues, unknown, NewSheet>({
    resolver: zodResolver(useMemo(() => sheetCodec(rule), [rule])),
    defaultValues: kept ? valuesKept(kept) : { ...start, unit: unitToOpenIn(start, unit) },
    mode: 'onTouched',
  });
  return (
    <FormProvider {...form}>
      <Sheet {...props} kept={kept !== undefined} rule={rule} />
    </FormProvider>
  );
}

interface SheetProps extends Props {
  /** it goes on from what was typed on this device */
  readonly kept: boolean;
  readonly rule: SingleRule | null;
}

/**
 * The form itself: what is typed is read here, key by key, and its parts are drawn again only where what they show has changed. Whatever is
 * above it is drawn again only as something is found wrong.
 */
function Sheet({ place, start, named, keepWords, onKeep, onCancel, error, sending, kept, rule }: SheetProps) {
  const dispatch = useAppDispatch();
  const form = useFormContext<SheetValues, unknown, NewSheet>();
  const values = useWatch({ control: form.control }) as SheetValues;
  const read = useMemo(() => readForm(values, rule), [values, rule]);
  // the drawings need not wait for the valve timing: until it is typed they take the cautious default
  const drawn = useMemo(() => patternOf(values) ?? patternOf({ ...values, assumed: true }), [values]);
  // nor the head for the firing order: cylinders stand where they stand
  const head = useMemo(() => drawn ?? headOf(values), [drawn, values]);
  const pattern = useLastGood(head);
  const roles = useShared(rolesOfPattern(pattern));
  const [settled, setSettled] = useState<ReadonlySet<string>>(new Set());
  const [blocked, setBlocked] = useState(false);
  const settle = useStable((key: string) => setSettled(new Set([...settled, key])));
  const ofMeans = useShared(meansWarningsOf(pattern).filter(({ key }) => !settled.has(key)));
  const ofLimits = roles
    .flatMap((role) => limitWarningsOf(role, values, rule))
    .filter(({ key }) => !settled.has(key));
  const problem = problemFrom(error);
  const theirs = problem?.code === 'stale' ? (problem.current as SheetRevision) : null;

  const text = JSON.stringify(values);
  useEffect(() => {
    if (form.formState.isDirty) dispatch(draftTyped({ key: place, text }));
  }, [text, place]);

  async function keep(sheet: NewSheet, over?: SheetRevision) {
    const asked = ofMeans.length + ofLimits.length > 0;
    setBlocked(asked);
    if (!asked) await onKeep(sheet, over);
  }

  function startOver() {
    form.reset(start);
    dispatch(draftTyped({ key: place, text: '' }));
  }

  return (
    <form onSubmit={form.handleSubmit((sheet) => keep(sheet))} noValidate>
      <Box
        display="grid"
        gap="6"
        gridTemplateColumns={{ base: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) 400px' }}
      >
        <Box minWidth="0">
          {kept && (
            <Flex gap="3" alignItems="center" marginBottom="3" background="raised" paddingX="3">
              <Box flex="1">Goes on from what was typed on this device and not kept.</Box>
              <Button variant="plain" onClick={startOver}>
                Start over
              </Button>
            </Flex>
          )}
          {!named && (
            <FormPart title="Pattern" columns={2}>
              <TextField name="maker" label="Maker" autoFocus />
              <TextField name="name" label="What the maker calls it" />
            </FormPart>
          )}
          <PatternFields />
          <PositionFields />
          <MeansFields roles={roles} warnings={ofMeans} onSettle={settle} />
          <LimitFields roles={roles} rule={rule} settled={settled} onSettle={settle} />
          <PlanFields />
          <OriginFields pattern={pattern} />
          {blocked && ofMeans.length + ofLimits.length > 0 && (
            <Box role="alert" color="tight">
              Something above looks like a slip and waits for your answer.
            </Box>
          )}
          {form.formState.isSubmitted && Object.keys(form.formState.errors).length > 0 && (
            <Box role="alert" color="tight">
              {countInWords(Object.keys(read.errors).length)} above cannot stay like that.{' '}
              <Button type="button" variant="plain" onClick={showFirstWrong}>
                Show me
              </Button>
            </Box>
          )}
          <ProblemNote error={error} />
          {theirs && (
            <Box marginBottom="3">
              {read.body && (
                <ChangeList
                  from={theirs}
                  to={read.body}
                  before={`As ${theirs.enteredBy} left it`}
                  after="As it is here"
                />
              )}
              <Flex gap="2" marginTop="2">
                <Button
                  variant="solid"
                  onClick={() => void form.handleSubmit((sheet) => keep(sheet, theirs))()}
                  loading={sending}
                >
                  Keep mine
                </Button>
                <Button onClick={() => form.reset(valuesFrom(theirs))}>Take theirs into the form</Button>
              </Flex>
            </Box>
          )}
          <Flex gap="2" marginTop="3">
            <Button type="submit" variant="solid" loading={sending}>
              {keepWords}
            </Button>
            <Button
              variant="plain"
              onClick={() => {
                dispatch(draftTyped({ key: place, text: '' }));
                onCancel();
              }}
            >
              Cancel
            </Button>
          </Flex>
        </Box>
        <Box
          position={{ lg: 'sticky' }}
          top="3"
          maxHeight={{ lg: 'calc(100dvh - 100px)' }}
          overflowY={{ lg: 'auto' }}
          alignSelf="start"
          minWidth="0"
          gridRow={{ base: '1', lg: 'auto' }}
        >
          {pattern && <TableDifferences pattern={pattern} />}
          <PatternPreview
            pattern={pattern}
            holds={head !== null}
            fires={drawn !== null || !isBeforeFiring(values)}
            name={values.name}
          />
        </Box>
      </Box>
    </form>
  );
}

const isBeforeFiring = ({ firingOrder }: SheetValues) => firingOrder.trim() === '';

/** What of a form makes a head already, where nothing but how it fires is not typed yet. */
function headOf(values: SheetValues): Pattern | null {
  if (!isBeforeFiring(values)) return null;
  const twoBanks = values.layout === 'v' || values.layout === 'flat';
  const inOrder = `${values.bankA} ${twoBanks ? values.bankB : ''}`.trim().replace(/[\s,;-]+/g, '-');
  return patternOf({ ...values, assumed: true, firingOrder: inOrder, firingSteps: '' });
}

function useLastGood(pattern: Pattern | null): Pattern | null {
  const [last, setLast] = useState(pattern);
  if (pattern && JSON.stringify(pattern) !== JSON.stringify(last)) setLast(pattern);
  return last;
}

/** Goes to the first field that is complained about. */
function showFirstWrong(event: MouseEvent<HTMLElement>): void {
  event.currentTarget.closest('form')?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus();
}

const countInWords = (count: number) => (count === 1 ? 'One thing' : `${count} things`);
