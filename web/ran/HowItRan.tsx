import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { RAN_KINDS, type RanKind, type RanLine } from '@zero-lash/contract/ran';
import { useState, type FormEvent } from 'react';
import { Choice } from '../app/Choice.tsx';
import { Labelled } from '../app/Labelled.tsx';
import { PartHeading } from '../app/Page.tsx';
import { numberTyped } from '@zero-lash/core/length';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { useRole } from '../app/useRole.ts';
import { useShopTimes } from '../app/useShopTimes.ts';
import { useKeptText } from '../app/useKeptText.ts';

/** What a figure of each kind is mostly said in. */
const UNITS: Readonly<Record<RanKind, string>> = {
  ...{ power: 'kW', starts: 'tries', temperature: '°C', consumption: '', noise: '', word: '' },
};

/** How the engine ran on these settings: figures and the owner's word, so that one build can be held against another. */
export function HowItRan({ build }: { readonly build: BuildView }) {
  const { mayWork } = useRole();
  const times = useShopTimes();
  const put = useBenchWrite(build.id);
  const [kind, setKind] = useState<RanKind>('word');
  const [figure, setFigure] = useKeptText(`ran:${build.id}:figure`);
  const [unit, setUnit] = useKeptText(`ran:${build.id}:unit`);
  const [text, setText] = useKeptText(`ran:${build.id}`);
  const [complaint, setComplaint] = useState<string>();
  if (!build.signOff) return null;

  function keep(event: FormEvent) {
    event.preventDefault();
    const value = figure.trim() === '' ? null : numberTyped(figure);
    if (figure.trim() !== '' && (value === null || !Number.isFinite(value)))
      return setComplaint('A number such as 42.5.');
    if (value === null && text.trim() === '') return setComplaint('A figure, or a word beside.');
    setComplaint(undefined);
    put({
      kind: 'ran',
      about: RAN_KINDS[kind],
      body: {
        lines: [{ kind, value, unit: value === null ? '' : unit.trim() || UNITS[kind], text: text.trim() }],
      },
    });
    setFigure('');
    setText('');
    return undefined;
  }

  return (
    <Box as="section" aria-label="How it ran">
      <PartHeading>How it ran</PartHeading>
      {build.ran.map(({ id, by, at, lines }) => (
        <Box key={id} borderBottom="1px solid" borderColor="hairline" paddingY="1">
          {lines.map((line) => ranInWords(line)).join('; ')}
          <Box as="span" color="faded" fontSize="sm">
            {' '}
            {by}, {times.day(at)}
          </Box>
        </Box>
      ))}
      {mayWork && !build.closedAt && (
        <form onSubmit={keep} noValidate>
          <Flex gap="3" alignItems="flex-end" flexWrap="wrap" marginTop="2">
            <Box width="180px">
              <Labelled label="What">
                <Choice of={RAN_KINDS} value={kind} onChoose={setKind} />
              </Labelled>
            </Box>
            <Box width="110px">
              <Labelled label="Figure" error={complaint}>
                <Input
                  value={figure}
                  inputMode="decimal"
                  maxLength={12}
                  onChange={({ target }) => setFigure(target.value)}
                />
              </Labelled>
            </Box>
            <Box width="90px">
              <Labelled label="Unit">
                <Input
                  value={unit}
                  placeholder={UNITS[kind]}
                  maxLength={20}
                  onChange={({ target }) => setUnit(target.value)}
                />
              </Labelled>
            </Box>
            <Box flex="1" minWidth="200px">
              <Labelled label="In a word">
                <Input value={text} maxLength={300} onChange={({ target }) => setText(target.value)} />
              </Labelled>
            </Box>
            <Button type="submit">Write down</Button>
          </Flex>
        </form>
      )}
    </Box>
  );
}

/** A figure and a word as they are read: `Power 42.5 kW, smooth`. */
export function ranInWords({ kind, value, unit, text }: RanLine): string {
  const figure = value === null ? '' : ` ${value}${unit === '' ? '' : ` ${unit}`}`;
  return `${RAN_KINDS[kind]}${figure}${text === '' ? '' : `${value === null ? ': ' : ', '}${text}`}`;
}
