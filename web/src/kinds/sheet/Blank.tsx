// The blank: outline, bend lines with their tangents and chevrons, holes, overall size. SVG in millimetres.
import { useEffect, useMemo, useRef, useState } from 'react';
import type { BuildAnswer } from '../../api/client';
import { pickAt } from '../../bench/pick';
import { isOn, useBench } from '../../bench/store';
import { useZoom } from '../../bench/useZoom';
import { Act } from '../../kit/Act';
import { Press } from '../../kit/Press';
import { FieldTiles, usePlaced } from './Fields';
import { laidLabels } from './blankLabels';
import { wrongPlaces } from './wrong';

export function Blank() {
  const all = useBench((s) => (s.ghost ?? s.answer)?.blank);
  const [only, setOnly] = useState<string | null>(null);
  const blank = useMemo(() => shownOf(all, only), [all, only]);
  const breaches = useBench((s) => s.answer?.breaches);
  const selection = useBench((s) => s.selection);
  const balloons = useBench((s) => s.balloons);
  const placed = usePlaced(blank?.fields);
  const holder = useRef<HTMLDivElement>(null);
  const zoom = useZoom(holder);
  const [room, setRoom] = useState({ width: 700, height: 340 });
  useEffect(() => {
    if (!holder.current) return;
    const watch = new ResizeObserver(
      ([entry]) => entry && setRoom({ width: entry.contentRect.width, height: entry.contentRect.height }),
    );
    watch.observe(holder.current);
    return () => watch.disconnect();
  }, []);
  if (!blank) {
    return (
      <div className="view blank" ref={holder}>
        <h2>Blank</h2>
      </div>
    );
  }
  const { low, high } = blank.extents;
  const several = blank.sheets.length > 1;
  const [width, height] = [high.x - low.x, high.y - low.y];
  // One unit is one pixel: words and margins keep their size on the screen whatever the part.
  const [left, right, top, bottom] = [74, 118, 30, blank.sheets.length > 1 ? 84 : 44];
  const whole = Math.max(
    width / Math.max(60, room.width - left - right),
    height / Math.max(40, room.height - top - bottom),
  );
  // As wide and as high as the room, so that a share of one is a share of the other.
  const [wide, high2] = [room.width * whole, room.height * whole];
  const [midX, midY] = [
    (low.x + high.x) / 2 + ((right - left) / 2) * whole,
    (low.y + high.y) / 2 + ((bottom - top) / 2) * whole,
  ];
  const box = zoom.of([midX - wide / 2, midY - high2 / 2, wide, high2]);
  const each = blank.sheets.map((one) => `${one.mark}, ${one.size.join(' by ')}`).join('; ');
  const told = several ? `${blank.sheets.length} blanks side by side: ${each}` : `Blank, ${blank.size.join(' by ')}`;
  const unit = whole / zoom.near;
  const font = 12 * unit;
  const on = (name: string) => isOn(selection, name);
  const lit = (name: string) => (on(name) ? (selection.breach === undefined ? ' on' : ' on wrong') : '');
  const signs = wrongPlaces(blank, breaches ?? [], selection);
  const named = blank.edges.filter((one) => on(one.name) && selection.features.includes(one.name));
  const shown =
    named.length > 0
      ? named
      : blank.edges.filter(
          (one) =>
            one.name.endsWith('.end') || (selection.operation === one.operation && !one.name.includes('.relief.cut-')),
        );
  const labels = laidLabels(blank, {
    unit,
    box,
    balloons,
    edges: shown.slice(0, 8),
    fields: placed.map((one) => one.box),
    signs,
  });
  return (
    <div className="view blank" ref={holder}>
      <h2>{several ? 'Blanks' : 'Blank'}</h2>
      {blank.sheets.length > 0 && <Which blank={all ?? blank} only={several ? null : only} look={setOnly} />}
      {zoom.near > 1 && (
        <Act className="wholeblank" onClick={zoom.whole}>
          show it whole
        </Act>
      )}
      <svg className="metal" viewBox={box.join(' ')} preserveAspectRatio="xMidYMid meet" aria-hidden="true">
        <path className="sheetpath" d={blank.path} fillRule="evenodd" />
      </svg>
      <FieldTiles placed={placed} box={box} room={room} lit={lit} />
      <svg
        onClick={(event) =>
          !zoom.dragged() && pickAt(picksUnder(event), { x: event.clientX, y: event.clientY }, event.shiftKey)
        }
        onPointerMove={(event) => {
          const [name] = event.buttons === 0 ? picksUnder(event) : [];
          const hover = useBench.getState().hover;
          if (name !== undefined) useBench.setState({ hover: { name, x: event.clientX, y: event.clientY } });
          else if (hover) useBench.setState({ hover: null });
        }}
        onPointerLeave={() => useBench.setState({ hover: null })}
        viewBox={box.join(' ')}
        preserveAspectRatio="xMidYMid meet"
        role="img"
        aria-label={`${told}; edges, holes and bends are in the tables under Blank below`}
      >
        {blank.panels.map((one) => (
          <path
            key={one.name}
            className={`panel${lit(one.name)}`}
            d={one.path}
            fillRule="evenodd"
            data-feature={one.name}
            data-pick={`${one.name}.top`}
          />
        ))}
        {blank.bends.map((one) => {
          const [a, b] = one.line;
          if (!a || !b) return null;
          const length = Math.hypot(b.x - a.x, b.y - a.y) || 1;
          const [ux, uy] = [(b.x - a.x) / length, (b.y - a.y) / length];
          const size = 5.5 * unit;
          // The chevron points the way the metal goes: toward the top of the sheet for up, the foot for down.
          const way = one.direction === 'up' ? -1 : 1;
          const [px, py] = Math.abs(ux) > Math.abs(uy) ? [0, way] : [way, 0];
          const chevron = (x: number, y: number) =>
            `M${x - Math.abs(ux) * size - px * size * 0.7} ` +
            `${y - Math.abs(uy) * size - py * size * 0.7}L${x + px * size * 0.7} ` +
            `${y + py * size * 0.7}L${x + Math.abs(ux) * size - px * size * 0.7} ` +
            `${y + Math.abs(uy) * size - py * size * 0.7}`;
          const out = 9 * unit;
          const [start, end] = [
            { x: a.x - ux * out, y: a.y - uy * out },
            { x: b.x + ux * out, y: b.y + uy * out },
          ];
          return (
            <g
              key={one.name}
              data-feature={`${one.name}.bend`}
              data-pick={`${one.name}.bend`}
              style={{ cursor: 'pointer' }}
            >
              {one.tangents.map((line, at) => (
                <line key={at} className="tangent" x1={line[0]?.x} y1={line[0]?.y} x2={line[1]?.x} y2={line[1]?.y} />
              ))}
              <line className="near" x1={start.x} y1={start.y} x2={end.x} y2={end.y} />
              <line className={`bend${lit(one.name)}`} x1={start.x} y1={start.y} x2={end.x} y2={end.y} />
              <path className={`bend${lit(one.name)}`} d={chevron(start.x, start.y) + chevron(end.x, end.y)} />
            </g>
          );
        })}
        {blank.edges.map((one) => (
          <path key={`near-${one.name}`} className="near" d={one.path} data-pick={one.name} />
        ))}
        {blank.edges.map((one) => (
          <path
            key={one.name}
            className={`edge${selection.features.includes(one.name) ? lit(one.name) : ''}`}
            d={one.path}
            data-feature={one.name}
            data-pick={one.name}
          >
            <title>{`${one.name}, ${one.text}`}</title>
          </path>
        ))}
        {placed.map(({ field, box: around }) => (
          <rect
            key={field.operation}
            className="field"
            {...around}
            data-feature={field.operation}
            data-pick={field.operation}
            data-count={field.count}
          >
            <title>{`${field.operation}, ${field.text}`}</title>
          </rect>
        ))}
        {blank.holes.map((one) => (
          <path
            key={one.name}
            className={`hole${lit(one.name)}${one.through ? '' : ' blind'}${one.cut ? '' : ' uncut'}`}
            d={one.path + one.head}
            data-feature={one.name}
            data-pick={one.name}
          >
            <title>{`${one.name}, ${one.text}`}</title>
          </path>
        ))}
        {blank.forms.map((one) => (
          <g
            key={one.name}
            className={`form${lit(one.name)}${one.up ? '' : ' down'}`}
            data-feature={one.name}
            data-pick={one.name}
          >
            <title>{one.text}</title>
            <path d={one.path} />
            {one.arrow && <path d={arrowPath(one.arrow)} />}
          </g>
        ))}
        {blank.corners.map((one) => (
          <circle
            key={one.name}
            className={`cornerpick${selection.features.includes(one.name) ? ' on' : ''}`}
            cx={one.at.x}
            cy={one.at.y}
            r={6 * unit}
            data-pick={one.name}
          >
            <title>{`corner ${one.name}`}</title>
          </circle>
        ))}
        {signs.map((one) => (
          <g key={one.name} className="sign" pointerEvents="none">
            <title>{`${one.name}: a rule is broken here`}</title>
            <circle cx={one.x} cy={one.y} r={7 * unit} />
            <text textAnchor="middle" x={one.x} y={one.y + font * 0.35} fontSize={font}>
              !
            </text>
          </g>
        ))}
        {labels.map((one) => (
          <text
            key={one.key}
            className={`${one.kind} halo`}
            textAnchor="middle"
            pointerEvents="none"
            fontSize={font}
            transform={`translate(${one.x} ${one.y})${one.upright ? ' rotate(-90)' : ''}`}
            y={font * 0.35}
          >
            {one.text}
          </text>
        ))}
        {several &&
          blank.sheets.map((one) => (
            <text
              key={one.panels[0]}
              className="sheetmark halo"
              textAnchor="middle"
              pointerEvents="none"
              x={(one.extents.low.x + one.extents.high.x) / 2}
              // Below the words of a bend near the edge.
              y={one.extents.high.y + 38 * unit}
              fontSize={font}
            >
              {[one.mark, ...one.size].map((line, at) => (
                // One under another: beside each other the sizes of neighbours would meet.
                <tspan key={at} x={(one.extents.low.x + one.extents.high.x) / 2} dy={at === 0 ? 0 : font * 1.3}>
                  {at === 2 ? `by ${line}` : line}
                </tspan>
              ))}
            </text>
          ))}
        {!several && (
          <g>
            <path
              className="ext"
              d={
                `M${low.x} ${high.y + 4 * unit}V${high.y + 25 * unit}M${high.x} ` +
                `${high.y + 4 * unit}V${high.y + 25 * unit}M${low.x - 4 * unit} ` +
                `${low.y}H${low.x - 40 * unit}M${low.x - 4 * unit} ${high.y}H${low.x - 40 * unit}`
              }
            />
            <path
              className="dimline"
              d={`M${low.x} ${high.y + 22 * unit}H${high.x}M${low.x - 36 * unit} ${low.y}V${high.y}`}
            />
            <text
              className="halo"
              textAnchor="middle"
              x={(low.x + high.x) / 2}
              y={high.y + 22 * unit + font * 0.35}
              fontSize={font}
            >
              {blank.size[0]}
            </text>
            <text
              className="halo"
              textAnchor="middle"
              fontSize={font}
              transform={`translate(${low.x - 36 * unit + font * 0.35} ${(low.y + high.y) / 2}) rotate(-90)`}
            >
              {blank.size[1]}
            </text>
          </g>
        )}
      </svg>
    </div>
  );
}

