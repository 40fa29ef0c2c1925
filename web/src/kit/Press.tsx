// A thing of our own that can be pressed (a chip, a letter, a label on the stage): MUI's base with no clothes at all.
import { ButtonBase, type ButtonBaseProps } from '@mui/material';

export function Press(props: ButtonBaseProps) {
  return <ButtonBase {...props} />;
}
