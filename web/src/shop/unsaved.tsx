// What of the shop's page is changed and not saved: whoever leaves is asked first.
import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { create } from 'zustand';

const useNames = create<{ names: string[] }>()(() => ({ names: [] }));

/** Says whether a part of the page, by its name in a sentence, is changed and not saved. */
export function useUnsaved(name: string, changed: boolean): void {
  useEffect(() => {
    if (!changed) return;
    useNames.setState(({ names }) => ({ names: [...names, name] }));
    return () => useNames.setState(({ names }) => ({ names: names.filter((one) => one !== name) }));
  }, [name, changed]);
}

/** Asks before the page is left, by a link or with the window. */
export function LeaveGuard() {
  const names = useNames((s) => s.names);
  const [to, setTo] = useState<string | null>(null);
  const navigate = useNavigate();
  const any = names.length > 0;
  useEffect(() => {
    if (!any) return;
    const unload = (event: BeforeUnloadEvent) => event.preventDefault();
    const click = (event: MouseEvent) => {
      // In a window of its own nothing is left.
      if (event.ctrlKey || event.metaKey || event.shiftKey) return;
      const link = (event.target as HTMLElement).closest('a[href]');
      const href = link?.getAttribute('href') ?? '';
      // Files and places on this page leave nothing.
      if (!href.startsWith('/') || href.startsWith('/api/') || href.startsWith('/shop')) return;
      event.preventDefault();
      event.stopPropagation();
      setTo(href);
    };
    window.addEventListener('beforeunload', unload);
    document.addEventListener('click', click, true);
    return () => {
      window.removeEventListener('beforeunload', unload);
      document.removeEventListener('click', click, true);
    };
  }, [any]);
  return (
    <Dialog open={to !== null} onClose={() => setTo(null)} aria-labelledby="leave">
      <DialogTitle id="leave">Leave without saving?</DialogTitle>
      <DialogContent>Changed and not saved: {names.join(', ')}.</DialogContent>
      <DialogActions>
        <Button variant="outlined" autoFocus onClick={() => setTo(null)}>
          Stay
        </Button>
        <Button
          variant="contained"
          onClick={() => {
            useNames.setState({ names: [] });
            if (to) void navigate(to);
          }}
        >
          Leave, and lose it
        </Button>
      </DialogActions>
    </Dialog>
  );
}
