// The bench: drawing says, you do, you get, it is proved.
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { client, must } from '../api/client';
import { useSettings } from '../settings';
import { Blank } from './Blank';
import { addCallout, DrawingColumn } from './DrawingColumn';
import { GoTo } from './GoTo';
import { Help } from '../parts/Help';
import { Chip } from './Chip';
import { put } from './edit';
import { ProofStrip } from './ProofStrip';
import { keepMine, open, redo, saveNow, select, setFold, stepCaret, takeTheirs, undo, useBench } from './store';
import { WorkColumn } from './WorkColumn';

const Folded = lazy(() => import('./Folded'));

const SAVED = { saved: 'saved', saving: 'saving…', unsaved: 'not saved', conflict: 'saved elsewhere', refused: 'not saved' };

export default function Bench() {
  const id = Number(useParams().id);
  const state = useBench();
  const { show, setShow, dark, setDark } = useSettings();
  const [help, setHelp] = useState(false);
  const [goTo, setGoTo] = useState(false);
  useEffect(() => void open(id), [id]);
  useEffect(() => {
    const warn = (event: BeforeUnloadEvent) => {
      if (useBench.getState().save !== 'saved') event.preventDefault();
    };
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, []);
  const job = useQuery({ queryKey: ['job', state.jobId], enabled: state.jobId > 0, queryFn: () => must(client.GET('/api/jobs/{id}', { params: { path: { id: state.jobId } } })) });

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const typing = target.closest('input:not([type=range]),textarea,select,[contenteditable],[role=dialog]') !== null;
      const command = event.ctrlKey || event.metaKey;
      if (command && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        setGoTo(true);
        return;
      }
      if (typing) return;
      if (command && event.key.toLowerCase() === 'z') {
        event.preventDefault();
        void (event.shiftKey ? redo() : undo());
        return;
      }
      if (command || event.altKey) return;
      const unit = useSettings.getState();
      const acts: Record<string, () => void> = {
        '/': () => useBench.setState({ adding: true }),
        c: () => void addCallout(),
        f: () => void setFold(useBench.getState().fold > 0.5 ? 0 : 1),
        '[': () => stepCaret(-1),
        ']': () => stepCaret(1),
        ArrowUp: () => stepCaret(-1),
        ArrowDown: () => stepCaret(1),
        u: () => unit.setShow((unit.show ?? useBench.getState().document?.unit) === 'in' ? 'mm' : 'in'),
        '?': () => setHelp(true),
        Escape: () => {
          if (useBench.getState().panel) useBench.setState({ panel: null });
          else select({});
          useBench.setState({ placing: false });
        },
        '0': () => void import('./Folded').then((found) => found.view.fit()),
      };
      for (let key = 1; key <= 6; key += 1) acts[String(key)] = () => void import('./Folded').then((found) => found.view.set({ stand: key - 1 }));
      const arrow = event.key.startsWith('Arrow') && target.closest('input[type=range],[role=region],.column,.detail') !== null && target.tagName === 'INPUT';
      const act = arrow ? undefined : acts[event.key];
      if (act) {
        event.preventDefault();
        act();
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);

  const { document: piece, answer } = state;
  const shown = show ?? piece?.unit ?? 'mm';
  return (
    <>
      <header className="bar">
        <Link className="name" to="/">
          Steelk
        </Link>
        <nav aria-label="Where you are">
          <Link to="/">Rack</Link> &nbsp;{' '}
          {job.data && (
            <Link to={`/jobs/${state.jobId}`}>
              {job.data.job.number} {job.data.job.title}
            </Link>
          )}
        </nav>
        {piece && (
          <h1 className="title">
            <Chip text={piece.mark} label="mark" edit={(now, text) => put(now, ['mark'], text ?? '')} own={{ field: 'mark' }} note="mark" />{' '}
            <Chip text={piece.title} label="title" ghost="title" edit={(now, text) => put(now, ['title'], text ?? '')} own={{ field: 'title' }} note="title" />
          </h1>
        )}
        <span className="grow soft">{answer && piece ? `${piece.stock.material} · ${answer.heading.thickness} · ${answer.heading.method} · ${piece.quantity} off` : ''}</span>
        <span className={state.save === 'saved' ? 'ok' : state.save === 'saving' ? 'soft' : 'bad'} role="status" data-took={Math.round(state.took)}>
          {SAVED[state.save]}
        </span>
        <button type="button" className="plain" disabled={!state.canUndo || state.save !== 'saved'} onClick={() => void undo()}>
          undo
        </button>
        <button type="button" className="plain" disabled={!state.canRedo || state.save !== 'saved'} onClick={() => void redo()}>
          redo
        </button>
        <button type="button" className="plain mono" onClick={() => setShow(shown === 'in' ? 'mm' : 'in')} aria-label={`Units: ${shown}. Change`}>
          {shown}
        </button>
        <button type="button" className="plain" onClick={() => setDark(!dark)}>
          {dark ? 'light' : 'dark'}
        </button>
        <button type="button" className="plain" onClick={() => setGoTo(true)} aria-label="Go to, Ctrl K">
          go to…
        </button>
        <button type="button" className="plain" onClick={() => setHelp(true)} aria-label="Keys">
          ?
        </button>
      </header>
      {state.save === 'conflict' && (
        <div className="banner" role="alert">
          <b className="bad">Saved elsewhere in between.</b> <span>{state.saveFault}</span>
          <button type="button" className="btn" onClick={() => void takeTheirs()}>
            Go on from version {state.newer}
          </button>
          <button type="button" className="btn" onClick={keepMine}>
            Keep mine on top of it
          </button>
          <button type="button" className="btn" onClick={() => saveAside()}>
            Save mine as a file
          </button>
        </div>
      )}
      {(state.save === 'unsaved' || state.save === 'refused') && (
        <div className="banner" role="alert">
          <b className="bad">Not saved.</b> <span>{state.saveFault}</span>
          <button type="button" className="btn" onClick={saveNow}>
            Try again
          </button>
          <button type="button" className="btn" onClick={() => saveAside()}>
            Save mine as a file
          </button>
        </div>
      )}
      {state.fault && (
        <div className="banner" role="alert">
          <b className="bad">{state.fault}</b>
          <button type="button" className="btn" onClick={() => void open(id)}>
            Try again
          </button>
          <Link to="/">Go to the rack</Link>
        </div>
      )}
      {piece && (
        <>
          <main className="bench">
            <DrawingColumn />
            <WorkColumn />
            <section className="stage" aria-label="You get">
              <Suspense fallback={<div className="view"><h2>Folded</h2></div>}>
                <Folded />
              </Suspense>
              <Blank />
            </section>
          </main>
          <ProofStrip />
        </>
      )}
      {state.message && (
        <div className="toast" role="status">
          <span>{state.message}</span>
          <button type="button" className="plain" onClick={() => useBench.setState({ message: null })}>
            close
          </button>
        </div>
      )}
      <Help open={help} close={() => setHelp(false)} />
      <GoTo open={goTo} close={() => setGoTo(false)} />
    </>
  );
}

/** The piece as it stands on the screen, as a file of its own: nothing typed is lost. */
function saveAside(): void {
  const piece = useBench.getState().document;
  if (!piece) return;
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([`${JSON.stringify(piece, null, 2)}\n`], { type: 'application/json' }));
  link.download = `${piece.mark}.json`;
  link.click();
  URL.revokeObjectURL(link.href);
}
