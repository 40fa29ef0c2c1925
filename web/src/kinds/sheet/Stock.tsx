// What a plate or a sheet part is cut from and how it is bent, in the first sentence.
import { useQuery } from '@tanstack/react-query';
import { client, must, type Piece } from '../../api/client';
import { Chip } from '../../bench/Chip';
import { put } from '../../bench/edit';
import { thicknessesOf, useStock } from '../../bench/stock';
import { useBench } from '../../bench/store';
import type { ChangePiece } from '../kind';
import { CURVE } from './common';
import { Select } from '../../kit/Select';

const METHODS: [string, string][] = [
  ['material', "the material's K-factor"],
  ['k_factor', 'K-factor'],
  ['allowance', 'bend allowance'],
  ['deduction', 'bend deduction'],
  ['din6935', 'DIN 6935'],
  ['k_curve', 'K by R/T'],
];

const START: Record<string, unknown> = {
  material: undefined,
  k_factor: { k_factor: '0.44' },
  allowance: { allowance: 'pi/2 * (R + 0.44*T)' },
  deduction: { deduction: '2*(R + T) - pi/2 * (R + 0.44*T)' },
  din6935: 'din6935',
  k_curve: CURVE,
};

interface Asked {
  piece: Piece;
  change: ChangePiece;
  /** Whether all of it is shown, or only what was chosen. */
  whole: boolean;
}

export function SheetStock({ piece, change, whole }: Asked) {
  const heading = useBench((s) => s.answer?.heading);
  const stock = useStock().data;
  const thicknesses = thicknessesOf(stock, piece.stock.material);
  return (
    <>
      <Chip
        text={piece.stock.thickness ?? ''}
        label="thickness"
        suggestions={thicknesses}
        edit={(now, text) => put(now, ['stock', 'thickness'], text)}
        comes={(answer) => answer.heading.thickness}
        own={{ field: 'stock' }}
        note="thickness"
      />
      {heading?.gauge && (
        <span className="soft">
          {' '}
          ({heading.thickness}, {heading.gauge})
        </span>
      )}{' '}
      <Select
        className="chip"
        aria-label="kind of piece"
        value={piece.kind}
        onChange={({ target: { value } }) =>
          change(
            (now) => ({ ...now, kind: value as Piece['kind'], bending: now.bending ?? { radius: 'T' } }),
            `kind ${value}`,
            'kind',
          )
        }
      >
        <option value="sheet">sheet</option>
        <option value="plate">plate</option>
      </Select>
      {piece.kind === 'sheet' && <Bending piece={piece} change={change} whole={whole} />}
    </>
  );
}

