// What a table of the shop was before each save: looked at, and taken up again as a change that can be saved.
import { Dialog, DialogContent, DialogTitle } from '@mui/material';
import { useState } from 'react';
import { client, must, words, type Schemas } from '../api/client';
import { Act } from '../kit/Act';
import { List } from '../kit/List';

type Table = Schemas['ShopTableName'];
type Past = Schemas['PastShopTable'];

/** Takes up what was read, or says why it cannot be: nothing is taken over then. */
export async function takeUp<T>(reading: Promise<T>, then: (found: T) => void): Promise<string | null> {
  try {
    then(await reading);
    return null;
  } catch (fault) {
    return `${words(fault)}. Nothing was taken over.`;
  }
}

/** When, as people of one shop say it: `2026-11-30 04:19`; what Steelk ships has no time. */
const when = (at: string) => (at ? at.replace('T', ' ').slice(0, 16) : 'as Steelk ships it');

export function Before({
  table,
  called,
  take,
}: {
  table: Table;
  /** In a sentence: `the cutters`. */
  called: string;
  /** Takes the text of a table up as a change that is not saved yet, or says why not. */
  take: (text: string, from: string) => Promise<string | null>;
}) {
  const [all, setAll] = useState<Past[] | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const open = () =>
    must(client.GET('/api/shop/{table}/before', { params: { path: { table } } })).then(
      (found) => {
        setFault(null);
        setAll(found);
      },
      (refused) => {
        setFault(words(refused));
        setAll([]);
      },
    );
  const close = () => setAll(null);
  const pick = async (one: Past) => {
    const refused = await take(one.text, one.at ? `as saved on ${when(one.at)}` : 'as Steelk ships it');
    if (refused === null) close();
    else setFault(refused);
  };
  return (
    <>
      <Act kind="line" onClick={() => void open()}>
        What was before
      </Act>
      <Dialog open={all !== null} onClose={close} aria-labelledby={`before-${table}`} maxWidth="sm" fullWidth>
        <DialogTitle id={`before-${table}`}>What {called} were before</DialogTitle>
        <DialogContent>
          {fault && (
            <div className="note bad-note" role="alert">
              {fault}
            </div>
          )}
          {all?.length === 0 && !fault && (
            <p>Nothing was saved over yet. Every save keeps what was there; it is listed here with its date.</p>
          )}
          {all && all.length > 0 && (
            <List className="list">
              <thead>
                <tr>
                  <th className="r">save</th>
                  <th>on</th>
                  <th className="r">size</th>
                  <th>
                    <span className="visually">what to do</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {all.map((one) => (
                  <tr key={one.version}>
                    <td className="r num">{one.version}</td>
                    <td className="num">{when(one.at)}</td>
                    <td className="r num">{(one.text.length / 1000).toFixed(1)} kB</td>
                    <td>
                      <Act aria-label={`Take save ${one.version} up again`} onClick={() => void pick(one)}>
                        take it up again
                      </Act>
                    </td>
                  </tr>
                ))}
              </tbody>
            </List>
          )}
          <p className="soft">What is taken up stands on the page as a change: nothing is saved until you save it.</p>
          <Act kind="line" onClick={close}>
            Close
          </Act>
        </DialogContent>
      </Dialog>
    </>
  );
}
