// What the drawing says: its picture with balloons, and the list of call-outs.
import { Dialog } from '@mui/material';
import { useEffect, useRef, useState } from 'react';
import { client, must, sendFile, words, type Piece } from '../api/client';
import { CallOutEditor } from './CallOutEditor';
import { Measuring, TakeNumber } from './TakeNumber';
import { callouts, freshLetter, named, put } from './edit';
import { commit, select, selectCallout, useBench } from './store';
import { Act } from '../kit/Act';
import { Glyph } from '../kit/Glyph';
import { Press } from '../kit/Press';
import { FileInput } from '../kit/FileInput';
import { List } from '../kit/List';

const SIGN = { holds: ['ok', 'holds'], off: ['bad', 'off'], unplaced: ['todo', 'unplaced'] } as const;

/** Adds a call-out with the next free letter and selects it. */
export async function addCallout(): Promise<void> {
  const piece = useBench.getState().document;
  if (!piece) return;
  let name = '';
  const add = (now: Piece): Piece => {
    name = freshLetter(now);
    return { ...now, callouts: [...callouts(now), { name, value: '0 mm' }] };
  };
  const fault = await commit(add, 'added a call-out');
  if (fault) useBench.setState({ message: fault });
  else select({ callout: name });
}

/** What the list of drawing and numbers lends to others: choosing its picture. */
export const drawing = { choose: () => {} };

