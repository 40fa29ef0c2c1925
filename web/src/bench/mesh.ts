// Unpacks the mesh that the server sends. Nothing is computed here but how it is drawn.
import { BufferAttribute, BufferGeometry, Vector3 } from 'three';
import type { BuildAnswer, MeshView } from '../api/client';
import { FieldCopies } from './fieldCopies';

type MeshField = MeshView['fields'][number];
type BlankField = NonNullable<BuildAnswer['blank']>['fields'][number];

export function bytes(text: string): ArrayBuffer {
  const raw = atob(text);
  const out = new Uint8Array(raw.length);
  for (let at = 0; at < raw.length; at += 1) out[at] = raw.charCodeAt(at);
  return out.buffer;
}

export interface Drawn {
  /** Counts meshes, so that a frame can say which one it shows. */
  serial: number;
  geometry: BufferGeometry;
  /** The edges worth drawing, as the server tells them. */
  lines: BufferGeometry;
  /** Perforations: the holes on both faces, in the colour of what lies behind. */
  fields: FieldCopies[];
  owners: Uint32Array;
  features: string[];
  centre: [number, number, number];
  /** The box around it: low x, y, z, high x, y, z. */
  box: number[];
  radius: number;
}

/** How far the holes of a field lie from its first one: its own, or the blank's, whose y runs down. */
function placesOf(one: MeshField, onBlank: BlankField | undefined): Float32Array {
  if (one.places != null) return new Float32Array(bytes(one.places));
  const places = new Float32Array(bytes(onBlank?.places ?? ''));
  const [x, y] = [places[0] ?? 0, places[1] ?? 0];
  return places.map((value, at) => (at % 2 === 0 ? value - x : y - value));
}

function field(one: MeshField, onBlank: BlankField | undefined): FieldCopies {
  const vector = (of: number[]) => new Vector3(...(of as [number, number, number]));
  return new FieldCopies({
    ring: one.ring,
    places: placesOf(one, onBlank),
    along: vector(one.along),
    across: vector(one.across),
    lower: vector(one.lower),
    upper: vector(one.upper),
  });
}

let made = 0;

/** `onBlank`: the perforations of the blank that the mesh is folded from, where there is one. */
export function unpack(mesh: MeshView, onBlank: BlankField[] = []): Drawn {
  const points = new Float32Array(bytes(mesh.positions));
  const corners = new Uint32Array(bytes(mesh.triangles));
  // Each triangle gets its own corners, and so its own colour; the material makes flat normals by itself.
  const positions = new Float32Array(corners.length * 3);
  for (let at = 0; at < corners.length; at += 1) {
    const from = (corners[at] ?? 0) * 3;
    positions[at * 3] = points[from] ?? 0;
    positions[at * 3 + 1] = points[from + 1] ?? 0;
    positions[at * 3 + 2] = points[from + 2] ?? 0;
  }
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(positions, 3));
  const lines = new BufferGeometry();
  lines.setAttribute('position', new BufferAttribute(points, 3));
  lines.setIndex(new BufferAttribute(new Uint32Array(bytes(mesh.lines)), 1));
  const e = mesh.extents;
  const [x0, y0, z0, x1, y1, z1] = [e[0] ?? 0, e[1] ?? 0, e[2] ?? 0, e[3] ?? 0, e[4] ?? 0, e[5] ?? 0];
  return {
    serial: (made += 1),
    geometry,
    lines,
    fields: mesh.fields.map((one, at) => field(one, onBlank[at])),
    owners: new Uint32Array(bytes(mesh.owners)),
    features: mesh.features,
    box: [x0, y0, z0, x1, y1, z1],
    centre: [(x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2],
    radius: Math.max(1, Math.hypot(x1 - x0, y1 - y0, z1 - z0) / 2),
  };
}
