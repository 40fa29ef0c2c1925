// What lies under a place of the picture: corners and edges that pass near it before the faces behind it. An edge is
// thin, and seen square to it it has no width at all: it is found by how near its lines pass on the screen.
import { Raycaster, Vector2, Vector3, type Camera, type Mesh, type Plane } from 'three';
import type { Drawn } from './mesh';

export interface Thin {
  /** Names of edges and holes: what is told by its lines. */
  edges: Set<string>;
  holes: Set<string>;
  /** Corners by name with their places, mm. */
  corners: { name: string; made: { x: number; y: number; z: number } }[];
  /** Centre lines that are drawn, by the places along them, mm. */
  lines: { name: string; places: { x: number; y: number; z: number }[] }[];
}

export interface Screen {
  width: number;
  height: number;
}

/** How near a line must pass, pixels. */
const NEAR = 7;
/** How near a corner must lie, pixels. */
const NEAR_CORNER = 9;

const trianglesOf = new WeakMap<Drawn, Map<string, number[]>>();

/** The triangles of each feature that is told by its lines. */
function triangles(drawn: Drawn, thin: Thin): Map<string, number[]> {
  const known = trianglesOf.get(drawn);
  if (known) return known;
  const wanted = drawn.features.map((name) => thin.edges.has(name) || thin.holes.has(name));
  const all = new Map<string, number[]>();
  for (let triangle = 0; triangle < drawn.owners.length; triangle += 1) {
    const owner = drawn.owners[triangle] ?? 0;
    if (!wanted[owner]) continue;
    const name = drawn.features[owner] ?? '';
    const own = all.get(name);
    if (own) own.push(triangle);
    else all.set(name, [triangle]);
  }
  trianglesOf.set(drawn, all);
  return all;
}

/** Distance of a place from a stretch, and how far along the stretch it is nearest, 0 to 1. */
export function nearest(x: number, y: number, a: Vector3, b: Vector3): [distance: number, along: number] {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const long = dx * dx + dy * dy;
  const along = long < 1e-9 ? 0 : Math.max(0, Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / long));
  return [Math.hypot(a.x + dx * along - x, a.y + dy * along - y), along];
}

/** Names under a place in pixels of the picture, nearest first. */
export function under(
  drawn: Drawn,
  solid: Mesh,
  camera: Camera,
  size: Screen,
  x: number,
  y: number,
  thin: Thin,
  cut: Plane | null = null,
): string[] {
  const ray = new Raycaster();
  ray.setFromCamera(new Vector2((x / size.width) * 2 - 1, 1 - (y / size.height) * 2), camera);
  // What a section leaves out cannot be pointed at.
  const kept = (place: Vector3) => cut === null || cut.distanceToPoint(place) >= 0;
  const hits = ray.intersectObject(solid, false).filter((hit) => kept(hit.point));
  const faces: string[] = [];
  for (const hit of hits) {
    const name = drawn.features[drawn.owners[hit.faceIndex ?? 0] ?? 0] ?? '';
    if (!faces.includes(name)) faces.push(name);
  }
  const screen = (place: Vector3) => {
    const on = place.clone().project(camera);
    return new Vector3(((on.x + 1) / 2) * size.width, ((1 - on.y) / 2) * size.height, on.z);
  };
  // What is seen first there: an edge behind it is hidden.
  const front = hits[0] ? screen(hits[0].point).z : Infinity;
  // As deep as the metal there is thick, or so: an edge of the face that is seen lies about as deep as the face.
  const deep = (drawn.radius * 0.04) / (drawn.radius * 20);
  const seen = (depth: number) => depth <= front + deep;
  const found: { name: string; distance: number; rank: number; hidden: boolean }[] = [];
  for (const corner of thin.corners) {
    const on = screen(new Vector3(corner.made.x, corner.made.y, corner.made.z));
    const distance = Math.hypot(on.x - x, on.y - y);
    if (distance < NEAR_CORNER && kept(new Vector3(corner.made.x, corner.made.y, corner.made.z)))
      found.push({ name: corner.name, distance, rank: 0, hidden: !seen(on.z) });
  }
  const positions = drawn.geometry.getAttribute('position');
  const corner = new Vector3();
  for (const [name, own] of triangles(drawn, thin)) {
    let best = Infinity;
    let depth = Infinity;
    let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
    for (const triangle of own) {
      const on = [0, 1, 2].map((at) => screen(corner.fromBufferAttribute(positions, triangle * 3 + at)));
      for (let at = 0; at < 3; at += 1) {
        const [a, b] = [on[at], on[(at + 1) % 3]];
        if (!a || !b) continue;
        const [distance, along] = nearest(x, y, a, b);
        const here = a.z + (b.z - a.z) * along;
        if (distance < best - 1e-6 || (distance < best + 1e-6 && here < depth)) [best, depth] = [distance, here];
        left = Math.min(left, a.x);
        right = Math.max(right, a.x);
        top = Math.min(top, a.y);
        bottom = Math.max(bottom, a.y);
      }
    }
    const within = thin.holes.has(name) && x > left && x < right && y > top && y < bottom;
    if (best < NEAR || within) found.push({ name, distance: best, rank: within ? 1 : 2, hidden: !seen(depth) });
  }
  for (const line of thin.lines) {
    const on = line.places.map((place) => screen(new Vector3(place.x, place.y, place.z)));
    const best = Math.min(...on.slice(1).map((to, at) => nearest(x, y, on[at] ?? to, to)[0]));
    if (best < NEAR) found.push({ name: line.name, distance: best, rank: 2, hidden: false });
  }
  found.sort((a, b) => a.rank - b.rank || a.distance - b.distance);
  const names = [
    ...found.filter((one) => !one.hidden).map((one) => one.name),
    // Bare lines are drawn as one thing, and pointed at each by itself.
    ...faces.filter((one) => one !== 'skeleton'),
  ];
  names.push(...found.filter((one) => one.hidden).map((one) => one.name));
  return [...new Set(names)];
}