export function DrawingColumn() {
  const { id, document: piece, answer, hasPicture, pictureStamp, selection, placing } = useBench();
  const file = useRef<HTMLInputElement>(null);
  const [large, setLarge] = useState(false);
  const [taking, setTaking] = useState<{ x: number; y: number } | null>(null);
  useEffect(() => {
    drawing.choose = () => file.current?.click();
  }, []);
  if (!piece) return null;
  const list = callouts(piece);
  const upload = async (picked: File | undefined) => {
    if (!picked) return;
    try {
      if (picked.size > 20 * 1024 * 1024)
        throw new Error(
          `${picked.name} has ${(picked.size / 1024 / 1024).toFixed(1)} MB; a drawing's picture may ` +
            `have 20 MB. Scan it coarser or crop it.`,
        );
      await sendFile('PUT', `/api/pieces/${id}/drawing`, picked);
      useBench.setState({ hasPicture: true, pictureStamp: Date.now(), message: 'The drawing is in.' });
    } catch (fault) {
      useBench.setState({ message: words(fault) });
    }
  };
  const removePicture = async () => {
    try {
      await must(client.DELETE('/api/pieces/{id}/drawing', { params: { path: { id } } }));
      useBench.setState({ hasPicture: false, message: "The picture is deleted; it waits in the job's bin." });
    } catch (fault) {
      useBench.setState({ message: words(fault) });
    }
  };
  const place = (event: React.MouseEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const spot = { x: round((event.clientX - box.left) / box.width), y: round((event.clientY - box.top) / box.height) };
    const name = selection.callout;
    if (!placing || !name) {
      setTaking(spot);
      return;
    }
    useBench.setState({ placing: false });
    void commit((now) => put(now, ['callouts', named(name), 'place'], spot), `placed balloon ${name}`).then(
      (fault) => fault && useBench.setState({ message: fault }),
    );
  };
  return (
    <section className="column" aria-label="Drawing says">
      <div className="columnhead">
        <h2>Drawing says</h2>
        {hasPicture && (
          <span>
            <Glyph icon="swap" words="Put in another picture of the drawing" press={() => file.current?.click()} />
            <Glyph icon="out" words="Delete the picture of the drawing" press={() => void removePicture()} />
          </span>
        )}
      </div>
      <FileInput
        ref={file}
        accept="image/png,image/jpeg,image/webp"
        label="Picture of the drawing"
        pick={(picked) => void upload(picked)}
      />
      {hasPicture ? (
        <div className={`drawing${placing ? ' placing' : ''}`} onClick={place}>
          <img
            src={`/api/pieces/${id}/drawing?at=${pictureStamp}`}
            alt={`Drawing of ${piece.mark}; its numbers are in the list below`}
          />
          {list.map((one) =>
            one.place ? (
              <Press
                key={one.name}
                className={`balloon${selection.callout === one.name ? ' on' : ''}`}
                style={{ left: `${one.place.x * 100}%`, top: `${one.place.y * 100}%` }}
                aria-label={`Balloon ${one.name}, ${one.text ?? ''}`}
                onClick={(event) => {
                  event.stopPropagation();
                  selectCallout(one.name);
                }}
              >
                {one.name}
              </Press>
            ) : null,
          )}
          {taking && <TakeNumber spot={taking} leave={() => setTaking(null)} />}
        </div>
      ) : (
        <Press className="addbar" onClick={() => file.current?.click()}>
          Put in a picture of the drawing (PNG, JPEG, WebP, 20 MB)
        </Press>
      )}
      <Measuring />
      {list.length === 0 ? (
        <div className="empty" style={{ margin: '0 14px 8px' }}>
          <b>No call-outs yet.</b>
          <p>
            Each number on the drawing is entered once, with its tolerance and what it measures; Steelk measures it
            back.
          </p>
        </div>
      ) : (
        <List className="callouts" aria-label="Call-outs">
          <colgroup>
            <col style={{ width: 36 }} />
            <col />
            <col style={{ width: 58 }} />
            <col style={{ width: 56 }} />
            <col style={{ width: 58 }} />
          </colgroup>
          <thead>
            <tr>
              <th>
                <span className="visually">name</span>
              </th>
              <th className="l">number</th>
              <th>value</th>
              <th>measured</th>
              <th className="l">verdict</th>
            </tr>
          </thead>
          <tbody>
            {list.map((one) => {
              const proof = answer?.callouts.find((found) => found.name === one.name);
              const [style, sign] = SIGN[proof?.verdict ?? 'unplaced'];
              const on = selection.callout === one.name;
              return (
                <tr
                  key={one.name}
                  className={on ? 'on' : ''}
                  onClick={() => selectCallout(one.name)}
                  data-callout={one.name}
                >
                  <td>
                    <Press
                      draggable
                      className={`letter${on ? ' on' : ''}`}
                      aria-pressed={on}
                      aria-label={`Call-out ${one.name}`}
                      onDragStart={(event) => event.dataTransfer.setData('text/x-callout', one.name)}
                      onClick={() => selectCallout(one.name)}
                    >
                      {one.name}
                    </Press>
                  </td>
                  <td>{one.text || <span className="soft">no words</span>}</td>
                  <td className="num">
                    {proof?.value_text || one.value}
                    <br />
                    <span className="soft">{proof?.tolerance_text}</span>
                  </td>
                  <td className="num">{proof?.measured_text || '—'}</td>
                  <td className={style}>{sign === 'off' ? `off ${proof?.off_by ?? ''}` : sign}</td>
                </tr>
              );
            })}
          </tbody>
        </List>
      )}
      <CallOutEditor key={selection.callout ?? ''} />
      <Press className="addbar" onClick={() => void addCallout()}>
        c — take a number from the drawing
      </Press>
      {hasPicture && (
        <span style={{ margin: '0 10px 12px' }}>
          <Act className="soft" onClick={() => setLarge(true)}>
            look at the drawing large
          </Act>
          <Act className="soft" onClick={() => file.current?.click()}>
            change the picture
          </Act>
          <Dialog
            open={large}
            onClose={() => setLarge(false)}
            maxWidth="lg"
            transitionDuration={0}
            aria-label={`Drawing of ${piece.mark}`}
          >
            <img
              src={`/api/pieces/${id}/drawing?at=${pictureStamp}`}
              alt={`Drawing of ${piece.mark}, large`}
              style={{ maxHeight: '84vh', display: 'block' }}
            />
            <Act kind="line" onClick={() => setLarge(false)} autoFocus>
              Close
            </Act>
          </Dialog>
        </span>
      )}
    </section>
  );
}

const round = (value: number) => Math.min(1, Math.max(0, Math.round(value * 1000) / 1000));
