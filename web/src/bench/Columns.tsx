// The columns of thought side by side; on a narrow screen two of them, or all, behind tabs.
import { Tab, Tabs, useMediaQuery } from '@mui/material';
import { useEffect, useState, type ReactNode } from 'react';
import { Split } from '../kit/Split';
import { useBench } from './store';

/** Narrower than this the drawing and the work share a column; than this everything shares one. */
const TWO = '(max-width: 1100px)';
const ONE = '(max-width: 720px)';

type Key = 'drawing' | 'work' | 'picture';
const WORDS: Record<Key, string> = { drawing: 'Drawing says', work: 'You do', picture: 'You get' };

export function Columns(parts: Record<Key, ReactNode>) {
  const two = useMediaQuery(TWO, { noSsr: true });
  const one = useMediaQuery(ONE, { noSsr: true });
  const [tab, setTab] = useState<Key>(one ? 'picture' : 'work');
  // What is typed in comes to the front where it is begun elsewhere.
  const draft = useBench((s) => s.draft !== null || s.adding);
  const numbers = useBench((s) => s.selection.callout !== undefined || s.measuring !== null);
  useEffect(() => {
    if (draft) setTab('work');
  }, [draft]);
  useEffect(() => {
    if (numbers) setTab('drawing');
  }, [numbers]);
  const behind: Key[] = one ? ['drawing', 'work', 'picture'] : two ? ['drawing', 'work'] : [];
  const shown = behind.includes(tab) ? tab : (behind[1] ?? tab);
  const column = (key: Key) => {
    const tabbed = behind.includes(key);
    return (
      <div
        key={key}
        id={`column-${key}`}
        className={`columnpanel of-${key}`}
        tabIndex={-1}
        hidden={tabbed && shown !== key}
        {...(tabbed ? { role: 'tabpanel', 'aria-labelledby': `tab-${key}` } : {})}
      >
        {parts[key]}
      </div>
    );
  };
  const tabs = behind.length > 0 && (
    <Tabs
      value={shown}
      onChange={(_, next: Key) => setTab(next)}
      aria-label="Columns"
      variant="fullWidth"
      className="columntabs"
    >
      {behind.map((key) => (
        <Tab key={key} value={key} label={WORDS[key]} id={`tab-${key}`} aria-controls={`column-${key}`} />
      ))}
    </Tabs>
  );
  const picture = { id: 'picture', called: WORDS.picture, least: '30%', body: column('picture') };
  return (
    <div className={`bench${one ? ' one' : two ? ' two' : ''}`} id="bench">
      {one ? (
        <div className="tabbed">
          {tabs}
          {behind.map(column)}
        </div>
      ) : two ? (
        <Split
          id="bench-two"
          way="horizontal"
          panes={[
            {
              id: 'columns',
              called: 'the columns',
              size: '42%',
              least: '280px',
              body: (
                <div className="tabbed">
                  {tabs}
                  {behind.map(column)}
                </div>
              ),
            },
            picture,
          ]}
        />
      ) : (
        <Split
          id="bench"
          way="horizontal"
          panes={[
            {
              id: 'drawing',
              called: WORDS.drawing,
              size: '264px',
              least: '180px',
              keeps: true,
              body: column('drawing'),
            },
            { id: 'work', called: WORDS.work, size: '312px', least: '240px', keeps: true, body: column('work') },
            picture,
          ]}
        />
      )}
    </div>
  );
}

/** Past the bar, for who goes by the keyboard. */
export function SkipLinks() {
  return (
    <nav className="skips" aria-label="Skip">
      {(['drawing', 'work', 'picture'] as Key[]).map((key) => (
        <a key={key} href={`#column-${key}`} className="skip">
          Skip to: {WORDS[key]}
        </a>
      ))}
      <a href="#proof" className="skip">
        Skip to: Proof
      </a>
    </nav>
  );
}
