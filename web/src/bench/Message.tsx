// What the last act came to, until it has been read, is closed or something else is said; and what a change of the
// stock did elsewhere, with a way to all of it.
import { Dialog, DialogContent, DialogTitle, Snackbar } from '@mui/material';
import { useState } from 'react';
import { useBench } from './store';
import { Act } from '../kit/Act';

/** `lifted` where the end of the strip has buttons; else it stands on the strip's empty end, beside the work. */
export function Message({ lifted = false }: { lifted?: boolean }) {
  const message = useBench((s) => s.message);
  const changed = useBench((s) => s.changed);
  const [open, setOpen] = useState(false);
  const close = () => useBench.setState({ message: null, changed: null });
  const count = changed?.lines.length ?? 0;
  const told =
    message ??
    (changed &&
      `${changed.note}: ${
        count === 0 ? 'nothing' : count === 1 ? 'one thing' : `${count} things`
      } came out otherwise.`);
  return (
    <>
      <Snackbar
        // Another message has its own time to be read.
        key={told}
        open={told !== null && !open}
        // It goes by itself once there was time to read it, and waits while the pointer is on it; pressing beside it
        // goes on with the work and puts nothing away.
        onClose={(_, why) => why !== 'clickaway' && close()}
        message={told}
        autoHideDuration={5000 + 60 * (told?.length ?? 0)}
        action={
          <>
            {!message && count > 0 && <Act onClick={() => setOpen(true)}>show what</Act>}
            <Act onClick={close}>close</Act>
          </>
        }
        anchorOrigin={{ vertical: 'bottom', horizontal: lifted ? 'center' : 'right' }}
        sx={{ bottom: { xs: lifted ? 84 : 10 }, maxWidth: 520 }}
        slotProps={{ content: { role: 'status' } }}
      />
      <Dialog
        open={open && changed !== null}
        onClose={() => {
          setOpen(false);
          close();
        }}
        aria-labelledby="came-out"
      >
        <DialogTitle id="came-out">{changed?.note}: what came out otherwise</DialogTitle>
        <DialogContent>
          <ul className="changed">
            {changed?.lines.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </DialogContent>
      </Dialog>
    </>
  );
}
