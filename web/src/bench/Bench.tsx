// The bench: drawing says, you do, you get, it is proved.
import { lazy, Suspense, useEffect, useState } from 'react';
import { useParams } from 'react-router';
import { Announce } from './Announce';
import { Tour, useTour } from './Tour';
import { Columns, SkipLinks } from './Columns';
import { useSettings } from '../settings';
import { addCallout, DrawingColumn } from './DrawingColumn';
import { GoTo } from './GoTo';
import { Docked } from '../parts/DetailPanel';
import { Help } from '../parts/Help';
import { Split } from '../kit/Split';
import { kindOfPiece } from '../kinds';
import { operations } from './edit';
import { HoverTip } from './HoverTip';
import { Message } from './Message';
import { PickMenu } from './PickMenu';
import { dropDraft } from './draft';
import { lookAt } from './looking';
import { PieceBar } from './PieceBar';
import { ProofStrip, useDetail } from './ProofStrip';
import { open, redo, select, setFold, stepCaret, undo, useBench } from './store';
import { UpTo } from './UpTo';
import { useTitle } from '../kit/useTitle';
import { useJobTitle } from './useJobTitle';
import { WorkColumn } from './WorkColumn';

const Folded = lazy(() => import('./Folded'));

export default function Bench() {
  const id = Number(useParams().id);
  const state = useBench();
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
  const jobTitle = useJobTitle(state.jobId);
  useTitle(state.document ? `${state.document.mark} ${state.document.title}` : undefined);

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
        s: () => {
          const [one] = useBench.getState().picks.slice(-1);
          if (one !== undefined) lookAt(one);
        },
        Escape: () => {
          const now = useBench.getState();
          // What was opened last is closed first.
          if (now.menu) useBench.setState({ menu: null });
          else if (now.want) useBench.setState({ want: null });
          else if (now.measuring) useBench.setState({ measuring: null });
          else if (now.draft) dropDraft();
          else if (now.panel) useBench.setState({ panel: null });
          else select({});
          useBench.setState({ placing: false });
        },
        '0': () => void import('./Folded').then((found) => found.view.fit()),
      };
      for (let key = 1; key <= 6; key += 1)
        acts[String(key)] = () => void import('./Folded').then((found) => found.view.set({ stand: key - 1 }));
      const arrow =
        event.key.startsWith('Arrow') &&
        target.closest('input[type=range],[role=region],.column,.detail') !== null &&
        target.tagName === 'INPUT';
      const act = arrow ? undefined : acts[event.key];
      if (act) {
        event.preventDefault();
        act();
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);

  const detail = useDetail();
  const { document: piece } = state;
  // What is worked on on a stage of its own has it; anything else is seen folded.
  const stage = piece && kindOfPiece(piece).stage;
  const worked = piece ? operations(piece).findIndex((one) => one.name === state.selection.operation) : -1;
  const Own = piece && worked >= 0 && stage?.own?.takes(piece, worked) ? stage.own.Stage : null;
  return (
    <>
      <SkipLinks />
      <PieceBar id={id} jobTitle={jobTitle} goTo={() => setGoTo(true)} help={() => setHelp(true)} />
      {piece && stage && (
        <>
          <Docked id="detail" detail={detail}>
            <Columns
              drawing={<DrawingColumn />}
              work={<WorkColumn />}
              picture={
                <section className="stage" aria-label="You get">
                  <Split
                    id="stage"
                    way="vertical"
                    panes={[
                      {
                        id: 'above',
                        called: stage.title,
                        least: '80px',
                        body: (
                          <Suspense
                            fallback={
                              <div className="view">
                                <h2>{stage.title}</h2>
                              </div>
                            }
                          >
                            {Own ? <Own key={state.selection.operation} piece={piece} index={worked} /> : <Folded />}
                          </Suspense>
                        ),
                      },
                      { id: 'below', called: 'what lies below', least: '80px', body: <stage.Below /> },
                    ]}
                  />
                </section>
              }
            />
          </Docked>
          <UpTo />
          <ProofStrip />
        </>
      )}
      <PickMenu />
      <HoverTip />
      <Announce />
      {piece && <Tour />}
      <Message />
      <Help
        open={help}
        close={() => setHelp(false)}
        tour={() => {
          setHelp(false);
          useTour.setState({ step: 0 });
        }}
      />
      <GoTo open={goTo} close={() => setGoTo(false)} />
    </>
  );
}
