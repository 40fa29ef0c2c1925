// One of a few, told by their keys and words.
import { Select } from './Select';

interface Props {
  label: string;
  value: string;
  options: readonly (readonly [key: string, words: string])[];
  change: (key: string) => void;
}

export function Choice({ label, value, options, change }: Props) {
  return (
    <Select className="chip" aria-label={label} value={value} onChange={(event) => change(event.target.value)}>
      {options.map(([key, words]) => (
        <option key={key} value={key}>
          {words}
        </option>
      ))}
    </Select>
  );
}
