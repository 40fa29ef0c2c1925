// The folded part in WebGL: drawn when something changes, picked by triangle, with labels as buttons over it.
import { Canvas, useFrame, useThree } from '@react-three/fiber';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import {
  BufferAttribute,
  BufferGeometry,
  DoubleSide,
  FrontSide,
  OrthographicCamera,
  Plane,
  Vector3,
  type LineSegments,
  type Mesh,
} from 'three';
import { Slider } from '@mui/material';
import { Choice } from '../kit/Choice';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { kindOfPiece } from '../kinds';
import { unpack, type Drawn } from './mesh';
import { layOut, ringed, textWidth, type Rect, type Wanted } from './labels';
import { isOn, useBench, type Selection } from './store';
import { pickAt } from './pick';
import { looking } from './looking';
import { under, type Thin } from './under';
import type { Tag } from './tags';
import { Act } from '../kit/Act';
import { Press } from '../kit/Press';

const STANDS: [string, [number, number, number]][] = [
  ['corner', [1, -1.25, 0.85]],
  ['front', [0, -1, 0]],
  ['right', [1, 0, 0]],
  ['back', [0, 1, 0]],
  ['left', [-1, 0, 0]],
  ['above', [0, -0.0001, 1]],
];

const NO_WIRES = new Float32Array();

interface Viewpoint {
  stand: number;
  turn: number;
}

export const view: { set: (next: Partial<Viewpoint>) => void; fit: () => void } = { set: () => {}, fit: () => {} };

/** Whether there is WebGL, and whether a graphics card does it: smoothing edges in software takes most of a frame. */
function probe(): { able: boolean; smooth: boolean } {
  const gl = document.createElement('canvas').getContext('webgl2');
  if (!gl) return { able: false, smooth: false };
  const told = gl.getExtension('WEBGL_debug_renderer_info');
  const name = told ? String(gl.getParameter(told.UNMASKED_RENDERER_WEBGL)) : '';
  gl.getExtension('WEBGL_lose_context')?.loseContext();
  return { able: true, smooth: !/software|swiftshader|llvmpipe/i.test(name) };
}

