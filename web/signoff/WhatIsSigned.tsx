import { counted } from '@zero-lash/core/length';
import { Box } from '@chakra-ui/react';
import { findings, lastChange, lastDone, currentLines, meantAt, statusOf } from '@zero-lash/core/builds';
import { alongAxis, OPERATION_WORDS, type HeadWorkLine } from '@zero-lash/core/headwork';
import { conditionCautions } from '@zero-lash/core/measuring';
import { setColdInWords, settingInWords } from '@zero-lash/core/setting';
import { ROLE_WORDS } from '@zero-lash/core/sheets';
import { PARTS, partDispositions, wearSheetOf } from '@zero-lash/core/wear';
import { proofLines } from '@zero-lash/core/signoff';
import type { BuildView } from '../builds/buildView.ts';
import { useLengths } from '../app/lengths.ts';
import { STATE_WORDS } from '../drawings/states.ts';

/** What a signature signs, on one page: found, wear, work, set, proved, let stand, and the cautions that are open. */
export function WhatIsSigned({ build }: { readonly build: BuildView }) {
  const { band, length } = useLengths();
  const lines = proofLines(build);
  const found = [...findings(build.rounds.filter(({ kind }) => kind === 'as-found')).values()];
  const out = found.filter(({ verdict }) => verdict !== 'in-spec');
  const fates = partDispositions(wearSheetOf(build.wear, build.sheet.wearLimits), build.sheet.pattern);
  const worn = fates.filter(({ verdict }) => verdict === 'watch' || verdict === 'replace');
  const work = [
    ...currentLines<HeadWorkLine>(build.headwork, ({ step, valve }) => `${step} ${valve}`).values(),
  ].filter(({ line }) => !line.dropped);
  const set = lines.filter(({ point }) => lastChange(build.settings, point.key) !== null);
  const proved = lines.filter(({ proved: proof }) => proof?.verdict === 'in-spec');
  const asFound = proved.filter(({ leftAsFound }) => leftAsFound).length;
  const byAllowance = proved.filter(({ proved: proof }) => proof!.onLimit);
  const { accepted, partsOff, partsExplained, unreached, apart } = statusOf(build);
  const unmeasured = [...unreached, ...apart].map((point) => {
    const said = lastDone(build.settings, point)!;
    return `${point} ${settingInWords(said, length)}, said by ${said.by}`;
  });
  const outside = build.sheet.limits.filter(({ aimedOutside }) => aimedOutside).map(({ role }) => role);
  const ofRounds = build.rounds
    .filter(({ kind }) => kind === 'proved' || kind === 'as-found')
    .flatMap(({ kind, conditions }) =>
      conditions.slice(-1).flatMap((said) => conditionCautions(meantAt(build.sheet, kind)!, said)),
    );
  const cautions = [
    ...(build.setCold ? [setColdInWords(build.setCold, band)] : []),
    ...ofRounds,
    ...(partsOff.length > 0
      ? [
          `The count does not balance: ${partsOff.join(', ')}${partsExplained ? ', which a lead explained' : ''}.`,
        ]
      : []),
    ...(outside.length > 0
      ? [`Aimed outside the maker’s band: ${outside.map((role) => ROLE_WORDS[role]).join(', ')}.`]
      : []),
  ];
  const rows: readonly (readonly [string, string])[] = [
    [
      'Found',
      found.length === 0
        ? 'nothing was measured as found'
        : `${counted(found.length, 'point')}, ${out.length === 0 ? 'all in spec' : `${out.length} not in spec: ${out.map(({ point, verdict }) => `${point} ${STATE_WORDS[verdict]}`).join(', ')}`}`,
    ],
    [
      'Wear',
      worn.length === 0
        ? 'nothing to watch or replace'
        : worn
            .map(
              ({ part, place, verdict, decided }) =>
                `${part === 'seal' ? place : `${PARTS[part].title.toLowerCase()} ${place}`}: ${verdict}${decided?.order === 'fitted' ? ', fitted new' : ''}`,
            )
            .join('; '),
    ],
    [
      'Work',
      work.length === 0
        ? 'none'
        : work
            .map(
              ({ line }) =>
                `${OPERATION_WORDS[line.operation].toLowerCase()} ${line.valve} ${length(alongAxis(line))}${line.done === null ? ', planned and not said to be done' : ''}`,
            )
            .join('; '),
    ],
    ['Set', set.length === 0 ? 'nothing was changed' : set.map(({ point }) => point.key).join(', ')],
    [
      'Proved',
      `${proved.length} of ${lines.length} in spec${byAllowance.length > 0 ? `, ${byAllowance.map(({ point }) => point.key).join(', ')} only by the allowance` : ''}${asFound > 0 ? `; ${asFound} of them as found, and left alone` : ''}`,
    ],
    ...(unmeasured.length === 0 ? [] : [['Not measured', unmeasured.join('; ')] as const]),
    ['Left as is', accepted.size === 0 ? 'none' : [...accepted].join(', ')],
    ['Open cautions', cautions.length === 0 ? 'none' : [...new Set(cautions)].join(' ')],
  ];
  return (
    <Box as="section" aria-label="What is signed" marginTop="3">
      <Box
        as="dl"
        display="grid"
        gridTemplateColumns="max-content minmax(0, 1fr)"
        columnGap="4"
        rowGap="1"
        overflowWrap="anywhere"
      >
        {rows.map(([name, said]) => (
          <Box key={name} display="contents">
            <Box as="dt" fontWeight="650">
              {name}
            </Box>
            <dd>{said}</dd>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
