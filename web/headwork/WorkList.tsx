import { Box, Button, Flex, Heading, Input } from '@chakra-ui/react';
import { alongAxis, OPERATION_WORDS, type HeadWorkLine } from '@zero-lash/core/headwork';
import { parseLength, type ShopUnit } from '@zero-lash/core/length';
import { useState } from 'react';
import { useLengths } from '../app/lengths.ts';

interface Props {
  readonly lines: readonly HeadWorkLine[];
  readonly enabled: boolean;
  readonly onWrite: (about: string, lines: readonly HeadWorkLine[]) => void;
}

/** The work planned, piece by piece; what was done is written down as it was measured, valve by valve. */
export function WorkList({ lines, enabled, onWrite }: Props) {
  const steps = [...new Set(lines.map(({ step }) => step))].map((step) =>
    lines.filter((line) => line.step === step),
  );
  if (steps.length === 0) return <Box color="faded">No work is planned yet.</Box>;
  return (
    <Box as="ul" aria-label="Work planned and done">
      {steps.map((step) => (
        <Step key={step[0]!.step} step={step} enabled={enabled} onWrite={onWrite} />
      ))}
    </Box>
  );
}

interface StepProps extends Omit<Props, 'lines'> {
  readonly step: readonly HeadWorkLine[];
}

function Step({ step, enabled, onWrite }: StepProps) {
  const { figure, unit } = useLengths();
  const [open, setOpen] = useState(false);
  const [first] = step;
  const name = OPERATION_WORDS[first!.operation];
  const done = step.filter((line) => line.done !== null).length;
  const depth = figure(alongAxis({ ...first!, done: null }));
  return (
    <Box as="li" borderTop="1px solid" borderColor="hairline" paddingY="1">
      <Flex gap="3" alignItems="center" flexWrap="wrap">
        <Heading as="h4" fontSize="md" fontWeight="600" flex="1" minWidth="220px">
          {name} {depth} {unit}, {step.length === 1 ? first!.valve : `${step.length} valves`}
          <Box as="span" fontWeight="400" color="faded">
            {' '}
            · {done === step.length ? 'done' : done === 0 ? 'planned' : `${done} of ${step.length} done`}
          </Box>
        </Heading>
        {enabled && (
          <>
            <Button aria-expanded={open} onClick={() => setOpen(!open)}>
              Change or write down what was done
            </Button>
            <Button
              variant="plain"
              aria-label={`Plan ${name} no more`}
              onClick={() =>
                onWrite(
                  `${name}, planned no more`,
                  step.map((line) => ({ ...line, dropped: true })),
                )
              }
            >
              Remove
            </Button>
          </>
        )}
      </Flex>
      {open && enabled && (
        <Box as="table" maxWidth="520px">
          <thead>
            <tr>
              <th scope="col">Valve</th>
              <th scope="col">Planned, {unit}</th>
              <th scope="col">Done, {unit}</th>
            </tr>
          </thead>
          <tbody>
            {step.map((line) => (
              <tr key={line.valve}>
                <th scope="row">{line.valve}</th>
                <td>
                  <Depth
                    label={`${name} at ${line.valve}, planned`}
                    mm={alongAxis({ ...line, done: null })}
                    unit={unit}
                    onDepth={(mm) =>
                      mm !== null &&
                      onWrite(`${name} at ${line.valve}`, [
                        { ...line, depth: mm, normalDepth: null, seatAngle: null },
                      ])
                    }
                  />
                </td>
                <td>
                  <Depth
                    label={`${name} at ${line.valve}, done`}
                    mm={line.done}
                    unit={unit}
                    onDepth={(mm) => onWrite(`${name} done at ${line.valve}`, [{ ...line, done: mm }])}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </Box>
      )}
    </Box>
  );
}

interface DepthProps {
  readonly label: string;
  readonly mm: number | null;
  readonly unit: ShopUnit;
  readonly onDepth: (mm: number | null) => void;
}

/** A depth that is typed, and written when it is left. */
function Depth({ label, mm, unit, onDepth }: DepthProps) {
  const { figure } = useLengths();
  const [typed, setTyped] = useState<string | null>(null);
  const shown = mm === null ? '' : figure(mm);
  const text = typed ?? shown;
  const read = text.trim() === '' ? null : parseLength(text, unit);
  const wrong = read !== null && ('error' in read || read.mm > 10);
  const commit = () => {
    if (typed === null || wrong) return;
    if (typed.trim() !== shown) onDepth(read === null ? null : 'mm' in read ? read.mm : null);
    setTyped(null);
  };
  return (
    <Input
      aria-label={label}
      aria-invalid={wrong || undefined}
      value={text}
      width="100px"
      maxLength={12}
      inputMode="decimal"
      onChange={({ target }) => setTyped(target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          event.preventDefault();
          commit();
        }
      }}
    />
  );
}
