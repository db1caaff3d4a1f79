import { Box } from '@chakra-ui/react';
import type { PastRecheck } from '@zero-lash/contract/rechecks';
import { causesOf, CHANGE_WORDS, onMeter, type Metered } from '@zero-lash/core/rechecks';
import { dayInWords } from '../app/dates.ts';
import { useLengths } from '../app/lengths.ts';
import { ShopTime } from '../app/ShopTime.tsx';

interface Props {
  readonly recheck: PastRecheck;
  readonly engine: Metered & { readonly usageUnit: string };
}

/** What is forecast for a planned recheck: which points may be out, which move oddly, and what a lead did about it. */
export function WhatIsForecast({ recheck, engine }: Props) {
  const { interval } = useLengths();
  const points = recheck.forecast?.points ?? [];
  const odd = points.filter(({ unlike }) => unlike !== null);
  const risky = points
    .filter(({ pTight, pLoose }) => pTight + pLoose >= SHOWN_FROM)
    .sort((a, b) => b.pTight + b.pLoose - (a.pTight + a.pLoose))
    .slice(0, MOST);
  return (
    <Box fontSize="sm" marginTop="1">
      {recheck.byForecast && recheck.planUsage !== null && (
        <Box>
          <b>Sooner by its forecast</b>: the plan alone would check at {onMeter(recheck.planUsage, engine)}{' '}
          {engine.usageUnit}.
        </Box>
      )}
      {risky.map(({ point, mean, sd, pTight, pLoose, byDefault }) => (
        <Box key={point}>
          {point} may be {pTight >= pLoose ? 'tight' : 'loose'} by then,{' '}
          {Math.round(Math.max(pTight, pLoose) * 100)} %:{' '}
          {interval({ lo: rounded(mean - sd), hi: rounded(mean + sd) })} expected
          {byDefault && ', by the stated default alone: it moves no date'}
        </Box>
      ))}
      {odd.map(({ point, unlike }) => (
        <Box key={`odd ${point}`}>
          <b>
            {point} moves {unlike} than its neighbours
          </b>
          : look for {causesOf(unlike!)[0]}
        </Box>
      ))}
      {recheck.changes.map(({ kind, day, why, by, at }) => (
        <Box key={`${kind} ${at}`} color="faded" _firstLetter={{ textTransform: 'uppercase' }}>
          {kind === 'bench' && day === null ? 'taken off the bench' : CHANGE_WORDS[kind]}
          {day && ` ${kind === 'moved' ? 'to' : 'on'} ${dayInWords(day)}`}, by {by}, <ShopTime at={at} day />
          {why && `: ${why}`}
        </Box>
      ))}
    </Box>
  );
}

/** Nobody reads more of a forecast. */
const rounded = (mm: number) => Math.round(mm * 100) / 100;

/** A point is named from this likelihood on, and no more of them. */
const SHOWN_FROM = 0.1;
const MOST = 4;
