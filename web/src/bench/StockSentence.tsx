// The first sentence: what the piece is cut from and how it is bent.
import type { Piece } from '../api/client';
import { useQuery } from '@tanstack/react-query';
import { client, must } from '../api/client';
import { CURVE } from './bent';
import { Chip } from './Chip';
import { put } from './edit';
import { commit, useBench } from './store';
import { FrameSentence } from '../frame/FrameSentence';
import { useStock } from './stock';

const METHODS: [string, string][] = [
  ['material', "the material's K-factor"],
  ['k_factor', 'K-factor'],
  ['allowance', 'bend allowance'],
  ['deduction', 'bend deduction'],
  ['din6935', 'DIN 6935'],
  ['k_curve', 'K by R/T'],
];

export function StockSentence({ piece }: { piece: Piece }) {
  const heading = useBench((s) => s.answer?.heading);
  const findings = useBench((s) => s.answer?.findings) ?? [];
  const stock = useStock().data;
  const frame = piece.kind === 'frame';
  const bent = piece.kind === 'sheet';
  const method = piece.bending?.method;
  const kind =
    method == null ? 'material' : typeof method === 'string' ? method : (Object.keys(method)[0] ?? 'material');
  const family = stock?.materials.find((one) => one.name === piece.stock.material)?.family;
  const thicknesses = family
    ? [
        ...(stock?.thicknesses[family] ?? []).map((one) => `${one} mm`),
        ...(stock?.gauges ?? []).filter((one) => one.family === family).map((one) => `${one.number} ga`),
      ]
    : [];
  // A change waits its turn: what a field says is read before, since the field is back at the piece's value by then.
  const change = (next: (now: Piece) => Piece, note: string, field: string) =>
    void commit(next, note, { field }).then((fault) => fault && useBench.setState({ message: fault }));
  const general = findings.filter((one) => !one.operation && !one.callout);
  const start: Record<string, unknown> = {
    material: undefined,
    k_factor: { k_factor: '0.44' },
    allowance: { allowance: 'pi/2 * (R + 0.44*T)' },
    deduction: { deduction: '2*(R + T) - pi/2 * (R + 0.44*T)' },
    din6935: 'din6935',
    k_curve: CURVE,
  };
  return (
    <div className="sentence" style={{ padding: '0 14px 8px 36px', flex: 'none' }}>
      <b>Take</b>{' '}
      <select
        className="chip"
        aria-label="material"
        value={piece.stock.material}
        onChange={({ target: { value } }) =>
          change((now) => put(now, ['stock', 'material'], value), `material ${value}`, 'stock')
        }
      >
        {!stock?.materials.some((one) => one.name === piece.stock.material) && (
          <option value={piece.stock.material}>{piece.stock.material}</option>
        )}
        {stock?.materials.map((one) => (
          <option key={one.name} value={one.name}>
            {one.title}
          </option>
        ))}
      </select>{' '}
      {!frame && (
        <Chip
          text={piece.stock.thickness ?? ''}
          label="thickness"
          suggestions={thicknesses}
          edit={(now, text) => put(now, ['stock', 'thickness'], text)}
          comes={(answer) => answer.heading.thickness}
          own={{ field: 'stock' }}
          note="thickness"
        />
      )}
      {heading?.gauge && (
        <span className="soft">
          {' '}
          ({heading.thickness}, {heading.gauge})
        </span>
      )}{' '}
      {frame ? (
        'for a frame'
      ) : (
        <select
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
        </select>
      )}
      {frame && <FrameSentence piece={piece} />}
      {bent && (
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
          <select
            className="chip"
            aria-label="how the blank is computed"
            value={kind}
            onChange={({ target: { value } }) =>
              change((now) => put(now, ['bending', 'method'], start[value]), 'bending method', 'bending')
            }
          >
            {METHODS.map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </select>{' '}
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
          <MeasuredTable piece={piece} change={change} />
        </>
      )}
      . Make{' '}
      <Chip
        text={String(piece.quantity)}
        label="quantity"
        edit={(now, text) => put(now, ['quantity'], /^\d{1,7}$/.test(text ?? '') ? Number(text) : (text as unknown))}
        own={{ field: 'quantity' }}
        note="quantity"
      />
      .{' '}
      {bent && (
        <>
          Grain{' '}
          <select
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
          </select>
          ;{' '}
        </>
      )}
      {!frame && (
        <>
          <select
            className="chip"
            aria-label="hand"
            value={piece.opposite_hand ? 'opposite' : 'drawn'}
            onChange={({ target: { value } }) =>
              change((now) => put(now, ['opposite_hand'], value === 'opposite' ? true : undefined), 'hand', 'hand')
            }
          >
            <option value="drawn">as drawn</option>
            <option value="opposite">the opposite hand</option>
          </select>
          .{' '}
        </>
      )}
      Unless drawn otherwise{' '}
      <select
        className="chip"
        aria-label="general tolerance"
        value={piece.general_tolerance ?? ''}
        onChange={({ target: { value } }) =>
          change((now) => put(now, ['general_tolerance'], value || undefined), 'general tolerance', 'general')
        }
      >
        <option value="">as typed, no tolerance</option>
        <option value="f">ISO 2768-1 f</option>
        <option value="m">ISO 2768-1 m</option>
        <option value="c">ISO 2768-1 c</option>
      </select>
      ; bare numbers are{' '}
      <select
        className="chip"
        aria-label="unit of bare numbers"
        value={piece.unit}
        onChange={({ target: { value } }) =>
          change((now) => ({ ...now, unit: value as Piece['unit'] }), 'unit of bare numbers', 'unit')
        }
      >
        <option value="mm">mm</option>
        <option value="in">inches</option>
      </select>
      .
      {general.map((one) => (
        <span
          key={one.message}
          className={one.severity === 'error' ? 'fault' : 'soft'}
          style={{ display: 'block', lineHeight: 1.35 }}
        >
          {one.message}. {one.way_out}
        </span>
      ))}
    </div>
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
      <select
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
      </select>
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

/** What the last change of stock or bending did: everything is proved again, and this is what came out otherwise. */
export function Changed() {
  const changed = useBench((s) => s.changed);
  if (!changed) return null;
  return (
    <div className="changed" role="status">
      <b>{changed.note}:</b>{' '}
      {changed.lines.length === 0
        ? 'nothing came out otherwise.'
        : changed.lines.length === 1
          ? 'one thing came out otherwise.'
          : `${changed.lines.length} things came out otherwise.`}
      <button type="button" className="plain" onClick={() => useBench.setState({ changed: null })}>
        seen
      </button>
      <ul>
        {changed.lines.slice(0, 40).map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </div>
  );
}
