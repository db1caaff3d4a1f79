import { Button, Flex } from '@chakra-ui/react';
import { Printer } from 'lucide-react';
import { saveFile } from '../app/saveFile.ts';
import { writeCsv } from '../app/writeCsv.ts';
import type { BuildView } from '../builds/buildView.ts';
import type { KnownGap } from '@zero-lash/core/measuring';
import { proofLines } from '@zero-lash/core/signoff';

/** What is printed of a build: the owner's sheet, its label, its parts; and its points as a file. */
export function BuildPapers({ build }: { readonly build: BuildView }) {
  const papers = [
    ['Owner’s sheet (PDF)', `/api/builds/${build.id}/owner-sheet`],
    ['Label (PDF)', `/api/engines/${build.engine.id}/label`],
    ['Parts list (PDF)', `/api/builds/${build.id}/parts-list`],
  ] as const;
  return (
    <Flex gap="3" flexWrap="wrap" marginTop="3" alignItems="center">
      {papers.map(([name, address]) => (
        <a key={name} className="zl-tool" href={address} target="_blank" rel="noreferrer">
          <Printer size={18} aria-hidden /> {name}
        </a>
      ))}
      <Button
        variant="plain"
        onClick={() => saveFile(`${build.engine.name}-${build.number}.csv`, writePointsCsv(build))}
      >
        Points as CSV
      </Button>
    </Flex>
  );
}

/** Writes every point of a build as CSV: limits, as found, as it should be, as proved; mm. What nothing bounds stays empty. */
export function writePointsCsv(build: BuildView): string {
  const mm = (value: number | null | undefined) => value ?? '';
  const from = (gap: KnownGap | null) => (gap && gap.floor !== false ? gap.lo : '');
  return writeCsv(
    [
      ...['point', 'role', 'min mm', 'max mm', 'found from', 'found to', 'should be from', 'should be to'],
      ...['proved from', 'proved to', 'verdict'],
    ],
    proofLines(build).map(({ point, found, forecast, proved }) => [
      ...[point.key, point.role, point.min, point.max, from(found), mm(found?.hi)],
      ...[from(forecast), mm(forecast?.hi), from(proved), mm(proved?.hi), proved?.verdict ?? ''],
    ]),
  );
}
