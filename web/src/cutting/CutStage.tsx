// The stock with the path on it, and the simulated head moving over it.
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Schemas } from '../api/client';
import { useZoom } from '../bench/useZoom';
import { clock, headAt, unpack } from './timeline';
import { Act } from '../kit/Act';
import { Select } from '../kit/Select';
import { Slide } from '../kit/Slide';

type PlanView = Schemas['PlanView'];

const STATES = ['moving without cutting', 'cutting', 'piercing or marking'];
const SPEEDS = [1, 5, 20, 100];

interface Props {
  plan: PlanView;
  faults: Schemas['Fault'][];
  lit: number | null;
  pick: (cut: number) => void;
}

export function CutStage({ plan, faults, lit, pick }: Props) {
  const holder = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const stock = useRef<SVGSVGElement>(null);
  const zoom = useZoom(stock);
  const [room, setRoom] = useState({ width: 700, height: 560 });
  useEffect(() => {
    if (!holder.current) return;
    const watch = new ResizeObserver(
      ([entry]) => entry && setRoom({ width: entry.contentRect.width, height: entry.contentRect.height }),
    );
    watch.observe(holder.current);
    return () => watch.disconnect();
  }, []);
  const line = useMemo(() => unpack(plan.timeline), [plan]);
  const [time, setTime] = useState(0);
  const [running, setRunning] = useState(false);
  const [speed, setSpeed] = useState(5);
  const drawn = useRef(0);
  const seenAs = useRef('');
  // A new path starts anew.
  useEffect(() => {
    setTime(0);
    setRunning(false);
  }, [line]);

  useEffect(() => {
    if (!running) return;
    let last = performance.now();
    let frame = requestAnimationFrame(function step(now: number) {
      const passed = ((now - last) / 1000) * speed;
      last = now;
      setTime((old) => {
        const next = Math.min(line.seconds, old + passed);
        if (next >= line.seconds) setRunning(false);
        return next;
      });
      frame = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(frame);
  }, [running, speed, line]);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (
        target.closest('input:not([type=range]),select,[role=dialog]') ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey
      )
        return;
      if (event.key === 'p') {
        setTime((old) => (old >= line.seconds ? 0 : old));
        setRunning((old) => !old);
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [line]);

  const [wide = 1, high = 1] = plan.stock;
  const [left, top, bottom] = [46, 62, room.width < 560 ? 150 : 92];
  const whole = Math.max(wide / Math.max(80, room.width - 2 * left), high / Math.max(60, room.height - top - bottom));
  const [x0, y0, shownWide] = zoom.of([
    (room.width * whole - wide) / -2,
    -high - top * whole - Math.max(0, ((room.height - top - bottom) * whole - high) / 2),
    room.width * whole,
    room.height * whole,
  ]);
  const unit = shownWide / room.width;
  const head = headAt(line, time);

  // What is cut so far, drawn on: only what is new since the last picture, all of it when time ran back.
  useEffect(() => {
    const pen = canvas.current?.getContext('2d');
    if (!pen || !canvas.current) return;
    const scale = window.devicePixelRatio || 1;
    const [width, height] = [Math.round(room.width * scale), Math.round(room.height * scale)];
    if (canvas.current.width !== width || canvas.current.height !== height) {
      canvas.current.width = width;
      canvas.current.height = height;
      drawn.current = 0;
    }
    // Looked at otherwise, or time ran back: all of it anew.
    const seen = `${x0} ${y0} ${unit}`;
    if (head.at < drawn.current || seen !== seenAs.current) {
      seenAs.current = seen;
      pen.clearRect(0, 0, width, height);
      drawn.current = 0;
    }
    const px = (x: number) => ((x - x0) / unit) * scale;
    const py = (y: number) => ((y - y0) / unit) * scale;
    pen.strokeStyle = '#ffd9b0';
    pen.lineWidth = 2.2 * scale;
    pen.lineCap = 'round';
    pen.beginPath();
    const { values } = line;
    const point = (at: number): [number, number] =>
      at < 0 ? [0, 0] : [values[at * 4 + 1] ?? 0, values[at * 4 + 2] ?? 0];
    for (let at = drawn.current; at <= head.at; at += 1) {
      if (values[at * 4 + 3] !== 1) continue;
      const [fx, fy] = point(at - 1);
      const [tx, ty] = point(at);
      pen.moveTo(px(fx), py(fy));
      pen.lineTo(px(tx), py(ty));
    }
    pen.stroke();
    drawn.current = head.at + 1;
  }, [head.at, line, room, unit, x0, y0]);
  // Another path, another size: from an empty picture.
  useEffect(() => {
    canvas.current?.getContext('2d')?.clearRect(0, 0, canvas.current.width, canvas.current.height);
    drawn.current = 0;
  }, [line, room]);

  const listed = plan.order[lit ?? -1];
  const share = line.seconds > 0 ? Math.round((100 * time) / line.seconds) : 0;
  return (
    <div className="view cutview" ref={holder}>
      <h2>Simulated cutter</h2>
      {zoom.near > 1 && (
        <Act className="wholeblank" onClick={zoom.whole}>
          show it whole
        </Act>
      )}
      <svg
        ref={stock}
        viewBox={`${x0} ${y0} ${room.width * unit} ${room.height * unit}`}
        preserveAspectRatio="xMinYMin meet"
        role="img"
        aria-label={`Stock of ${plan.stock_text} with the cutting path; the cuts are listed in order on the left`}
      >
        <rect className="stock" x={0} y={-high} width={wide} height={high} />
        <path className="wanted" d={plan.part} fillRule="evenodd" />
        <path className="leads" d={plan.leads} />
        <path className="bodies" d={plan.bodies} />
        {plan.pierces.map((one, at) => (
          <circle
            key={at}
            className="pierce"
            cx={one.x}
            cy={one.y}
            r={2.2 * unit}
            onClick={() => !zoom.dragged() && pick(at)}
          />
        ))}
        {plan.marks.map((one, at) => (
          <path
            key={at}
            className="mark"
            d={`M${one.x - 5 * unit} ${one.y}h${10 * unit}M${one.x} ${one.y - 5 * unit}v${10 * unit}`}
          />
        ))}
        {listed && <path className="litcut" d={listed.path} />}
        {faults.map(
          (one, at) =>
            one.place && <circle key={at} className="faultspot" cx={one.place.x} cy={-one.place.y} r={9 * unit} />,
        )}
        {/* The player stands below: what is said of the stock stands above it, its zero beside its corner. */}
        <circle className="zero" cx={0} cy={0} r={3.5 * unit} />
        <text className="halo" textAnchor="end" x={-11 * unit} y={-7 * unit} fontSize={12 * unit}>
          0, 0
        </text>
        <text className="halo" x={0} y={-high - 8 * unit} fontSize={12 * unit}>
          stock {plan.stock_text}
        </text>
      </svg>
      <canvas ref={canvas} aria-hidden="true" />
      <svg
        className="over"
        viewBox={`${x0} ${y0} ${room.width * unit} ${room.height * unit}`}
        preserveAspectRatio="xMinYMin meet"
        aria-hidden="true"
      >
        <g transform={`translate(${head.x} ${head.y})`} className={head.state === 1 ? 'head on' : 'head'}>
          <circle r={7 * unit} />
          <path d={`M${-12 * unit} 0h${24 * unit}M0 ${-12 * unit}v${24 * unit}`} />
        </g>
      </svg>
      <div className="scrub">
        <Act
          kind="line"
          onClick={() => {
            if (time >= line.seconds) setTime(0);
            setRunning(!running);
          }}
        >
          {running ? 'Pause' : 'Run'}
        </Act>
        <label>
          <span className="visually">Speed of the picture</span>
          <Select className="chip" value={speed} onChange={(event) => setSpeed(Number(event.target.value))}>
            {SPEEDS.map((one) => (
              <option key={one} value={one}>
                {one === 1 ? 'as fast as it is' : `${one} times`}
              </option>
            ))}
          </Select>
        </label>
        <Slide
          label="Time in the program"
          words={`${clock(time)} of ${clock(line.seconds)}`}
          least={0}
          most={line.seconds}
          step={line.seconds / 1000 || 1}
          value={time}
          change={(value) => {
            setRunning(false);
            setTime(value);
          }}
          width={260}
        />
        <output className="num" data-share={share}>
          {clock(time)} of {clock(line.seconds)}, {share} %
        </output>
        <span className="num where">
          x {head.x.toFixed(1)} y {(0 - head.y).toFixed(1)} mm · {STATES[head.state]}
        </span>
      </div>
    </div>
  );
}
