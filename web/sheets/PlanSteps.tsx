import { Box, Button } from '@chakra-ui/react';
import { hasMeter, type UsageUnit } from '@zero-lash/core/rechecks';
import { useFieldArray, useFormContext } from 'react-hook-form';
import { TextField } from './FormField.tsx';
import type { SheetValues } from './formValues.ts';
import { FRESH_STEP } from './planSteps.ts';

/** When to look again, step by step, and at which points; the last step repeats. */
export function PlanSteps({ usageUnit }: { readonly usageUnit: UsageUnit }) {
  const { control } = useFormContext<SheetValues>();
  const plan = useFieldArray<SheetValues, 'plan'>({ control, name: 'plan' });
  return (
    <>
      {plan.fields.map((field, index) => (
        <Box
          key={field.id}
          gridColumn="1 / -1"
          display="grid"
          gap="3"
          gridTemplateColumns={{ base: 'repeat(2, minmax(0, 1fr))', md: 'repeat(5, minmax(0, 1fr))' }}
          borderBottom="1px solid"
          borderColor="hairline"
          paddingBottom="3"
        >
          <Box alignSelf="center" fontWeight="650">
            {plan.fields.length === 1 ? 'Each time' : index === 0 ? 'First' : `Then, ${index + 1}`}
          </Box>
          {hasMeter(usageUnit) && (
            <TextField name={`plan.${index}.afterUsage`} label={usageUnit} inputMode="decimal" />
          )}
          <TextField
            name={`plan.${index}.afterDays`}
            label={hasMeter(usageUnit) ? 'or days' : 'days'}
            inputMode="numeric"
          />
          <TextField name={`plan.${index}.afterCycles`} label="or heat cycles" inputMode="numeric" />
          <Button
            variant="plain"
            alignSelf="end"
            disabled={plan.fields.length === 1}
            aria-label={`Take recheck ${index + 1} out`}
            onClick={() => plan.remove(index)}
          >
            Take out
          </Button>
          <Box display={{ base: 'none', md: 'block' }} />
          <TextField name={`plan.${index}.before`} label="or before" placeholder="1.10." />
          <TextField name={`plan.${index}.season`} label="when begins" placeholder="first frost" />
          <TextField name={`plan.${index}.until`} label="and lasts until" placeholder="31.3." />
          <TextField name={`plan.${index}.points`} label="at points" placeholder="all" />
        </Box>
      ))}
      <Box gridColumn="1 / -1">
        <Button onClick={() => plan.append(FRESH_STEP)}>Add a recheck</Button>
        <Box fontSize="sm" color="faded" marginTop="1">
          Whichever is first; the last one repeats. With points named, such as 1I 1E 4E, it is a short check:
          those, and any that may be out by then. Once one of them does not hold, the whole head is measured.
        </Box>
      </Box>
    </>
  );
}
