// What can be pressed: MUI's button in our clothes. `plain` stands in a line of words, `line` is a button, `main` the
// one that is meant.
import { Button, type ButtonProps } from '@mui/material';
import { Link } from 'react-router';

type Kind = 'plain' | 'line' | 'main';
type Props = Omit<ButtonProps, 'variant'> & { kind?: Kind };

export function Act({ kind = 'plain', className, ...rest }: Props) {
  return <Button variant={kind} className={[kind, className].filter(Boolean).join(' ')} {...rest} />;
}

/** The same that goes to another screen. */
export function ActLink({ to, ...rest }: Props & { to: string }) {
  return <Act {...rest} {...{ component: Link, to }} />;
}

/** The same that takes a file of the server's. */
export function ActFile({ href, ...rest }: Props & { href: string }) {
  return <Act {...rest} {...{ component: 'a', href, download: true }} />;
}
