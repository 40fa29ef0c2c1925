// Accepting a rule that does not hold, for this piece: why, and who says so.
import { Button, Dialog, DialogActions, DialogContent, DialogTitle, TextField } from '@mui/material';
import { useState } from 'react';
import { useSettings } from '../settings';
import { accepting, dayOf, type Breach } from './breaches';
import { commit } from './store';

export function AcceptDialog({ breaches, leave }: { breaches: Breach[]; leave: () => void }) {
  const [name, setName] = [useSettings((s) => s.name), useSettings((s) => s.setName)];
  const [reason, setReason] = useState('');
  const [by, setBy] = useState(name);
  const [fault, setFault] = useState<string | null>(null);
  const on = dayOf(new Date());
  const first = breaches[0];
  if (!first) return null;
  const ready = reason.trim() !== '' && by.trim() !== '';
  const accept = async () => {
    const words = { reason: reason.trim(), by: by.trim(), on };
    const note = `accepted: ${first.message}${breaches.length > 1 ? ` and ${breaches.length - 1} more` : ''}`;
    const refused = await commit((now) => accepting(now, breaches, words), note.slice(0, 200));
    if (refused) return setFault(refused);
    setName(words.by);
    leave();
  };
  return (
    <Dialog open onClose={leave} aria-labelledby="accept" transitionDuration={0} maxWidth="sm" fullWidth>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (ready) void accept();
        }}
      >
        <DialogTitle id="accept">Accept for this piece</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 2 }}>
          <ul className="accepts">
            {breaches.slice(0, 5).map((one) => (
              <li key={one.message}>{one.message}.</li>
            ))}
            {breaches.length > 5 && <li>and {breaches.length - 5} more</li>}
          </ul>
          <TextField
            label="Why it may stay so"
            autoFocus
            fullWidth
            value={reason}
            placeholder="such as: bent in the 16 mm die, tried on a sample"
            slotProps={{ htmlInput: { maxLength: 300 } }}
            onChange={(event) => setReason(event.target.value)}
          />
          <TextField
            label="Who says so"
            fullWidth
            value={by}
            slotProps={{ htmlInput: { maxLength: 80 } }}
            helperText={`Goes on the papers with the reason and the day, ${on}. Another value is asked again.`}
            onChange={(event) => setBy(event.target.value)}
          />
          {fault && (
            <div className="note bad-note" role="alert">
              {fault}
            </div>
          )}
        </DialogContent>
        <DialogActions>
          <Button onClick={leave}>Leave it broken</Button>
          <Button type="submit" variant="contained" disabled={!ready}>
            Accept
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
