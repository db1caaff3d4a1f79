import { Box, Button } from '@chakra-ui/react';
import { LIMIT_KINDS } from '@zero-lash/core/wear';
import { ROLE_WORDS, type Role } from '@zero-lash/core/sheets';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { memo, useState } from 'react';
import { Labelled, TextArea } from '../app/Labelled.tsx';
import { WarningNote } from './WarningNote.tsx';
import { torqueWarningOf } from './warnings.ts';
import { bareUnits } from './bareFigures.ts';
import { AreaField, ChoiceField, FormPart, TextField, TickField } from './FormField.tsx';
import type { SheetValues } from './formValues.ts';
import { PlanSteps } from './PlanSteps.tsx';

const LIMIT_OPTIONS = Object.entries(LIMIT_KINDS).map(([key, { title }]): [string, string] => [key, title]);

/** Roles that a maker prints a chart of pieces for. */
const CHARTED: readonly Role[] = ['intake', 'exhaust', 'intake-closing', 'exhaust-closing'];

/** The figures of one limit: new and limit, one end, or the two ends of a band. */
function LimitFigures({ index }: { readonly index: number }) {
  const [part, length] = useWatch<SheetValues, [`wear.${number}.part`, 'unit']>({
    name: [`wear.${index}.part`, 'unit'],
  });
  const { form, unit } = LIMIT_KINDS[part];
  const last = { band: 'Greatest', 'at-least': 'At least', 'at-most': 'At most', 'from-nominal': 'Limit' }[
    form
  ];
  const bare = unit === '%' ? unit : bareUnits(length)[unit];
  return (
    <>
      {form === 'band' || form === 'from-nominal' ? (
        <TextField
          name={`wear.${index}.nominal`}
          label={`${form === 'band' ? 'Least' : 'New'}, ${bare}`}
          inputMode="decimal"
        />
      ) : (
        <Box />
      )}
      <TextField name={`wear.${index}.limit`} label={`${last}, ${bare}`} inputMode="decimal" />
    </>
  );
}

/** Asks in place about torques that can hardly be meant. */
function TorqueQuestion({ index }: { readonly index: number }) {
  const { setValue } = useFormContext<SheetValues>();
  const [fastening, steps] = useWatch<
    SheetValues,
    [`torques.${number}.fastening`, `torques.${number}.steps`]
  >({ name: [`torques.${index}.fastening`, `torques.${index}.steps`] });
  const [settled, setSettled] = useState<string>();
  const warning = torqueWarningOf({ fastening, steps });
  if (!warning || warning.key === settled) return null;
  // of several steps the odd one alone is put right by hand
  const single = !steps.includes(',');
  return (
    <WarningNote
      warning={warning}
      onSettle={setSettled}
      {...(single
        ? { onUse: (meant: string) => setValue(`torques.${index}.steps`, meant, { shouldDirty: true }) }
        : {})}
    />
  );
}