export default function Folded() {
  // Taken with the answer, not after it: a frame drawn with the old mesh in between would hold up the one that counts.
  const mesh = useBench((s) => s.ghost?.mesh ?? s.foldMesh ?? s.answer?.mesh ?? null);
  const fold = useBench((s) => s.fold);
  const stage = useBench((s) => (s.document ? kindOfPiece(s.document).stage : null));
  const lit = useBench((s) => s.lit);
  const panels = stage?.panels ?? false;
  const lines = useBench((s) => s.lines);
  const panel = useBench((s) => s.panel);
  const chosen = useBench((s) => s.selection);
  const selection = useMemo(() => (lit.length > 0 ? { ...chosen, features: lit } : chosen), [chosen, lit]);
  const answer = useBench((s) => s.ghost ?? s.answer);
  const hover = useBench((s) => s.hover?.name ?? null);
  const reading = useBench((s) => s.reading);
  const onBlank = answer?.blank?.fields;
  const drawn = useMemo(() => (mesh && mesh.features.length > 0 ? unpack(mesh, onBlank) : null), [mesh, onBlank]);
  const [point, setPoint] = useState<Viewpoint>({ stand: 0, turn: 0 });
  const [through, setThrough] = useState(false);
  const [section, setSection] = useState<Section | null>(null);
  const cut = useMemo(() => (drawn && section ? planeOf(drawn, section) : null), [drawn, section]);
  const labels = useRef<HTMLDivElement>(null);
  const frames = useRef(0);
  const holder = useRef<HTMLDivElement>(null);
  const [{ able, smooth }] = useState(probe);
  useEffect(
    () => () => {
      drawn?.geometry.dispose();
      drawn?.lines.dispose();
      drawn?.fields.forEach((one) => one.dispose());
    },
    [drawn],
  );
  useEffect(() => {
    view.set = (next) => setPoint((old) => ({ ...old, ...next, turn: old.turn + 1 }));
    view.fit = () => setPoint((old) => ({ ...old, turn: old.turn + 1 }));
  }, []);
  const over = useMemo(() => answer && stage?.over?.(answer, { lines, panel }), [answer, stage, lines, panel]);
  const tags = useMemo(
    () => [
      ...labelPlaces(drawn, panels, selection, fold === 1 ? answer : null),
      ...readingTags(reading),
      ...(over?.tags ?? []),
    ],
    [drawn, panels, selection, answer, fold, over, reading],
  );
  const named = answer?.names.holes;
  const holes = useMemo(() => (drawn ? holeBoxes(drawn, named ?? []) : []), [drawn, named]);
  const wires = over?.wires ?? NO_WIRES;
  // The scene is a tree of its own that follows a breath later. Handing it the mesh here draws it in the same frame as
  // the blank: one frame a change, not two, which is what counts where frames are dear.
  const show = useRef<Show | null>(null);
  useLayoutEffect(() => {
    if (!drawn) return;
    paint(drawn, panels, selection, hover);
    show.current?.(drawn, tags, holes);
  }, [drawn, panels, selection, tags, holes, hover]);
  return (
    <div className="view" ref={holder} data-testid="folded" data-frames="0" data-mesh={drawn?.serial}>
      <h2>{stage?.title}</h2>
      {stage?.Bar && <stage.Bar />}
      {able && drawn ? (
        <>
          <Canvas
            frameloop="demand"
            orthographic
            dpr={smooth ? [1, 2] : 1}
            gl={{ antialias: smooth }}
            style={{ position: 'absolute', inset: 0 }}
            camera={{ up: [0, 0, 1], near: -10000, far: 10000 }}
            role="img"
            aria-label={stage?.label}
          >
            <Scene
              wires={wires}
              drawn={drawn}
              point={point}
              labels={labels}
              tags={tags}
              holes={holes}
              show={show}
              through={through}
              cut={cut}
              onFrame={(serial) => {
                holder.current?.setAttribute('data-drawn', String(serial));
                holder.current?.setAttribute('data-frames', String((frames.current += 1)));
              }}
            />
          </Canvas>
          <div
            ref={labels}
            onWheel={(event) => {
              // A label is no hole in the picture: turning the wheel over it goes nearer as well.
              const canvas = holder.current?.querySelector('canvas');
              canvas?.dispatchEvent(new WheelEvent('wheel', event.nativeEvent));
            }}
          >
            {tags.map((one) =>
              one.pick ? (
                <Press
                  key={one.key}
                  className={`tag${one.wrong ? ' wrong' : isOn(selection, one.pick) ? ' on' : ''}`}
                  onClick={(event) => {
                    if (!one.pick) return;
                    const box = event.currentTarget.getBoundingClientRect();
                    pickAt([one.pick], { x: box.left, y: box.bottom }, event.shiftKey);
                  }}
                >
                  {one.text}
                </Press>
              ) : (
                <span key={one.key} className="tag dim">
                  {one.text}
                </span>
              ),
            )}
          </div>
        </>
      ) : (
        <p style={{ position: 'absolute', inset: '40% 10%', textAlign: 'center' }}>
          {able
            ? answer
              ? stage?.nothing
              : 'Building…'
            : 'This browser has no WebGL; the blank below and the tables show the part.'}
        </p>
      )}
      <div className="stands" role="group" aria-label="Standpoints">
        {STANDS.map(([name], index) => (
          <Act
            key={name}
            className={point.stand === index ? 'on' : undefined}
            onClick={() => view.set({ stand: index })}
            aria-label={`Look from ${name}, key ${index + 1}`}
          >
            {name}
          </Act>
        ))}
        <Act onClick={() => view.fit()} aria-label="Fit, key 0">
          fit
        </Act>
        <Act
          className={through ? 'on' : undefined}
          aria-pressed={through}
          onClick={() => setThrough(!through)}
          title="Hidden edges are drawn too"
        >
          see through
        </Act>
        <Act
          className={section ? 'on' : undefined}
          aria-pressed={section !== null}
          onClick={() => setSection(section ? null : { axis: 'x', share: 0.5 })}
        >
          section
        </Act>
        {section && (
          <>
            <Choice
              label="section square to"
              value={section.axis}
              options={[
                ['x', 'square to x'],
                ['y', 'square to y'],
                ['z', 'square to z'],
              ]}
              change={(axis) => setSection({ ...section, axis: axis as Section['axis'] })}
            />
            <Slider
              size="small"
              aria-label="Where the section lies"
              min={0}
              max={1}
              step={0.01}
              value={section.share}
              valueLabelDisplay="auto"
              valueLabelFormat={(share) => `${Math.round(share * 100)} %`}
              onChange={(_, share) => setSection({ ...section, share: share as number })}
            />
          </>
        )}
      </div>
    </div>
  );
}

