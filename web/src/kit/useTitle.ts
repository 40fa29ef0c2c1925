// What the browser's tab is called: what is on it first, since a tab is short.
import { useEffect } from 'react';

/** Names the tab while the screen is shown; nothing until it is known. */
export function useTitle(what: string | undefined): void {
  useEffect(() => {
    document.title = what ? `${what} · Steelk` : 'Steelk';
  }, [what]);
}
