// The strip that always shows how the piece stands, and what opens from it.
import { useQuery } from '@tanstack/react-query';
import { Fragment, useMemo } from 'react';
import { client, must, type BuildAnswer, type Schemas } from '../api/client';
import { kindOfPiece } from '../kinds';
import type { KindOfPiece } from '../kinds/kind';
import { useAudit } from './AsRead';
import { acceptedIn, brokenIn } from './breaches';
import { FigureList } from './FigureList';
import { FigureText } from './FigureText';
import { Files } from './Files';
import { Rules } from './Rules';
import { Variants } from './Variants';
import { working } from './working';
import { restore, say, selectCallout, useBench, type Panel } from './store';
import { countStale, useTaken } from './taken';
import { Act } from '../kit/Act';
import { Press } from '../kit/Press';
import { figures, type Column } from '../kit/columns';
import { Grid } from '../kit/Grid';

export function ProofStrip() {
  const answer = useBench((s) => s.answer);
  const panel = useBench((s) => s.panel);
  const [id, version, saved] = [useBench((s) => s.id), useBench((s) => s.version), useBench((s) => s.save === 'saved')];
  const { audit } = useAudit();
  const differ = audit?.faults.length ?? 0;
  const files = useTaken((s) => s.pieces[String(id)]);
  const kind = useBench((s) => (s.document ? kindOfPiece(s.document) : null));
  const half = useBench((s) => s.caret !== null);
  const unconfirmed = useBench((s) => s.document?.stock.confirmed === false);
  if (!answer || !kind) return null;
  const stale = countStale(files, version, saved);
  const count = (verdict: string) => answer.callouts.filter((one) => one.verdict === verdict).length;
  const errors = answer.findings.filter((one) => one.severity === 'error').length;
  const toggle = (which: Panel) => useBench.setState({ panel: panel === which ? null : which });
  const broken = brokenIn(answer).length;
  const accepted = acceptedIn(answer).length;
  // A rule that is accepted somewhere does not hold there.
  const heldBy = answer.rules.filter((one) => one.accepted > 0).length;
  const [off, unplaced] = [count('off'), count('unplaced')];
  const proved =
    !half &&
    !unconfirmed &&
    differ === 0 &&
    off === 0 &&
    unplaced === 0 &&
    broken === 0 &&
    errors === 0 &&
    answer.callouts.length > 0;
  const cell = (which: Panel, label: string, body: React.ReactNode) => (
    <Press aria-expanded={panel === which} onClick={() => toggle(which)}>
      <small>{label}</small>
      {body}
    </Press>
  );
  return (
    <>
      <footer id="proof" tabIndex={-1} className={half ? 'proof half' : 'proof'} aria-label="Proof">
        {cell(
          'callouts',
          'call-outs',
          <>
            <b className="ok">{count('holds')} hold</b> {off > 0 && <b className="bad">&nbsp;{off} off</b>}{' '}
            {unplaced > 0 && <b className="todo">&nbsp;{unplaced} unplaced</b>}
          </>,
        )}
        {cell(
          'rules',
          'shop rules',
          broken + errors + differ === 0 ? (
            <>
              <b className="ok">{answer.rules.length - heldBy} hold</b>
              {accepted > 0 && <b className="todo">&nbsp;{accepted} accepted</b>}
            </>
          ) : (
            <b className="bad">
              {[
                broken > 0 ? `${broken} broken` : '',
                accepted > 0 ? `${accepted} accepted` : '',
                errors > 0 ? `${errors} ${errors > 1 ? 'errors' : 'error'}` : '',
                differ > 0 ? `${differ} ${differ > 1 ? 'figures differ' : 'figure differs'}` : '',
              ]
                .filter(Boolean)
                .join(', ')}
            </b>
          ),
        )}
        {kind.strip.map(({ panel: which, label, labelOf, Body }) => (
          <Fragment key={label}>{cell(which, labelOf?.(answer) ?? label, <Body />)}</Fragment>
        ))}
        {cell('mass', 'mass each · of all', <FigureText keys={['mass', 'mass_total']} />)}
        {cell(
          'revisions',
          'release',
          <>
            <b className={unconfirmed ? 'todo' : proved ? 'ok' : ''}>
              {unconfirmed ? 'stock not confirmed' : half ? 'not shown whole' : proved ? 'proved' : 'drafting'}
            </b>
            {stale > 0 && <b className="bad">&nbsp;{stale} stale</b>}
          </>,
        )}
      </footer>
    </>
  );
}

