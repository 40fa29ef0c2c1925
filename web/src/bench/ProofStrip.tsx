// The strip that always shows how the piece stands, and what opens from it.
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { client, must, type Piece } from '../api/client';
import { DetailPanel } from '../parts/DetailPanel';
import { useSettings } from '../settings';
import { BarsBrief, BarsPanel } from '../frame/Bars';
import { CutListPanel, WeldsPanel } from '../frame/CutList';
import { AsRead, AuditFaults, useAudit } from './AsRead';
import { FileButton } from './FileButton';
import { Variants } from './Variants';
import { download } from './download';
import { WhyBox } from './WhyBox';
import { restore, selectCallout, selectFeature, useBench, type Panel } from './store';
import { countStale, useTaken } from './taken';

export function ProofStrip() {
  const answer = useBench((s) => s.answer);
  const panel = useBench((s) => s.panel);
  const [id, version, saved] = [useBench((s) => s.id), useBench((s) => s.version), useBench((s) => s.save === 'saved')];
  const { audit } = useAudit();
  const differ = audit?.faults.length ?? 0;
  const files = useTaken((s) => s.pieces[String(id)]);
  if (!answer) return null;
  const stale = countStale(files, version, saved);
  const count = (verdict: string) => answer.callouts.filter((one) => one.verdict === verdict).length;
  const figure = (key: string) => answer.figures.find((one) => one.key === key)?.text ?? '—';
  const errors = answer.findings.filter((one) => one.severity === 'error').length;
  const toggle = (which: Panel) => useBench.setState({ panel: panel === which ? null : which });
  const broken = answer.breaches.length;
  const [off, unplaced] = [count('off'), count('unplaced')];
  const proved =
    differ === 0 && off === 0 && unplaced === 0 && broken === 0 && errors === 0 && answer.callouts.length > 0;
  const cell = (which: Panel, label: string, body: React.ReactNode) => (
    <button type="button" aria-expanded={panel === which} onClick={() => toggle(which)}>
      <small>{label}</small>
      {body}
    </button>
  );
  return (
    <>
      {panel && <Detail panel={panel} />}
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
            <b className="ok">{answer.rules.length} hold</b>
          ) : (
            <b className="bad">
              {[
                broken > 0 ? `${broken} broken` : '',
                errors > 0 ? `${errors} ${errors > 1 ? 'errors' : 'error'}` : '',
                differ > 0 ? `${differ} ${differ > 1 ? 'figures differ' : 'figure differs'}` : '',
              ]
                .filter(Boolean)
                .join(', ')}
            </b>
          ),
        )}
        {answer.frame &&
          cell(
            'cutlist',
            'overall size',
            <span className="num">
              <b>{figure('size')}</b>
            </span>,
          )}
        {answer.frame &&
          cell(
            'cutlist',
            'members · lines',
            <span className="num">
              <b>{figure('members')}</b>
            </span>,
          )}
        {answer.frame && cell('bars', 'bars', <BarsBrief />)}
        {answer.frame &&
          cell(
            'welds',
            'welds',
            <span className="num">
              <b>{figure('welds')}</b>
            </span>,
          )}
        {!answer.frame &&
          cell(
            'blank',
            'blank',
            <span className="num">
              <b>{figure('blank')}</b>
            </span>,
          )}
        {!answer.frame &&
          cell(
            'blank',
            'cut length · pierces',
            <span className="num">
              <b>
                {figure('cut_length')} · {figure('pierces')}
              </b>
            </span>,
          )}
        {cell(
          'mass',
          'mass each · of all',
          <span className="num">
            <b>
              {figure('mass')} · {figure('mass_total')}
            </b>
          </span>,
        )}
        {cell(
          'revisions',
          'release',
          <>
            <b className={proved ? 'ok' : ''}>{proved ? 'proved' : 'drafting'}</b>
            {stale > 0 && <b className="bad">&nbsp;{stale} stale</b>}
          </>,
        )}
      </footer>
    </>
  );
}

function Detail({ panel }: { panel: Exclude<Panel, null> }) {
  const answer = useBench((s) => s.answer);
  if (!answer) return null;
  const titles = {
    callouts: 'Call-outs, measured back',
    rules: 'Shop rules',
    blank: 'Blank: edges, holes, bends',
    mass: 'Mass, size and cautions',
    revisions: 'Revisions and files',
    variants: 'Variants',
    cutlist: 'Cut list',
    bars: 'Bars',
    welds: 'Welds',
  };
  return (
    <DetailPanel title={titles[panel]} close={() => useBench.setState({ panel: null })}>
      {panel === 'callouts' && <Callouts />}
      {panel === 'rules' && <Rules />}
      {panel === 'blank' && <BlankTables />}
      {panel === 'mass' && <Mass />}
      {panel === 'revisions' && <Revisions />}
      {panel === 'variants' && <Variants />}
      {panel === 'cutlist' && <CutListPanel />}
      {panel === 'bars' && <BarsPanel />}
      {panel === 'welds' && <WeldsPanel />}
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
      <button type="button" className="plain" onClick={copy}>
        copy as text
      </button>
      <table className="list">
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
                <button
                  type="button"
                  className="letter"
                  aria-label={`Select call-out ${one.name}`}
                  onClick={() => selectCallout(one.name)}
                >
                  {one.name}
                </button>
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
      </table>
    </>
  );
}

