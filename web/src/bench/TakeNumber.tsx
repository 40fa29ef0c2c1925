// A number taken off the drawing's picture: where it stands there, its value, then what it measures, without leaving
// the keyboard between.
import { useState } from 'react';
import type { CallOut, Piece } from '../api/client';
import { callouts, freshLetter } from './edit';
import { commit, select, useBench } from './store';
import { Field } from '../kit/Field';

interface Spot {
  x: number;
  y: number;
}

export function TakeNumber({ spot, leave }: { spot: Spot; leave: () => void }) {
  const [value, setValue] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const take = async () => {
    if (value.trim() === '') {
      leave();
      return;
    }
    let name = '';
    const add = (now: Piece): Piece => {
      name = freshLetter(now);
      const one: CallOut = { name, value: value.trim(), place: spot };
      return { ...now, callouts: [...callouts(now), one] };
    };
    // The name that it will have is the one of now: changes wait for each other.
    const own = freshLetter(useBench.getState().document ?? ({} as Piece));
    const refused = await commit(add, 'took a number from the drawing', { callout: own });
    if (refused) {
      setFault(refused);
      return;
    }
    leave();
    select({ callout: name });
    useBench.setState({ measuring: name });
  };
  return (
    <div
      className="takenumber"
      style={{ left: `${spot.x * 100}%`, top: `${spot.y * 100}%` }}
      onClick={(event) => event.stopPropagation()}
    >
      <Field
        mono
        chip
        autoFocus
        label="The number that stands here"
        placeholder="value"
        value={value}
        onBlur={() => value.trim() === '' && leave()}
        change={(text) => {
          setValue(text);
          setFault(null);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            event.preventDefault();
            void take();
          } else if (event.key === 'Escape') {
            event.stopPropagation();
            leave();
          }
        }}
      />
      {fault && <span className="fault">{fault}</span>}
    </div>
  );
}

/** What is asked for while a call-out waits for what it measures. */
export function Measuring() {
  const measuring = useBench((s) => s.measuring);
  const value = useBench((s) => s.answer?.callouts.find((one) => one.name === s.measuring)?.value_text);
  if (!measuring) return null;
  return (
    <p className="asks measuring" role="status">
      {measuring} is {value}: point at what it measures, one place or two. Esc leaves it unplaced.
    </p>
  );
}
