import { Box, Button, Input } from '@chakra-ui/react';
import type { LengthUnit } from '@zero-lash/core/length';
import {
  ALSO_WORDS,
  bandInWords,
  printedFrom,
  resolveBand,
  ROLE_WORDS,
  type AlsoKind,
  type Role,
  type SingleRule,
} from '@zero-lash/core/sheets';
import { type ReactNode, memo, useState } from 'react';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { Labelled, Select } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import { GapBar } from '../drawings/GapBar.tsx';
import { useSession } from '../app/useSession.ts';
import { WarningNote } from './WarningNote.tsx';
import { limitWarningsOf, type LimitQuestion } from './warnings.ts';
import { alsoInWords } from './words.ts';
import { bareUnits } from './bareFigures.ts';
import { ChoiceField, FormPart, TextField, TickField } from './FormField.tsx';
import type { SheetValues } from './formValues.ts';

interface Props {
  readonly roles: readonly Role[];
  /** the shop's band round one figure; null where it has none */
  readonly rule: SingleRule | null;
  /** warnings answered with “it is so”, by role and text */
  readonly settled: ReadonlySet<string>;
  readonly onSettle: (warning: string) => void;
}

/** The limits of every role as the source writes them, each drawn as it is understood, and asked about where it looks like a slip. */
export const LimitFields = memo(function LimitFields({ roles, rule, settled, onSettle }: Props) {
  const { control } = useFormContext<SheetValues>();
  const also = useFieldArray<SheetValues, 'also'>({ control, name: 'also' });
  const [limits, typed, unit, condition] = useWatch({
    control,
    name: ['limits', 'also', 'unit', 'condition'],
  });
  const bare = bareUnits(unit);
  return (
    <FormPart title="Limits" columns={4}>
      <ChoiceField
        name="condition"
        label="Measured"
        options={[
          ['cold', 'cold'],
          ['hot', 'hot'],
        ]}
      />
      <TextField
        name="tempFrom"
        label={`From, ${bare['°C']}`}
        hint={unit === 'mm' ? 'Or 50 °F' : 'Or 10 °C'}
      />
      <TextField name="tempTo" label={`To, ${bare['°C']}`} />
      <ChoiceField
        name="unit"
        label="Bare figures are in"
        options={[
          ['mm', 'mm, N·m, bar, °C'],
          ['thou', 'thou, lbf·ft, psi, °F'],
          ['in', 'inches, lbf·ft, psi, °F'],
        ]}
      />
      <ChoiceField
        name="system"
        label="The rest is shown in"
        options={[
          ['', 'the shop’s units'],
          ['metric', 'bar, N, N·m, °C'],
          ['inch', 'psi, lbf, lbf·ft, °F'],
        ]}
      />
      <Box gridColumn="1 / -1">
        <TickField
          name="limitsToCome"
          label="The book with the limits is not here yet: engines are read, and nothing is judged or set"
        />
      </Box>
      {roles.map((role) => (
        <RoleLimits
          key={role}
          role={role}
          values={{ limits, also: typed, unit, condition }}
          rule={rule}
          rows={also.fields.flatMap(({ id, role: of, kind }, index) =>
            of === role ? [{ id, kind, index }] : [],
          )}
          onAdd={(kind) => also.append({ role, kind, text: '' })}
          onTakeOut={(index) => also.remove(index)}
          settled={settled}
          onSettle={onSettle}
        />
      ))}
    </FormPart>
  );
});

const OVER = 'over';

interface RoleProps extends Pick<Props, 'rule' | 'settled' | 'onSettle'> {
  readonly role: Role;
  readonly values: Pick<SheetValues, 'limits' | 'also' | 'unit' | 'condition'>;
  /** what else is printed for it, by its place in the form */
  readonly rows: readonly { readonly id: string; readonly kind: AlsoKind; readonly index: number }[];
  readonly onAdd: (kind: AlsoKind) => void;
  readonly onTakeOut: (index: number) => void;
}

