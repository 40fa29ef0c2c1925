// Cut list and welds as tables: a row lights its members, every length and mass has its working.
import { useMemo, useState } from 'react';
import type { BuildAnswer, Why } from '../../api/client';
import { WhyBox } from '../../bench/WhyBox';
import { working } from '../../bench/working';
import { say, select, useBench } from '../../bench/store';
import { PiecePicture } from './Pieces';
import { WELD_WORDS, weldSymbol } from './welds';
import { Act } from '../../kit/Act';
import type { Column } from '../../kit/columns';
import { Grid } from '../../kit/Grid';
import { told } from '../../kit/amounts';
import { Terms } from '../../parts/Terms';
import { useSettings } from '../../settings';
import { Check } from '../../kit/Check';

type Line = Answered['cut_list'][number];
type Weld = Answered['welds'][number];
type Answered = NonNullable<BuildAnswer['frame']>;

/** Columns of the cut list: lengths in the unit that is shown, angles rounded or exact, the shop's own columns last. */
function columnsOf(own: string[], exact: boolean, inches: boolean): Column<Line>[] {
  const unit = inches ? 'in' : 'mm';
  const mass = told('mass', unit);
  const length = (millimetres: number) => Number((inches ? millimetres / 25.4 : millimetres).toFixed(inches ? 4 : 2));
  const end = (one: Line, at: number) => (exact ? one.line.ends[at]?.exact : one.line.ends[at]?.text) ?? '';
  return [
    {
      key: 'mark',
      head: 'mark',
      value: ({ line }) => line.mark,
      show: ({ line }) => (
        <Act className="num" onClick={() => select({ features: line.members })} title={line.members.join(', ')}>
          {line.mark}
        </Act>
      ),
      width: 64,
    },
    {
      key: 'piece',
      head: 'piece',
      value: () => '',
      drawn: true,
      show: (one) => <PiecePicture one={one} height={20} />,
      width: 130,
    },
    { key: 'qty', head: 'qty', value: ({ line }) => line.quantity, width: 56 },
    { key: 'section', head: 'section', value: ({ line }) => line.section, width: 120 },
    { key: 'material', head: 'material', value: ({ line }) => line.material, width: 80 },
    {
      key: 'length',
      head: 'length',
      unit,
      value: ({ line }) => length(line.length),
      show: (one) => <span className="num">{one.length_text}</span>,
      width: 112,
    },
    {
      key: 'short',
      head: 'short point',
      unit,
      value: ({ line }) => length(line.short_length),
      show: (one) => <span className="num">{one.short_text}</span>,
      width: 112,
    },
    {
      key: 'centroid',
      head: 'centroid',
      unit,
      value: ({ line }) => (line.kind === 'member' ? length(line.centroid_length) : null),
      show: (one) => <span className="num">{one.line.kind === 'member' ? one.centroid_text : '—'}</span>,
      width: 112,
    },
    { key: 'start', head: 'start', value: (one) => end(one, 0), width: 150 },
    { key: 'finish', head: 'finish', value: (one) => end(one, 1), width: 150 },
    {
      key: 'cuts',
      head: 'cuts',
      value: ({ line }) =>
        [line.between, line.opposite_of && `opposite hand of ${line.opposite_of}`].filter(Boolean).join('; '),
      width: 140,
    },
    { key: 'work', head: 'work', value: ({ line }) => line.work, width: 140 },
    {
      key: 'each',
      head: 'mass each',
      unit: mass.unit,
      decimals: 3,
      value: ({ line }) => mass.figure(line.mass_each),
      width: 96,
    },
    {
      key: 'all',
      head: 'of all',
      unit: mass.unit,
      decimals: 3,
      value: ({ line }) => mass.figure(line.mass_total),
      width: 96,
    },
    ...own.map((name): Column<Line> => ({
      key: `own ${name}`,
      head: name,
      value: ({ line }) => line.columns[name] ?? '',
      width: 90,
    })),
    {
      key: 'note',
      head: 'note',
      value: ({ line }) => line.note,
      show: ({ line }) => <span className="todo">{line.note}</span>,
      width: 120,
    },
    {
      key: 'working',
      head: 'working',
      value: () => '',
      drawn: true,
      show: (one) => <WhyBoth whys={[one.why_length, one.why_mass].filter((why) => why != null)} />,
      width: 220,
    },
  ];
}

