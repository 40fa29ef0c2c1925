// What the last act came to, until it is closed or something else is said.
import { Snackbar } from '@mui/material';
import { useBench } from './store';
import { Act } from '../kit/Act';

export function Message() {
  const message = useBench((s) => s.message);
  const close = () => useBench.setState({ message: null });
  return (
    <Snackbar
      open={message !== null}
      // Pressing beside it goes on with the work; it does not put away what may not be read yet.
      onClose={(_, why) => why === 'escapeKeyDown' && close()}
      message={message}
      action={<Act onClick={close}>close</Act>}
      sx={{ bottom: { xs: 84 } }}
      slotProps={{ content: { role: 'status' } }}
    />
  );
}