type Answer = ReturnType<typeof useBench.getState>['answer'];

/** Labels: each panel by name at the middle of its upper face; the selected call-out with its dimension line. */
function labelPlaces(drawn: Drawn | null, panels: boolean, selection: Selection, answer: Answer): Tag[] {
  if (!drawn) return [];
  const positions = drawn.geometry.getAttribute('position');
  const sums = new Map<number, [number, number, number, number]>();
  const labelled = drawn.features.map((name) => panels && name.endsWith('.top') && !name.endsWith('.bend.top'));
  for (let triangle = 0; triangle < drawn.owners.length; triangle += 1) {
    const owner = drawn.owners[triangle] ?? 0;
    if (!labelled[owner]) continue;
    const sum = sums.get(owner) ?? [0, 0, 0, 0];
    for (let corner = 0; corner < 3; corner += 1) {
      sum[0] += positions.getX(triangle * 3 + corner);
      sum[1] += positions.getY(triangle * 3 + corner);
      sum[2] += positions.getZ(triangle * 3 + corner);
      sum[3] += 1;
    }
    sums.set(owner, sum);
  }
  // Of several blanks each has its letter at its first panel.
  const first = new Map(answer?.blank?.sheets.map((one) => [one.panels[0], one.letter]));
  const tags: Tag[] = [...sums].map(([owner, [x, y, z, count]]) => {
    const name = (drawn.features[owner] ?? '').replace(/\.top$/, '');
    const letter = first.get(name);
    const text = letter === undefined ? name : `${letter}: ${name}`;
    return { key: name, text, pick: name, place: [x / count, y / count, z / count] };
  });
  if (selection.breach !== undefined) {
    const wrong = signs(drawn, selection);
    // One label for one thing.
    const kept = tags.filter((one) => !wrong.some((other) => other.pick === one.pick));
    tags.splice(0, tags.length, ...kept, ...wrong);
  }
  const proofs =
    answer?.callouts.filter(
      (one) =>
        selection.breach === undefined &&
        one.witnesses.some((place) => place.on === 'made') &&
        (selection.callout === one.name ||
          (selection.operation !== undefined &&
            selection.callout === undefined &&
            one.drives.includes(selection.operation))),
    ) ?? [];
  for (const proof of proofs.slice(0, 4)) {
    proof.witnesses.forEach(({ from: a, to: b, along, on }, index) => {
      if (on !== 'made') return;
      // The dimension line runs in the direction of the measure; of an angle from one side to the other.
      const long = (b.x - a.x) * along.x + (b.y - a.y) * along.y + (b.z - a.z) * along.z;
      const end =
        Math.abs(long) > 1e-6 ? { x: a.x + along.x * long, y: a.y + along.y * long, z: a.z + along.z * long } : b;
      tags.push({
        key: `dim-${proof.name}-${index}`,
        text: `${proof.name} ${proof.measured_text}`,
        place: [a.x + (end.x - a.x) * 0.78, a.y + (end.y - a.y) * 0.78, a.z + (end.z - a.z) * 0.78],
        line: [a.x, a.y, a.z, end.x, end.y, end.z],
      });
    });
  }
  return tags;
}

type Place = Tag['place'];

