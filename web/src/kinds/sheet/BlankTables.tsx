// The blank in tables: bends, holes with their balloons, edges.
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { client, must, type Piece, type Schemas } from '../../api/client';
import { AsRead } from '../../bench/AsRead';
import { download } from '../../bench/download';
import { selectFeature, useBench } from '../../bench/store';
import { WhyBox } from '../../bench/WhyBox';
import { useSettings } from '../../settings';
import { Act } from '../../kit/Act';
import type { Column } from '../../kit/columns';
import { Grid } from '../../kit/Grid';
import { List } from '../../kit/List';
import { Select } from '../../kit/Select';
import { Check } from '../../kit/Check';

export function BlankTables() {
  const answer = useBench((s) => s.answer);
  const blank = answer?.blank;
  if (!answer || !blank) return <p>There is no blank yet: lay down a base.</p>;
  return (
    <div className="shoptables">
      <AsRead />
      {answer.bends.length > 0 && (
        <List style={{ flex: '1 1 100%' }}>
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
                  <Act onClick={() => selectFeature(one.name)}>{one.name}</Act>{' '}
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
        </List>
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

type Hole = Schemas['HoleLine'];

/** A place as the server wrote it, to be sorted by: a number where it is one, fractions as they are read. */
const asNumber = (text: string) => (/^-?\d+(\.\d+)?( mm| in)?$/.test(text) ? Number.parseFloat(text) : text);

const holesIn = (unit: string): Column<Hole>[] => [
  { key: 'balloon', head: 'balloon', value: (one) => one.balloon, width: 80 },
  {
    key: 'hole',
    head: 'hole',
    value: (one) => one.name,
    show: (one) => <Act onClick={() => selectFeature(one.name)}>{one.name}</Act>,
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
  const unit = show ?? document?.unit ?? 'mm';
  const columns = useMemo(() => holesIn(unit), [unit]);
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
          <Act
            onClick={() =>
              void download(`/api/pieces/${id}/files/holes.csv?corner=${corner}${variant ? `&variant=${variant}` : ''}`)
            }
          >
            all holes, CSV
          </Act>
        </p>
        <Grid
          label="Holes"
          rows={holes}
          columns={columns}
          idOf={(one) => one.name}
          say={(message) => useBench.setState({ message })}
        />
        {(table.data?.more ?? 0) > 0 && <p className="soft">and {table.data?.more} more; the CSV has them all.</p>}
      </div>
      <div>
        <p className="tools" style={{ margin: '0 0 4px' }}>
          <Act
            onClick={() => void download(`/api/pieces/${id}/files/edges.csv${variant ? `?variant=${variant}` : ''}`)}
          >
            edges, CSV
          </Act>
        </p>
        <List>
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
                  <Act onClick={() => selectFeature(one.name)}>{one.name}</Act>
                </td>
                <td className="r num">{one.length}</td>
                <td className="r num">{one.radius || '—'}</td>
                <td className="r num">{one.stretches}</td>
              </tr>
            ))}
          </tbody>
        </List>
      </div>
    </>
  );
}
