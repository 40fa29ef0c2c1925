// A short way round the bench, for who sees it first: five places, each with what it is for. It can be left at any step
// and taken again from the list of keys.
import { Paper, Popper } from '@mui/material';
import { useEffect, useState } from 'react';
import { create } from 'zustand';
import { Act } from '../kit/Act';

/** Which step is shown; null where nobody is on the way. */
export const useTour = create<{ step: number | null }>()(() => ({ step: null }));

/** Begins it on the next bench that opens: the first visit does. */
export const BEGIN = 'steelk-tour';

const STEPS: { at: string; title: string; words: string }[] = [
  {
    at: '[aria-label="Drawing says"]',
    title: 'The drawing says',
    words: 'Every number of the drawing, once, with its tolerance. Click one on the picture, or press c.',
  },
  {
    at: '[aria-label="You do"]',
    title: 'You do',
    words: 'The work as numbered sentences. Click a value to change it; / lists every step that fits.',
  },
  {
    at: '[aria-label="You get"]',
    title: 'You get',
    words: 'The folded part and its blank. Point at an edge, a face or a hole: a menu offers what can be done there.',
  },
  {
    at: '#proof',
    title: 'It is proved',
    words: 'Call-outs measured back, shop rules, sizes and mass. Press any of them to see how it was found.',
  },
  {
    at: '#proof > :last-child',
    title: 'It is released',
    words: 'Files told apart by who needs them. While a rule is broken, every paper says NOT RELEASED.',
  },
];

export function Tour() {
  const step = useTour((s) => s.step);
  const [anchor, setAnchor] = useState<Element | null>(null);
  useEffect(() => {
    if (sessionStorage.getItem(BEGIN) === null) return;
    sessionStorage.removeItem(BEGIN);
    useTour.setState({ step: 0 });
  }, []);
  const now = step === null ? undefined : STEPS[step];
  useEffect(() => {
    if (!now) return;
    // What is behind a tab, or not drawn yet, has no place: the words then stand by the strip.
    const found = document.querySelector(now.at);
    setAnchor(found?.getClientRects().length ? found : document.querySelector('#proof'));
  }, [now]);
  if (!now || step === null || !anchor) return null;
  const leave = () => useTour.setState({ step: null });
  const last = step === STEPS.length - 1;
  return (
    <Popper
      open
      anchorEl={anchor}
      placement={now.at.startsWith('#') ? 'top' : 'right-start'}
      className="tour"
      modifiers={[{ name: 'preventOverflow', options: { padding: 12, altAxis: true } }]}
    >
      <Paper role="region" aria-label="A short way round" aria-live="polite">
        <b>{now.title}</b>
        <p>{now.words}</p>
        <div className="tools">
          <span className="soft">
            {step + 1} of {STEPS.length}
          </span>
          {step > 0 && (
            <Act kind="line" onClick={() => useTour.setState({ step: step - 1 })}>
              Back
            </Act>
          )}
          <Act kind="main" onClick={last ? leave : () => useTour.setState({ step: step + 1 })}>
            {last ? 'Done' : 'Next'}
          </Act>
          {!last && (
            <Act kind="line" onClick={leave}>
              Leave
            </Act>
          )}
        </div>
      </Paper>
    </Popper>
  );
}