/** The most holes that labels keep clear of: more are a perforation, which is drawn otherwise. */
const MOST_HOLES = 250;

/** The corners of the box around each hole's walls. */
function holeBoxes(drawn: Drawn, names: string[]): Place[][] {
  const known = new Set(names);
  const positions = drawn.geometry.getAttribute('position');
  const boxes = new Map<string, [number[], number[]]>();
  // A cut of several sides has a wall each: `handle.side-3.front`.
  const holeOf = drawn.features.map((name) =>
    [name, name.replace(/\.side-\d+\..*$/, '')].find((one) => known.has(one)),
  );
  for (let triangle = 0; triangle < drawn.owners.length; triangle += 1) {
    const hole = holeOf[drawn.owners[triangle] ?? 0];
    if (hole === undefined) continue;
    const box = boxes.get(hole) ?? [
      [Infinity, Infinity, Infinity],
      [-Infinity, -Infinity, -Infinity],
    ];
    for (let corner = 0; corner < 3; corner += 1) {
      const at = triangle * 3 + corner;
      [positions.getX(at), positions.getY(at), positions.getZ(at)].forEach((value, axis) => {
        box[0][axis] = Math.min(box[0][axis]!, value);
        box[1][axis] = Math.max(box[1][axis]!, value);
      });
    }
    boxes.set(hole, box);
  }
  if (boxes.size > MOST_HOLES) return [];
  return [...boxes.values()].map(([low, high]) =>
    Array.from({ length: 8 }, (_, corner): Place => [
      (corner & 1 ? high : low)[0]!,
      (corner & 2 ? high : low)[1]!,
      (corner & 4 ? high : low)[2]!,
    ]),
  );
}

/** A sign at each thing that the chosen broken rule is about. */
function signs(drawn: Drawn, selection: Selection): Tag[] {
  const positions = drawn.geometry.getAttribute('position');
  return selection.features.slice(0, MOST_SIGNS).flatMap((feature) => {
    const own = drawn.features.map((name) => isOn({ features: [feature] }, name));
    const sum: [number, number, number] = [0, 0, 0];
    let count = 0;
    for (let triangle = 0; triangle < drawn.owners.length; triangle += 1) {
      if (!own[drawn.owners[triangle] ?? 0]) continue;
      for (let corner = 0; corner < 3; corner += 1) {
        sum[0] += positions.getX(triangle * 3 + corner);
        sum[1] += positions.getY(triangle * 3 + corner);
        sum[2] += positions.getZ(triangle * 3 + corner);
        count += 1;
      }
    }
    if (count === 0) return [];
    const place: Tag['place'] = [sum[0] / count, sum[1] / count, sum[2] / count];
    return [{ key: `wrong-${feature}`, text: `! ${feature}`, pick: feature, place, wrong: true }];
  });
}

// Red, green and blue of 255.
const STEEL: [number, number, number] = [189, 199, 219];
const COPPER: [number, number, number] = [226, 147, 90];
const CUT: [number, number, number] = [140, 153, 179];
const HOVER: [number, number, number] = [229, 205, 180];
const OXIDE: [number, number, number] = [242, 133, 109];
/** The most signs of one broken rule. */
const MOST_SIGNS = 6;

/** Where a part is cut open to be looked into: square to an axis, at a share of its size. */
interface Section {
  axis: 'x' | 'y' | 'z';
  share: number;
}

/** The plane of a section: what lies beyond it along the axis is left out of the picture. */
function planeOf(drawn: Drawn, { axis, share }: Section): Plane {
  const at = 'xyz'.indexOf(axis);
  const [low, high] = [drawn.box[at] ?? 0, drawn.box[at + 3] ?? 0];
  const normal = new Vector3();
  normal.setComponent(at, -1);
  return new Plane(normal, low + (high - low) * share);
}

/** Whether all corners of a box are on the screen. */
function inView(box: number[], camera: OrthographicCamera): boolean {
  const corner = new Vector3();
  return [0, 3].every((i) =>
    [1, 4].every((j) =>
      [2, 5].every((k) => {
        corner.set(box[i] ?? 0, box[j] ?? 0, box[k] ?? 0).project(camera);
        return Math.abs(corner.x) <= 1 && Math.abs(corner.y) <= 1;
      }),
    ),
  );
}