function RoleLimits({ role, values, rule, rows, onAdd, onTakeOut, settled, onSettle }: RoleProps) {
  const { setValue, control } = useFormContext<SheetValues>();
  const shop = useSession()?.shop.allowOver.find((each) => each.role === role)?.over ?? 0;
  const typed = useWatch({ control, name: `allowances.${role}.over` }) ?? '';
  // most sheets say nothing of it: it stands there once it is asked for, or where the shop takes something
  const [asks, setOver] = useState(false);
  const over = asks || shop > 0 || typed !== '';
  const questions = limitWarningsOf(role, values, rule).filter(({ key }) => !settled.has(key));
  const left = (Object.keys(ALSO_WORDS) as AlsoKind[]).filter((kind) =>
    rows.every((each) => each.kind !== kind),
  );
  const asked = (field: LimitQuestion['field']) =>
    questions
      .filter((each) => each.field === field)
      .map((warning) => (
        <WarningNote
          key={warning.key}
          warning={warning}
          onUse={(meant) => setValue(field, meant, { shouldDirty: true, shouldValidate: true })}
          onSettle={onSettle}
        />
      ));
  return (
    <Box gridColumn="1 / -1" display="grid" gap="3" gridTemplateColumns={{ base: '1fr', md: '1fr 1fr' }}>
      <PrintedField
        name={`limits.${role}`}
        label={`${ROLE_WORDS[role]}, as the source writes it`}
        hint="0.20–0.30, or 0.25 ± 0.05, or 3 to 5 thou; one figure as it is: 12 thou (0.30 mm)"
        text={values.limits[role] ?? ''}
        unit={values.unit}
        rule={rule}
      />
      {asked(`limits.${role}`)}
      {rows.map(({ id, kind, index }) => (
        <Box key={id} display="contents">
          <PrintedField
            name={`also.${index}.text`}
            label={`${ROLE_WORDS[role]}, ${alsoInWords(kind, values.condition)}`}
            text={values.also[index]?.text ?? ''}
            unit={values.unit}
            rule={rule}
          >
            <Button
              variant="plain"
              aria-label={`Take out ${ROLE_WORDS[role]}, ${alsoInWords(kind, values.condition)}`}
              onClick={() => onTakeOut(index)}
            >
              Take out
            </Button>
          </PrintedField>
          {asked(`also.${index}.text`)}
        </Box>
      ))}
      {left.length + (over ? 0 : 1) > 0 && (
        <Labelled label={`More that it prints for ${ROLE_WORDS[role]}`}>
          <Select
            value=""
            onChange={({ target }) =>
              target.value === OVER ? setOver(true) : onAdd(target.value as AlsoKind)
            }
          >
            <option value="" disabled>
              nothing more
            </option>
            {!over && <option value={OVER}>something taken over the greatest</option>}
            {left.map((kind) => (
              <option key={kind} value={kind}>
                {alsoInWords(kind, values.condition)}
              </option>
            ))}
          </Select>
        </Labelled>
      )}
      {over && <AllowanceFields role={role} />}
    </Box>
  );
}

interface PrintedProps {
  readonly name: LimitQuestion['field'];
  readonly label: string;
  readonly hint?: string;
  readonly text: string;
  readonly unit: LengthUnit;
  readonly rule: SingleRule | null;
  /** what may be done with it */
  readonly children?: ReactNode;
}

/** A clearance as it is printed, drawn as it is understood: of one figure the shop's band round it, said to be the shop's. */
function PrintedField({ name, label, hint, text, unit, rule, children }: PrintedProps) {
  const { register, getFieldState, formState } = useFormContext<SheetValues>();
  const { figure, band, length } = useLengths();
  const read = printedFrom(text, unit);
  const resolved = 'error' in read ? null : resolveBand(read, rule);
  return (
    <>
      <Labelled label={label} hint={hint} error={getFieldState(name, formState).error?.message}>
        <Input {...register(name)} autoComplete="off" maxLength={60} />
      </Labelled>
      <Box alignSelf="center">
        {resolved && (
          <GapBar
            min={resolved.min}
            max={resolved.max}
            gap={null}
            state="not-measured"
            width={300}
            figure={figure}
          />
        )}
        {resolved && resolved.figure !== null && (
          <Box fontSize="sm">{bandInWords(resolved, band, length)}</Box>
        )}
        {children}
      </Box>
    </>
  );
}

/** What is taken over the greatest in a role, and why: a matter of the sheet; the shop's own figure only proposes it. */
function AllowanceFields({ role }: { readonly role: Role }) {
  const { register, setValue, getFieldState, formState } = useFormContext<SheetValues>();
  const shop = useSession()?.shop.allowOver.find((each) => each.role === role)?.over ?? 0;
  const { length } = useLengths();
  const over = `allowances.${role}.over` as const;
  const why = `allowances.${role}.why` as const;
  return (
    <Box gridColumn="1 / -1" display="grid" gap="3" gridTemplateColumns={{ base: '1fr', md: '1fr 2fr' }}>
      <Labelled
        label={`Taken over the greatest, ${ROLE_WORDS[role]}`}
        hint="Empty: nothing. Never under the least."
        error={getFieldState(over, formState).error?.message}
      >
        <Input {...register(over)} autoComplete="off" maxLength={20} />
      </Labelled>
      <Labelled label="Because" error={getFieldState(why, formState).error?.message}>
        <Input {...register(why)} autoComplete="off" maxLength={120} />
      </Labelled>
      {shop > 0 && (
        <Box gridColumn="1 / -1" fontSize="sm">
          The shop takes {length(shop)} over it where a sheet says nothing.{' '}
          <Button
            variant="plain"
            onClick={() => {
              setValue(over, `${shop} mm`, { shouldDirty: true });
              setValue(why, 'the shop’s own rule', { shouldDirty: true });
            }}
          >
            Take {length(shop)} here
          </Button>
        </Box>
      )}
    </Box>
  );
}