type BlankOf = NonNullable<BuildAnswer['blank']>;

/** What is drawn: all of it, or one of several blanks with what lies on it. */
function shownOf(all: BlankOf | null | undefined, only: string | null): BlankOf | null | undefined {
  const alone = all?.sheets.find((one) => one.panels.includes(only ?? ''));
  if (!all || !alone) return all;
  const { low, high } = alone.extents;
  const there = ({ x, y }: { x: number; y: number }) => x >= low.x && x <= high.x && y >= low.y && y <= high.y;
  const middle = ([a, b]: { x: number; y: number }[]) =>
    a && b ? { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 } : { x: NaN, y: NaN };
  return {
    ...all,
    extents: alone.extents,
    size: alone.size,
    path: alone.path,
    panels: all.panels.filter((one) => alone.panels.includes(one.name)),
    edges: all.edges.filter((one) => there(one.label)),
    holes: all.holes.filter((one) => there(one.label)),
    forms: all.forms.filter((one) => there(one.label)),
    bends: all.bends.filter((one) => there(middle(one.line))),
    corners: all.corners.filter((one) => there(one.at)),
    fields: [],
    sheets: [alone],
  };
}

/** From where to where a form opens, with its head. */
function arrowPath([from, to]: { x: number; y: number }[]): string {
  if (!from || !to) return '';
  const [x, y] = [(to.x - from.x) / 3, (to.y - from.y) / 3];
  return (
    `M${from.x} ${from.y}L${to.x} ${to.y}` +
    `M${to.x - x - y / 2} ${to.y - y + x / 2}L${to.x} ${to.y}L${to.x - x + y / 2} ${to.y - y - x / 2}`
  );
}

/** Which of several blanks is looked at alone; the list says what each is. */
function Which({ blank, only, look }: { blank: BlankOf; only: string | null; look: (panel: string | null) => void }) {
  return (
    <div className="whichblank" role="group" aria-label="Blanks">
      <Press aria-pressed={only === null} onClick={() => look(null)}>
        all {blank.sheets.length}
      </Press>
      {blank.sheets.map((one) => (
        <Press
          key={one.panels[0]}
          aria-pressed={only === one.panels[0]}
          title={`${one.words}: ${one.size.join(' by ')}, ${one.mass}`}
          onClick={() => look(one.panels[0] ?? null)}
        >
          {one.letter}
        </Press>
      ))}
    </div>
  );
}

/** What lies under the pointer on the blank, the uppermost first. */
function picksUnder(event: React.MouseEvent): string[] {
  const found = document
    .elementsFromPoint(event.clientX, event.clientY)
    .map((one) => one.closest('[data-pick]')?.getAttribute('data-pick'));
  return [...new Set(found.filter((one) => typeof one === 'string'))];
}