/** The way that a face looks, by its largest triangle; of a round one there is none that is better. */
function normalOf(drawn: Drawn, name: string): Vector3 | null {
  const positions = drawn.geometry.getAttribute('position');
  const [a, b, c] = [new Vector3(), new Vector3(), new Vector3()];
  let best: Vector3 | null = null;
  let most = 0;
  for (let triangle = 0; triangle < drawn.owners.length; triangle += 1) {
    if (!isOn({ features: [name] }, drawn.features[drawn.owners[triangle] ?? 0] ?? '')) continue;
    a.fromBufferAttribute(positions, triangle * 3);
    b.fromBufferAttribute(positions, triangle * 3 + 1).sub(a);
    c.fromBufferAttribute(positions, triangle * 3 + 2).sub(a);
    const cross = b.clone().cross(c);
    const area = cross.length();
    if (area > most) [most, best] = [area, cross.normalize()];
  }
  return best;
}

type Show = (drawn: Drawn, tags: Tag[], holes: Place[][]) => void;

/** Gives every triangle the colour of its feature. */
function paint(drawn: Drawn, panels: boolean, selection: Selection, hover: string | null): void {
  const lit = selection.breach === undefined ? COPPER : OXIDE;
  const tints = drawn.features.map((name) =>
    isOn(selection, name)
      ? lit
      : name === hover
        ? HOVER
        : panels && (name.endsWith('.top') || name.endsWith('.bottom'))
          ? STEEL
          : CUT,
  );
  const colours = new Uint8Array(drawn.owners.length * 9);
  for (let triangle = 0, at = 0; triangle < drawn.owners.length; triangle += 1) {
    const tint = tints[drawn.owners[triangle] ?? 0] ?? STEEL;
    for (let corner = 0; corner < 3; corner += 1, at += 3) {
      colours[at] = tint[0];
      colours[at + 1] = tint[1];
      colours[at + 2] = tint[2];
    }
  }
  drawn.geometry.setAttribute('color', new BufferAttribute(colours, 3, true));
}

/** The zoom at which the box around the part fills the stage, seen from a direction. */
function zoomFor(drawn: Drawn, from: Vector3, size: { width: number; height: number }): number {
  const look = from.clone().normalize();
  const right = new Vector3(0, 0, 1).cross(look);
  if (right.length() < 1e-3) right.set(1, 0, 0);
  right.normalize();
  const up = look.clone().cross(right);
  const span = (way: Vector3) => {
    const all = [0, 3].flatMap((i) =>
      [1, 4].flatMap((j) => [2, 5].map((k) => new Vector3(drawn.box[i], drawn.box[j], drawn.box[k]).dot(way))),
    );
    return Math.max(...all) - Math.min(...all);
  };
  // Room for labels and the words at the edges.
  return Math.min(size.width / (span(right) * 1.18 + 1e-6), size.height / (span(up) * 1.35 + 1e-6));
}

/** A reading that is looked at in the menu, with its dimension lines. */
function readingTags(reading: ReturnType<typeof useBench.getState>['reading']): Tag[] {
  if (!reading) return [];
  return reading.witnesses
    .filter((one) => one.on === 'made')
    .map(({ from, to }, index) => ({
      key: `reading-${index}`,
      text: `${reading.words} ${reading.text}`,
      place: [from.x + (to.x - from.x) * 0.5, from.y + (to.y - from.y) * 0.5, from.z + (to.z - from.z) * 0.5],
      line: [from.x, from.y, from.z, to.x, to.y, to.z],
    }));
}

/** What is told by its lines on what is shown. */
function thinOf(): Thin {
  const { answer, ghost, lines } = useBench.getState();
  const shown = ghost ?? answer;
  return {
    edges: new Set(shown?.names.edges),
    holes: new Set(shown?.names.holes),
    corners: shown?.blank?.corners ?? [],
    // Those that are drawn: bare ones, and all where they are shown.
    lines: (shown?.frame?.lines ?? []).filter((one) => lines || !one.has_section),
  };
}

