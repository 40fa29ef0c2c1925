// One of a few: MUI's own select over the browser's, so that keyboard, touch and readers have what they know.
import { NativeSelect } from '@mui/material';

interface Props {
  label: string;
  value: string;
  options: readonly (readonly [key: string, words: string])[];
  change: (key: string) => void;
  id?: string;
  /** As a field of a form, and not as a word in a line. */
  field?: boolean;
  disabled?: boolean;
  className?: string;
}

export function Choice({ label, value, options, change, id, field, disabled, className }: Props) {
  return (
    <NativeSelect
      disableUnderline
      value={value}
      disabled={disabled}
      className={className}
      slotProps={{ input: { 'aria-label': label, id, className: field ? 'field' : 'chip' } }}
      onChange={(event) => change(event.target.value)}
    >
      {options.map(([key, words]) => (
        <option key={key} value={key}>
          {words}
        </option>
      ))}
    </NativeSelect>
  );
}
