import { METRIC } from '@zero-lash/core/length';
import { Box, Button, Flex } from '@chakra-ui/react';
import { memo, useState } from 'react';
import { CSV, FileButton } from '../app/FileButton.tsx';
import { Note } from '../app/Note.tsx';
import { saveFile } from '../app/saveFile.ts';
import type { BuildView } from '../builds/buildView.ts';
import type { LineWithWarning, ReadCsv } from './csv.ts';
import { characteristicOf, type FigureLine } from '@zero-lash/core/wear';
import type { WearWork } from './useWear.ts';
import { warningInWords } from './words.ts';

interface Props {
  readonly build: BuildView;
  readonly work: WearWork;
}

/** The most lines that go in one write. */
const AT_ONCE = 500;
const BAD_SHOWN = 20;
const unitOf = ({ item, field }: FigureLine) =>
  characteristicOf(item)!.fields.find(({ key }) => key === field)!.unit;
const MOST_BYTES = 2_000_000;

/** Reads a wear sheet from a CSV file, after showing what is in it, and writes one. */
export const WearCsv = memo(function WearCsv({ build, work }: Props) {
  const [read, setRead] = useState<
    (ReadCsv & { readonly name: string; readonly warnings: readonly LineWithWarning[] }) | null
  >(null);
  const [complaint, setComplaint] = useState<string | null>(null);

  async function open(file: File) {
    setRead(null);
    setComplaint(null);
    if (file.size > MOST_BYTES)
      return setComplaint(`${file.name} is larger than any wear sheet: nothing of it was read.`);
    const { warningsIn, readWearCsv } = await import('./csv.ts');
    const found = readWearCsv(await file.text(), build.sheet.pattern);
    if ('error' in found) setComplaint(`${file.name}: ${found.error}`);
    else
      setRead({
        ...found,
        name: file.name,
        warnings: warningsIn(found.lines, work.sheet, build.sheet.pattern),
      });
  }

  async function save() {
    const { writeWearCsv } = await import('./csv.ts');
    saveFile(`${build.engine.name} build ${build.number} wear.csv`, writeWearCsv(work.sheet));
  }

  const sure = read?.lines.filter((line) => !read.warnings.some((warned) => warned.line === line)) ?? [];

  function take(lines: ReadCsv['lines']) {
    for (let from = 0; from < lines.length; from += AT_ONCE)
      work.write(`Readings from ${read!.name}`, lines.slice(from, from + AT_ONCE));
    setRead(null);
  }

  return (
    <Box>
      <Flex gap="2" flexWrap="wrap">
        {work.enabled && (
          <FileButton what="CSV of readings" accept={CSV} onFile={open}>
            Read figures from a CSV
          </FileButton>
        )}
        <Button variant="plain" onClick={() => void save()}>
          Save as CSV
        </Button>
      </Flex>
      {complaint && (
        <Note tone="tight" role="alert" marginTop="2">
          {complaint}
        </Note>
      )}
      {read && (
        <Note role="region" aria-label="What is in the file" marginTop="2">
          <b>{read.name}</b>: {read.lines.length} {read.lines.length === 1 ? 'field' : 'fields'} can be taken
          {read.bad.length > 0 && `, ${read.bad.length} cannot`}.
          {read.lines.length > 0 && (
            <Box fontFamily="mono" fontSize="sm">
              {read.lines
                .slice(0, 3)
                .map(({ item, place, field, asTyped }) => `${item} ${place} ${field}: ${asTyped}`)
                .join(' · ')}
              {read.lines.length > 3 && ' …'}
            </Box>
          )}
          <Box as="ul">
            {read.bad.slice(0, BAD_SHOWN).map(({ line, text, why }) => (
              <Box as="li" key={line} fontSize="sm" color="tight">
                Line {line}, <code>{text}</code>: {why}.
              </Box>
            ))}
          </Box>
          {read.bad.length > BAD_SHOWN && <Box fontSize="sm">and {read.bad.length - BAD_SHOWN} more.</Box>}
          {read.warnings.map(({ line, warning }) => (
            <Box key={`${line.item} ${line.place} ${line.field}`} fontSize="sm" color="brass">
              {line.item} {line.place} {line.field}: {warningInWords(warning, unitOf(line), METRIC)}
              {warning.suggestion !== null && ` Was ${warning.suggestion} meant?`}
            </Box>
          ))}
          <Flex gap="2" marginTop="2" flexWrap="wrap">
            <Button variant="solid" disabled={sure.length === 0} onClick={() => take(sure)}>
              Take {sure.length} in
            </Button>
            {read.warnings.length > 0 && (
              <Button
                onClick={() =>
                  take(read.lines.map((line) => (sure.includes(line) ? line : { ...line, doubtKept: true })))
                }
              >
                Take all {read.lines.length}, as they are
              </Button>
            )}
            <Button onClick={() => setRead(null)}>Leave it</Button>
          </Flex>
        </Note>
      )}
    </Box>
  );
});