/** Clicks and hovers on the picture: what lies there is chosen, or named beside the pointer. */
function usePointing(
  solid: React.RefObject<Mesh | null>,
  shown: React.RefObject<{ drawn: Drawn }>,
  cut: Plane | null,
): void {
  const { camera, gl, size } = useThree();
  useEffect(() => {
    const canvas = gl.domElement;
    let down: { x: number; y: number } | null = null;
    let frame = 0;
    const found = (event: PointerEvent): string[] => {
      const box = canvas.getBoundingClientRect();
      if (!solid.current) return [];
      const [x, y] = [event.clientX - box.left, event.clientY - box.top];
      return under(shown.current.drawn, solid.current, camera, size, x, y, thinOf(), cut);
    };
    const onDown = (event: PointerEvent) => {
      down = event.button === 0 ? { x: event.clientX, y: event.clientY } : null;
    };
    const onUp = (event: PointerEvent) => {
      // A drag turns the view.
      if (!down || Math.hypot(event.clientX - down.x, event.clientY - down.y) > 4) return;
      down = null;
      pickAt(found(event), { x: event.clientX, y: event.clientY }, event.shiftKey);
    };
    const onMove = (event: PointerEvent) => {
      cancelAnimationFrame(frame);
      if (event.buttons !== 0) return;
      frame = requestAnimationFrame(() => {
        const [name] = found(event);
        const now = useBench.getState().hover;
        if (name === undefined) {
          if (now) useBench.setState({ hover: null });
        } else useBench.setState({ hover: { name, x: event.clientX, y: event.clientY } });
      });
    };
    const onLeave = () => {
      cancelAnimationFrame(frame);
      useBench.setState({ hover: null });
    };
    canvas.addEventListener('pointerdown', onDown);
    canvas.addEventListener('pointerup', onUp);
    canvas.addEventListener('pointermove', onMove);
    canvas.addEventListener('pointerleave', onLeave);
    return () => {
      cancelAnimationFrame(frame);
      canvas.removeEventListener('pointerdown', onDown);
      canvas.removeEventListener('pointerup', onUp);
      canvas.removeEventListener('pointermove', onMove);
      canvas.removeEventListener('pointerleave', onLeave);
    };
  }, [camera, gl, size, solid, shown, cut]);
}

