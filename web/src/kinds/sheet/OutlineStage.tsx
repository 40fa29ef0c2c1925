// The outline stage: a rough shape, the drawing's numbers on it, and how it stands. Solving is the server's.
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Piece } from '../../api/client';
import { at as valueAt, operations, put } from '../../bench/edit';
import {
  addCircle,
  addCorner,
  addGuide,
  circleThrough,
  dragged,
  edgeMiddle,
  drawnPath,
  edgePath,
  fromClicks,
  pictureCorners,
  pictureTransform,
  places,
  roundThrough,
  sayable,
  settled,
  snap,
  takeOut,
  toPixels,
  turnRound,
  type Drawn,
  type Pick,
  type Sayable,
  type Spot,
  type Standing,
} from './outline';
import { Sayings } from './Sayings';
import { commit, useBench } from '../../bench/store';
import { TracePicture, usePicture } from './TracePicture';
import { Act } from '../../kit/Act';
import { Input } from '../../kit/Input';

type Mode = 'pick' | 'draw' | 'corner' | 'arc' | 'circle' | 'rim' | 'guide' | 'scale' | 'check' | 'move';

const MODES: [Mode, string, string][] = [
  ['pick', 'pick', 'Pick one to three things, then say what the drawing says of them. Drag a corner to move it.'],
  [
    'draw',
    'draw anew',
    'Click the corners in order; the first corner or Enter closes, Backspace takes one back, Esc leaves.',
  ],
  ['corner', '+ corner', 'Click an edge where the new corner goes.'],
  ['arc', 'arc', 'Click an edge, then a place that it goes through as an arc.'],
  ['circle', '+ circle', 'Click the middle, then the rim.'],
  ['rim', '+ rim', 'Click three places on the rim of a circle.'],
  ['guide', '+ guide', 'Click both ends of a helper line.'],
];

/** What is done to the picture under the outline. */
const ON_PICTURE: [Mode, string, string][] = [
  [
    'scale',
    'scale',
    'Click two points on the picture that you have measured between on the sample, or type their pixels.',
  ],
  ['check', 'check', 'Click a second measured pair, across the first, to find out whether the picture is skewed.'],
  ['move', 'move', 'Drag the picture to where it belongs under the outline.'],
];

/** Clicks that a mode waits for. */
const CLICKS: Partial<Record<Mode, number>> = { circle: 2, guide: 2, rim: 3, scale: 2, check: 2 };
/** Modes in which the picture itself is worked on: nothing snaps. */
const RAW: Mode[] = ['rim', 'arc', 'scale', 'check', 'move'];

