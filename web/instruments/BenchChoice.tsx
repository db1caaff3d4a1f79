import { Labelled, Select } from '../app/Labelled.tsx';
import { benchChosen } from '../app/preferences.ts';
import { useAppDispatch } from '../app/store.ts';
import type { BenchTools } from './useBench.ts';

/** Which bench this device stands at: its blades are gone by. */
export function BenchChoice({ bench }: { readonly bench: BenchTools }) {
  const dispatch = useAppDispatch();
  return (
    <Labelled label="At bench">
      <Select value={bench.bench?.id ?? ''} onChange={(event) => dispatch(benchChosen(event.target.value))}>
        {bench.benches.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </Select>
    </Labelled>
  );
}
