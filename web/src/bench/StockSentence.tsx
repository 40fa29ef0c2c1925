// The first sentence: what the piece is cut from and how it is bent.
import { useState } from 'react';
import type { Piece } from '../api/client';
import { kindOfPiece } from '../kinds';
import type { ChangePiece } from '../kinds/kind';
import { Chip } from './Chip';
import { put } from './edit';
import { commit, useBench } from './store';
import { thicknessesOf, useStock } from './stock';
import { Act } from '../kit/Act';
import { Choice } from '../kit/Choice';
import { Field } from '../kit/Field';
import { Select } from '../kit/Select';

/** What the variant on the stage is made of, where that is not what the sentence says. */
function ShownOf({ variant }: { variant: NonNullable<Piece['variants']>[number] }) {
  const radius = variant.bending?.radius;
  const own = [
    variant.stock && `${variant.stock.material} ${variant.stock.thickness}`,
    radius && `bent to inside radius ${radius}`,
    variant.scale && `at ${variant.scale}`,
  ].filter(Boolean);
  if (own.length === 0) return null;
  return (
    <p className="soft" style={{ margin: '2px 0 0' }}>
      The variant {variant.name}, which is shown, is made of its own: {own.join(', ')}.
    </p>
  );
}

/** It says what was chosen; what stands as usual is folded away until it is asked for. */
export function StockSentence({ piece }: { piece: Piece }) {
  const findings = useBench((s) => s.answer?.findings) ?? [];
  const stock = useStock().data;
  const kind = kindOfPiece(piece);
  // A change waits its turn: what a field says is read before, since the field is back at the piece's value by then.
  const change: ChangePiece = (next, note, field) =>
    void commit(next, note, { field }).then((fault) => fault && useBench.setState({ message: fault }));
  const [whole, setWhole] = useState(false);
  const shown = useBench((s) => s.variant);
  const variant = piece.variants?.find((one) => one.name === shown);
  if (piece.stock.confirmed === false) return <ConfirmStock piece={piece} />;
  const general = findings.filter((one) => !one.operation && !one.callout);
  return (
    <div className="sentence stock" style={{ padding: '0 14px 8px 36px', flex: 'none' }}>
      <b>Take</b>{' '}
      <Select
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
      </Select>{' '}
      <kind.Stock piece={piece} change={change} whole={whole} />. Make{' '}
      <Chip
        text={String(piece.quantity)}
        label="quantity"
        edit={(now, text) => put(now, ['quantity'], /^\d{1,7}$/.test(text ?? '') ? Number(text) : (text as unknown))}
        own={{ field: 'quantity' }}
        note="quantity"
      />
      <Besides piece={piece} change={change} whole={whole} />. <Rest piece={piece} change={change} whole={whole} />
      {!whole && (
        <Act className="usual" aria-label="The rest of the stock as usual: show it" onClick={() => setWhole(true)}>
          as usual
        </Act>
      )}
      {variant && <ShownOf variant={variant} />}
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

/** What is cut beside those that are needed: spares, and whether the first is measured before the rest. */
function Besides({ piece, change, whole }: { piece: Piece; change: ChangePiece; whole: boolean }) {
  return (
    <>
      {(whole || (piece.spares ?? 0) > 0) && (
        <>
          {' '}
          and{' '}
          <Chip
            text={piece.spares ? String(piece.spares) : ''}
            ghost="0"
            optional
            label="spares"
            edit={(now, text) =>
              put(
                now,
                ['spares'],
                /^0*$/.test(text ?? '') ? undefined : /^\d{1,7}$/.test(text ?? '') ? Number(text) : (text as unknown),
              )
            }
            own={{ field: 'spares' }}
            note="spares"
          />{' '}
          {piece.spares === 1 ? 'spare' : 'spares'}
        </>
      )}
      {(whole || piece.first_off) && (
        <>
          ,{' '}
          <Select
            className="chip"
            aria-label="first-off"
            value={piece.first_off ? 'yes' : ''}
            onChange={({ target: { value } }) =>
              change((now) => put(now, ['first_off'], value === 'yes' || undefined), 'first-off', 'first_off')
            }
          >
            <option value="">all at once</option>
            <option value="yes">the first measured before the rest</option>
          </Select>
        </>
      )}
    </>
  );
}

/** How it lies, its hand, its general tolerance, its unit: what was chosen, or all of it. */
function Rest({ piece, change, whole }: { piece: Piece; change: ChangePiece; whole: boolean }) {
  const kind = kindOfPiece(piece);
  return (
    <>
      {kind.Lies && <kind.Lies piece={piece} change={change} whole={whole} />}
      {(whole || piece.general_tolerance) && (
        <>
          Unless drawn otherwise{' '}
          <Select
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
          </Select>
          .{' '}
        </>
      )}
      {(whole || piece.unit === 'in') && (
        <>
          Bare numbers are{' '}
          <Select
            className="chip"
            aria-label="unit of bare numbers"
            value={piece.unit}
            onChange={({ target: { value } }) =>
              change((now) => ({ ...now, unit: value as Piece['unit'] }), 'unit of bare numbers', 'unit')
            }
          >
            <option value="mm">mm</option>
            <option value="in">inches</option>
          </Select>
          .
        </>
      )}
    </>
  );
}

/** A new piece asks what it is made of; until that is said its files are not given out. */
function ConfirmStock({ piece }: { piece: Piece }) {
  const stock = useStock().data;
  const [material, setMaterial] = useState(piece.stock.material);
  const [thickness, setThickness] = useState(piece.stock.thickness ?? '');
  const [unit, setUnit] = useState(piece.unit);
  const [fault, setFault] = useState<string | null>(null);
  const sheet = piece.kind !== 'frame';
  const confirm = () => {
    const said: Piece['stock'] = sheet ? { material, thickness: thickness.trim() } : { material };
    void commit((now) => ({ ...now, stock: said, unit }), 'stock confirmed', { field: 'stock', quiet: true }).then(
      (refused) => {
        setFault(refused);
      },
    );
  };
  return (
    <form
      className="draft"
      aria-label="Stock"
      onSubmit={(event) => {
        event.preventDefault();
        confirm();
      }}
    >
      <p className="asks">What is it made of?</p>
      <div className="sentence">
        <b>Take</b>{' '}
        <Choice
          label="material"
          value={material}
          options={(stock?.materials ?? [{ name: material, title: material }]).map(
            (one) => [one.name, one.title] as const,
          )}
          change={setMaterial}
        />{' '}
        {sheet && (
          <Field
            mono
            chip
            autoFocus
            label="thickness"
            value={thickness}
            names={thicknessesOf(stock, material)}
            onFocus={(event) => event.target.select()}
            change={setThickness}
          />
        )}
        {sheet ? ` ${piece.kind}` : ' for a frame'}; bare numbers are{' '}
        <Choice
          label="unit of bare numbers"
          value={unit ?? 'mm'}
          options={[
            ['mm', 'mm'],
            ['in', 'inches'],
          ]}
          change={(key) => setUnit(key as Piece['unit'])}
        />
        .
      </div>
      {fault && <span className="fault">{fault}</span>}
      <p className="soft" style={{ margin: '4px 0' }}>
        {sheet ? 'The bend radius follows the thickness unless you say otherwise. ' : ''}Files are given out once the
        stock is confirmed.
      </p>
      <div className="oprow">
        <Act kind="main" type="submit">
          Confirm the stock (Enter)
        </Act>
      </div>
    </form>
  );
}