export default function OutlineStage({ piece, index }: { piece: Piece; index: number }) {
  const operation = operations(piece)[index];
  const drawn = valueAt(piece, drawnPath(operation?.name ?? '')) as Drawn | undefined;
  const standing = useBench((s) => s.answer?.operations[index]?.standing ?? null);
  const [mode, setMode] = useState<Mode>('pick');
  const [picked, setPicked] = useState<Pick[]>([]);
  const [spots, setSpots] = useState<Spot[]>([]);
  const [hover, setHover] = useState<{ spot: Spot; words: string } | null>(null);
  const [drag, setDrag] = useState<{ name: string; spot: Spot } | null>(null);
  const [asking, setAsking] = useState<Sayable | null>(null);
  const [measured, setMeasured] = useState<[Spot, Spot] | null>(null);
  const [bow, setBow] = useState<string | null>(null);
  const picture = usePicture();
  const svg = useRef<SVGSVGElement>(null);
  const holder = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState({ width: 700, height: 340 });
  // While something is drawn or dragged the picture stands still.
  const [frozen, setFrozen] = useState<Box | null>(null);
  useEffect(() => {
    if (!holder.current) return;
    const watch = new ResizeObserver(
      ([entry]) => entry && setRoom({ width: entry.contentRect.width, height: entry.contentRect.height }),
    );
    watch.observe(holder.current);
    return () => watch.disconnect();
  }, []);
  const at = useMemo(() => (standing ? places(standing) : new Map<string, Spot>()), [standing]);
  const live = useMemo(() => boxOf(at, standing, drawn), [at, standing, drawn]);
  if (!drawn || !standing || !operation) {
    return (
      <div className="view outline" ref={holder}>
        <h2>Outline</h2>
        <p style={{ position: 'absolute', inset: '40% 10%', textAlign: 'center' }}>
          The outline is not built at this step.
        </p>
      </div>
    );
  }
  const under = drawn.underlay;
  // Before it has a scale a picture is shown 200 mm wide.
  const rough = picture && 200 / picture.width;
  const matrix =
    standing.underlay?.matrix ?? (rough && picture ? [rough, 0, 0, -rough, 0, rough * picture.height] : null);
  const ofPicture = matrix && picture ? pictureCorners(matrix, picture) : [];
  const around = (all: Spot[], box: Box): Box => ({
    low: { x: Math.min(box.low.x, ...all.map((one) => one.x)), y: Math.min(box.low.y, ...all.map((one) => one.y)) },
    high: { x: Math.max(box.high.x, ...all.map((one) => one.x)), y: Math.max(box.high.y, ...all.map((one) => one.y)) },
  });
  const tracing = picture !== null && (mode !== 'pick' || !under || standing.missing > 0);
  const first = ofPicture[0] ?? { x: 0, y: 0 };
  const onPicture = around(ofPicture, { low: first, high: first });
  const box = frozen ?? (tracing ? (under ? around(ofPicture, live) : onPicture) : live);
  const panel = 236;
  const [left, top, bottom] = [40, picture ? 66 : 40, 62];
  const unit = Math.max(
    (box.high.x - box.low.x) / Math.max(80, room.width - panel - 2 * left),
    (box.high.y - box.low.y) / Math.max(60, room.height - top - bottom),
  );
  const view = [box.low.x - left * unit, -box.high.y - top * unit, room.width * unit, room.height * unit];
  const near = 9 * unit;
  const change = (next: (old: Drawn) => Drawn, note: string) =>
    commit(
      (now) =>
        put(now, drawnPath(operation.name), next(settled(valueAt(now, drawnPath(operation.name)) as Drawn, standing))),
      `${operation.name}: ${note}`,
      { operation: operation.name },
    ).then((fault) => {
      if (fault) useBench.setState({ message: fault });
      return fault;
    });
  const spotOf = (event: { clientX: number; clientY: number }): Spot => {
    const matrix = svg.current?.getScreenCTM()?.inverse();
    if (!matrix) return { x: 0, y: 0 };
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return { x: point.x, y: -point.y };
  };
  const named =
    mode === 'draw'
      ? spots.map((spot, place) => ({ name: `p${place + 1}`, spot }))
      : [...at].map(([name, spot]) => ({ name, spot }));
  const enter = (next: Mode) => {
    setMode(next);
    setFrozen(next === 'pick' ? null : picture && matrix ? (under ? around(ofPicture, live) : onPicture) : live);
    setMeasured(null);
    setBow(null);
    setSpots([]);
    setHover(null);
    setPicked([]);
    setAsking(null);
  };
  const close = (all: Spot[]) => {
    if (all.length < 3) {
      useBench.setState({ message: 'An outline needs three corners at least; click another one.' });
      return;
    }
    void commit(
      (now) =>
        put(now, drawnPath(operation.name), { ...fromClicks(all, near / 3), ...(under ? { underlay: under } : {}) }),
      `${operation.name}: drew the outline anew`,
      { operation: operation.name },
    ).then((fault) => fault && useBench.setState({ message: fault }));
    enter('pick');
  };
  const placed = (spot: Spot, words: string) => {
    if (mode === 'draw') {
      if (spots.length > 2 && words === 'on p1') close(spots);
      else if (!words.startsWith('on ')) setSpots([...spots, spot]);
      return;
    }
    if (mode === 'arc' && bow) {
      void change((old) => roundThrough(old, bow, spot, at), `${bow} round`);
      enter('pick');
      return;
    }
    const wanted = CLICKS[mode];
    if (!wanted) return;
    const all = [...spots, spot];
    if (all.length < wanted) {
      setSpots(all);
      return;
    }
    const [one, two, three] = all as [Spot, Spot, Spot];
    if (mode === 'scale' || mode === 'check') {
      setSpots(all);
      setMeasured([one, two]);
      return;
    }
    if (mode === 'rim') {
      const found = circleThrough(one, two, three);
      if (found) void change((old) => addCircle(old, found.centre, found.radius, true), 'added a circle by its rim');
      else
        useBench.setState({
          message: 'These three places lie on one line: no circle goes through them. Click them further round the rim.',
        });
    } else {
      const size = Math.hypot(two.x - one.x, two.y - one.y);
      void change(
        (old) => (mode === 'circle' ? addCircle(old, one, size, true) : addGuide(old, one, two)),
        mode === 'circle' ? 'added a circle' : 'added a guide',
      );
    }
    enter('pick');
  };
  /** Takes the measured length between the two picked points over as the scale or its check. */
  const scaled = (length: string) => {
    if (!measured || !matrix || !picture) return;
    const pair = { from: toPixels(matrix, measured[0]), to: toPixels(matrix, measured[1]), length };
    const what = mode === 'check' ? 'checked the scale' : 'set the scale';
    // Until it is moved the first of the two points lies on the origin.
    void change(
      (old) =>
        mode === 'check' && old.underlay
          ? { ...old, underlay: { ...old.underlay, check: pair } }
          : { ...old, underlay: { ...(old.underlay ?? { x: 0, y: 0 }), scale: pair } },
      what,
    ).then((fault) => !fault && enter('pick'));
  };
  const pick = (one: Pick) => {
    setAsking(null);
    setPicked((old) =>
      old.some((known) => known.name === one.name)
        ? old.filter((known) => known.name !== one.name)
        : [...old, one].slice(-3),
    );
  };
  const clickEdge = (event: { clientX: number; clientY: number }, one: Pick) => {
    if (mode === 'corner' && one.kind !== 'guide') {
      const spot = spotOf(event);
      void change((old) => addCorner(old, one.name, spot), `put a corner into ${one.name}`);
      enter('pick');
    } else if (mode === 'arc' && one.kind !== 'guide' && one.kind !== 'circle') setBow(one.name);
    else if (mode === 'pick') pick(one);
  };
  const say = (what: Sayable, value?: string) => {
    const of = picked.map((one) => one.name);
    void change(
      (old) => ({
        ...old,
        says: [...(old.says ?? []), { what: what.what, of, ...(value === undefined ? {} : { value }) }],
      }),
      `said ${what.words} of ${of.join(', ')}`,
    ).then((fault) => {
      if (fault) return;
      setAsking(null);
      setPicked([]);
    });
  };
  const isCut = (name: string) => drawn.circles?.find((one) => one.name === name)?.cut;
  const isPicked = (name: string) => picked.some((one) => one.name === name);
  const keys = (one: Pick) => (event: React.KeyboardEvent) => {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    pick(one);
  };
  const about = (one: Pick) => ({
    role: 'button',
    tabIndex: 0,
    'aria-pressed': isPicked(one.name),
    'aria-label': `${one.name}, ${one.kind === 'round' ? 'round edge' : one.kind}`,
    onKeyDown: keys(one),
    className: isPicked(one.name) ? 'on' : '',
  });
  const font = 12 * unit;
  const offers = sayable(picked);
  const single = picked.length === 1 ? picked[0] : undefined;
  const leave = (event: React.KeyboardEvent) => {
    if (event.key === 'Escape' && (mode !== 'pick' || picked.length > 0)) {
      event.stopPropagation();
      enter('pick');
    } else if (mode === 'draw' && event.key === 'Backspace' && !(event.target instanceof HTMLInputElement))
      setSpots(spots.slice(0, -1));
    else if (
      mode === 'draw' &&
      event.key === 'Enter' &&
      !(event.target instanceof HTMLInputElement && event.target.value.trim())
    )
      close(spots);
    else if (mode === 'pick' && event.key === 'Delete' && single) {
      event.preventDefault();
      void change((old) => takeOut(old, single.name), `took out ${single.name}`);
      setPicked([]);
    }
  };
  return (
    <div className="view outline" ref={holder} onKeyDown={leave} role="group" aria-label="Outline stage">
      <h2>Outline</h2>
      <div className="foldbar" role="toolbar" aria-label="Outline tools" style={{ right: panel + 14 }}>
        {MODES.map(([key, words]) => (
          <Act
            key={key}
            className={mode === key ? 'on' : undefined}
            aria-pressed={mode === key}
            onClick={() => enter(key)}
          >
            {words}
          </Act>
        ))}
      </div>
      <div className="foldbar second" role="toolbar" aria-label="Picture to trace" style={{ right: panel + 14 }}>
        {picture
          ? ON_PICTURE.filter(([key]) =>
              key === 'scale' ? !under?.locked : under !== undefined && under !== null && !under.locked,
            ).map(([key, words]) => (
              <Act
                key={key}
                className={mode === key ? 'on' : undefined}
                aria-pressed={mode === key}
                onClick={() => enter(key)}
              >
                {words}
              </Act>
            ))
          : null}
        <TracePicture />
      </div>
      <svg
        ref={svg}
        viewBox={view.join(' ')}
        preserveAspectRatio="xMinYMin meet"
        role="group"
        aria-label="Outline; Tab goes through its points, edges and circles, Enter picks one"
        className={mode}
        onPointerMove={(event) => {
          const spot = spotOf(event);
          if (drag) setDrag({ ...drag, spot });
          else if (RAW.includes(mode)) setHover({ spot, words: '' });
          else if (mode !== 'pick' && mode !== 'corner') setHover(snap(spot, named, near));
        }}
        onPointerUp={() => {
          if (!drag) return;
          const moved = drag;
          setDrag(null);
          if (mode === 'move') {
            const from = spots[0];
            if (from && under)
              void change(
                (old) => ({
                  ...old,
                  underlay: {
                    ...under,
                    x: Number(((under.x ?? 0) + moved.spot.x - from.x).toFixed(3)),
                    y: Number(((under.y ?? 0) + moved.spot.y - from.y).toFixed(3)),
                  },
                }),
                'moved the picture',
              );
            enter('pick');
            return;
          }
          const from = at.get(moved.name);
          if (from && Math.hypot(from.x - moved.spot.x, from.y - moved.spot.y) > near / 2)
            void change((old) => dragged(old, moved.name, moved.spot), `moved ${moved.name}`);
          else pick({ name: moved.name, kind: 'point' });
        }}
        onClick={(event) => {
          if (mode === 'pick' || mode === 'corner' || mode === 'move' || measured) return;
          // The click that chose the edge is not the place it goes through.
          if (mode === 'arc' && (!bow || (event.target as Element).classList.contains('oe'))) return;
          const found = RAW.includes(mode) ? { spot: spotOf(event), words: '' } : snap(spotOf(event), named, near);
          placed(found.spot, found.words);
        }}
        onPointerDown={(event) => {
          if (mode !== 'move' || !under) return;
          const spot = spotOf(event);
          setSpots([spot]);
          setDrag({ name: 'the picture', spot });
        }}
      >
        {picture && matrix && (
          <g
            transform={
              drag && mode === 'move' && spots[0]
                ? `translate(${drag.spot.x - spots[0].x} ${spots[0].y - drag.spot.y})`
                : undefined
            }
          >
            <image
              href={picture.url}
              width={picture.width}
              height={picture.height}
              transform={pictureTransform(matrix)}
              opacity={under?.fade ?? (under ? 0.5 : 0.85)}
              preserveAspectRatio="none"
            />
          </g>
        )}
        {mode === 'scale' && !under ? null : mode === 'draw' ? (
          <path
            className="rough"
            d={[...spots, ...(hover ? [hover.spot] : [])]
              .map((spot, place) => `${place ? 'L' : 'M'}${spot.x} ${-spot.y}`)
              .join('')}
          />
        ) : (
          <>
            <path
              className={picture ? 'inside thin' : 'inside'}
              d={drawn.corners.map((_, place) => edgePath(drawn, place, at).replace(/^M/, place ? 'L' : 'M')).join('')}
            />
            {drawn.guides?.map((one) => {
              const [a, b] = [at.get(`${one.name}.start`), at.get(`${one.name}.end`)];
              return a && b ? (
                <path
                  key={one.name}
                  {...about({ name: one.name, kind: 'guide' })}
                  className={`guide ${isPicked(one.name) ? 'on' : ''}`}
                  d={`M${a.x} ${-a.y}L${b.x} ${-b.y}`}
                  onClick={(event) => clickEdge(event, { name: one.name, kind: 'guide' })}
                />
              ) : null;
            })}
            {drawn.corners.map((corner, place) => {
              const one: Pick = { name: corner.edge, kind: corner.bulge ? 'round' : 'edge' };
              return (
                <path
                  key={corner.edge}
                  {...about(one)}
                  className={`oe ${isPicked(one.name) ? 'on' : ''}`}
                  d={edgePath(drawn, place, at)}
                  onClick={(event) => clickEdge(event, one)}
                />
              );
            })}
            {standing.circles
              .filter((one) => drawn.circles?.some((circle) => circle.name === one.name))
              .map((one) => {
                const centre = at.get(`${one.name}.centre`);
                return centre ? (
                  <circle
                    key={one.name}
                    {...about({ name: one.name, kind: 'circle' })}
                    className={['oe', !isCut(one.name) && 'helper', isPicked(one.name) && 'on']
                      .filter(Boolean)
                      .join(' ')}
                    cx={centre.x}
                    cy={-centre.y}
                    r={one.radius}
                    onClick={(event) => clickEdge(event, { name: one.name, kind: 'circle' })}
                  />
                ) : null;
              })}
            {standing.loose.map((one) => (
              <Loose key={`${one.name}${one.radius ? 'r' : ''}`} one={one} unit={unit} />
            ))}
            {standing.points
              .filter((one) => !drawn.corners.some((corner) => `${corner.edge}.centre` === one.name))
              .map((one) => (
                <circle
                  key={one.name}
                  {...about({ name: one.name, kind: 'point' })}
                  className={`op ${isPicked(one.name) ? 'on' : ''}`}
                  cx={one.x}
                  cy={-one.y}
                  r={4.5 * unit}
                  onPointerDown={(event) => {
                    if (mode !== 'pick') return;
                    event.preventDefault();
                    setFrozen(live);
                    setDrag({ name: one.name, spot: { x: one.x, y: one.y } });
                  }}
                />
              ))}
            {drawn.corners.map((corner, place) => {
              const middle = edgeMiddle(drawn, place, at);
              return (
                <text
                  key={corner.edge}
                  className="en halo"
                  textAnchor="middle"
                  pointerEvents="none"
                  fontSize={font}
                  x={middle.x}
                  y={-middle.y + font * 0.35}
                >
                  {corner.edge}
                </text>
              );
            })}
            {drawn.circles?.map((one) => {
              const centre = at.get(`${one.name}.centre`);
              return centre ? (
                <text
                  key={one.name}
                  className="en halo"
                  textAnchor="middle"
                  pointerEvents="none"
                  fontSize={font}
                  x={centre.x}
                  y={-centre.y - 9 * unit}
                >
                  {one.name}
                </text>
              ) : null;
            })}
            {picked
              .filter((one) => one.kind === 'point')
              .map((one) => {
                const place = at.get(one.name);
                return place ? (
                  <text
                    key={one.name}
                    className="snap halo"
                    pointerEvents="none"
                    fontSize={font}
                    x={place.x + 8 * unit}
                    y={-place.y - 8 * unit}
                  >
                    {one.name}
                  </text>
                ) : null;
              })}
            {drag && <circle className="op on" pointerEvents="none" cx={drag.spot.x} cy={-drag.spot.y} r={5 * unit} />}
          </>
        )}
        {RAW.includes(mode) &&
          mode !== 'move' &&
          spots.map((spot, place) => (
            <path
              key={place}
              className="picked"
              d={`M${spot.x - 8 * unit} ${-spot.y}h${16 * unit}M${spot.x} ${-spot.y - 8 * unit}v${16 * unit}`}
            />
          ))}
        {(mode === 'scale' || mode === 'check') && spots[0] && (measured?.[1] ?? hover?.spot) && (
          <path
            className="rough"
            d={
              `M${spots[0].x} ${-spots[0].y}L${(measured?.[1] ?? hover?.spot)?.x} ` +
              `${-((measured?.[1] ?? hover?.spot)?.y ?? 0)}`
            }
          />
        )}
        {(mode === 'circle' || mode === 'guide') &&
          spots[0] &&
          hover &&
          (mode === 'circle' ? (
            <circle
              className="rough"
              cx={spots[0].x}
              cy={-spots[0].y}
              r={Math.hypot(hover.spot.x - spots[0].x, hover.spot.y - spots[0].y)}
            />
          ) : (
            <path className="rough" d={`M${spots[0].x} ${-spots[0].y}L${hover.spot.x} ${-hover.spot.y}`} />
          ))}
        {hover && hover.words && (
          <text className="snap halo" fontSize={font} x={hover.spot.x + 10 * unit} y={-hover.spot.y - 8 * unit}>
            {hover.words}
          </text>
        )}
      </svg>
      <div className="saybar">
        {(mode === 'draw' || mode === 'rim' || (mode === 'arc' && bow)) && (
          <Typed label="Next place, across and up in mm" done={(spot) => placed(spot, '')} />
        )}
        {(mode === 'scale' || mode === 'check') && matrix && !measured && (
          <Typed
            label="Next point, right and down in pixels of the picture"
            done={(spot) => {
              const [a = 1, b = 0, c = 0, d = -1, e = 0, f = 0] = matrix;
              placed({ x: a * spot.x + c * spot.y + e, y: b * spot.x + d * spot.y + f }, '');
            }}
          />
        )}
        {measured ? (
          <Ask
            what={{ what: 'length', words: 'measured on the sample', number: 'length' }}
            done={scaled}
            leave={() => enter('pick')}
          />
        ) : mode !== 'pick' || picked.length === 0 ? (
          <span>
            {mode === 'arc' && bow
              ? `${bow}: click a place that it goes through.`
              : [...MODES, ...ON_PICTURE].find(([key]) => key === mode)?.[2]}
          </span>
        ) : (
          <>
            <b>{picked.map((one) => one.name).join(', ')}</b>
            {asking ? (
              <Ask key={asking.what} what={asking} done={(value) => say(asking, value)} leave={() => setAsking(null)} />
            ) : (
              offers.map((one) => (
                <Act key={one.what} onClick={() => (one.number ? setAsking(one) : say(one))}>
                  {one.words}
                  {one.number ? '…' : ''}
                </Act>
              ))
            )}
            {!asking && offers.length === 0 && (
              <span>
                {picked.length === 1 ? 'Pick another thing to measure to.' : 'Nothing can be said of these together.'}
              </span>
            )}
            {!asking && (single?.kind === 'edge' || single?.kind === 'round') && (
              <Act
                onClick={() => {
                  void change(
                    (old) => turnRound(old, single.name),
                    `${single.name} ${single.kind === 'round' ? 'straight' : 'round'}`,
                  );
                  setPicked([]);
                }}
              >
                make it {single.kind === 'round' ? 'straight' : 'round'}
              </Act>
            )}
            {!asking &&
              (single?.kind === 'point' || single?.kind === 'circle' || single?.kind === 'guide') &&
              !single.name.includes('.') && (
                <Act
                  onClick={() => {
                    void change((old) => takeOut(old, single.name), `took out ${single.name}`);
                    setPicked([]);
                  }}
                >
                  take out
                </Act>
              )}
          </>
        )}
      </div>
      <Sayings piece={piece} index={index} drawn={drawn} standing={standing} width={panel} />
    </div>
  );
}