function Rules() {
  const answer = useBench((s) => s.answer);
  const { audit } = useAudit();
  if (!answer) return null;
  const findings = answer.findings;
  return (
    <>
      <AuditFaults audit={audit} />
      {findings.length > 0 && (
        <ul>
          {findings.map((one) => (
            <li key={one.message + one.field} className={one.severity === 'error' ? 'bad' : ''}>
              {one.severity}: {one.operation ? `${one.operation}: ` : ''}
              {one.message}. {one.way_out}
            </li>
          ))}
        </ul>
      )}
      {answer.breaches.map((one) => (
        <div key={one.message}>
          <span className="bad">broken:</span>{' '}
          <button type="button" className="plain" onClick={() => selectFeature(one.features[0] ?? '')}>
            {one.message}.
          </button>{' '}
          {one.way_out}
          <WhyBox why={one.why} />
        </div>
      ))}
      <table className="list">
        <thead>
          <tr>
            <th>rule</th>
            <th>stands</th>
            <th>source</th>
          </tr>
        </thead>
        <tbody>
          {answer.rules.map((one) => (
            <tr key={one.rule}>
              <td>{one.title}</td>
              <td>
                {one.broken === 0 ? (
                  <span className="ok">holds</span>
                ) : (
                  <span className="bad">{one.broken} broken</span>
                )}
              </td>
              <td className="soft">{one.source}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function BlankTables() {
  const answer = useBench((s) => s.answer);
  const blank = answer?.blank;
  if (!answer || !blank) return <p>There is no blank yet: lay down a base.</p>;
  return (
    <div className="shoptables">
      <AsRead />
      {answer.bends.length > 0 && (
        <table className="list" style={{ flex: '1 1 100%' }}>
          <caption className="visually">Bends</caption>
          <thead>
            <tr>
              <th>mark</th>
              <th>bend</th>
              <th className="r">length</th>
              <th>tooling</th>
              <th className="r">allowance</th>
              <th className="r">deduction</th>
              <th className="r">K</th>
              <th>found by</th>
              <th>working</th>
            </tr>
          </thead>
          <tbody>
            {answer.bends.map((one, index) => (
              <tr key={one.name}>
                <td className="num">{one.mark}</td>
                <td>
                  <button type="button" className="plain" onClick={() => selectFeature(one.name)}>
                    {one.name}
                  </button>{' '}
                  <span className="soft">{blank.bends[index]?.text}</span>
                </td>
                <td className="r num">{blank.bends[index]?.length}</td>
                <td>{one.tooling}</td>
                <td className="r num">{blank.bends[index]?.allowance}</td>
                <td className="r num">{blank.bends[index]?.deduction}</td>
                <td className="r num">{one.k_factor.toFixed(3)}</td>
                <td className="soft">{one.source}</td>
                <td>
                  <WhyBox why={one.why} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <ShopTables />
    </div>
  );
}

const CORNERS = [
  ['lower_left', 'lower left'],
  ['lower_right', 'lower right'],
  ['upper_left', 'upper left'],
  ['upper_right', 'upper right'],
] as const;

/** Holes with their balloons from a chosen corner of the blank, and edges. */
function ShopTables() {
  const document = useBench((s) => s.document);
  const caret = useBench((s) => s.caret);
  const id = useBench((s) => s.id);
  const version = useBench((s) => s.version);
  const balloons = useBench((s) => s.balloons);
  const variant = useBench((s) => s.variant);
  const show = useSettings((s) => s.show);
  const [corner, setCorner] = useState<(typeof CORNERS)[number][0]>('lower_left');
  const table = useQuery({
    queryKey: ['tables', id, version, document, caret, corner, variant, show],
    enabled: document !== null,
    placeholderData: (before) => before,
    queryFn: () =>
      must(client.POST('/api/tables', { body: { document: document as Piece, corner, upto: caret, variant, show } })),
  });
  const holes = table.data?.holes ?? [];
  const copy = () =>
    void navigator.clipboard
      .writeText(
        [
          'balloon\thole\tx\ty\tsize\twork',
          ...holes.map((one) => [one.balloon, one.name, one.x, one.y, one.size, one.work].join('\t')),
        ].join('\n'),
      )
      .then(() => useBench.setState({ message: 'The hole table is copied.' }));
  return (
    <>
      <div>
        <p className="tools" style={{ margin: '0 0 4px' }}>
          <label>
            holes from{' '}
            <select
              className="field"
              value={corner}
              onChange={(event) => setCorner(event.target.value as typeof corner)}
            >
              {CORNERS.map(([key, words]) => (
                <option key={key} value={key}>
                  the {words} corner
                </option>
              ))}
            </select>
          </label>
          <label>
            <input
              type="checkbox"
              checked={balloons}
              onChange={(event) => useBench.setState({ balloons: event.target.checked })}
            />{' '}
            balloons on the blank
          </label>
          <button type="button" className="plain" onClick={copy}>
            copy as text
          </button>
          <button
            type="button"
            className="plain"
            onClick={() =>
              void download(`/api/pieces/${id}/holes.csv?corner=${corner}${variant ? `&variant=${variant}` : ''}`)
            }
          >
            CSV
          </button>
        </p>
        <table className="list">
          <caption className="visually">Holes</caption>
          <thead>
            <tr>
              <th>balloon</th>
              <th>hole</th>
              <th className="r">x</th>
              <th className="r">y</th>
              <th>size and work</th>
              <th>cutter</th>
            </tr>
          </thead>
          <tbody>
            {holes.map((one) => (
              <tr key={one.name}>
                <td className="num">{one.balloon}</td>
                <td>
                  <button type="button" className="plain" onClick={() => selectFeature(one.name)}>
                    {one.name}
                  </button>
                </td>
                <td className="r num">{one.x}</td>
                <td className="r num">{one.y}</td>
                <td className="num">
                  {one.size}
                  {one.work && `, ${one.work}`}
                </td>
                <td>{one.cutter}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {holes.length === 0 && <p className="soft">No holes yet.</p>}
        {(table.data?.more ?? 0) > 0 && <p className="soft">and {table.data?.more} more; the CSV has them all.</p>}
      </div>
      <div>
        <p className="tools" style={{ margin: '0 0 4px' }}>
          <button
            type="button"
            className="plain"
            onClick={() => void download(`/api/pieces/${id}/edges.csv${variant ? `?variant=${variant}` : ''}`)}
          >
            edges, CSV
          </button>
        </p>
        <table className="list">
          <caption className="visually">Edges</caption>
          <thead>
            <tr>
              <th>edge</th>
              <th className="r">length</th>
              <th className="r">radius</th>
              <th className="r">stretches</th>
            </tr>
          </thead>
          <tbody>
            {table.data?.edges.map((one) => (
              <tr key={one.name}>
                <td>
                  <button type="button" className="plain" onClick={() => selectFeature(one.name)}>
                    {one.name}
                  </button>
                </td>
                <td className="r num">{one.length}</td>
                <td className="r num">{one.radius || '—'}</td>
                <td className="r num">{one.stretches}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

/** The 1:1 template: which paper, and what the check lines of the last print measured. */
function Template() {
  const id = useBench((s) => s.id);
  const unit = useBench((s) => s.document?.unit);
  const [paper, setPaper] = useState('a4');
  const [across, setAcross] = useState('');
  const [up, setUp] = useState('');
  const line = unit === 'in' ? '4 in' : '100 mm';
  const variant = useBench((s) => s.variant);
  const query = new URLSearchParams({
    paper,
    ...(variant ? { variant } : {}),
    ...(across.trim() ? { across } : {}),
    ...(up.trim() ? { up } : {}),
  });
  return (
    <p className="tools">
      <b>1:1 template</b>
      <label>
        on{' '}
        <select className="field" value={paper} onChange={(event) => setPaper(event.target.value)} aria-label="Paper">
          <option value="a4">A4</option>
          <option value="a3">A3</option>
          <option value="letter">Letter</option>
        </select>
      </label>
      <label>
        check lines of {line} measured{' '}
        <input
          className="field num"
          size={8}
          value={across}
          placeholder={line}
          aria-label="Check line across measured"
          onChange={(event) => setAcross(event.target.value)}
        />
      </label>
      <label>
        and{' '}
        <input
          className="field num"
          size={8}
          value={up}
          placeholder={line}
          aria-label="Check line up measured"
          onChange={(event) => setUp(event.target.value)}
        />
      </label>
      <button
        type="button"
        className="btn"
        onClick={() => void download(`/api/pieces/${id}/template.pdf?${query.toString()}`)}
      >
        {across.trim() || up.trim() ? 'Corrected template, PDF' : 'Template, PDF'}
      </button>
    </p>
  );
}

function Mass() {
  const answer = useBench((s) => s.answer);
  return (
    <>
      <table className="list">
        <tbody>
          {answer?.figures.map((one) => (
            <tr key={one.key}>
              <td>{one.label}</td>
              <td className="num">{one.text}</td>
              <td>{one.why && <WhyBox why={one.why} />}</td>
            </tr>
          ))}
        </tbody>
      </table>
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
  const variant = useBench((s) => s.variant);
  const frame = useBench((s) => s.answer?.frame);
  const revisions = useQuery({
    queryKey: ['revisions', id, version],
    queryFn: () => must(client.GET('/api/pieces/{id}/revisions', { params: { path: { id } } })),
  });
  return (
    <>
      {frame ? (
        <FrameFiles id={id} variant={variant} />
      ) : (
        <>
          <p>
            <Link className="btn main" style={{ marginRight: 8 }} to={`/pieces/${id}/cutting`}>
              Cutting: path, time, G-code
            </Link>
            {(
              [
                ['blank.dxf', 'Blank, DXF'],
                ['blank.pdf', 'Flat sheet, PDF'],
                ['bends.csv', 'Bend table, CSV'],
                ['part.step', 'Folded part, STEP'],
                ['part.glb', 'Folded part, GLB'],
                ['blank.svg', 'Blank, SVG at true size'],
                ['profile.dxf', 'Cut profile, DXF'],
                ['profile.svg', 'Cut profile, SVG'],
                ['holes.csv', 'Hole table, CSV'],
                ['edges.csv', 'Edge table, CSV'],
                ['cutlist.csv', 'Cut list, CSV'],
                ['report.json', 'Proof report, JSON'],
                ['piece.json', 'Piece document'],
              ] satisfies [string, string][]
            ).map(([file, words]) => (
              <FileButton
                key={file}
                file={file}
                query={variant && file !== 'piece.json' ? `?variant=${variant}` : ''}
                words={words}
              />
            ))}
          </p>
          <Template />
        </>
      )}
      <table className="list">
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
              <td>
                {one.number !== version && (
                  <button type="button" className="plain" onClick={() => void restore(one.number)}>
                    restore
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** The files of a frame. */
function FrameFiles({ id, variant }: { id: number; variant: string | null }) {
  const list = useBench((s) => s.answer?.frame?.cut_list) ?? [];
  const query = variant ? `?variant=${variant}` : '';
  const files: [string, string][] = [
    ['frame/cutlist.pdf', 'Cut list, PDF'],
    ['frame/cutlist.xlsx', 'Cut list, bars, welds, XLSX'],
    ['frame/cutlist.csv', 'Cut list, CSV'],
    ['frame/bars.csv', 'Cutting plan, CSV'],
    ['frame/welds.csv', 'Welds, CSV'],
    ['frame/frame.step', 'Frame, STEP'],
    ['frame/frame.glb', 'Frame, GLB'],
    ['report.json', 'Proof report, JSON'],
    ['piece.json', 'Piece document'],
  ];
  return (
    <>
      <p>
        {files.map(([file, text]) => (
          <FileButton key={file} file={file} query={file === 'piece.json' ? '' : query} words={text} />
        ))}
      </p>
      <p className="soft">
        Machine files (NC1): <SawLine id={id} variant={variant} />{' '}
        {list
          .filter((one) => one.line.kind === 'member')
          .map((one) => (
            <FileButton
              key={one.line.mark}
              plain
              file={`frame/${one.line.mark}.nc1`}
              query={query}
              words={one.line.mark}
              label={`NC1 of ${one.line.mark}`}
            />
          ))}
      </p>
    </>
  );
}

/** What the simulated saw and drill line makes of the machine files. */
function SawLine({ id, variant }: { id: number; variant: string | null }) {
  const version = useBench((s) => s.version);
  const sawn = useQuery({
    queryKey: ['saw', id, version, variant],
    retry: false,
    queryFn: () =>
      must(client.GET('/api/pieces/{id}/saw', { params: { path: { id }, query: variant ? { variant } : {} } })),
  });
  if (sawn.isLoading) return <span role="status">on the simulated line…</span>;
  if (sawn.isError) return <span className="todo">none yet.</span>;
  const all = (sawn.data ?? []).filter((one) => one.has_file);
  const bad = all.filter((one) => !one.good);
  const without = (sawn.data ?? []).filter((one) => !one.has_file);
  return (
    <>
      <span className={bad.length > 0 ? 'bad' : 'ok'}>
        {all.length - bad.length} of {all.length} machine files come off the simulated line as listed.
      </span>{' '}
      {[...bad, ...without].map((one) => (
        <span key={one.mark} className={one.has_file ? 'bad' : ''}>
          {one.mark}: {one.words}.{' '}
        </span>
      ))}
    </>
  );
}