export function CutListPanel() {
  const frame = useBench((s) => s.answer?.frame);
  const own = useBench((s) => s.document?.unit ?? 'mm');
  const unit = useSettings((s) => s.show) ?? own;
  const [exact, setExact] = useState(false);
  const columns = useMemo(
    () =>
      columnsOf(
        [...new Set((frame?.cut_list ?? []).flatMap((one) => Object.keys(one.line.columns)))],
        exact,
        unit === 'in',
      ),
    [frame, exact, unit],
  );
  if (!frame || frame.cut_list.length === 0)
    return <p>The list is empty: put a section on lines, and each piece is listed here.</p>;
  return (
    <>
      <p className="small">
        <Terms text="Lengths from long point to long point, as the saw leaves them." />
      </p>
      <Grid
        label="Cut list"
        rows={frame.cut_list}
        columns={columns}
        idOf={({ line }) => line.mark}
        hover={(one) => useBench.setState({ lit: one?.line.members ?? [] })}
        say={say}
        tools={
          <label>
            <Check checked={exact} change={setExact} /> exact angles
          </label>
        }
      />
      {frame.sums.map((one) => (
        <p key={one.weldment} className="small">
          <b>{one.weldment || 'Whole frame'}</b>: {one.text}
        </p>
      ))}
      {frame.lugs.length > 0 && (
        <>
          <h3>Lifting lugs: for review by a licensed engineer under the local code</h3>
          {frame.lugs.map((why, index) => (
            <div key={index}>
              {why.title}: <span className="num">{why.working}</span>
              <WhyBox why={why} />
            </div>
          ))}
        </>
      )}
    </>
  );
}

/** Several workings under one word. */
function WhyBoth({ whys }: { whys: Why[] }) {
  if (whys.length === 0) return null;
  return (
    <details>
      <summary>why?</summary>
      {whys.map((why) => (
        <dl className="why" key={why.title}>
          <dt>{why.title}</dt>
          <dd>{why.formula}</dd>
          <dt>with its numbers</dt>
          <dd>{why.working}</dd>
          <dt>source</dt>
          <dd>{why.source}</dd>
        </dl>
      ))}
    </details>
  );
}

const WELDS: Column<Weld>[] = [
  { key: 'weld', head: 'weld', value: (one) => one.mark, width: 64 },
  { key: 'joint', head: 'joint', value: (one) => WELD_WORDS[one.kind], width: 140 },
  {
    key: 'parts',
    head: 'parts',
    value: (one) => one.parts.join(' and '),
    show: (one) => <Act onClick={() => select({ features: one.parts })}>{one.parts.join(' and ')}</Act>,
    grow: 1,
    width: 170,
  },
  {
    key: 'length',
    head: 'length',
    unit: 'mm',
    decimals: 1,
    value: (one) => one.length,
    show: (one) => <span className="num">{one.length_text}</span>,
    width: 96,
  },
  { key: 'leg', head: 'leg', unit: 'mm', decimals: 1, value: (one) => one.leg, width: 80 },
  { key: 'throat', head: 'throat', unit: 'mm', decimals: 2, value: (one) => one.throat, width: 84 },
  {
    key: 'symbol',
    head: 'symbol',
    value: (one) => one.symbol,
    show: (one) => (
      <>
        <WeldSymbol weld={one} /> {one.symbol}
      </>
    ),
    width: 150,
  },
  { key: 'deposit', head: 'deposit', unit: 'g', decimals: 1, value: (one) => one.mass * 1000, width: 90 },
  { key: 'time', head: 'time', unit: 'min', decimals: 1, value: (one) => one.minutes, width: 84 },
  working((one) => one.why, 200, 0),
];

export function WeldsPanel() {
  const frame = useBench((s) => s.answer?.frame);
  if (!frame || frame.welds.length === 0) return <p>No welds yet: they are found where members and plates meet.</p>;
  return (
    <>
      <p className="small">Checked and listed, never certified: follow local codes; a licensed engineer decides.</p>
      <Grid
        label="Welds"
        rows={frame.welds}
        columns={WELDS}
        idOf={(one) => one.mark}
        hover={(one) => useBench.setState({ lit: one?.parts ?? [] })}
        say={say}
      />
    </>
  );
}

/** The symbol: an arrow, a reference line, the weld's triangle or its butt, and the ring for all round. */
function WeldSymbol({ weld }: { weld: Parameters<typeof weldSymbol>[0] }) {
  const { butt, allRound, both } = weldSymbol(weld);
  return (
    <svg className="weldsymbol" width="44" height="22" viewBox="0 0 44 22" aria-hidden="true">
      <path d="M2 20 L12 11 H42" />
      {allRound && <circle cx="12" cy="11" r="3" />}
      {butt ? <path d="M24 11 L24 4 M30 11 L30 4" /> : <path d="M22 11 L22 4 L30 11" />}
      {both && <path d="M22 11 L22 18 L30 11" />}
    </svg>
  );
}
