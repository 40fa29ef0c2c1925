// The bar over a piece: where one is, whether it is saved, undo; and what to do when a save did not get through.
import { useEffect } from 'react';
import { Link } from 'react-router';
import { useSettings } from '../settings';
import { kindOfPiece } from '../kinds';
import { Chip } from './Chip';
import { VariantPicker } from './Variants';
import { put } from './edit';
import { Elsewhere } from './Elsewhere';
import { look, open, redo, saveNow, undo, useBench, watch } from './store';
import { countWords } from '../parts/count';
import { Act, ActLink } from '../kit/Act';
import { Glyph } from '../kit/Glyph';

const SAVED = {
  saved: 'saved',
  saving: 'saving…',
  unsaved: 'not saved',
  conflict: 'saved elsewhere',
  refused: 'not saved',
};

interface Props {
  id: number;
  jobTitle: string | undefined;
  /** A screen of the piece other than the bench. */
  here?: string;
  goTo: () => void;
  help: () => void;
}

export function PieceBar({ id, jobTitle, here, goTo, help }: Props) {
  const state = useBench();
  useEffect(watch, []);
  const { document: piece, answer } = state;
  const { show, setShow, dark, setDark } = useSettings();
  const shown = show ?? piece?.unit ?? 'mm';
  const variant = piece?.variants?.find((one) => one.name === state.variant);
  return (
    <>
      <header className="bar">
        <Link className="name" to="/">
          Steelk
        </Link>
        <nav aria-label="Where you are">
          <Link to="/">Rack</Link> &nbsp; {jobTitle && <Link to={`/jobs/${state.jobId}`}>{jobTitle}</Link>}
          {here && (
            <>
              &nbsp; <Link to={`/pieces/${id}`}>Bench</Link>
            </>
          )}
        </nav>
        {piece && (
          <h1 className="title">
            <Chip
              text={piece.mark}
              label="mark"
              edit={(now, text) => put(now, ['mark'], text ?? '')}
              own={{ field: 'mark' }}
              note="mark"
            />{' '}
            <Chip
              text={piece.title}
              label="title"
              ghost="title"
              edit={(now, text) => put(now, ['title'], text ?? '')}
              own={{ field: 'title' }}
              note="title"
            />
          </h1>
        )}
        {piece && <VariantPicker edit={!here} />}
        <span className="grow soft">
          {answer && piece
            ? [
                variant?.stock?.material ?? piece.stock.material,
                ...kindOfPiece(piece).heading(answer),
                countWords(piece),
              ]
                .filter(Boolean)
                .join(' · ')
            : ''}
        </span>
        <span
          className={state.save === 'saved' ? 'ok' : state.save === 'saving' ? 'soft' : 'bad'}
          role="status"
          data-took={Math.round(state.took)}
        >
          {SAVED[state.save]}
        </span>
        <Glyph
          icon="undo"
          words="undo"
          keys="Ctrl+Z"
          disabled={!state.canUndo || state.save !== 'saved'}
          press={() => void undo()}
        />
        <Glyph
          icon="redo"
          words="redo"
          keys="Ctrl+Shift+Z"
          disabled={!state.canRedo || state.save !== 'saved'}
          press={() => void redo()}
        />
        <Act
          className="mono"
          onClick={() => setShow(shown === 'in' ? 'mm' : 'in')}
          aria-label={`Units: ${shown}. Change`}
        >
          {shown}
        </Act>
        {here || !piece || !kindOfPiece(piece).cuts ? null : <ActLink to={`/pieces/${id}/cutting`}>cutting</ActLink>}
        <Act onClick={() => setDark(!dark)}>{dark ? 'light' : 'dark'}</Act>
        <Act onClick={goTo} aria-label="Go to, Ctrl K">
          go to…
        </Act>
        <Act onClick={help} aria-label="Keys">
          ?
        </Act>
      </header>
      <Elsewhere aside={saveAside} />
      {state.save === 'conflict' && !state.other && (
        <div className="banner" role="alert">
          <b className="bad">Saved elsewhere in between.</b> <span>{state.saveFault}</span>
          <Act kind="line" onClick={() => void look()}>
            See what differs
          </Act>
          <Act kind="line" onClick={() => saveAside()}>
            Save mine as a file
          </Act>
        </div>
      )}
      {(state.save === 'unsaved' || state.save === 'refused') && (
        <div className="banner" role="alert">
          <b className="bad">Not saved.</b>{' '}
          <span>
            {state.saveFault}
            {state.save === 'unsaved' && ' It is tried again every few seconds.'}
            {state.behind && ' Picture and figures are of before your last changes.'}
          </span>
          <Act kind="line" onClick={saveNow}>
            Try again
          </Act>
          <Act kind="line" onClick={() => saveAside()}>
            Save mine as a file
          </Act>
        </div>
      )}
      {state.fault && (
        <div className="banner" role="alert">
          <b className="bad">{state.fault}</b>
          <Act kind="line" onClick={() => void open(id)}>
            Try again
          </Act>
          <Link to="/">Go to the rack</Link>
        </div>
      )}
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
