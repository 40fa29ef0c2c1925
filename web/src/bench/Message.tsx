// What the last act came to, until it has been read, is closed or something else is said.
import { Snackbar } from '@mui/material';
import { useBench } from './store';
import { Act } from '../kit/Act';

/** `lifted` where the end of the strip has buttons; else it stands on the strip's empty end, beside the work. */
export function Message({ lifted = false }: { lifted?: boolean }) {
  const message = useBench((s) => s.message);
  const close = () => useBench.setState({ message: null });
  return (
    <Snackbar
      // Another message has its own time to be read.
      key={message}
      open={message !== null}
      // It goes by itself once there was time to read it, and waits while the pointer is on it; pressing beside it goes
      // on with the work and puts nothing away.
      onClose={(_, why) => why !== 'clickaway' && close()}
      message={message}
      autoHideDuration={5000 + 60 * (message?.length ?? 0)}
      action={<Act onClick={close}>close</Act>}
      anchorOrigin={{ vertical: 'bottom', horizontal: lifted ? 'center' : 'right' }}
      sx={{ bottom: { xs: lifted ? 84 : 10 }, maxWidth: 520 }}
      slotProps={{ content: { role: 'status' } }}
    />
  );
}
