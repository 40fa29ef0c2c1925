// Cutting: how a piece is cut, in sentences; the path; what the simulated cutter measured; time, cost, the program.
import { useMediaQuery } from '@mui/material';
import { useEffect, useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { create } from 'zustand';
import { client, must, Refusal, words, type Piece, type Schemas } from '../api/client';
import { Chip } from '../bench/Chip';
import { at, pathText, put, type Path } from '../bench/edit';
import { GoTo } from '../bench/GoTo';
import { Message } from '../bench/Message';
import { PieceBar } from '../bench/PieceBar';
import { FigureList } from '../bench/FigureList';
import { download } from '../bench/download';
import { commit, open, redo, say, undo, useBench, shownVariant } from '../bench/store';
import { useJobTitle } from '../bench/useJobTitle';
import { Docked } from '../parts/DetailPanel';
import { Split } from '../kit/Split';
import { Help } from '../parts/Help';
import { Terms } from '../parts/Terms';
import { useSettings } from '../settings';
import { CutStage } from './CutStage';
import { Act } from '../kit/Act';
import { Press } from '../kit/Press';
import { figures, type Column } from '../kit/columns';
import { useTitle } from '../kit/useTitle';
import { Grid } from '../kit/Grid';
import { Select } from '../kit/Select';

type Answer = Schemas['CuttingAnswer'];

/** The plan of a piece; of one of several blanks that of the one looked at, the first where none is chosen. */
async function ask(document: Piece): Promise<Answer> {
  const of = (blank: string | null) =>
    must(
      client.POST('/api/cutting', {
        body: { document, variant: shownVariant(document), blank, show: useSettings.getState().show },
      }),
    );
  const chosen = useBlank.getState().letter;
  const answer = await of(null);
  const letters = answer.blanks.map((one) => one.letter);
  const letter = chosen !== null && letters.includes(chosen) ? chosen : letters[0];
  return letter === undefined ? answer : of(letter);
}

/** The blank of a piece of several that is looked at. */
const useBlank = create<{ letter: string | null }>(() => ({ letter: null }));

const OWN = { field: 'cutting' };

/** What a piece with one setting changed comes to, or the fault of that setting. */
const judge =
  (field: string) =>
  async (piece: Piece): Promise<{ comes?: string; fault?: string }> => {
    try {
      const answer = await ask(piece);
      const fault = answer.findings.find((one) => one.severity === 'error' && one.field?.startsWith('cutting'));
      if (fault) return { fault: `${fault.message}. ${fault.way_out}` };
      return { comes: answer.values.find((one) => one.field === field)?.text };
    } catch (fault) {
      if (fault instanceof Refusal) return { fault: fault.problem.detail };
      throw fault;
    }
  };

/** The answer for the piece as it stands, the last good one while a newer is on its way. */
function useCutting(document: Piece | null): {
  answer: Answer | null;
  fault: string | null;
  busy: boolean;
  stop: () => void;
} {
  const show = useSettings((s) => s.show);
  const variant = useBench((s) => s.variant);
  const letter = useBlank((s) => s.letter);
  const [state, setState] = useState<{ answer: Answer | null; fault: string | null; busy: boolean }>({
    answer: null,
    fault: null,
    busy: false,
  });
  const turn = useRef(0);
  useEffect(() => {
    if (!document) return;
    const own = ++turn.current;
    setState((old) => ({ ...old, busy: true }));
    ask(document).then(
      (answer) => own === turn.current && setState({ answer, fault: null, busy: false }),
      (fault) => own === turn.current && setState((old) => ({ ...old, fault: words(fault), busy: false })),
    );
  }, [document, show, variant, letter]);
  const stop = () => {
    turn.current += 1;
    setState((old) => ({
      ...old,
      busy: false,
      fault: old.answer ? null : 'Stopped. Change a setting to plan the cutting again.',
    }));
  };
  return { ...state, stop };
}

export default function Cutting() {
  const id = Number(useParams().id);
  const piece = useBench((s) => s.document);
  const jobTitle = useJobTitle(useBench((s) => s.jobId));
  const mark = useBench((s) => s.document?.mark);
  useTitle(mark ? `${mark}, cutting` : undefined);
  const save = useBench((s) => s.save);
  const { answer, fault, busy, stop } = useCutting(piece);
  const [lit, setLit] = useState<number | null>(null);
  const [panel, setPanel] = useState<'measured' | 'time' | null>(null);
  const [goTo, setGoTo] = useState(false);
  const [help, setHelp] = useState(false);
  useEffect(() => {
    if (useBench.getState().id !== id || !useBench.getState().document) void open(id);
  }, [id]);
  useEffect(() => setLit(null), [answer]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = (event.target as HTMLElement).closest('input:not([type=range]),select,[role=dialog]') !== null;
      const command = event.ctrlKey || event.metaKey;
      if (command && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        setGoTo(true);
      } else if (typing) return;
      else if (command && event.key.toLowerCase() === 'z') {
        event.preventDefault();
        void (event.shiftKey ? redo() : undo());
      } else if (event.key === '?') setHelp(true);
      else if (event.key === 'Escape') setPanel(null);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const stage = (
    <section className="stage" aria-label="Path and simulated cutter" aria-busy={busy}>
      {busy && (
        <div className="working" role="status">
          <progress aria-label="Planning and simulating" /> planning and running the simulated cutter…{' '}
          <Act onClick={stop}>stop</Act>
        </div>
      )}
      {answer?.plan ? (
        <CutStage plan={answer.plan} faults={answer.inspection?.faults ?? []} lit={lit} pick={setLit} />
      ) : (
        <div className="view cutview">
          <h2>Simulated cutter</h2>
          <div className="nothing">
            {fault ?? (answer ? 'There is no program yet. What to do stands on the left.' : 'Planning…')}{' '}
            {answer && <Link to={`/pieces/${id}`}>Go to the bench</Link>}
          </div>
        </div>
      )}
    </section>
  );
  // On a phone one over the other.
  const narrow = useMediaQuery('(max-width: 720px)', { noSsr: true });
  return (
    <>
      <PieceBar id={id} jobTitle={jobTitle} here="cutting" goTo={() => setGoTo(true)} help={() => setHelp(true)} />
      {piece && (
        <>
          <Docked id="cutting-detail" detail={panel && answer && detailOf(panel, answer, () => setPanel(null))}>
            <div className="cutting">
              <Split
                key={String(narrow)}
                id={narrow ? 'cutting-narrow' : 'cutting'}
                way={narrow ? 'vertical' : 'horizontal'}
                panes={[
                  {
                    id: 'settings',
                    called: 'How it is cut',
                    size: narrow ? '50%' : '330px',
                    least: narrow ? '120px' : '240px',
                    keeps: !narrow,
                    body: <Settings piece={piece} answer={answer} lit={lit} light={setLit} />,
                  },
                  {
                    id: 'path',
                    called: 'Path',
                    least: '30%',
                    body: stage,
                  },
                ]}
              />
            </div>
          </Docked>
          <Strip answer={answer} id={id} saved={save === 'saved'} panel={panel} setPanel={setPanel} />
        </>
      )}
      <Message lifted />
      <Help open={help} close={() => setHelp(false)} />
      <GoTo open={goTo} close={() => setGoTo(false)} />
    </>
  );
}

/** Which of a piece's blanks is planned. */
function WhichBlank({ blanks }: { blanks: Answer['blanks'] }) {
  const letter = useBlank((s) => s.letter);
  const shown = blanks.find((one) => one.letter === letter) ?? blanks[0];
  return (
    <p>
      <b>Blank</b>{' '}
      <Select
        className="chip"
        aria-label="Blank"
        value={shown?.letter ?? ''}
        onChange={(event) => useBlank.setState({ letter: event.target.value })}
      >
        {blanks.map((one) => (
          <option key={one.letter} value={one.letter}>
            {one.mark}
          </option>
        ))}
      </Select>{' '}
      <span className="soft">{shown?.words}</span>
    </p>
  );
}

function Settings({
  piece,
  answer,
  lit,
  light,
}: {
  piece: Piece;
  answer: Answer | null;
  lit: number | null;
  light: (cut: number) => void;
}) {
  const used = answer?.cutter;
  const given = (path: Path) => at(piece, ['cutting', ...path]) as string | undefined;
  const comes = (field: string) => answer?.values.find((one) => one.field === field)?.text;
  const set = (path: Path, value: unknown, note: string) =>
    void commit((now) => put(now, ['cutting', ...path], value), `cutting: ${note}`, OWN).then(
      (fault) => fault && useBench.setState({ message: fault }),
    );
  const chip = (path: Path, label: string) => {
    const field = pathText(path);
    return (
      <Chip
        text={given(path) ?? ''}
        ghost={comes(field) ?? 'by the table'}
        optional={path[0] !== 'tabs'}
        label={label}
        edit={(now, text) => put(now, ['cutting', ...path], text)}
        judge={judge(field)}
        own={OWN}
        note={`cutting: ${label}`}
      />
    );
  };
  const qualities = used?.qualities ?? [];
  const quality = piece.cutting?.quality ?? undefined;
  const tabs = piece.cutting?.tabs;
  return (
    <section className="column" aria-label="How it is cut">
      <h2>How it is cut</h2>
      <div className="sentence cutsay">
        {(answer?.blanks.length ?? 0) > 0 && <WhichBlank blanks={answer?.blanks ?? []} />}
        <p>
          <b>Cut</b> on{' '}
          <Select
            className="chip"
            aria-label="Cutter"
            value={piece.cutting?.cutter ?? used?.name ?? ''}
            onChange={(event) => set(['cutter'], event.target.value, `on ${event.target.value}`)}
          >
            {!used && !piece.cutting?.cutter && <option value="">no cutter</option>}
            {answer?.cutters.map((one) => (
              <option key={one.name} value={one.name}>
                {one.title}
                {one.reaches ? '' : ', not this sheet'}
              </option>
            ))}
          </Select>
          {(quality !== undefined || qualities.length > 1) && (
            <>
              {' '}
              in quality{' '}
              <Select
                className="chip"
                aria-label="Quality"
                value={quality ?? ''}
                onChange={(event) =>
                  set(['quality'], event.target.value || undefined, `quality ${event.target.value || 'as usual'}`)
                }
              >
                <option value="">{qualities.length > 0 ? `${qualities[0] || 'plain'}, as usual` : 'as usual'}</option>
                {quality !== undefined && !qualities.includes(quality) && (
                  <option value={quality}>{quality}, which it does not have</option>
                )}
                {qualities.filter(Boolean).map((one) => (
                  <option key={one} value={one}>
                    {one}
                  </option>
                ))}
              </Select>
            </>
          )}
          .
        </p>
        {used?.made_up && (
          <p className="note" role="note">
            Kerf and speed of this row are a made-up example. Cut a test piece, measure its kerf, and{' '}
            <Link to="/shop">put your own figures in</Link> before you cut from this.
          </p>
        )}
        {used && (
          <p className="soft">
            {used.row}: <Terms text="kerf" /> {used.kerf}, {used.speed}, pierce {used.pierce}, least hole{' '}
            {used.least_hole}
            {used.gas && `, ${used.gas}`}. {used.source}. <Link to="/shop">The shop's cutters</Link>
          </p>
        )}
        <p>
          <b>Come in</b> by a{' '}
          <Select
            className="chip"
            aria-label="Shape of leads"
            value={piece.cutting?.lead ?? 'arc'}
            onChange={(event) =>
              set(['lead'], event.target.value === 'arc' ? undefined : event.target.value, 'shape of leads')
            }
          >
            <option value="arc">round</option>
            <option value="line">straight</option>
          </Select>{' '}
          lead of {chip(['lead_in'], 'lead-in')}, go out by {chip(['lead_out'], 'lead-out')}.
        </p>
        <p>
          {tabs ? (
            <>
              <b>Hold</b> the part by {chip(['tabs', 'count'], 'number of tabs')} tabs of{' '}
              {chip(['tabs', 'width'], 'width of tabs')}.{' '}
              <Act onClick={() => set(['tabs'], undefined, 'no tabs')}>no tabs</Act>
            </>
          ) : (
            <>
              <b>Hold</b> the part by no tabs.{' '}
              <Act
                onClick={() => set(['tabs'], { count: '3', width: piece.unit === 'in' ? '0.03 in' : '0.8 mm' }, 'tabs')}
              >
                + tabs
              </Act>
            </>
          )}
        </p>
        <p>
          <b>Round holes</b> too small for it{' '}
          <Select
            className="chip"
            aria-label="Small holes"
            value={piece.cutting?.small_holes ?? 'drill'}
            onChange={(event) =>
              set(['small_holes'], event.target.value === 'drill' ? undefined : event.target.value, 'small holes')
            }
          >
            <option value="drill">are marked for the drill press</option>
            <option value="refuse">stop the program</option>
          </Select>
          .
        </p>
        <p>
          <b>Leave</b> {chip(['margin'], 'margin of stock')} of stock all round.
        </p>
      </div>
      {answer?.findings.map((one) => (
        <p
          key={one.message}
          className={one.severity === 'error' ? 'fault' : 'soft'}
          style={{ margin: '0 14px 6px' }}
          role={one.severity === 'error' ? 'alert' : undefined}
        >
          {one.message.replace(/\.$/, '')}. {one.way_out}
        </p>
      ))}
      {answer?.plan && (
        <>
          <h2>In this order</h2>
          <ol className="cuts" aria-label="Cuts in order">
            {answer.plan.marks.length > 0 && <li className="soft">{answer.plan.marks.length} centres marked first</li>}
            {answer.plan.order.map((one, index) => (
              <li key={index} className={lit === index ? 'on' : ''}>
                {one.outside && answer.plan && answer.plan.more > 0 && (
                  <span className="soft">… {answer.plan.more} more</span>
                )}
                <Press aria-pressed={lit === index} onClick={() => light(index)}>
                  <span className="num">{index + 1 + (one.outside && answer.plan ? answer.plan.more : 0)}</span>{' '}
                  {one.name} <span className="num r">{one.length}</span>
                </Press>
              </li>
            ))}
          </ol>
        </>
      )}
      {answer && answer.cautions.length > 0 && (
        <>
          <h2>Mind</h2>
          <ul className="cautions">
            {answer.cautions.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

function Strip({
  answer,
  id,
  saved,
  panel,
  setPanel,
}: {
  answer: Answer | null;
  id: number;
  saved: boolean;
  panel: 'measured' | 'time' | null;
  setPanel: (panel: 'measured' | 'time' | null) => void;
}) {
  const figure = (key: string) => answer?.figures.find((one) => one.key === key)?.text ?? '—';
  const variant = useBench((s) => s.variant);
  const of = variant ? `?variant=${variant}` : '';
  const found = answer?.inspection;
  const cell = (which: 'measured' | 'time', label: string, body: React.ReactNode) => (
    <Press aria-expanded={panel === which} onClick={() => setPanel(panel === which ? null : which)}>
      <small>{label}</small>
      {body}
    </Press>
  );
  const letter = useBlank((state) => state.letter);
  const blanks = answer?.blanks ?? [];
  const chosen = blanks.find((one) => one.letter === letter) ?? blanks[0];
  // A blank of several has its own files: its mark stands before theirs.
  const own = chosen ? `${encodeURIComponent(chosen.mark)}.` : '';
  return (
    <footer className="proof" aria-label="Cutting in figures">
      {cell(
        'measured',
        'simulated cutter',
        found ? (
          found.holds ? (
            <b className="ok">the part holds</b>
          ) : (
            <b className="bad">the part is wrong</b>
          )
        ) : (
          <b>—</b>
        ),
      )}
      {cell(
        'time',
        'time each · cost each',
        <span className="num">
          <b>
            {figure('time')} · {figure('cost')}
          </b>
        </span>,
      )}
      {cell(
        'time',
        'cut length · pierces',
        <span className="num">
          <b>
            {figure('cut_length')} · {figure('pierces')}
          </b>
        </span>,
      )}
      {cell(
        'time',
        'travel',
        <span className="num">
          <b>{figure('travel')}</b>
        </span>,
      )}
      <span className="files">
        <Act
          kind="main"
          disabled={!saved || !found?.holds}
          onClick={() => void download(`/api/pieces/${id}/files/${own}cut.nc${of}`)}
        >
          Program, G-code
        </Act>
        <Act
          kind="line"
          disabled={!saved}
          onClick={() => void download(`/api/pieces/${id}/files/${own}profile.dxf${of}`)}
        >
          Profile, DXF
        </Act>
        <Act
          kind="line"
          disabled={!saved}
          onClick={() => void download(`/api/pieces/${id}/files/${own}profile.svg${of}`)}
        >
          SVG
        </Act>
      </span>
    </footer>
  );
}

type Contour = NonNullable<Answer['inspection']>['contours'][number];

const contoursIn = (rows: Contour[]): Column<Contour>[] => [
  { key: 'name', head: 'contour', value: (one) => one.name, grow: 1, width: 130 },
  { key: 'size', head: 'as cut', value: (one) => one.size, figure: true, grow: 1, width: 130 },
  figures(rows, { key: 'off', head: 'furthest off', width: 120 }, (one) => one.off),
  figures(rows, { key: 'corner', head: 'left in corners by the kerf', width: 190 }, (one) => one.corner),
];

/** What is open from the strip, to be docked. */
function detailOf(panel: 'measured' | 'time', answer: Answer, close: () => void) {
  const title = panel === 'measured' ? 'What the simulated cutter measured' : 'Time, cost, lengths';
  return { title, close, body: <Detail panel={panel} answer={answer} /> };
}

function Detail({ panel, answer }: { panel: 'measured' | 'time'; answer: Answer }) {
  const found = answer.inspection;
  return (
    <>
      {panel === 'measured' && found && (
        <>
          <p className={found.holds ? 'ok' : 'bad'}>{found.verdict}.</p>
          <p className="soft">
            The program's text is read back by a parser of its own, run with speeds and accelerations ({found.time}),
            and the part that is left is measured: within 0.01 mm it holds.
          </p>
          {found.faults.length > 0 && (
            <ul>
              {found.faults.map((one) => (
                <li key={one.message} className="bad">
                  {one.message}
                  {one.line ? ` (line ${one.line})` : ''}
                </li>
              ))}
              {found.more > 0 && <li className="bad">and {found.more} more</li>}
            </ul>
          )}
          <Grid
            label="Contours as cut"
            rows={found.contours}
            columns={contoursIn(found.contours)}
            idOf={(one) => one.name}
            say={say}
          />
          {found.more_contours > 0 && <p className="soft">and {found.more_contours} more contours, all measured.</p>}
        </>
      )}
      {panel === 'time' && <FigureList label="Time, cost, lengths" figures={answer.figures} />}
    </>
  );
}