/** What is open from the strip, to be docked; null where nothing is. */
export function useDetail() {
  const panel = useBench((s) => s.panel);
  const kind = useBench((s) => (s.answer && s.document ? kindOfPiece(s.document) : null));
  const own = panel && [...(kind?.panels ?? []), ...PANELS].find((one) => one.panel === panel);
  return kind && own ? { title: own.title, close: () => useBench.setState({ panel: null }), body: <own.Body /> } : null;
}

type CallOut = BuildAnswer['callouts'][number] & { what: string };

const VERDICT = { holds: 'ok', off: 'bad', unplaced: 'todo' } as const;

const calloutsIn = (rows: CallOut[]): Column<CallOut>[] => [
  {
    key: 'name',
    head: 'name',
    value: (one) => one.name,
    show: (one) => (
      <Press className="letter" aria-label={`Select call-out ${one.name}`} onClick={() => selectCallout(one.name)}>
        {one.name}
      </Press>
    ),
    width: 70,
  },
  { key: 'what', head: 'number', value: (one) => one.what, grow: 1, width: 110 },
  {
    key: 'measures',
    head: 'measures',
    value: (one) => one.measures,
    show: (one) => one.measures || <span className="soft">nothing</span>,
    grow: 2,
    width: 160,
  },
  figures(rows, { key: 'value', head: 'value', width: 100 }, (one) => one.value_text),
  { key: 'tolerance', head: 'tolerance', value: (one) => one.tolerance_text, figure: true, width: 100 },
  figures(rows, { key: 'measured', head: 'measured', width: 100 }, (one) => one.measured_text),
  {
    key: 'verdict',
    head: 'verdict',
    value: (one) => [one.verdict, one.off_by].filter(Boolean).join(' '),
    show: (one) => (
      <div>
        <span className={VERDICT[one.verdict]}>
          {one.verdict} {one.off_by}
        </span>
        {one.verdict !== 'holds' && <div className="soft">{one.reason}</div>}
      </div>
    ),
    grow: 1,
    width: 120,
  },
  {
    key: 'drives',
    head: 'used by',
    value: (one) => one.drives.join(', '),
    show: (one) => one.drives.join(', ') || '—',
    grow: 1,
    width: 100,
  },
  working((one) => one.why, 100),
];

function Callouts() {
  const answer = useBench((s) => s.answer);
  const piece = useBench((s) => s.document);
  const rows = useMemo(
    () =>
      (answer?.callouts ?? []).map((one): CallOut => ({
        ...one,
        what: piece?.callouts?.find((own) => own.name === one.name)?.text ?? '',
      })),
    [answer, piece],
  );
  const columns = useMemo(() => calloutsIn(rows), [rows]);
  if (rows.length === 0)
    return <p>The drawing's numbers are listed here once they are taken from it. Press c to take the first.</p>;
  return <Grid label="Call-outs, measured back" rows={rows} columns={columns} idOf={(one) => one.name} say={say} />;
}

function Mass() {
  const answer = useBench((s) => s.answer);
  return (
    <>
      <FigureList label="Mass and size" figures={answer?.figures ?? []} />
      <h3>Cautions</h3>
      <ul>
        {answer?.cautions.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
    </>
  );
}

const revisionsAt = (version: number): Column<Schemas['RevisionLine']>[] => [
  { key: 'number', head: 'revision', value: (one) => one.number, width: 90 },
  { key: 'when', head: 'when', value: (one) => one.at.replace('T', ' ').slice(0, 19), width: 150 },
  { key: 'who', head: 'who', value: (one) => one.who, width: 110 },
  { key: 'what', head: 'what', value: (one) => `${one.action}: ${one.note}`, grow: 1, width: 220 },
  {
    key: 'restore',
    head: 'restore',
    value: () => null,
    show: (one) => one.number !== version && <Act onClick={() => void restore(one.number)}>restore</Act>,
    drawn: true,
    width: 90,
  },
];

function Revisions() {
  const id = useBench((s) => s.id);
  const version = useBench((s) => s.version);
  const revisions = useQuery({
    queryKey: ['revisions', id, version],
    queryFn: () => must(client.GET('/api/pieces/{id}/revisions', { params: { path: { id } } })),
  });
  const columns = useMemo(() => revisionsAt(version), [version]);
  return (
    <>
      <Files />
      <Grid label="Revisions" rows={revisions.data ?? []} columns={columns} idOf={(one) => one.number} say={say} />
    </>
  );
}

/** Panels that every kind has. */
const PANELS: KindOfPiece['panels'] = [
  { panel: 'callouts', title: 'Call-outs, measured back', Body: Callouts },
  { panel: 'rules', title: 'Shop rules', Body: Rules },
  { panel: 'mass', title: 'Mass, size and cautions', Body: Mass },
  { panel: 'revisions', title: 'Revisions and files', Body: Revisions },
  { panel: 'variants', title: 'Variants', Body: Variants },
];
