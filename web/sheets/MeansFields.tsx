import { memo } from 'react';
import { Box, Button, Flex } from '@chakra-ui/react';
import { ROLE_WORDS, type Role } from '@zero-lash/core/sheets';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { WarningNote } from './WarningNote.tsx';
import type { Warning } from './warnings.ts';
import { bareUnits } from './bareFigures.ts';
import { ChoiceField, FormPart, TextField, TickField } from './FormField.tsx';
import { FRESH_MEANS, type MeansValues, type SheetValues } from './formValues.ts';

const KINDS: readonly (readonly [MeansValues['kind'], string])[] = [
  ['screw', 'screw'],
  ['pivot-nut', 'nut on the pivot'],
  ['shim', 'shim'],
  ['bucket', 'graded bucket'],
  ['lash-cap', 'lash cap'],
];

interface Props {
  readonly roles: readonly Role[];
  readonly warnings: readonly Warning[];
  readonly onSettle: (key: string) => void;
}

/** How the gap is set, with the figures that needs; and roles that are set another way. */
export const MeansFields = memo(function MeansFields({ roles, warnings, onSettle }: Props) {
  const { control } = useFormContext<SheetValues>();
  const others = useFieldArray<SheetValues, 'others'>({ control, name: 'others' });
  const taken = useWatch({ control, name: 'others' }).map(({ role }) => role);
  const free = roles.filter((role) => !taken.includes(role));
  return (
    <>
      <FormPart title="Set by" columns={4}>
        <OneMeans path="means" />
        <Box gridColumn="1 / -1" fontSize="sm" color="faded">
          Hydraulic adjusters set themselves, and are not handled here: there is no gap to measure.
        </Box>
        {warnings.map((warning) => (
          <WarningNote key={warning.key} warning={warning} onSettle={onSettle} />
        ))}
      </FormPart>
      {others.fields.map((field, index) => (
        <FormPart key={field.id} title={`Set by, ${ROLE_WORDS[field.role]}`} columns={4}>
          <OneMeans path={`others.${index}.means`} />
          <Button variant="plain" alignSelf="end" onClick={() => others.remove(index)}>
            As the others
          </Button>
        </FormPart>
      ))}
      {roles.length > 1 && free.length > 1 && (
        <Flex gap="2" flexWrap="wrap" paddingBottom="4">
          {free.map((role) => (
            <Button key={role} onClick={() => others.append({ role, means: FRESH_MEANS })}>
              Set {ROLE_WORDS[role]} another way
            </Button>
          ))}
        </Flex>
      )}
    </>
  );
});

