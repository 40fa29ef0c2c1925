// One of a list, with its options written as they are: MUI's own select over the browser's, so that keyboard, touch and
// readers have what they know.
import { NativeSelect } from '@mui/material';
import type { ComponentProps } from 'react';

type Props = Omit<ComponentProps<'select'>, 'ref' | 'color'>;

export function Select({ children, value, onChange, disabled, style, ...rest }: Props) {
  return (
    <NativeSelect
      disableUnderline
      value={value}
      disabled={disabled}
      style={style}
      onChange={(event) => onChange?.(event as React.ChangeEvent<HTMLSelectElement>)}
      slotProps={{ input: rest as object }}
    >
      {children}
    </NativeSelect>
  );
}
