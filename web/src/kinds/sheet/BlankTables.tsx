// The blank in tables: bends, holes with their balloons, edges.
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { client, must, type BuildAnswer, type Piece, type Schemas } from '../../api/client';
import { AsRead } from '../../bench/AsRead';
import { download } from '../../bench/download';
import { commit, say, selectFeature, useBench } from '../../bench/store';
import { working } from '../../bench/working';
import { Terms } from '../../parts/Terms';
import { useSettings } from '../../settings';
import { Act } from '../../kit/Act';
import { figures, type Column } from '../../kit/columns';
import { Grid } from '../../kit/Grid';
import { Select } from '../../kit/Select';
import { Check } from '../../kit/Check';
import { Choice } from '../../kit/Choice';
import { blankMarks } from './Files';
import { JOINTS, joined, ownerOf } from './verbs/transition';

type Bend = BuildAnswer['bends'][number] & { drawn?: NonNullable<BuildAnswer['blank']>['bends'][number] };

const feature = (name: string) => <Act onClick={() => selectFeature(name)}>{name}</Act>;

const bendsIn = (bends: Bend[]): Column<Bend>[] => [
  { key: 'mark', head: 'mark', value: (one) => one.mark, width: 60 },
  {
    key: 'bend',
    head: 'bend',
    value: (one) => `${one.name} ${one.drawn?.text ?? ''}`,
    show: (one) => (
      <>
        {feature(one.name)} <span className="soft">{one.drawn?.text}</span>
      </>
    ),
    grow: 2,
    width: 150,
  },
  figures(bends, { key: 'length', head: 'length', width: 100 }, (one) => one.drawn?.length),
  { key: 'tooling', head: 'tooling', value: (one) => one.tooling, grow: 1, width: 110 },
  figures(bends, { key: 'allowance', head: 'allowance', width: 100 }, (one) => one.drawn?.allowance),
  figures(bends, { key: 'deduction', head: 'deduction', width: 100 }, (one) => one.drawn?.deduction),
  { key: 'k', head: 'K', value: (one) => one.k_factor, decimals: 3, width: 70 },
  { key: 'source', head: 'found by', value: (one) => one.source, grow: 1, width: 110 },
  working((one) => one.why, 90),
];

export function BlankTables() {
  const answer = useBench((s) => s.answer);
  const blank = answer?.blank;
  const bends = useMemo(
    () => (answer?.bends ?? []).map((one, at): Bend => ({ ...one, drawn: answer?.blank?.bends[at] })),
    [answer],
  );
  const bendColumns = useMemo(() => bendsIn(bends), [bends]);
  if (!answer || !blank) return <p>There is no blank yet: lay down a base.</p>;
  return (
    <div className="shoptables">
      <AsRead />
      {answer.bends.length > 0 && (
        <div style={{ flex: '1 1 100%' }}>
          <p className="small">
            <Terms text="Asked about most: K-factor, mould line, setback, leg outside and inside, relief." />
          </p>
          <Grid label="Bends" rows={bends} columns={bendColumns} idOf={(one) => one.name} say={say} />
        </div>
      )}
      <Seams />
      <Surfaces />
      <ShopTables />
    </div>
  );
}

type Seam = BuildAnswer['seams'][number];

const seamsIn = (seams: Seam[]): Column<Seam>[] => [
  { key: 'seam', head: 'seam', value: (one) => one.name, width: 100 },
  {
    key: 'edges',
    head: 'between',
    value: (one) => one.walls.join(' and '),
    show: (one) => (
      <>
        {feature(one.walls[0] ?? '')} <span className="soft">{one.marks[0]}</span> {feature(one.walls[1] ?? '')}{' '}
        <span className="soft">{one.marks[1]}</span>
      </>
    ),
    grow: 2,
    width: 240,
  },
  figures(seams, { key: 'length', head: 'length', width: 100 }, (one) => one.length),
  figures(seams, { key: 'angle', head: 'angle', width: 90 }, (one) => one.angle),
  figures(seams, { key: 'gap', head: 'gap', width: 80 }, (one) => one.gap),
  figures(seams, { key: 'open', head: 'open', width: 80 }, (one) => one.open),
  { key: 'how', head: 'how', value: (one) => one.words, grow: 1, width: 150 },
  {
    key: 'weld',
    head: 'weld',
    value: (one) => one.welds.map((weld) => `${weld.label} ${weld.text}`).join('; '),
    grow: 1,
    width: 150,
  },
  working((one) => one.welds[0]?.why ?? undefined, 90),
];

/** Joints between edges, with what welds them. */
function Seams() {
  const seams = useBench((s) => s.answer?.seams);
  const columns = useMemo(() => seamsIn(seams ?? []), [seams]);
  if (!seams || seams.length === 0) return null;
  return (
    <div style={{ flex: '1 1 100%' }}>
      <Grid label="Seams" rows={seams} columns={columns} idOf={(one) => one.name} say={say} />
    </div>
  );
}

