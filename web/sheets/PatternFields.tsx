import { Box, Button } from '@chakra-ui/react';
import { memo } from 'react';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { AreaField, ChoiceField, FormPart, TextField, TickField } from './FormField.tsx';
import { USUAL_CYLINDERS, type SheetValues } from './formValues.ts';

/** The pattern: how the cylinders stand, how they fire, which way it turns, and what its valves are. */
export const PatternFields = memo(function PatternFields() {
  const { control, getValues, setValue } = useFormContext<SheetValues>();
  const [layout, assumed, bridgeIntake, bridgeExhaust, unit] = useWatch({
    control,
    name: ['layout', 'assumed', 'bridgeIntake', 'bridgeExhaust', 'unit'],
  });
  const twoBanks = layout === 'v' || layout === 'flat';
  const [camDrive, camsAbove, coverHoldsCams, turnsBack, decompressed, table, pairs, stand, called] =
    useWatch({
      control,
      name: [
        'camDrive',
        'camsAbove',
        'coverHoldsCams',
        'turnsBack',
        'decompressed',
        'makersStops',
        'makersPairs',
        'valvesStand',
        'makersNames',
      ],
    });
  const driven =
    [camDrive, camsAbove].every((said) => said === 'unsaid') &&
    !coverHoldsCams &&
    turnsBack &&
    !decompressed &&
    table === '' &&
    pairs === '';
  const [coldHours, hotMinutes, barred, noSpark, access] = useWatch({
    control,
    name: ['coldHours', 'hotMinutes', 'barred', 'noSpark', 'access'],
  });
  const unsaid = !barred && !noSpark && [coldHours, hotMinutes, access].every((text) => text === '');
  const brakes = useFieldArray<SheetValues, 'brakes'>({ control, name: 'brakes' });

  /** Names the cylinders the layout most often has, unless others were typed. */
  function nameUsual(chosen: SheetValues['layout']) {
    const [bankA, bankB] = getValues(['bankA', 'bankB']);
    const usual = Object.values(USUAL_CYLINDERS).some((each) => each.bankA === bankA && each.bankB === bankB);
    if (!usual) return;
    setValue('bankA', USUAL_CYLINDERS[chosen].bankA);
    setValue('bankB', USUAL_CYLINDERS[chosen].bankB);
  }

  return (
    <>
      <FormPart title="Cylinders">
        <ChoiceField
          name="layout"
          label="Layout"
          onChosen={(chosen) => nameUsual(chosen as SheetValues['layout'])}
          options={[
            ['single', 'single'],
            ['inline', 'in line'],
            ['v', 'V'],
            ['flat', 'flat'],
          ]}
        />
        {layout === 'v' && (
          <TextField name="bankAngle" label="Angle between the banks, °" inputMode="decimal" />
        )}
        <TextField
          name="bankA"
          label={twoBanks ? 'Bank A, from the front' : 'Cylinders, from the front'}
          hint="As the maker numbers them"
        />
        {twoBanks && <TextField name="bankB" label="Bank B, from the front" />}
        {layout !== 'single' && (
          <>
            <TextField name="firingOrder" label="Firing order" placeholder="1-3-4-2" />
            <TextField
              name="firingSteps"
              label="Degrees between firings"
              hint="Empty: evenly. Uneven: 435 285"
            />
          </>
        )}
        <ChoiceField
          name="turns"
          label="Turns"
          options={[
            ['clockwise', 'clockwise'],
            ['anticlockwise', 'anticlockwise'],
          ]}
        />
        <ChoiceField
          name="seenFrom"
          label="Seen from the"
          options={[
            ['front', 'front'],
            ['flywheel', 'flywheel'],
          ]}
        />
        <TextField
          name="marks"
          label="Marks on the pulley, °"
          hint="Of one turn, such as 0 180. Empty: it has none"
        />
        <ChoiceField
          name="exhaustSide"
          label="Exhaust side, from the front"
          options={[
            ['left', 'left'],
            ['right', 'right'],
          ]}
        />
      </FormPart>
      <FormPart title="Valves of a cylinder" columns={4}>
        <ChoiceField
          name="intakes"
          label="Intakes"
          options={[
            ['1', '1'],
            ['2', '2'],
            ['3', '3'],
          ]}
        />
        <ChoiceField
          name="exhausts"
          label="Exhausts"
          options={[
            ['1', '1'],
            ['2', '2'],
          ]}
        />
        <Box>
          <TickField name="bridgeIntake" label="A bridge over the intakes" />
          <TickField name="bridgeExhaust" label="A bridge over the exhausts" />
          {(bridgeIntake || bridgeExhaust) && (
            <TickField name="bridgeGuided" label="Guided, and balanced by a screw at one stem" />
          )}
        </Box>
        <TickField name="closingSide" label="Positively closed: a closing side too" />
      </FormPart>
      <FormPart
        title="Their rows, and the maker’s names"
        columns={4}
        folded={stand === 'across' && called === ''}
      >
        <ChoiceField
          name="valvesStand"
          label="Valves of a head stand"
          options={[
            ['across', 'intakes across from exhausts'],
            ['one-row', 'all in one row'],
            ['splayed', 'in one row, leaning apart'],
          ]}
        />
        {stand !== 'across' && (
          <TextField
            name="rowA"
            label={twoBanks ? 'Row of bank A, from the front' : 'The row, from the front'}
            placeholder="E I I E"
            hint="I for an intake, E for an exhaust"
          />
        )}
        {stand !== 'across' && twoBanks && (
          <TextField name="rowB" label="Row of bank B, from the front" placeholder="E I I E" />
        )}
        <Box gridColumn="1 / -1">
          <AreaField
            name="makersNames"
            label="The maker’s own names of valves and cylinders"
            hint="Our name, then the maker’s: 1E 12, 1I 11, 2 rear. Or a whole row from the front: A: 1 2 3 4. Ours stay beside them."
          />
        </Box>
      </FormPart>
      <FormPart title="Brake rockers" columns={4} folded={brakes.fields.length === 0}>
        {brakes.fields.map((field, index) => (
          <Box key={field.id} display="contents">
            <TextField name={`brakes.${index}.cylinders`} label="On cylinders" placeholder="1 2 3" />
            <TextField name={`brakes.${index}.opens`} label="Opens, ° after firing" inputMode="decimal" />
            <TextField name={`brakes.${index}.closes`} label="Closes, ° after firing" inputMode="decimal" />
            <Button variant="plain" alignSelf="end" onClick={() => brakes.remove(index)}>
              Take out
            </Button>
          </Box>
        ))}
        <Button onClick={() => brakes.append({ cylinders: '', opens: '', closes: '' })}>
          Add brake rockers
        </Button>
      </FormPart>
      <FormPart title="Valve timing" columns={4}>
        <Box gridColumn="1 / -1">
          <TickField name="assumed" label="The source gives none: take a cautious default, marked as such" />
        </Box>
        {!assumed && (
          <>
            <TextField name="ivoBtdc" label="Intake opens, ° before TDC" inputMode="decimal" />
            <TextField name="ivcAbdc" label="Intake closes, ° after BDC" inputMode="decimal" />
            <TextField name="evoBbdc" label="Exhaust opens, ° before BDC" inputMode="decimal" />
            <TextField name="evcAtdc" label="Exhaust closes, ° after TDC" inputMode="decimal" />
          </>
        )}
        <TextField
          name="margin"
          label="Keep clear of ramps, °"
          hint="Empty: 15, assumed by us"
          inputMode="decimal"
        />
        {!assumed && (
          <TextField
            name="lift"
            label={`Given at a lift of, ${unit}`}
            hint="Empty: at the seat"
            inputMode="decimal"
          />
        )}
      </FormPart>
      <FormPart title="Before it is measured" columns={4} folded={unsaid}>
        <TextField
          name="coldHours"
          label="Cold after, hours"
          hint="Empty: as the shop goes by"
          inputMode="decimal"
        />
        <TextField
          name="hotMinutes"
          label="Hot figures hold for, minutes"
          hint="After it was shut down"
          inputMode="decimal"
        />
        <Box alignSelf="end">
          <TickField name="barred" label="Large: barred over" />
          <TickField name="noSpark" label="No spark: fires by compression" />
        </Box>
        {barred && (
          <TextField
            name="doorsMinutes"
            label="Crankcase doors shut for, minutes"
            hint="After it stopped"
            inputMode="decimal"
          />
        )}
        <Box gridColumn="1 / -1">
          <TextField
            name="access"
            label="Comes off for access, before the cover"
            hint="With commas between: plugs, tank, air box. No part of the valve train."
          />
        </Box>
      </FormPart>
      <FormPart title="Driving and turning" columns={4} folded={driven}>
        <ChoiceField
          name="camDrive"
          label="Cams driven by"
          options={[
            ['unsaid', 'not said'],
            ['chain', 'chain'],
            ['belt', 'belt'],
            ['gears', 'gears'],
          ]}
        />
        <ChoiceField
          name="camsAbove"
          label="Cams above each head"
          options={[
            ['unsaid', 'not said'],
            ['one', 'one'],
            ['two', 'two: intake and exhaust'],
          ]}
        />
        <Box gridColumn="span 2" alignSelf="end">
          <TickField name="turnsBack" label="The crank may be turned back a little" />
          <TickField name="coverHoldsCams" label="The cover’s bolts hold the cams" />
        </Box>
        <ChoiceField
          name="decompressed"
          label="A decompressor lifts"
          options={[
            ['', 'no valve'],
            ['exhaust', 'exhausts'],
            ['intake', 'intakes'],
          ]}
        />
        {decompressed && (
          <>
            <TextField name="decompressorOpens" label="Lifts, ° after firing" inputMode="decimal" />
            <TextField name="decompressorCloses" label="Lets go, ° after firing" inputMode="decimal" />
          </>
        )}
        <Box gridColumn="1 / -1">
          <AreaField
            name="makersStops"
            label="The maker’s own table of where to measure"
            hint="A position a line, its degrees first: 0: 1I 1E 2I. It governs; leave it empty where there is none."
          />
        </Box>
        <Box gridColumn="1 / -1">
          <AreaField
            name="makersPairs"
            label="The maker’s own table of pairs"
            hint="A row a line, the valve that stands fully open first: 5E: 2E 2I. The maker’s names do as well as ours. It governs."
          />
        </Box>
      </FormPart>
    </>
  );
});