function OneMeans({ path }: { readonly path: 'means' | `others.${number}.means` }) {
  const { control } = useFormContext<SheetValues>();
  const kind = useWatch({ control, name: `${path}.kind` });
  const seat = useWatch({ control, name: `${path}.seat` });
  const end = useWatch({ control, name: `${path}.end` });
  const locking = useWatch({ control, name: `${path}.locking` });
  const bare = bareUnits(useWatch({ control, name: 'unit' }));
  const stamp = useWatch({ control, name: `${path}.stampedIn` }) === 'in' ? 'thou' : 'mm';
  const other = bare.mm === 'mm' ? '10–11 lbf·ft' : '14–15 N·m';
  const onFinger =
    (kind === 'shim' && seat === 'under-finger') || (kind === 'screw' && end === 'finger-pivot');
  return (
    <>
      <ChoiceField name={`${path}.kind`} label="Means" options={KINDS} />
      {(kind === 'screw' || kind === 'pivot-nut') && (
        <>
          {kind === 'screw' && (
            <ChoiceField
              name={`${path}.end`}
              label="At the"
              options={[
                ['valve', 'valve end'],
                ['pushrod', 'pushrod end'],
                ['finger-pivot', 'ball of a finger'],
                ['eccentric', 'rocker’s eccentric on its shaft'],
              ]}
            />
          )}
          {!(kind === 'screw' && end === 'eccentric') && (
            <TextField
              name={`${path}.pitch`}
              label="Thread pitch, mm"
              hint="Or 24 tpi. Empty: not known, and no angle is given"
            />
          )}
          {onFinger ? (
            <FingerFields path={path} />
          ) : (
            <TextField
              name={`${path}.rockerRatio`}
              label="Rocker ratio"
              hint="Empty: not known"
              inputMode="decimal"
            />
          )}
          <ChoiceField
            name={`${path}.locking`}
            label="Held by"
            options={[
              ['lock-nut', 'a lock nut'],
              ['self-locking', 'its own grip'],
              ...(kind === 'pivot-nut' ? [['inner-screw', 'a screw inside it'] as const] : []),
            ]}
          />
          {locking === 'self-locking' ? (
            <TextField
              name={`${path}.runsAt`}
              label={`Turns with at least, ${bare.torque}`}
              hint={`Or ${other}. A slacker one is renewed`}
            />
          ) : (
            <TextField
              name={`${path}.torqueNm`}
              label={`${locking === 'inner-screw' ? 'Screw inside' : 'Lock nut'}, ${bare.torque}`}
              hint={`Or ${other}. Empty: not said`}
            />
          )}
        </>
      )}
      {kind === 'shim' && (
        <ChoiceField
          name={`${path}.seat`}
          label="Lies"
          options={[
            ['on-bucket', 'on top of the bucket'],
            ['under-bucket', 'under the bucket'],
            ['under-finger', 'under the finger'],
          ]}
        />
      )}
      {(kind === 'shim' || kind === 'bucket' || kind === 'lash-cap') && (
        <>
          <TextField
            name={`${path}.from`}
            label={`Thinnest, ${stamp}`}
            hint="All three empty: not known"
            inputMode="decimal"
          />
          <TextField name={`${path}.to`} label={`Thickest, ${stamp}`} inputMode="decimal" />
          <TextField name={`${path}.step`} label={`In steps of, ${stamp}`} inputMode="decimal" />
          {kind === 'shim' && (
            <TextField
              name={`${path}.diameter`}
              label="Diameter, mm"
              hint="Empty: not known"
              inputMode="decimal"
            />
          )}
          <TextField name={`${path}.marking`} label="How they are marked" />
          <ChoiceField
            name={`${path}.stampedIn`}
            label="Stamped in"
            options={[
              ['mm', 'mm'],
              ['in', 'inches'],
            ]}
          />
          {kind === 'shim' && (
            <TextField
              name={`${path}.seatOffset`}
              label={`Offset when measured bare, ${bare.mm}`}
              hint="Empty: not known"
              inputMode="decimal"
            />
          )}
          {onFinger && <FingerFields path={path} />}
          {kind === 'shim' && seat === 'on-bucket' && (
            <TextField
              name={`${path}.toolCrank`}
              label="Crank before the tool goes in"
              hint="As the source says, such as piston well down. Empty: it does not say"
            />
          )}
          {kind === 'shim' && seat === 'under-bucket' && (
            <TickField name={`${path}.turnsBare`} label="The maker allows it to be turned with no shim in" />
          )}
        </>
      )}
    </>
  );
}

/** A finger's ratio, and where its gap is taken: every figure worked out from it hangs on both, so neither is filled in before. */
function FingerFields({ path }: { readonly path: 'means' | `others.${number}.means` }) {
  return (
    <>
      <TextField
        name={`${path}.fingerRatio`}
        label="Finger’s ratio"
        hint="Valve arm over cam arm"
        inputMode="decimal"
      />
      <ChoiceField
        name={`${path}.gapAt`}
        label="Its gap is taken"
        options={[
          ['', 'what does the source say?'],
          ['valve', 'at the valve'],
          ['cam', 'at the cam'],
        ]}
      />
    </>
  );
}
