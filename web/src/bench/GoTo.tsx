// Ctrl+K: go to any operation, call-out, piece or action by typing part of its name.
import { Dialog } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { client, must } from '../api/client';
import { addCallout, drawing } from './DrawingColumn';
import { kindOfPiece } from '../kinds';
import { download } from './download';
import { callouts, operations } from './edit';
import { useSettings } from '../settings';
import { redo, selectCallout, selectOperation, setCaret, setFold, undo, useBench } from './store';
import { Input } from '../kit/Input';
import { anchorOf, WORDS } from '../words';

/** Standpoints, in the order of their keys. */
const STANDS = ['corner', 'front', 'right', 'back', 'left', 'above'];

export function GoTo({ open, close }: { open: boolean; close: () => void }) {
  const [text, setText] = useState('');
  const [at, setAt] = useState(0);
  // Enter was pressed before the lists were here: it is done when they are.
  const [entered, setEntered] = useState(false);
  const navigate = useNavigate();
  const { id, document: piece, jobId, answer, variant } = useBench();
  const settings = useSettings();
  const job = useQuery({
    queryKey: ['job', jobId],
    enabled: jobId > 0 && open,
    queryFn: () => must(client.GET('/api/jobs/{id}', { params: { path: { id: jobId } } })),
  });
  const outputs = useQuery({
    queryKey: ['outputs'],
    staleTime: Infinity,
    queryFn: () => must(client.GET('/api/outputs')),
  });
  const coming = outputs.isLoading || job.isLoading;
  const query = variant ? `?variant=${encodeURIComponent(variant)}` : '';
  // Files that there is one of a piece; those of a mark are in the list of files.
  const files = (outputs.data ?? []).filter(
    (one) => piece && one.kinds.includes(piece.kind) && kindOfPiece(piece).files.marks(answer, one.of) === null,
  );
  // Only while it is open: the bench draws this anew with every change.
  const all: [string, string, () => void][] =
    piece && open
      ? [
          ...operations(piece).map((one, index): [string, string, () => void] => [
            'operation',
            `${index + 1} ${one.name}`,
            () => selectOperation(one.name),
          ]),
          ...callouts(piece).map((one): [string, string, () => void] => [
            'call-out',
            `${one.name} ${one.text ?? ''}`,
            () => selectCallout(one.name),
          ]),
          ...(job.data?.pieces ?? []).map((one): [string, string, () => void] => [
            'piece',
            `${one.mark} ${one.title}`,
            () => void navigate(`/pieces/${one.id}`),
          ]),
          ...files.map((one): [string, string, () => void] => [
            'file',
            one.words,
            () => void download(`/api/pieces/${id}/files/${one.file}${query}`),
          ]),
          ['place', 'Cutting of this piece', () => void navigate(`/pieces/${id}/cutting`)],
          ['place', 'Bench of this piece', () => void navigate(`/pieces/${id}`)],
          ['place', "The shop's cutters", () => void navigate('/shop')],
          ['place', 'Rack', () => void navigate('/')],
          ['place', 'Words of the trade', () => void navigate('/words')],
          ...WORDS.map(({ word }): [string, string, () => void] => [
            'word',
            word,
            () => void navigate(`/words#${anchorOf(word)}`),
          ]),
          ['place', 'Job', () => void navigate(`/jobs/${jobId}`)],
          ['act', 'Add an operation', () => useBench.setState({ adding: true })],
          ['act', 'Add a call-out', () => void addCallout()],
          ['act', 'Put in a picture of the drawing', () => drawing.choose()],
          ['act', 'Fold flat', () => void setFold(0)],
          ['act', 'Fold up', () => void setFold(1)],
          ['act', 'Undo', () => void undo()],
          ['act', 'Redo', () => void redo()],
          ['act', 'Release: files and revisions', () => useBench.setState({ panel: 'revisions' })],
          ['act', 'Call-outs', () => useBench.setState({ panel: 'callouts' })],
          ['act', 'Shop rules', () => useBench.setState({ panel: 'rules' })],
          ['act', 'Variants', () => useBench.setState({ panel: 'variants' })],
          ['act', 'Show the whole piece', () => setCaret(null)],
          ['act', 'Millimetres', () => settings.setShow('mm')],
          ['act', 'Inches', () => settings.setShow('in')],
          ['act', settings.dark ? 'Light' : 'Dark', () => settings.setDark(!settings.dark)],
          ['act', 'Fit the part in the view', () => void import('./Folded').then((found) => found.view.fit())],
          ...STANDS.map((name, at): [string, string, () => void] => [
            'act',
            `Look from: ${name}`,
            () => void import('./Folded').then((found) => found.view.set({ stand: at })),
          ]),
          ['act', 'All files, ZIP', () => void download(`/api/pieces/${id}/all.zip${query}`)],
          ...kindOfPiece(piece).verbs.flatMap((one) =>
            one.phrases.map((phrase): [string, string, () => void] => [
              'step',
              `${phrase.verb}: ${phrase.example}`,
              () => useBench.setState({ adding: true, typed: `${phrase.verb} ` }),
            ]),
          ),
        ]
      : [];
  const wanted = text.toLowerCase();
  const begins = (name: string) => Number(!name.toLowerCase().startsWith(wanted));
  const found = all
    .filter(([, name]) => name.toLowerCase().includes(wanted))
    .sort(([, one], [, other]) => begins(one) - begins(other))
    .slice(0, 10);
  const go = (index: number) => {
    const one = found[index];
    setEntered(!one && coming);
    // What is not found stays to be corrected.
    if (!one) return;
    close();
    setText('');
    setAt(0);
    // After the dialog has given the focus back.
    setTimeout(one[2], 0);
  };
  useEffect(() => {
    if (entered && open && (found.length > 0 || !coming)) go(at);
  });
  return (
    <Dialog
      open={open}
      onClose={() => {
        setEntered(false);
        close();
      }}
      slotProps={{ paper: { 'aria-label': 'Go to' } }}
      fullWidth
      maxWidth="xs"
      transitionDuration={0}
    >
      <div style={{ padding: 12 }} className="adder">
        <Input
          className="field"
          autoFocus
          aria-label="Go to"
          role="combobox"
          aria-expanded={found.length > 0}
          aria-controls="found"
          aria-activedescendant={found[at] ? `found-${at}` : undefined}
          aria-autocomplete="list"
          placeholder="a name or an action"
          value={text}
          onChange={(event) => {
            setText(event.target.value);
            setAt(0);
            setEntered(false);
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter') {
              event.preventDefault();
              go(at);
            } else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
              event.preventDefault();
              setAt((old) => Math.max(0, Math.min(found.length - 1, old + (event.key === 'ArrowDown' ? 1 : -1))));
            }
          }}
        />
        <ul aria-label="Found" role="listbox" id="found">
          {found.map(([kind, name], index) => (
            <li
              key={kind + name}
              className={index === at ? 'on' : ''}
              role="option"
              id={`found-${index}`}
              aria-selected={index === at}
              onClick={() => go(index)}
            >
              {name} <span className="soft">{kind}</span>
            </li>
          ))}
        </ul>
        <div className="visually" aria-live="polite">
          {found.length > 0 ? `${found.length} found` : ''}
        </div>
        {found.length === 0 && (
          <p role="status">{coming ? 'Reading what there is …' : 'Nothing here is called that.'}</p>
        )}
      </div>
    </Dialog>
  );
}