interface Box {
  low: Spot;
  high: Spot;
}

function boxOf(at: Map<string, Spot>, standing: Standing | null, drawn: Drawn | undefined): Box {
  const spots = [...at].filter(([name]) => !name.endsWith('.centre')).map(([, spot]) => spot);
  // The far side of a round edge.
  drawn?.corners.forEach((corner, index) => corner.bulge && spots.push(edgeMiddle(drawn, index, at)));
  for (const one of standing?.circles ?? []) {
    const centre = at.get(`${one.name}.centre`);
    // A round edge's circle may be far larger than the edge: only whole circles count.
    if (centre && one.name.startsWith('c'))
      spots.push(
        { x: centre.x - one.radius, y: centre.y - one.radius },
        { x: centre.x + one.radius, y: centre.y + one.radius },
      );
  }
  if (spots.length === 0) return { low: { x: 0, y: 0 }, high: { x: 100, y: 100 } };
  return {
    low: { x: Math.min(...spots.map((one) => one.x)), y: Math.min(...spots.map((one) => one.y)) },
    high: { x: Math.max(...spots.map((one) => one.x)), y: Math.max(...spots.map((one) => one.y)) },
  };
}

/** What may still move, and how: a double arrow along its way, a cross for any way, a ring for a radius. */
function Loose({ one, unit }: { one: Standing['loose'][number]; unit: number }) {
  const { x, y } = one.place;
  if (one.radius) return <circle className="loose" cx={x} cy={-y} r={11 * unit} />;
  const arm = (dx: number, dy: number) => {
    const reach = 18 * unit;
    const [tx, ty] = [x + dx * reach, y + dy * reach];
    const head = (side: number) =>
      `M${tx} ${-ty}L${tx - dx * 6 * unit - dy * side * 4 * unit} ${-(ty - dy * 6 * unit + dx * side * 4 * unit)}`;
    return `M${x} ${-y}L${tx} ${-ty}${head(1)}${head(-1)}`;
  };
  const [dx = 1, dy = 0] = one.along ?? [];
  const ways = one.along ? [arm(dx, dy), arm(-dx, -dy)] : [arm(1, 0), arm(-1, 0), arm(0, 1), arm(0, -1)];
  return <path className="loose" d={ways.join('')} />;
}

