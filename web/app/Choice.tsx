import { Select } from './Labelled.tsx';

interface Props<Key extends string> {
  /** what may be chosen, with the words for it, in their order */
  readonly of: Readonly<Record<Key, string>>;
  readonly value: Key;
  readonly onChoose: (key: Key) => void;
  readonly disabled?: boolean;
  readonly id?: string;
  readonly 'aria-label'?: string;
}

/** A choice of one among a few, each by its words. It takes a label as any field does. */
export function Choice<Key extends string>({ of, value, onChoose, ...rest }: Props<Key>) {
  return (
    <Select {...rest} value={value} onChange={({ target }) => onChoose(target.value as Key)}>
      {(Object.entries(of) as [Key, string][]).map(([key, words]) => (
        <option key={key} value={key}>
          {words}
        </option>
      ))}
    </Select>
  );
}
