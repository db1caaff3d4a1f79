import { Box, Button, Input } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import { useState, type ChangeEvent, type ComponentProps, type ReactElement, type ReactNode } from 'react';
import { useFormContext, type FieldPath } from 'react-hook-form';
import { lengthsOf } from '../app/lengthsOf.ts';
import { Labelled, Select, TextArea } from '../app/Labelled.tsx';
import { Tick } from '../app/Tick.tsx';
import { newSheet } from '@zero-lash/contract/sheets';
import type { SheetValues } from './formValues.ts';

type Name = FieldPath<SheetValues>;

interface FieldProps {
  readonly name: Name;
  readonly label: string;
  readonly hint?: string;
}

const LENGTHS: Readonly<Record<string, number | undefined>> = lengthsOf(newSheet);
/** Of figures, and of fields that are lists until they are read. */
const MOST = 400;
/** Of a chart of pieces. */
const LONG = 20_000;

/** How the form calls what the sheet calls otherwise. */
const CALLED: Readonly<Record<string, string>> = {
  ...{ manual: 'source.manual', edition: 'source.edition', page: 'source.page' },
  ...{ 'wear.#.place': 'wearLimits.#.place', 'wear.#.source': 'wearLimits.#.source' },
  ...{ camsOutBy: 'pattern.camsOut.lockedBy', camsOutFirst: 'pattern.camsOut.first' },
  ...{ 'means.marking': 'pattern.means.marking', 'means.toolCrank': 'pattern.means.toolCrank' },
};

/** How much may be typed into a field: as much as the sheet holds of it. */
function most(name: string, otherwise = MOST): number {
  const path = name.replaceAll(/\.\d+(?=\.|$)/g, '.#').replace(/^second\./, 'secondSource.');
  return LENGTHS[path] ?? LENGTHS[`body.${CALLED[path] ?? path}`] ?? otherwise;
}

/** What the form says is wrong with a field. */
function useError(name: Name): string | undefined {
  const { getFieldState, formState } = useFormContext<SheetValues>();
  return getFieldState(name, formState).error?.message;
}

/** A text of the sheet, with its label and what is wrong with it. */
export function TextField({
  name,
  label,
  hint,
  ...rest
}: FieldProps & Pick<ComponentProps<typeof Input>, 'inputMode' | 'placeholder' | 'autoFocus' | 'disabled'>) {
  const { register, trigger } = useFormContext<SheetValues>();
  const error = useError(name);
  return (
    <Labelled label={label} error={error} hint={hint}>
      <Input
        {...register(name, {
          // a complaint goes as soon as what is typed gives it no ground
          onChange: () => error && void trigger(name),
        })}
        autoComplete="off"
        maxLength={most(name)}
        {...rest}
      />
    </Labelled>
  );
}

/** A choice of the sheet; each option is its value and its words. */
export function ChoiceField({
  name,
  label,
  hint,
  options,
  onChosen,
}: FieldProps & {
  readonly options: readonly (readonly [string, string])[];
  readonly onChosen?: (value: string) => void;
}) {
  const { register } = useFormContext<SheetValues>();
  return (
    <Labelled label={label} error={useError(name)} hint={hint}>
      <Select
        {...register(name, {
          onChange: (event: ChangeEvent<HTMLSelectElement>) => onChosen?.(event.target.value),
        })}
      >
        {options.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </Select>
    </Labelled>
  );
}

/** A yes or no of the sheet. */
export function TickField({ name, label }: { readonly name: Name; readonly label: string }) {
  const { register } = useFormContext<SheetValues>();
  return <Tick label={label} {...register(name)} />;
}

/** A text of several lines of the sheet. */
export function AreaField({ name, label, hint }: FieldProps) {
  const { register } = useFormContext<SheetValues>();
  return (
    <Labelled label={label} error={useError(name)} hint={hint}>
      <TextArea
        {...register(name)}
        rows={3}
        maxLength={name.endsWith('.text') ? LONG : most(name, LONG)}
        autoComplete="off"
      />
    </Labelled>
  );
}

interface PartProps {
  readonly title: string;
  readonly columns?: number;
  /** nothing stands in it: it is folded away until somebody opens it */
  readonly folded?: boolean;
  readonly children: ReactNode;
}

/** A part of the form under its own heading, its fields in columns. */
export function FormPart({ title, columns = 3, folded = false, children }: PartProps): ReactElement {
  const [opened, setOpened] = useState(!folded);
  const shown = opened || !folded;
  return (
    <Box
      as="fieldset"
      borderTop="1px solid"
      borderColor="ink"
      paddingTop="2"
      paddingBottom={shown ? '5' : '1'}
    >
      <Box as="legend" fontSize="lg" fontWeight="650" paddingRight="3">
        {shown ? (
          title
        ) : (
          <Button
            variant="plain"
            paddingX="0"
            textDecoration="none"
            fontSize="lg"
            gap="2"
            whiteSpace="normal"
            textAlign="left"
            aria-expanded={false}
            onClick={() => setOpened(true)}
          >
            {title} <Plus size={18} aria-hidden />
          </Button>
        )}
      </Box>
      {shown && (
        <Box
          display="grid"
          gap="4"
          alignItems="start"
          gridTemplateColumns={{ base: 'minmax(0, 1fr)', md: `repeat(${columns}, minmax(0, 1fr))` }}
        >
          {children}
        </Box>
      )}
    </Box>
  );
}
