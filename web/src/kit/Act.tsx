// What can be pressed: MUI's button in our clothes. `plain` stands in a line of words, `line` is a button, `main` the
// one that is meant.
import { Button, type ButtonProps } from '@mui/material';

type Kind = 'plain' | 'line' | 'main';

/** What its kind is called in the stylesheet, for the places where it stands. */
const CALLED: Record<Kind, string> = { plain: 'plain', line: 'btn', main: 'btn main' };

export function Act({ kind = 'plain', className, ...rest }: Omit<ButtonProps, 'variant'> & { kind?: Kind }) {
  return <Button variant={kind} className={[CALLED[kind], className].filter(Boolean).join(' ')} {...rest} />;
}