type Surface = BuildAnswer['surfaces'][number];
type SurfaceEdge = Surface['edges'][number] & { operation: string };

const panelsOf = (rows: Surface['panels']): Column<Surface['panels'][number]>[] => [
  { key: 'panel', head: 'panel', value: (one) => one.name, show: (one) => feature(one.name), grow: 1, width: 120 },
  figures(rows, { key: 'area', head: 'true area', width: 120 }, (one) => one.area),
  figures(rows, { key: 'slope', head: 'slope', width: 90 }, (one) => one.slope),
  figures(rows, { key: 'plane', head: 'from its plane', width: 110 }, (one) => one.off_plane ?? undefined),
  {
    key: 'there',
    head: 'sheet',
    value: (one) => (one.is_left_out ? 'left out' : (one.held ?? '')),
    width: 80,
  },
];

const edgesOf = (rows: SurfaceEdge[], piece: Piece | null): Column<SurfaceEdge>[] => [
  { key: 'edge', head: 'edge', value: (one) => one.between, grow: 1, width: 140 },
  figures(rows, { key: 'length', head: 'true length', width: 110 }, (one) => one.length),
  figures(rows, { key: 'dihedral', head: 'angle inside', width: 110 }, (one) => one.dihedral),
  figures(rows, { key: 'bend', head: 'bend angle', width: 100 }, (one) => one.bend),
  {
    key: 'joint',
    head: 'is a',
    value: (one) => one.joint,
    show: (one) =>
      one.between.includes('-tab-') ? (
        // A tab is always bent from its panel.
        'bend'
      ) : (
        <Choice
          label={`${one.between} is a`}
          value={one.joint}
          options={JOINTS.map(([key, words]) => [key, words] as const)}
          change={(joint) => {
            void commit((piece) => joined(piece, one.operation, one.between, joint), `${one.between}: ${joint}`);
          }}
        />
      ),
    width: 90,
  },
  {
    key: 'owner',
    head: 'goes through',
    value: (one) => ownerOf(piece, one.operation, one.between) ?? '',
    show: (one) =>
      one.joint === 'bend' ? (
        ''
      ) : (
        <Choice
          label={`what goes through at ${one.between}`}
          value={ownerOf(piece, one.operation, one.between) ?? ''}
          options={[['', 'neither'], ...one.between.split('/').map((panel) => [panel, panel] as const)]}
          change={(owner) => {
            void commit(
              (now) => joined(now, one.operation, one.between, one.joint, owner || undefined),
              `${one.between}: ${owner === '' ? 'edge to edge' : `${owner} goes through`}`,
            );
          }}
        />
      ),
    width: 120,
  },
];

type Rim = Surface['rims'][number];

const RIMS: Column<Rim>[] = [
  { key: 'panel', head: 'panel', value: (one) => one.panel, show: (one) => feature(one.panel), width: 140 },
  { key: 'edge', head: 'edge', value: (one) => one.edge, width: 100 },
  { key: 'how', head: 'cut square at its plane', value: (one) => one.words, grow: 1, width: 260 },
];

type After = Surface['after_welding'][number];

const AFTER: Column<After>[] = [
  {
    key: 'hole',
    head: 'drilled after welding',
    value: (one) => one.operation,
    show: (one) => feature(one.operation),
    width: 160,
  },
  { key: 'size', head: 'size', value: (one) => one.size, width: 90 },
  { key: 'between', head: 'in the joint of', value: (one) => one.between, grow: 1, width: 220 },
  { key: 'place', head: 'at', value: (one) => one.place, grow: 1, width: 200 },
];

/** Transitions: true sizes, angles, what they hold, and which face stands back at their rims. */
function Surfaces() {
  const surfaces = useBench((s) => s.answer?.surfaces) ?? [];
  return surfaces.map((one) => <SurfaceTables key={one.operation} surface={one} />);
}

function SurfaceTables({ surface }: { surface: Surface }) {
  const edges = useMemo(
    () => surface.edges.map((one): SurfaceEdge => ({ ...one, operation: surface.operation })),
    [surface],
  );
  const panelColumns = useMemo(() => panelsOf(surface.panels), [surface]);
  const piece = useBench((s) => s.document);
  const edgeColumns = useMemo(() => edgesOf(edges, piece), [edges, piece]);
  return (
    <div style={{ flex: '1 1 100%' }}>
      <p className="small">
        {surface.operation}: surface {surface.area}
        {surface.capacity
          ? `, holds ${surface.capacity} within its inner faces`
          : '; what it holds is not told, since a rim of it is not plane'}
      </p>
      <Grid
        label={`Panels of ${surface.operation}`}
        rows={surface.panels}
        columns={panelColumns}
        idOf={(one) => one.name}
        say={say}
      />
      <Grid
        label={`Edges of ${surface.operation}`}
        rows={edges}
        columns={edgeColumns}
        idOf={(one) => one.between}
        say={say}
      />
      <Grid
        label={`Rims of ${surface.operation}`}
        rows={surface.rims}
        columns={RIMS}
        idOf={(one) => `${one.panel}.${one.edge}`}
        say={say}
      />
      {surface.after_welding.length > 0 && (
        <Grid
          label={`Drilled after welding on ${surface.operation}`}
          rows={surface.after_welding}
          columns={AFTER}
          idOf={(one) => `${one.operation} ${one.place}`}
          say={say}
        />
      )}
    </div>
  );
}

