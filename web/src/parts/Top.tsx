import { Link } from 'react-router';
import { useSettings } from '../settings';
import { Act } from '../kit/Act';

export function Top({ children }: { children?: React.ReactNode }) {
  const { dark, setDark } = useSettings();
  return (
    <header className="bar">
      <Link className="name" to="/">
        Steelk
      </Link>
      <nav aria-label="Where you are">{children}</nav>
      <span className="grow" />
      <Act onClick={() => setDark(!dark)}>{dark ? 'light' : 'dark'}</Act>
    </header>
  );
}
