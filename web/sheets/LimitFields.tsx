import { Box, Button, Input } from '@chakra-ui/react';
import { parseLimits, ROLE_WORDS, type Role } from '@zero-lash/core/sheets';
import { useFormContext, useWatch } from 'react-hook-form';
import { Labelled } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import { GapBar } from '../drawings/GapBar.tsx';
import { useSession } from '../app/useSession.ts';
import { WarningNote } from './WarningNote.tsx';
import { limitWarningOf } from './warnings.ts';
import { ChoiceField, FormPart, TextField } from './FormField.tsx';
import type { SheetValues } from './formValues.ts';

interface Props {
  readonly roles: readonly Role[];
  /** warnings answered with “it is so”, by role and text */
  readonly settled: ReadonlySet<string>;
  readonly onSettle: (warning: string) => void;
}

/** The limits of every role as the source writes them, each drawn as it is understood, and asked about where it looks like a slip. */
export function LimitFields({ roles, settled, onSettle }: Props) {
  const { control } = useFormContext<SheetValues>();
  const [limits, unit, condition] = useWatch({ control, name: ['limits', 'unit', 'condition'] });
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
      <TextField name="tempFrom" label="From, °C" inputMode="decimal" />
      <TextField name="tempTo" label="To, °C" inputMode="decimal" />
      <ChoiceField
        name="unit"
        label="Bare figures are in"
        options={[
          ['mm', 'mm'],
          ['thou', 'thou'],
        ]}
      />
      {roles.map((role) => (
        <RoleLimits
          key={role}
          role={role}
          values={{ limits, unit, condition }}
          settled={settled}
          onSettle={onSettle}
        />
      ))}
    </FormPart>
  );
}

interface RoleProps extends Pick<Props, 'settled' | 'onSettle'> {
  readonly role: Role;
  readonly values: Pick<SheetValues, 'limits' | 'unit' | 'condition'>;
}

function RoleLimits({ role, values, settled, onSettle }: RoleProps) {
  const { register, setValue, getFieldState, formState } = useFormContext<SheetValues>();
  const { figure } = useLengths();
  const read = parseLimits(values.limits[role] ?? '', values.unit);
  const warning = limitWarningOf(role, values);
  const name = `limits.${role}` as const;
  return (
    <Box gridColumn="1 / -1" display="grid" gap="3" gridTemplateColumns={{ base: '1fr', md: '1fr 1fr' }}>
      <Labelled
        label={`${ROLE_WORDS[role]}, as the source writes it`}
        hint="0.20–0.30, or 0.25 ± 0.05, or 3 to 5 thou"
        error={getFieldState(name, formState).error?.message}
      >
        <Input {...register(name)} autoComplete="off" maxLength={40} />
      </Labelled>
      {!('error' in read) && read.min !== null && read.max !== null && (
        <GapBar min={read.min} max={read.max} gap={null} state="not-measured" width={300} figure={figure} />
      )}
      <AllowanceFields role={role} />
      {warning && !settled.has(warning.key) && (
        <WarningNote
          warning={warning}
          onUse={(suggestion) => setValue(name, suggestion, { shouldDirty: true, shouldValidate: true })}
          onSettle={onSettle}
        />
      )}
    </Box>
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