const CORNERS = [
  ['lower_left', 'lower left'],
  ['lower_right', 'lower right'],
  ['upper_left', 'upper left'],
  ['upper_right', 'upper right'],
] as const;

type Hole = Schemas['HoleLine'];

/** A place as the server wrote it, to be sorted by: a number where it is one, fractions as they are read. */
const asNumber = (text: string) => (/^-?\d+(\.\d+)?( mm| in)?$/.test(text) ? Number.parseFloat(text) : text);

const ofBlank = { key: 'blank', head: 'blank', value: (one: { blank: string }) => one.blank, width: 64 };

const holesIn = (unit: string, several: boolean): Column<Hole>[] => [
  ...(several ? [ofBlank] : []),
  { key: 'balloon', head: 'balloon', value: (one) => one.balloon, width: 80 },
  {
    key: 'hole',
    head: 'hole',
    value: (one) => one.name,
    show: (one) => feature(one.name),
    grow: 2,
    width: 120,
  },
  {
    key: 'x',
    head: 'x',
    unit,
    value: (one) => asNumber(one.x),
    show: (one) => <span className="num">{one.x}</span>,
    width: 112,
  },
  {
    key: 'y',
    head: 'y',
    unit,
    value: (one) => asNumber(one.y),
    show: (one) => <span className="num">{one.y}</span>,
    width: 112,
  },
  {
    key: 'size',
    head: 'size and work',
    value: (one) => [one.size, one.work].filter(Boolean).join(', '),
    grow: 2,
    width: 130,
  },
  { key: 'cutter', head: 'cutter', value: (one) => one.cutter, grow: 1, width: 90 },
];

type Edge = Schemas['EdgeLine'];

const edgesIn = (edges: Edge[], several: boolean): Column<Edge>[] => [
  ...(several ? [ofBlank] : []),
  { key: 'edge', head: 'edge', value: (one) => one.name, show: (one) => feature(one.name), grow: 2, width: 130 },
  figures(edges, { key: 'length', head: 'length', width: 110 }, (one) => one.length),
  figures(edges, { key: 'radius', head: 'radius', width: 110 }, (one) => one.radius),
  { key: 'stretches', head: 'stretches', value: (one) => one.stretches, width: 90 },
];

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
  const answer = useBench((s) => s.answer);
  // A blank of several has its own files: its mark stands before theirs.
  const marks = (blankMarks(answer, 'blank') ?? ['']).map((mark) => (mark ? `${mark}.` : ''));
  const several = marks.length > 1;
  const holes = table.data?.holes ?? [];
  const edges = useMemo(() => table.data?.edges ?? [], [table.data]);
  const edgeColumns = useMemo(() => edgesIn(edges, several), [edges, several]);
  const unit = show ?? document?.unit ?? 'mm';
  const columns = useMemo(() => holesIn(unit, several), [unit, several]);
  return (
    <>
      <div>
        <p className="tools" style={{ margin: '0 0 4px' }}>
          <label>
            holes from{' '}
            <Select
              className="field"
              value={corner}
              onChange={(event) => setCorner(event.target.value as typeof corner)}
            >
              {CORNERS.map(([key, words]) => (
                <option key={key} value={key}>
                  the {words} corner
                </option>
              ))}
            </Select>
          </label>
          <label>
            <Check checked={balloons} change={(checked) => useBench.setState({ balloons: checked })} /> balloons on the
            blank
          </label>
          {marks.map((mark) => (
            <Act
              key={mark}
              onClick={() =>
                void download(
                  `/api/pieces/${id}/files/${mark}holes.csv?corner=${corner}${variant ? `&variant=${variant}` : ''}`,
                )
              }
            >
              all holes{mark && ` of ${mark.slice(0, -1)}`}, CSV
            </Act>
          ))}
        </p>
        <Grid label="Holes" rows={holes} columns={columns} idOf={(one) => one.name} say={say} />
        {(table.data?.more ?? 0) > 0 && <p className="soft">and {table.data?.more} more; the CSV has them all.</p>}
      </div>
      <div>
        <p className="tools" style={{ margin: '0 0 4px' }}>
          {marks.map((mark) => (
            <Act
              key={mark}
              onClick={() =>
                void download(`/api/pieces/${id}/files/${mark}edges.csv${variant ? `?variant=${variant}` : ''}`)
              }
            >
              edges{mark && ` of ${mark.slice(0, -1)}`}, CSV
            </Act>
          ))}
        </p>
        <Grid label="Edges" rows={edges} columns={edgeColumns} idOf={(one) => one.name} say={say} />
      </div>
    </>
  );
}
