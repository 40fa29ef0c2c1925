// A field with the browser's own properties, for forms and tables: MUI's input.
import { InputBase } from '@mui/material';
import type { ComponentProps, Ref } from 'react';

type Props = Omit<ComponentProps<'input'>, 'ref' | 'color'> & { ref?: Ref<HTMLInputElement> };

export function Input({ ref, style, ...rest }: Props) {
  return <InputBase className="fieldroot" style={style} inputRef={ref} slotProps={{ input: rest }} />;
}
