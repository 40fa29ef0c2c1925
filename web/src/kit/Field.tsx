// A field to type in: MUI's input, in a line of words (`chip`) or alone; names that it may be one of are suggested.
import { InputBase, type InputBaseProps } from '@mui/material';
import { useId, type Ref } from 'react';

interface Props extends Omit<InputBaseProps, 'onChange' | 'ref' | 'value'> {
  value: string;
  /** What is typed, for who does not see it. */
  label: string;
  change: (text: string) => void;
  /** Names that it may be one of. */
  names?: string[];
  /** Numbers and names, not words. */
  mono?: boolean;
  /** As wide as what is in it, in a line of words. */
  chip?: boolean;
  /** Marks values that are typed one after another. */
  'data-value'?: string;
  ref?: Ref<HTMLInputElement>;
}

export function Field({ label, change, names, mono, chip, className, ref, 'data-value': marked, ...rest }: Props) {
  const list = useId();
  const length = (rest.value || (rest.placeholder ?? '')).length;
  return (
    <>
      <InputBase
        {...rest}
        className={[chip ? 'chipfield' : 'fieldbox', className].filter(Boolean).join(' ')}
        inputRef={ref}
        slotProps={{
          ...rest.slotProps,
          input: {
            'aria-label': label,
            className: `${chip ? 'chip' : 'field'}${mono ? ' mono' : ''}`,
            ...(names ? { list } : {}),
            ...(chip ? { size: Math.max(4, length + 1) } : {}),
            ...(marked === undefined ? {} : { 'data-value': marked }),
            ...(rest.slotProps?.input as object | undefined),
          },
        }}
        onChange={(event) => change(event.target.value)}
      />
      {names && (
        <datalist id={list}>
          {names.map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
      )}
    </>
  );
}
