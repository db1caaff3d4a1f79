import { Flex } from '@chakra-ui/react';
import { Labelled, Select } from '../app/Labelled.tsx';
import type { PieceWay } from './pieceWay.ts';

const FROM: readonly (readonly [PieceWay['from'], string])[] = [
  ['drawer', 'the drawer'],
  ['bought', 'bought for it'],
  ['engine', 'beside the engine'],
  ['unsaid', 'not said'],
];
const TO: readonly (readonly [PieceWay['to'], string])[] = [
  ['drawer', 'the drawer'],
  ['engine', 'beside the engine'],
  ['scrapped', 'scrapped'],
  ['unsaid', 'not said'],
];

interface Props {
  readonly way: PieceWay;
  readonly onChoose: (way: Partial<PieceWay>) => void;
  /** nothing comes out */
  readonly bare: boolean;
}

/** Where the piece comes from, and where the one that is out goes: said with the fitting itself, so that the ledger follows it. */
export function PieceWayChoice({ way, onChoose, bare }: Props) {
  return (
    <Flex gap="3" marginTop="2">
      <Labelled label="It comes from">
        <Select
          value={way.from}
          onChange={({ target }) => onChoose({ from: target.value as PieceWay['from'] })}
        >
          {FROM.map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </Select>
      </Labelled>
      {!bare && (
        <Labelled label="The one out goes to">
          <Select value={way.to} onChange={({ target }) => onChoose({ to: target.value as PieceWay['to'] })}>
            {TO.map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </Select>
        </Labelled>
      )}
    </Flex>
  );
}
