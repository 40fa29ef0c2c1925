// Unpacks the mesh that the server sends. Nothing is computed here but how it is drawn.
import {
  BufferAttribute,
  BufferGeometry,
  InstancedMesh,
  Matrix4,
  MeshBasicMaterial,
  Path,
  Shape,
  ShapeGeometry,
  Vector3,
} from 'three';
import type { BuildAnswer, MeshView } from '../api/client';

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
  /** Perforations: copies of a hole's outline on both faces, in the colour of what lies behind. */
  fields: FieldCopies[];
  owners: Uint32Array;
  features: string[];
  centre: [number, number, number];
  /** The box around it: low x, y, z, high x, y, z. */
  box: number[];
  radius: number;
}

// The stage's own ground: a hole looks like what is behind it.
const VOID = new MeshBasicMaterial({
  color: '#262c5e',
  polygonOffset: true,
  polygonOffsetFactor: -1,
  polygonOffsetUnits: -1,
});

/** How far the holes of a field lie from its first one: its own, or the blank's, whose y runs down. */
function placesOf(one: MeshField, onBlank: BlankField | undefined): Float32Array {
  if (one.places != null) return new Float32Array(bytes(one.places));
  const places = new Float32Array(bytes(onBlank?.places ?? ''));
  const [x, y] = [places[0] ?? 0, places[1] ?? 0];
  return places.map((value, at) => (at % 2 === 0 ? value - x : y - value));
}

/** Corners that are enough for a hole of a few pixels. */
const FEW = 8;
/** A hole smaller than this on the screen is drawn with few corners, pixels. */
const FAR = 9;

/** A ring's face, of every so many of its corners. */
function ringFace(ring: number[], step: number): ShapeGeometry {
  const outline = new Shape();
  for (let at = 0; at < ring.length / 2; at += step) {
    const [x, y] = [ring[at * 2] ?? 0, ring[at * 2 + 1] ?? 0];
    if (at === 0) (outline as Path).moveTo(x, y);
    else outline.lineTo(x, y);
  }
  return new ShapeGeometry(outline);
}

/** A perforation's copies with their two faces: all corners for near, few for far. */
export class FieldCopies extends InstancedMesh {
  constructor(
    private readonly near: BufferGeometry,
    private readonly far: BufferGeometry,
    private readonly size: number,
    count: number,
  ) {
    super(far, VOID, count);
  }

  /** Takes the face for a picture of so many pixels a millimetre. */
  seenAt(pixels: number): void {
    this.geometry = this.size * pixels > FAR ? this.near : this.far;
  }

  override dispose(): void {
    this.near.dispose();
    this.far.dispose();
    super.dispose();
  }
}

function field(one: MeshField, places: Float32Array): FieldCopies {
  const count = places.length / 2;
  const few = Math.max(1, Math.floor(one.ring.length / 2 / FEW));
  const xs = one.ring.filter((_, at) => at % 2 === 0);
  const size = Math.max(...xs) - Math.min(...xs);
  const copies = new FieldCopies(ringFace(one.ring, 1), ringFace(one.ring, few), size, count * 2);
  copies.frustumCulled = false;
  // Copies are not picked: their operation is picked from its sentence or from the blank.
  copies.raycast = () => {};
  const [along, across] = [
    new Vector3(...(one.along as [number, number, number])),
    new Vector3(...(one.across as [number, number, number])),
  ];
  const normal = along.clone().cross(across);
  const matrix = new Matrix4();
  const place = new Vector3();
  [one.lower, one.upper].forEach((first, face) => {
    // Seen from below the outline turns the other way: its y is flipped with the normal so that it faces out.
    const [y, z] = face === 1 ? [across, normal] : [across.clone().negate(), normal.clone().negate()];
    for (let at = 0; at < count; at += 1) {
      place
        .fromArray(first)
        .addScaledVector(along, places[at * 2] ?? 0)
        .addScaledVector(across, places[at * 2 + 1] ?? 0);
      matrix.makeBasis(along, y, z).setPosition(place);
      copies.setMatrixAt(face * count + at, matrix);
    }
  });
  return copies;
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
    fields: mesh.fields.map((one, at) => field(one, placesOf(one, onBlank[at]))),
    owners: new Uint32Array(bytes(mesh.owners)),
    features: mesh.features,
    box: [x0, y0, z0, x1, y1, z1],
    centre: [(x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2],
    radius: Math.max(1, Math.hypot(x1 - x0, y1 - y0, z1 - z0) / 2),
  };
}
