import { Dialog } from '@mui/material';
import { Act, ActLink } from '../kit/Act';
import { List } from '../kit/List';

const KEYS: [string, string][] = [
  ['/', 'add an operation'],
  ['c', 'take a number from the drawing (add a call-out)'],
  ['f', 'fold or flatten'],
  ['[ ] or ↑ ↓', 'show the piece up to the step before or after'],
  ['1 to 6', 'standpoints: corner, front, right, back, left, above'],
  ['0', 'fit the part in the view'],
  ['u', 'millimetres or inches'],
  ['p', 'on the cutting screen: run or pause the simulated cutter'],
  ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
  ['Ctrl K', 'go to anything'],
  ['Enter, Esc', 'in a value: commit it, leave it as it was'],
  ['Esc', 'out: close what is open, let go of what is selected'],
  ['?', 'this list'],
];

/** `tour` where there is a way round to take. */
export function Help({ open, close, tour }: { open: boolean; close: () => void; tour?: () => void }) {
  return (
    <Dialog open={open} onClose={close} aria-labelledby="keys" transitionDuration={0}>
      <div style={{ padding: 18 }}>
        <h2 id="keys" style={{ margin: '0 0 8px', fontSize: 16 }}>
          Keys
        </h2>
        <List>
          <tbody>
            {KEYS.map(([key, words]) => (
              <tr key={key}>
                <td>
                  <kbd>{key}</kbd>
                </td>
                <td>{words}</td>
              </tr>
            ))}
          </tbody>
        </List>
        <p className="soft">
          Drag a call-out's letter into a value to cite it. Drag on the folded part to turn it, wheel to come nearer.
        </p>
        <p>
          <ActLink to="/words">Words of the trade, with pictures</ActLink>
          {tour && <Act onClick={tour}>A short way round the bench</Act>}
        </p>
        <Act kind="line" onClick={close} autoFocus>
          Close
        </Act>
      </div>
    </Dialog>
  );
}
