import { text } from 'node:stream/consumers';
import { compute, ComputeInputError, OPERATIONS } from './compute.ts';

const REFUSED = 2;

function refuse(message: string): void {
  process.stderr.write(`${message}\n`);
  process.exitCode = REFUSED;
}

/** The shell command: standard input holds one input or an array of them, the answer has the same shape. */
async function main([name]: readonly string[]): Promise<void> {
  if (name === undefined) {
    process.stdout.write(`${Object.keys(OPERATIONS).join('\n')}\n`);
    return;
  }
  if (!Object.hasOwn(OPERATIONS, name)) {
    refuse(`unknown operation “${name}”; there are: ${Object.keys(OPERATIONS).join(', ')}`);
    return;
  }
  let input: unknown;
  try {
    input = JSON.parse(await text(process.stdin));
  } catch (error) {
    refuse(`standard input is not JSON: ${(error as Error).message.split('\n')[0]}`);
    return;
  }
  try {
    const answer = Array.isArray(input)
      ? input.map((item, index) => computeAt(name, item, index))
      : compute(name, input);
    process.stdout.write(`${JSON.stringify(answer)}\n`);
  } catch (error) {
    if (!(error instanceof ComputeInputError)) throw error;
    refuse(error.message);
  }
}

function computeAt(name: string, item: unknown, index: number): unknown {
  try {
    return compute(name, item);
  } catch (error) {
    if (!(error instanceof ComputeInputError)) throw error;
    throw new ComputeInputError(`[${index}] ${error.message}`);
  }
}

await main(process.argv.slice(2));
