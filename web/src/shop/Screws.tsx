// Screws of the shop's own, beside those of the standards: a hole takes one over by its numbers.
import { useEffect, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { client, must, Refusal, words, type Schemas } from '../api/client';
import { Act, ActFile } from '../kit/Act';
import { Glyph } from '../kit/Glyph';
import { List } from '../kit/List';
import { Select } from '../kit/Select';
import { Before, takeUp } from './Before';
import { Figure, Text } from './inputs';
import { ours } from './MadeUp';
import { ReadFile } from './ReadFile';
import { useUnsaved } from './unsaved';
import { SHOP_SCREWS, useShopScrews } from './useShopScrews';

type Screw = Schemas['Screw'];

const HEADS: [Screw['head'], string][] = [
  ['flat', 'flat head'],
  ['socket', 'socket head'],
  ['button', 'button head'],
  ['hex', 'hexagon head'],
  ['washer', 'washer'],
];

/** What is begun with: an insert with a countersunk flange, to be overwritten. */
const FIRST: Screw = { head: 'flat', size: '', diameter: 10, height: 2, angle: 90, counterbore: null, source: '' };

/** What a head of this kind must say, and what it may not. */
const ofHead = (one: Screw, head: Screw['head']): Screw => ({
  ...one,
  head,
  angle: head === 'flat' ? (one.angle ?? 90) : null,
  counterbore: head === 'socket' ? (one.counterbore ?? [one.diameter + 1, one.height + 0.5]) : null,
});

export function Screws() {
  const queries = useQueryClient();
  const kept = useShopScrews();
  const [draft, setDraft] = useState<Screw[] | null>(null);
  const [said, setSaid] = useState<{ text: string; bad: boolean } | null>(null);
  const [fault, setFault] = useState<{ path: string; text: string } | null>(null);
  useUnsaved('the screws', draft !== null);
  useEffect(() => setFault(null), [draft]);
  if (!kept.data) return null;
  const screws = draft ?? kept.data.screws;
  const next = (list: Screw[]) => {
    setDraft(list);
    setSaid(null);
  };
  const take = (text: string, from: string) =>
    takeUp(must(client.POST('/api/shop/screws/read', { body: { text } })), (found) => {
      next(found);
      setSaid({ text: `The screws are ${from}: ${found.length} of them. Save to keep them.`, bad: false });
    });
  const save = async () => {
    try {
      const table = await must(client.PUT('/api/shop/screws', { body: { version: kept.data.version, screws } }));
      queries.setQueryData(SHOP_SCREWS, table);
      setDraft(null);
      setSaid({ text: 'Saved. Holes that took one of these keep the numbers that they took.', bad: false });
    } catch (refused) {
      const problem = refused instanceof Refusal ? refused.problem : undefined;
      if (problem?.field) setFault({ path: problem.field, text: words(refused) });
      const again = problem?.status === 409 ? " Reload the page to see the other's, then make your change again." : '';
      setSaid({ text: `${words(refused)}.${again} Nothing was saved.`, bad: true });
    }
  };
  const wrong = (at: number, field: string) => (fault?.path === `screws[${at}].${field}` ? fault.text : undefined);
  return (
    <section aria-label="Screws" style={{ marginTop: 32 }}>
      <h1>The shop's screws</h1>
      <p className="soft">
        Screws of ISO and ASME are built in, each with its source. What else you screw and rivet with (inserts, studs,
        special heads) is kept here; a hole is offered them where it is drilled, and takes their numbers over.
      </p>
      {screws.length > 0 && (
        <div className="rows" role="group" aria-label="Rows" tabIndex={0}>
          <List className="list cutterrows">
            <caption className="visually">Screws of the shop's own</caption>
            <thead>
              <tr>
                <th>name</th>
                <th>head</th>
                <th className="r">widest, mm</th>
                <th className="r">high, mm</th>
                <th className="r">cone, deg</th>
                <th className="r">counterbore, mm</th>
                <th className="r">deep, mm</th>
                <th>where from</th>
                <th>
                  <span className="visually">screw</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {screws.map((one, at) => {
                const set = (part: Partial<Screw>) =>
                  next(screws.map((other, index) => (index === at ? { ...other, ...part } : other)));
                const called = one.size || `screw ${at + 1}`;
                const [bore, deep] = one.counterbore ?? [];
                return (
                  <tr key={at}>
                    <td>
                      <Text bare label={`Name of screw ${at + 1}`} value={one.size} set={(size) => set({ size })} />
                      {wrong(at, 'size') && <span className="bad"> {wrong(at, 'size')}</span>}
                    </td>
                    <td>
                      <Select
                        className="field"
                        aria-label={`Head of ${called}`}
                        value={one.head}
                        onChange={({ target }) => set(ofHead(one, target.value as Screw['head']))}
                      >
                        {HEADS.map(([key, title]) => (
                          <option key={key} value={key}>
                            {title}
                          </option>
                        ))}
                      </Select>
                    </td>
                    <td className="r">
                      <Figure
                        bare
                        label={`Widest diameter of ${called}, mm`}
                        value={one.diameter}
                        set={(diameter) => set({ diameter })}
                        wrong={wrong(at, 'diameter')}
                      />
                    </td>
                    <td className="r">
                      <Figure
                        bare
                        label={`Height of ${called}, mm`}
                        value={one.height}
                        set={(height) => set({ height })}
                        wrong={wrong(at, 'height')}
                      />
                    </td>
                    <td className="r">
                      {one.angle != null && (
                        <Figure
                          bare
                          label={`Cone of ${called}, deg`}
                          value={one.angle}
                          set={(angle) => set({ angle })}
                          wrong={wrong(at, 'angle')}
                        />
                      )}
                    </td>
                    <td className="r">
                      {bore !== undefined && deep !== undefined && (
                        <Figure
                          bare
                          label={`Counterbore of ${called}, mm`}
                          value={bore}
                          set={(value) => set({ counterbore: [value, deep] })}
                          wrong={wrong(at, 'counterbore')}
                        />
                      )}
                    </td>
                    <td className="r">
                      {bore !== undefined && deep !== undefined && (
                        <Figure
                          bare
                          label={`Counterbore of ${called} deep, mm`}
                          value={deep}
                          set={(value) => set({ counterbore: [bore, value] })}
                        />
                      )}
                    </td>
                    <td className="from">
                      <Text
                        bare
                        label={`Where ${called} comes from`}
                        value={one.source}
                        set={(source) => set({ source })}
                      />
                    </td>
                    <td className="r">
                      <Glyph
                        icon="out"
                        words={`Take ${called} out`}
                        press={() => next(screws.filter((_, index) => index !== at))}
                      />
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </List>
        </div>
      )}
      <div className="tools">
        <Act kind="line" onClick={() => next([...screws, { ...FIRST, source: ours() }])}>
          Add a screw
        </Act>
        <ReadFile
          label="Screws as CSV"
          accept=".csv,text/csv,text/plain"
          read={(text, name) =>
            void take(text, `as ${name} has them`).then((bad) => bad && setSaid({ text: bad, bad: true }))
          }
          refused={(why) => setSaid({ text: why, bad: true })}
        >
          Read them from CSV
        </ReadFile>
        <ActFile kind="line" href="/api/shop/screws.csv">
          As a file, CSV
        </ActFile>
        <Before table="screws" called="the screws" take={take} />
        <Act kind="line" disabled={draft === null} onClick={() => setDraft(null)}>
          As saved
        </Act>
        <Act kind="main" disabled={draft === null} onClick={() => void save()}>
          Save the screws
        </Act>
        <span className="soft">{draft === null ? 'as saved' : 'not saved'}</span>
      </div>
      {said && (
        <div className={`note${said.bad ? ' bad-note' : ''}`} role={said.bad ? 'alert' : 'status'}>
          {said.text}
        </div>
      )}
    </section>
  );
}