/** When to look again, wear limits, torques, and where all of it comes from. */
export const PlanFields = memo(function PlanFields() {
  const { control, register } = useFormContext<SheetValues>();
  const usageUnit = useWatch({ control, name: 'usageUnit' });
  const unit = useWatch({ control, name: 'unit' });
  const second = useWatch({ control, name: 'second' });
  const assembly = useWatch({ control, name: 'assembly' });
  const heatCycles = useWatch({ control, name: 'heatCycles' });
  const wear = useFieldArray<SheetValues, 'wear'>({ control, name: 'wear' });
  const torques = useFieldArray<SheetValues, 'torques'>({ control, name: 'torques' });
  const wanted = useFieldArray<SheetValues, 'wanted'>({ control, name: 'wanted' });
  const charts = useFieldArray<SheetValues, 'pieceCharts'>({ control, name: 'pieceCharts' });
  return (
    <>
      <FormPart title="Recheck after" columns={4}>
        <Box>
          <ChoiceField
            name="usageUnit"
            label="Running is counted in"
            options={[
              ['hours', 'hours'],
              ['km', 'km'],
              ['miles', 'miles'],
              ['starts', 'starts'],
              ['events', 'events'],
              ['none', 'none: by date and event'],
            ]}
          />
        </Box>
        <PlanSteps usageUnit={usageUnit} />
      </FormPart>
      <FormPart title="Before it is signed off" columns={3} folded={heatCycles.trim() === ''}>
        <TextField
          name="heatCycles"
          label="Heat cycles: run hot, left to go cold"
          inputMode="numeric"
          placeholder="none"
        />
        <TickField name="retorque" label="Head tightened again after them, cold" />
      </FormPart>
      <FormPart title="Wear limits" columns={7} folded={wear.fields.length === 0}>
        {wear.fields.map((field, index) => (
          <Box key={field.id} display="contents">
            <ChoiceField name={`wear.${index}.part`} label="What" options={LIMIT_OPTIONS} />
            <ChoiceField
              name={`wear.${index}.of`}
              label="Of"
              options={[
                ['both', 'both'],
                ['intake', 'intake'],
                ['exhaust', 'exhaust'],
              ]}
            />
            <TextField name={`wear.${index}.place`} label="At" placeholder="all" />
            <LimitFigures index={index} />
            <TextField name={`wear.${index}.source`} label="Source" placeholder="the sheet’s" />
            <Button variant="plain" alignSelf="end" onClick={() => wear.remove(index)}>
              Take out
            </Button>
          </Box>
        ))}
        <Box gridColumn="1 / -1">
          <Button
            onClick={() =>
              wear.append({ part: 'lobe-lift', of: 'both', place: '', nominal: '', limit: '', source: '' })
            }
          >
            Add a wear limit
          </Button>
        </Box>
      </FormPart>
      <FormPart title="Torques and orders" columns={4} folded={torques.fields.length === 0}>
        {torques.fields.map((field, index) => (
          <Box key={field.id} display="contents">
            <TextField name={`torques.${index}.fastening`} label="Fastening" />
            <TextField
              name={`torques.${index}.steps`}
              label="Steps"
              placeholder={unit === 'mm' ? '8 N·m, then 14 N·m' : '6 lbf·ft, then 10 lbf·ft'}
            />
            <TextField name={`torques.${index}.order`} label="Order" placeholder="from the middle out" />
            <Button variant="plain" alignSelf="end" onClick={() => torques.remove(index)}>
              Take out
            </Button>
            <TorqueQuestion index={index} />
            <TextField
              name={`torques.${index}.rows`}
              label="Bolts a row, near row first"
              placeholder="5, 5"
            />
            <Box gridColumn={{ md: 'span 3' }} marginBottom="3">
              <TextField
                name={`torques.${index}.sequence`}
                label="Maker’s order, by number from the front"
                placeholder="8, 3, 2, 7 …"
              />
            </Box>
          </Box>
        ))}
        <Box gridColumn="1 / -1">
          <Button
            onClick={() => torques.append({ fastening: '', steps: '', order: '', rows: '', sequence: '' })}
          >
            Add a torque
          </Button>
        </Box>
      </FormPart>
      <FormPart title="How it is put together" columns={2} folded={assembly.trim() === ''}>
        <Box gridColumn="1 / -1">
          <AreaField
            name="assembly"
            label="A step a line"
            hint="Cams told apart by their marks, links counted between marks, caps by number and arrow, what is oiled. A line that begins with ! may not be skipped."
          />
        </Box>
      </FormPart>
      <FormPart title="The maker’s charts of pieces" columns={4} folded={charts.fields.length === 0}>
        {charts.fields.map((field, index) => (
          <Box key={field.id} display="contents">
            <ChoiceField
              name={`pieceCharts.${index}.role`}
              label="Role"
              options={CHARTED.map((role) => [role, ROLE_WORDS[role]] as const)}
            />
            <Box gridColumn={{ md: 'span 2' }}>
              <AreaField
                name={`pieceCharts.${index}.text`}
                label="The chart, a line a range of gaps"
                hint="gap; 2.40; 2.45 first, the pieces fitted now; then 0.00-0.05; 2.30; 2.35 and so on. keep, or - for none. Where it is printed it governs."
              />
            </Box>
            <Button variant="plain" alignSelf="end" onClick={() => charts.remove(index)}>
              Take out
            </Button>
          </Box>
        ))}
        <Box gridColumn="1 / -1">
          <Button onClick={() => charts.append({ role: 'intake', text: '' })}>Add a chart</Button>
        </Box>
      </FormPart>
      <FormPart title="Wanted at hand" columns={5} folded={wanted.fields.length === 0}>
        {wanted.fields.map((field, index) => (
          <Box key={field.id} display="contents">
            <Box gridColumn={{ md: 'span 2' }}>
              <TextField name={`wanted.${index}.name`} label="What" placeholder="Head gasket" />
            </Box>
            <TextField name={`wanted.${index}.count`} label="How many" inputMode="numeric" />
            <ChoiceField
              name={`wanted.${index}.kind`}
              label="Kind"
              options={[
                ['seal', 'gasket or seal'],
                ['spare', 'spare'],
                ['tool', 'tool'],
              ]}
            />
            <Button variant="plain" alignSelf="end" onClick={() => wanted.remove(index)}>
              Take out
            </Button>
          </Box>
        ))}
        <Box gridColumn="1 / -1">
          <Button onClick={() => wanted.append({ name: '', count: '1', kind: 'seal' })}>
            Add something wanted
          </Button>
        </Box>
      </FormPart>
      <FormPart title="Where it comes from">
        <TextField name="manual" label="Manual" />
        <TextField name="edition" label="Edition" />
        <TextField name="page" label="Page" />
        <Box gridColumn="1 / -1">
          <Labelled label="Notes">
            <TextArea {...register('notes')} maxLength={2000} rows={2} />
          </Labelled>
        </Box>
      </FormPart>
      <FormPart title="A second source" folded={second.manual === ''}>
        <TextField name="second.manual" label="Manual" />
        <TextField name="second.edition" label="Edition" />
        <TextField name="second.page" label="Page" />
        <TextField name="second.figures" label="What it prints" />
        <TextField name="second.whyNot" label="Why it was not taken" />
      </FormPart>
    </>
  );
});
