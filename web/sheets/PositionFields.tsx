import { Box, Button, Flex, Image } from '@chakra-ui/react';
import { MOST_PICTURE_TEXT, MOST_PICTURES } from '@zero-lash/contract/sheets';
import { memo, useState } from 'react';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { FileButton } from '../app/FileButton.tsx';
import { Note } from '../app/Note.tsx';
import { base64Of, madeSmaller, whyNoPicture } from '../app/picture.ts';
import { AreaField, ChoiceField, FormPart, TextField } from './FormField.tsx';
import type { SheetValues } from './formValues.ts';

/** Marks as people find them: their words, what the cams and the rotor show there, pictures, and where cams come out. */
export const PositionFields = memo(function PositionFields() {
  const { control } = useFormContext<SheetValues>();
  const [markNames, camMarks, camsOutAt, camsOutBy, camsOutFirst] = useWatch({
    control,
    name: ['markNames', 'camMarks', 'camsOutAt', 'camsOutBy', 'camsOutFirst'],
  });
  const signs = useFieldArray<SheetValues, 'signs'>({ control, name: 'signs' });
  const pictures = useFieldArray<SheetValues, 'pictures'>({ control, name: 'pictures' });
  const empty =
    signs.fields.length + pictures.fields.length === 0 &&
    [markNames, camMarks, camsOutAt, camsOutBy, camsOutFirst].every((text) => text === '');
  return (
    <FormPart title="Marks, and where cams come out" columns={4} folded={empty}>
      <Box gridColumn="1 / -1">
        <AreaField
          name="markNames"
          label="What the marks are called"
          hint="A mark a line, its degrees first; then where it is looked at from, and what beside it is none: 120: 2-5, front, not the dot beside it"
        />
      </Box>
      <TextField name="camMarks" label="Marks on the cam wheel, °" hint="Over two turns; most have none" />
      {signs.fields.map((field, index) => (
        <Box key={field.id} display="contents">
          <TextField name={`signs.${index}.at`} label="Position, °" inputMode="decimal" />
          <TextField
            name={`signs.${index}.cams`}
            label="The cams’ marks there"
            placeholder="toward each other"
          />
          <TextField
            name={`signs.${index}.rotor`}
            label="Rotor, or what stands for it"
            placeholder="rotor at the notch"
          />
          <Button variant="plain" alignSelf="end" onClick={() => signs.remove(index)}>
            Take out
          </Button>
        </Box>
      ))}
      <Box gridColumn="1 / -1">
        <Button onClick={() => signs.append({ at: '', cams: '', rotor: '' })}>
          Add what is seen at a position
        </Button>
      </Box>
      {pictures.fields.map((field, index) => (
        <Box
          key={field.id}
          gridColumn="1 / -1"
          display="grid"
          gap="4"
          alignItems="start"
          gridTemplateColumns={{ base: 'minmax(0, 1fr)', md: '120px 90px 170px minmax(0, 1fr) auto' }}
        >
          <Image
            src={`data:image/jpeg;base64,${field.file}`}
            alt={`Picture ${index + 1}`}
            width="120px"
            height="80px"
            objectFit="cover"
            background="wash"
          />
          <TextField name={`pictures.${index}.at`} label="Position, °" inputMode="decimal" />
          <ChoiceField
            name={`pictures.${index}.of`}
            label="It shows"
            options={[
              ['mark', 'the mark'],
              ['cams', 'the cams there'],
            ]}
          />
          <TextField name={`pictures.${index}.says`} label="What is seen on it" />
          <Button variant="plain" alignSelf="center" onClick={() => pictures.remove(index)}>
            Take out
          </Button>
        </Box>
      ))}
      <Box gridColumn="1 / -1">
        <AddPicture
          full={pictures.fields.length >= MOST_PICTURES}
          onPicture={(file) => pictures.append({ at: '', of: 'mark', says: '', file })}
        />
      </Box>
      <TextField
        name="camsOutAt"
        label="Cams come out at, °"
        hint="Over two turns; empty where a pin tells it"
        inputMode="decimal"
      />
      <TextField name="camsOutBy" label="Locked by" placeholder="8 mm pin in the flywheel" />
      <Box gridColumn="span 2">
        <TextField
          name="camsOutFirst"
          label="Before any cap is slackened"
          placeholder="tensioner locked back, chain held up"
        />
      </Box>
    </FormPart>
  );
});

/** The edges a picture is tried at, in pixels, until it is small enough for a sheet. */
const EDGES = [800, 640, 480, 360];

/** Asks for a picture, looks at it by what is in it, and makes it small enough to go wherever the sheet goes. */
function AddPicture({
  full,
  onPicture,
}: {
  readonly full: boolean;
  readonly onPicture: (file: string) => void;
}) {
  const [complaint, setComplaint] = useState<string | null>(null);
  async function add(file: File) {
    setComplaint(null);
    const why = whyNoPicture(new Uint8Array(await file.slice(0, 16).arrayBuffer()));
    if (why) return setComplaint(`${file.name} ${why}.`);
    for (const edge of EDGES) {
      const bytes = await madeSmaller(file, { edge, always: true }).catch(() => null);
      if (!bytes) return setComplaint(`${file.name} is damaged: it begins like a picture, and is none.`);
      const text = base64Of(bytes);
      if (text.length <= MOST_PICTURE_TEXT) return onPicture(text);
    }
    return setComplaint(`${file.name} cannot be made small enough: show the mark, and not the engine.`);
  }
  return (
    <Flex direction="column" gap="2" alignItems="flex-start">
      <FileButton
        what="Picture of a position"
        accept="image/png,image/jpeg,image/webp"
        disabled={full}
        onFile={add}
      >
        Add a picture of a mark
      </FileButton>
      {full && <Box fontSize="sm">A sheet holds {MOST_PICTURES} pictures.</Box>}
      {complaint && (
        <Note tone="tight" role="alert">
          {complaint}
        </Note>
      )}
    </Flex>
  );
}