function Ask({ what, done, leave }: { what: Sayable; done: (value: string) => void; leave: () => void }) {
  const [text, setText] = useState('');
  return (
    <label>
      {what.words}{' '}
      <Input
        className="chip"
        autoFocus
        value={text}
        placeholder={what.number === 'angle' ? '90 deg, or a call-out' : '120 mm, or a call-out'}
        aria-label={what.words}
        size={22}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && text.trim()) done(text.trim());
          if (event.key === 'Escape') {
            event.stopPropagation();
            leave();
          }
        }}
      />
    </label>
  );
}

/** A corner by its numbers, for the keyboard: rough, as a click is. */
function Typed({ label, done }: { label: string; done: (spot: Spot) => void }) {
  const [text, setText] = useState('');
  return (
    <Input
      className="chip"
      aria-label={label}
      placeholder="or type: 120, 40"
      value={text}
      size={16}
      onChange={(event) => setText(event.target.value)}
      onKeyDown={(event) => {
        const found = /^\s*(-?[\d.]+)\s*[,;\s]\s*(-?[\d.]+)\s*$/.exec(text);
        if (event.key !== 'Enter' || !found) return;
        event.stopPropagation();
        done({ x: Number(found[1]), y: Number(found[2]) });
        setText('');
      }}
    />
  );
}
