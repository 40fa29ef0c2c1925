// An outline from a file: what was read, layer by layer, and what was changed, before anything is made of it.
import { Dialog } from '@mui/material';
import { useEffect, useState } from 'react';
import { must, words, type Schemas } from '../api/client';
import { Act } from '../kit/Act';
import { Select } from '../kit/Select';
import { Check } from '../kit/Check';

type Answer = Schemas['OutlineAnswer'];

/** Reads a file's outline. */
export async function readOutline(file: File, layers: Record<string, boolean>, gap?: string): Promise<Answer> {
  const chosen = Object.entries(layers)
    .map(([name, taken]) => `${name}:${taken ? 'yes' : 'no'}`)
    .join(',');
  const query = new URLSearchParams({ name: file.name, layers: chosen, ...(gap ? { gap } : {}) });
  const call = fetch(`/api/outline?${query.toString()}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream' },
    body: file,
  }).then(async (response) => {
    const body: unknown = await response.json();
    return response.ok ? { data: body as Answer, response } : { error: body, response };
  });
  return must(call);
}

interface Props {
  file: File;
  /** What may be made of it. */
  acts: { words: string; run: (shape: Answer['shape']) => Promise<string | null> }[];
  leave: () => void;
}

export function OutlineFile({ file, acts, leave }: Props) {
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [layers, setLayers] = useState<Record<string, boolean>>({});
  const [gap, setGap] = useState('0.05');
  const [busy, setBusy] = useState(true);
  useEffect(() => {
    let stale = false;
    setBusy(true);
    readOutline(file, layers, gap).then(
      (found) => {
        if (stale) return;
        setAnswer(found);
        setFault(null);
        setBusy(false);
      },
      (reason) => {
        if (stale) return;
        setFault(words(reason));
        setBusy(false);
      },
    );
    return () => {
      stale = true;
    };
  }, [file, layers, gap]);
  const act = async (run: Props['acts'][number]['run']) => {
    if (!answer) return;
    const refused = await run(answer.shape);
    if (refused) setFault(refused);
    else leave();
  };
  return (
    <Dialog open onClose={leave} aria-labelledby="outline-file" transitionDuration={0} maxWidth="sm" fullWidth>
      <div style={{ padding: 18 }}>
        <h2 id="outline-file" style={{ margin: '0 0 8px', fontSize: 16 }}>
          {file.name}
        </h2>
        {busy && <p role="status">Reading…</p>}
        {fault && (
          <div className="note bad-note" role="alert">
            {fault}
          </div>
        )}
        {answer && (
          <>
            {!fault && (
              <>
                <svg
                  className="fileshape"
                  viewBox={answer.around.join(' ')}
                  role="img"
                  aria-label={`The outline, ${answer.size}`}
                >
                  <path d={answer.picture} fillRule="evenodd" />
                </svg>
                <p>
                  <b className="num">{answer.size}</b>
                </p>
              </>
            )}
            <h3 className="small">Layers taken as cuts</h3>
            <ul className="plainlist">
              {answer.layers.map((one) => (
                <li key={one.name}>
                  <label>
                    <Check
                      checked={layers[one.name.toUpperCase()] ?? one.taken}
                      change={(checked) => setLayers({ ...layers, [one.name.toUpperCase()]: checked })}
                    />{' '}
                    {one.name}{' '}
                    <span className="soft">
                      {one.strokes} {one.strokes === 1 ? 'stroke' : 'strokes'}
                    </span>
                  </label>
                </li>
              ))}
            </ul>
            <label>
              Close gaps up to{' '}
              <Select className="field" value={gap} onChange={(event) => setGap(event.target.value)}>
                {['0.01', '0.05', '0.2', '1'].map((one) => (
                  <option key={one} value={one}>
                    {one} mm
                  </option>
                ))}
              </Select>
            </label>
            <h3 className="small">What was done to it</h3>
            <ul>
              {answer.changes.map((one) => (
                <li key={one}>{one}</li>
              ))}
            </ul>
          </>
        )}
        <div className="tools">
          {acts.map((one, index) => (
            <Act
              key={one.words}
              kind={index === 0 ? 'main' : 'line'}
              disabled={!answer || fault !== null || busy}
              onClick={() => void act(one.run)}
            >
              {one.words}
            </Act>
          ))}
          <Act kind="line" onClick={leave} autoFocus>
            Leave it
          </Act>
        </div>
      </div>
    </Dialog>
  );
}