/** Inside radius and how blanks are computed. */
function Bending({ piece, change, whole }: Asked) {
  const method = piece.bending?.method;
  const kind =
    method == null ? 'material' : typeof method === 'string' ? method : (Object.keys(method)[0] ?? 'material');
  return (
    <>
      , bend to inside radius{' '}
      <Chip
        text={piece.bending?.radius ?? 'T'}
        label="piece's inside radius"
        edit={(now, text) => put(now, ['bending', 'radius'], text)}
        comes={(answer) => answer.heading.radius}
        own={{ field: 'bending' }}
        note="inside radius"
      />{' '}
      by{' '}
      <Select
        className="chip"
        aria-label="how the blank is computed"
        value={kind}
        onChange={({ target: { value } }) =>
          change((now) => put(now, ['bending', 'method'], START[value]), 'bending method', 'bending')
        }
      >
        {METHODS.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </Select>{' '}
      {kind === 'k_curve' && <CurveChips piece={piece} />}
      {method != null && typeof method === 'object' && kind !== 'k_curve' && (
        <Chip
          text={String(Object.values(method)[0])}
          label="bending figure"
          edit={(now, text) => put(now, ['bending', 'method', kind], text)}
          comes={(answer) => answer.heading.method}
          own={{ field: 'bending' }}
          note="bending figure"
        />
      )}
      {(whole || piece.bending?.table) && <MeasuredTable piece={piece} change={change} />}
    </>
  );
}

/** Grain and hand. */
export function SheetLies({ piece, change, whole }: Asked) {
  return (
    <>
      {piece.kind === 'sheet' && (whole || piece.grain) && (
        <>
          Grain{' '}
          <Select
            className="chip"
            aria-label="grain"
            value={piece.grain ?? ''}
            onChange={({ target: { value } }) =>
              change((now) => put(now, ['grain'], value || undefined), 'grain', 'grain')
            }
          >
            <option value="">not minded</option>
            <option value="along_x">along x of the blank</option>
            <option value="along_y">along y of the blank</option>
          </Select>
          .{' '}
        </>
      )}
      {(whole || piece.opposite_hand) && (
        <>
          Made{' '}
          <Select
            className="chip"
            aria-label="hand"
            value={piece.opposite_hand ? 'opposite' : 'drawn'}
            onChange={({ target: { value } }) =>
              change((now) => put(now, ['opposite_hand'], value === 'opposite' ? true : undefined), 'hand', 'hand')
            }
          >
            <option value="drawn">as drawn</option>
            <option value="opposite">the opposite hand</option>
          </Select>
          .{' '}
        </>
      )}
    </>
  );
}

/** Points of the piece's own curve of K. */
function CurveChips({ piece }: { piece: Piece }) {
  const method = piece.bending?.method;
  const points = method != null && typeof method === 'object' && 'k_curve' in method ? method.k_curve : [];
  return (
    <>
      {points.map((point, index) => (
        <span key={index}>
          {index > 0 && '; '}
          <Chip
            text={point.ratio}
            label={`R/T of point ${index + 1}`}
            edit={(now, text) => put(now, ['bending', 'method', 'k_curve', index, 'ratio'], text)}
            own={{ field: 'bending' }}
            note="curve of K"
          />
          :{' '}
          <Chip
            text={point.k}
            label={`K of point ${index + 1}`}
            edit={(now, text) => put(now, ['bending', 'method', 'k_curve', index, 'k'], text)}
            own={{ field: 'bending' }}
            note="curve of K"
          />
        </span>
      ))}
    </>
  );
}

/** The shop's measured tables: the chosen one is copied into the piece, so that its file alone rebuilds it. */
function MeasuredTable({
  piece,
  change,
}: {
  piece: Piece;
  change: (next: (now: Piece) => Piece, note: string, field: string) => void;
}) {
  const tables =
    useQuery({ queryKey: ['bend-tables'], queryFn: () => must(client.GET('/api/bend-tables', {})) }).data?.tables ?? [];
  const own = piece.bending?.table;
  const choose = (name: string) =>
    change(
      (now) => ({
        ...now,
        bending: {
          ...(now.bending ?? { radius: 'T' }),
          table: name === '' ? undefined : (tables.find((one) => one.name === name) ?? own),
          ...(name === '' ? { die: undefined } : {}),
        },
      }),
      name === '' ? 'no measured table' : `measured table ${name}`,
      'bending',
    );
  return (
    <>
      , or a measured table where it reaches{' '}
      <Select
        className="chip"
        aria-label="measured bend table"
        value={own?.name ?? ''}
        onChange={(event) => choose(event.target.value)}
      >
        <option value="">none</option>
        {own && !tables.some((one) => one.name === own.name) && (
          <option value={own.name}>{own.name} (the piece's copy)</option>
        )}
        {tables.map((one) => (
          <option key={one.name} value={one.name}>
            {one.name}
          </option>
        ))}
      </Select>
      {own && (
        <>
          , die{' '}
          <Chip
            text={piece.bending?.die ?? ''}
            ghost="as the table"
            optional
            label="die opening"
            suggestions={[...new Set(own.rows.map((one) => one.die_mm).filter((one) => one != null))].map(
              (one) => `${one} mm`,
            )}
            edit={(now, text) => put(now, ['bending', 'die'], text)}
            own={{ field: 'bending' }}
            note="die opening"
          />
        </>
      )}
    </>
  );
}
