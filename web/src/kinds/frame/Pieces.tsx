// The distinct pieces of a frame with their end cuts: a line lights its members up.
import type { Schemas } from '../../api/client';
import { endsText } from './ends';
import { isOn, select, useBench } from '../../bench/store';
import { Press } from '../../kit/Press';

type Line = Schemas['CutListView'];

/** The piece from its side, its middle shortened where it is long. */
export function PiecePicture({ one, height = 34 }: { one: Line; height?: number }) {
  const [x, y, w, h] = one.view_box.split(' ').map(Number) as [number, number, number, number];
  return (
    <svg
      className="piecepicture"
      viewBox={one.view_box}
      style={{ height }}
      preserveAspectRatio="xMidYMid meet"
      aria-hidden="true"
    >
      <path d={one.path} fillRule="evenodd" />
      {one.broken != null &&
        [-0.02, 0.02].map((side) => (
          <line
            key={side}
            x1={(one.broken ?? 0) + w * side + h * 0.08}
            y1={y}
            x2={(one.broken ?? 0) + w * side - h * 0.08}
            y2={y + h}
            data-x={x}
          />
        ))}
    </svg>
  );
}

export function Pieces() {
  const frame = useBench((s) => (s.ghost ?? s.answer)?.frame);
  const selection = useBench((s) => s.selection);
  return (
    <div className="view pieces3" aria-label="Pieces">
      <h2>Pieces</h2>
      {!frame || frame.cut_list.length === 0 ? (
        <p style={{ position: 'absolute', inset: '40% 10%', textAlign: 'center' }}>
          No pieces yet: put a section on lines.
        </p>
      ) : (
        <div className="scroll" role="region" aria-label="Distinct pieces" tabIndex={0}>
          <ul>
            {frame.cut_list.map((one) => {
              const on = one.line.members.some((name) => isOn(selection, name));
              return (
                <li key={one.line.mark}>
                  <Press
                    className={on ? 'on' : ''}
                    aria-pressed={on}
                    onMouseEnter={() => useBench.setState({ lit: one.line.members })}
                    onMouseLeave={() => useBench.setState({ lit: [] })}
                    onClick={() => select({ features: on ? [] : one.line.members })}
                  >
                    <span className="markline">
                      <b className="num">{one.line.mark}</b> <span className="num">{one.line.quantity} ×</span>{' '}
                      {one.line.section}
                    </span>
                    <PiecePicture one={one} />
                    <span className="num">
                      {one.line.kind === 'member' ? one.length_text : `${one.length_text} × ${one.short_text}`}
                    </span>
                    <small>
                      {one.line.kind === 'member' ? endsText(one.line) : one.line.kind}
                      {one.line.work && `; ${one.line.work}`}
                      {one.line.opposite_of && `; opposite hand of ${one.line.opposite_of}`}
                    </small>
                  </Press>
                </li>
              );
            })}
          </ul>
        </div>
      )}
    </div>
  );
}