function Scene({
  wires,
  drawn,
  point,
  labels,
  tags,
  holes,
  show,
  through,
  cut,
  onFrame,
}: {
  wires: Float32Array;
  drawn: Drawn;
  point: Viewpoint;
  labels: React.RefObject<HTMLDivElement | null>;
  tags: Tag[];
  holes: Place[][];
  show: React.RefObject<Show | null>;
  through: boolean;
  cut: Plane | null;
  onFrame: (serial: number) => void;
}) {
  const { camera, gl, size, invalidate } = useThree();
  const controls = useRef<OrbitControls | null>(null);
  const lines = useMemo(() => {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(new Float32Array(tags.flatMap((one) => one.line ?? [])), 3));
    return geometry;
  }, [tags]);
  useEffect(() => () => lines.dispose(), [lines]);
  const centre = useMemo(() => {
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(wires, 3));
    return geometry;
  }, [wires]);
  useEffect(() => () => centre.dispose(), [centre]);
  useEffect(() => {
    gl.localClippingEnabled = cut !== null;
    drawn.fields.forEach((one) => one.cutAt(cut));
    invalidate();
  }, [cut, drawn, through, gl, invalidate]);
  useEffect(() => invalidate(), [centre, invalidate]);

  useEffect(() => {
    const made = new OrbitControls(camera, gl.domElement);
    made.enableDamping = false;
    made.addEventListener('change', () => invalidate());
    controls.current = made;
    return () => made.dispose();
  }, [camera, gl, invalidate]);

  // A standpoint is taken when asked for, and when the part is first seen; an edit leaves the view alone.
  const seen = useRef(-1);
  useEffect(() => {
    if (seen.current === point.turn && size.width > 0 && seen.current !== -1) return;
    if (!(camera instanceof OrthographicCamera) || size.width === 0) return;
    seen.current = point.turn;
    const [x, y, z] = drawn.centre;
    const from = new Vector3(...(STANDS[point.stand]?.[1] ?? [1, -1, 1])).normalize().multiplyScalar(drawn.radius * 4);
    camera.position.set(x + from.x, y + from.y, z + from.z);
    camera.zoom = zoomFor(drawn, from, size);
    camera.near = -drawn.radius * 20;
    camera.far = drawn.radius * 20;
    camera.up.set(0, 0, 1);
    controls.current?.target.set(x, y, z);
    camera.lookAt(x, y, z);
    camera.updateProjectionMatrix();
    controls.current?.update();
    invalidate();
  }, [point, drawn, camera, size, invalidate]);

  // Square at a face: its normal is that of its largest triangle; the view keeps its zoom where the part still fits.
  useEffect(() => {
    looking.at = (name) => {
      if (!(camera instanceof OrthographicCamera)) return;
      const normal = normalOf(shown.current.drawn, name);
      if (!normal) return;
      const { drawn: now } = shown.current;
      const from = normal.multiplyScalar(now.radius * 4);
      const [x, y, z] = now.centre;
      // Straight down or up there is no up on the page but the part's back.
      camera.up.set(
        0,
        Math.abs(from.clone().normalize().z) > 0.999 ? 1 : 0,
        Math.abs(from.clone().normalize().z) > 0.999 ? 0 : 1,
      );
      camera.position.set(x + from.x, y + from.y, z + from.z);
      camera.zoom = zoomFor(now, from, size);
      controls.current?.target.set(x, y, z);
      camera.lookAt(x, y, z);
      camera.updateProjectionMatrix();
      controls.current?.update();
      invalidate();
    };
    return () => {
      looking.at = () => {};
    };
  }, [camera, size, invalidate]);

  // A part that was in view as a whole and has outgrown it, or has become a model of itself, is fitted again; whoever
  // looks at a detail keeps looking.
  const before = useRef(drawn);
  useEffect(() => {
    const last = before.current;
    before.current = drawn;
    if (!(camera instanceof OrthographicCamera) || size.width === 0 || seen.current === -1) return;
    const shrunk = drawn.radius * 2.5 < last.radius;
    if (!inView(last.box, camera) || (inView(drawn.box, camera) && !shrunk)) return;
    const [x, y, z] = drawn.centre;
    const from = camera.position
      .clone()
      .sub(controls.current?.target ?? new Vector3())
      .normalize()
      .multiplyScalar(drawn.radius * 4);
    camera.position.set(x + from.x, y + from.y, z + from.z);
    camera.zoom = zoomFor(drawn, from, size);
    camera.near = -drawn.radius * 20;
    camera.far = drawn.radius * 20;
    controls.current?.target.set(x, y, z);
    camera.lookAt(x, y, z);
    camera.updateProjectionMatrix();
    controls.current?.update();
    invalidate();
  }, [drawn, camera, size, invalidate]);

  // When the room changes (a panel opens below) the framing stays: the zoom follows the shorter side.
  const room = useRef(0);
  useEffect(() => {
    const now = Math.min(size.width, size.height);
    if (room.current > 0 && now > 0 && room.current !== now && camera instanceof OrthographicCamera) {
      camera.zoom *= now / room.current;
      camera.updateProjectionMatrix();
      invalidate();
    }
    room.current = now;
  }, [size, camera, invalidate]);

  const solid = useRef<Mesh>(null);
  const edges = useRef<LineSegments>(null);
  const shown = useRef({ drawn, tags, holes });
  useEffect(() => {
    shown.current = { drawn, tags, holes };
    invalidate();
  }, [drawn, tags, holes, invalidate]);
  useEffect(() => {
    show.current = (next, places, around) => {
      shown.current = { drawn: next, tags: places, holes: around };
      if (solid.current) solid.current.geometry = next.geometry;
      if (edges.current) edges.current.geometry = next.lines;
      invalidate();
    };
    return () => {
      show.current = null;
    };
  }, [show, invalidate]);

  usePointing(solid, shown, cut);
  const spot = useMemo(() => new Vector3(), []);
  useFrame(() => {
    shown.current.drawn.fields.forEach((one) => one.seenAt(camera, camera.zoom * gl.getPixelRatio()));
    const children = labels.current?.children;
    if (children) {
      const on = (place: readonly number[]): [number, number] => {
        spot.set(place[0] ?? 0, place[1] ?? 0, place[2] ?? 0).project(camera);
        return [((spot.x + 1) / 2) * size.width, ((1 - spot.y) / 2) * size.height];
      };
      const all = shown.current.tags;
      const wanted = all.map((one): Wanted => {
        const middle = on(one.place);
        // What the section has taken away has no name on the picture.
        const gone = cut && !one.wrong && cut.distanceToPoint(spot.fromArray(one.place)) < 0;
        if (gone) return { rank: 3, width: 0, height: 0, at: [] };
        const [width, height] = [textWidth(one.text, 11, 'JetBrains Mono') + 12, 18];
        // What is wrong stands first, a size that is looked at next; a name without room waits for another view.
        if (one.wrong) {
          const down = Array.from({ length: MOST_SIGNS }, (_, at): [number, number] => [
            middle[0],
            middle[1] + at * 20,
          ]);
          return { rank: 0, width, height, at: down, always: true };
        }
        if (!one.pick) return { rank: 1, width, height, at: ringed(middle, width, height, [4, 16]), always: true };
        if (one.node !== undefined || one.declutter) return { rank: 3, width, height, at: [middle] };
        return { rank: 2, width, height, at: ringed(middle, width / 2, height, [2, 12, 26, 44]) };
      });
      const taken = shown.current.holes.map((corners): Rect => {
        const seen = corners.map(on);
        const [xs, ys] = [seen.map(([x]) => x), seen.map(([, y]) => y)];
        const [x, y] = [Math.min(...xs), Math.min(...ys)];
        return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
      });
      // Clear of the title above and the standpoints below.
      const room: Rect = { x: 2, y: 30, width: size.width - 4, height: size.height - 62 };
      layOut(wanted, taken, room).forEach((place, index) => {
        const child = children[index] as HTMLElement | undefined;
        if (!child) return;
        child.style.visibility = place ? '' : 'hidden';
        if (!place) return;
        child.style.left = `${place[0]}px`;
        child.style.top = `${place[1]}px`;
      });
    }
    onFrame(shown.current.drawn.serial);
  });
  return (
    <>
      <ambientLight intensity={1.25} />
      <directionalLight position={[1, -2, 3]} intensity={1.6} />
      <directionalLight position={[-2, 1.5, -1]} intensity={0.5} />
      <mesh ref={solid} geometry={drawn.geometry}>
        <meshLambertMaterial
          vertexColors
          flatShading
          polygonOffset
          polygonOffsetFactor={1}
          polygonOffsetUnits={1}
          transparent={through}
          opacity={through ? 0.35 : 1}
          depthWrite={!through}
          side={cut ? DoubleSide : FrontSide}
          clippingPlanes={cut ? [cut] : null}
        />
      </mesh>
      {drawn.fields.map((one) => (
        <primitive key={one.uuid} object={one} dispose={null} />
      ))}
      <lineSegments ref={edges} geometry={drawn.lines}>
        <lineBasicMaterial
          color={through ? '#f3efe4' : '#1d2350'}
          depthTest={!through}
          clippingPlanes={cut ? [cut] : null}
        />
      </lineSegments>
      <lineSegments geometry={centre} renderOrder={1}>
        <lineBasicMaterial color="#e2935a" depthTest={false} />
      </lineSegments>
      <lineSegments geometry={lines} renderOrder={2}>
        <lineBasicMaterial color="#e2935a" depthTest={false} />
      </lineSegments>
    </>
  );
}
