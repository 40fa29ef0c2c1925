// The first sentence: what the piece is cut from and how it is bent.
import type { Piece } from '../api/client';
import { Chip } from './Chip';
import { put } from './edit';
import { commit, useBench } from './store';
import { useStock } from './WorkColumn';

const METHODS: [string, string][] = [
  ['material', "the material's K-factor"],
  ['k_factor', 'K-factor'],
  ['allowance', 'bend allowance'],
  ['deduction', 'bend deduction'],
  ['din6935', 'DIN 6935'],
];

export function StockSentence({ piece }: { piece: Piece }) {
  const heading = useBench((s) => s.answer?.heading);
  const findings = useBench((s) => s.answer?.findings) ?? [];
  const stock = useStock().data;
  const bent = piece.kind !== 'plate';
  const method = piece.bending?.method;
  const kind = method == null ? 'material' : typeof method === 'string' ? method : (Object.keys(method)[0] ?? 'material');
  const family = stock?.materials.find((one) => one.name === piece.stock.material)?.family;
  const thicknesses = family ? [...(stock?.thicknesses[family] ?? []).map((one) => `${one} mm`), ...(stock?.gauges ?? []).filter((one) => one.family === family).map((one) => `${one.number} ga`)] : [];
  const change = (next: (now: Piece) => Piece, note: string, field: string) => void commit(next, note, { field }).then((fault) => fault && useBench.setState({ message: fault }));
  const general = findings.filter((one) => !one.operation && !one.callout);
  const start: Record<string, unknown> = { material: undefined, k_factor: { k_factor: '0.44' }, allowance: { allowance: 'pi/2 * (R + 0.44*T)' }, deduction: { deduction: '2*(R + T) - pi/2 * (R + 0.44*T)' }, din6935: 'din6935' };
  return (
    <div className="sentence" style={{ padding: '0 14px 8px 36px', flex: 'none' }}>
      <b>Take</b>{' '}
      <select className="chip" aria-label="material" value={piece.stock.material} onChange={(event) => change((now) => put(now, ['stock', 'material'], event.target.value), `material ${event.target.value}`, 'stock')}>
        {!stock?.materials.some((one) => one.name === piece.stock.material) && <option value={piece.stock.material}>{piece.stock.material}</option>}
        {stock?.materials.map((one) => (
          <option key={one.name} value={one.name}>
            {one.title}
          </option>
        ))}
      </select>{' '}
      <Chip text={piece.stock.thickness} label="thickness" suggestions={thicknesses} edit={(now, text) => put(now, ['stock', 'thickness'], text)} comes={(answer) => answer.heading.thickness} own={{ field: 'stock' }} note="thickness" />
      {heading?.gauge && <span className="soft"> ({heading.thickness}, {heading.gauge})</span>}{' '}
      <select className="chip" aria-label="kind of piece" value={piece.kind} onChange={(event) => change((now) => ({ ...now, kind: event.target.value as Piece['kind'], bending: now.bending ?? { radius: 'T' } }), `kind ${event.target.value}`, 'kind')}>
        <option value="sheet">sheet</option>
        <option value="plate">plate</option>
      </select>
      {bent && <>, bend to inside radius{' '}
      <Chip text={piece.bending?.radius ?? 'T'} label="piece's inside radius" edit={(now, text) => put(now, ['bending', 'radius'], text)} comes={(answer) => answer.heading.radius} own={{ field: 'bending' }} note="inside radius" /> by{' '}
      <select className="chip" aria-label="how the blank is computed" value={kind} onChange={(event) => change((now) => put(now, ['bending', 'method'], start[event.target.value]), 'bending method', 'bending')}>
        {METHODS.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>{' '}
      {method != null && typeof method === 'object' && (
        <Chip text={String(Object.values(method)[0])} label="bending figure" edit={(now, text) => put(now, ['bending', 'method', kind], text)} comes={(answer) => answer.heading.method} own={{ field: 'bending' }} note="bending figure" />
      )}</>}
      . Make <Chip text={String(piece.quantity)} label="quantity" edit={(now, text) => put(now, ['quantity'], /^\d{1,7}$/.test(text ?? '') ? Number(text) : (text as unknown))} own={{ field: 'quantity' }} note="quantity" />.
      {' '}Unless drawn otherwise{' '}
      <select className="chip" aria-label="general tolerance" value={piece.general_tolerance ?? ''} onChange={(event) => change((now) => put(now, ['general_tolerance'], event.target.value || undefined), 'general tolerance', 'general')}>
        <option value="">as typed, no tolerance</option>
        <option value="f">ISO 2768-1 f</option>
        <option value="m">ISO 2768-1 m</option>
        <option value="c">ISO 2768-1 c</option>
      </select>
      ; bare numbers are{' '}
      <select className="chip" aria-label="unit of bare numbers" value={piece.unit} onChange={(event) => change((now) => ({ ...now, unit: event.target.value as Piece['unit'] }), 'unit of bare numbers', 'unit')}>
        <option value="mm">mm</option>
        <option value="in">inches</option>
      </select>
      .
      {general.map((one) => (
        <span key={one.message} className={one.severity === 'error' ? 'fault' : 'soft'} style={{ display: 'block', lineHeight: 1.35 }}>
          {one.message}. {one.way_out}
        </span>
      ))}
    </div>
  );
}
