// The strip that always shows how the piece stands, and what opens from it.
import { useQuery } from '@tanstack/react-query';
import { Fragment } from 'react';
import { client, must } from '../api/client';
import { kindOfPiece } from '../kinds';
import type { KindOfPiece } from '../kinds/kind';
import { DetailPanel } from '../parts/DetailPanel';
import { useAudit } from './AsRead';
import { acceptedIn, brokenIn } from './breaches';
import { FigureText } from './FigureText';
import { Files } from './Files';
import { Rules } from './Rules';
import { Variants } from './Variants';
import { WhyBox } from './WhyBox';
import { restore, selectCallout, useBench, type OpenPanel, type Panel } from './store';
import { countStale, useTaken } from './taken';
import { Act } from '../kit/Act';
import { Press } from '../kit/Press';
import { List } from '../kit/List';

export function ProofStrip() {
  const answer = useBench((s) => s.answer);
  const panel = useBench((s) => s.panel);
  const [id, version, saved] = [useBench((s) => s.id), useBench((s) => s.version), useBench((s) => s.save === 'saved')];
  const { audit } = useAudit();
  const differ = audit?.faults.length ?? 0;
  const files = useTaken((s) => s.pieces[String(id)]);
  const kind = useBench((s) => (s.document ? kindOfPiece(s.document) : null));
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
      {panel && <Detail panel={panel} kind={kind} />}
      <footer className="proof" aria-label="Proof">
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
        {kind.strip.map(({ panel: which, label, Body }) => (
          <Fragment key={label}>{cell(which, label, <Body />)}</Fragment>
        ))}
        {cell('mass', 'mass each · of all', <FigureText keys={['mass', 'mass_total']} />)}
        {cell(
          'revisions',
          'release',
          <>
            <b className={unconfirmed ? 'todo' : proved ? 'ok' : ''}>
              {unconfirmed ? 'stock not confirmed' : proved ? 'proved' : 'drafting'}
            </b>
            {stale > 0 && <b className="bad">&nbsp;{stale} stale</b>}
          </>,
        )}
      </footer>
    </>
  );
}

function Detail({ panel, kind }: { panel: OpenPanel; kind: KindOfPiece }) {
  const own = kind.panels.find((one) => one.panel === panel) ?? PANELS.find((one) => one.panel === panel);
  return (
    <DetailPanel title={own?.title ?? ''} close={() => useBench.setState({ panel: null })}>
      {own && <own.Body />}
    </DetailPanel>
  );
}

function Callouts() {
  const answer = useBench((s) => s.answer);
  const piece = useBench((s) => s.document);
  if (!answer?.callouts.length)
    return <p>The drawing's numbers are listed here once they are taken off it. Press c to take the first.</p>;
  const copy = () => {
    const rows = answer.callouts.map((one) =>
      [
        one.name,
        piece?.callouts?.find((own) => own.name === one.name)?.text ?? '',
        one.value_text,
        one.tolerance_text,
        one.measured_text,
        one.verdict,
        one.off_by,
      ].join('\t'),
    );
    void navigator.clipboard
      .writeText(['name\twhat\tvalue\ttolerance\tmeasured\tverdict\toff by', ...rows].join('\n'))
      .then(() => useBench.setState({ message: 'The table is copied.' }));
  };
  return (
    <>
      <Act onClick={copy}>copy as text</Act>
      <List>
        <thead>
          <tr>
            <th>name</th>
            <th>measures</th>
            <th className="r">value</th>
            <th className="r">tolerance</th>
            <th className="r">measured</th>
            <th>verdict</th>
            <th>drives</th>
            <th>working</th>
          </tr>
        </thead>
        <tbody>
          {answer.callouts.map((one) => (
            <tr key={one.name}>
              <td>
                <Press
                  className="letter"
                  aria-label={`Select call-out ${one.name}`}
                  onClick={() => selectCallout(one.name)}
                >
                  {one.name}
                </Press>
              </td>
              <td>{one.measures || <span className="soft">nothing</span>}</td>
              <td className="r num">{one.value_text}</td>
              <td className="r num">{one.tolerance_text}</td>
              <td className="r num">{one.measured_text || '—'}</td>
              <td>
                {one.verdict === 'holds' ? (
                  <span className="ok">holds</span>
                ) : one.verdict === 'off' ? (
                  <span className="bad">off {one.off_by}</span>
                ) : (
                  <span className="todo">unplaced</span>
                )}
                {one.verdict !== 'holds' && <div className="soft">{one.reason}</div>}
              </td>
              <td>{one.drives.join(', ') || '—'}</td>
              <td>
                <WhyBox why={one.why} />
              </td>
            </tr>
          ))}
        </tbody>
      </List>
    </>
  );
}

function Mass() {
  const answer = useBench((s) => s.answer);
  return (
    <>
      <List>
        <tbody>
          {answer?.figures.map((one) => (
            <tr key={one.key}>
              <td>{one.label}</td>
              <td className="num">{one.text}</td>
              <td>{one.why && <WhyBox why={one.why} />}</td>
            </tr>
          ))}
        </tbody>
      </List>
      <h3>Cautions</h3>
      <ul>
        {answer?.cautions.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
    </>
  );
}

function Revisions() {
  const id = useBench((s) => s.id);
  const version = useBench((s) => s.version);
  const revisions = useQuery({
    queryKey: ['revisions', id, version],
    queryFn: () => must(client.GET('/api/pieces/{id}/revisions', { params: { path: { id } } })),
  });
  return (
    <>
      <Files />
      <List>
        <thead>
          <tr>
            <th className="r">revision</th>
            <th>when</th>
            <th>who</th>
            <th>what</th>
            <th>
              <span className="visually">restore</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {revisions.data?.slice(0, 100).map((one) => (
            <tr key={one.number}>
              <td className="r num">{one.number}</td>
              <td className="num">{one.at.replace('T', ' ').slice(0, 19)}</td>
              <td>{one.who}</td>
              <td>
                {one.action}: {one.note}
              </td>
              <td>{one.number !== version && <Act onClick={() => void restore(one.number)}>restore</Act>}</td>
            </tr>
          ))}
        </tbody>
      </List>
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
