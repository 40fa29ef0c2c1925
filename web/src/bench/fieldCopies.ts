// A perforation on the folded part. Fifteen thousand holes of two faces are too many corners for a picture that is
// drawn without a graphics card: from afar each face is one sheet with the holes painted on it, near by the holes in
// sight are drawn as they are.
import {
  BufferAttribute,
  BufferGeometry,
  DataTexture,
  Group,
  InstancedMesh,
  LinearFilter,
  LinearMipmapLinearFilter,
  Matrix4,
  Mesh,
  MeshBasicMaterial,
  Path,
  RGFormat,
  Shape,
  ShapeGeometry,
  Vector3,
  type Camera,
  type Plane,
} from 'three';
import { put } from './stamps';

/** A perforation in its own plane and where that lies, mm. */
export interface FieldPlace {
  /** A hole's outline about its place: x, y, x, y. */
  ring: number[];
  /** How far each hole lies from the first: x, y, x, y. */
  places: Float32Array;
  /** Unit vectors of x and y. */
  along: Vector3;
  across: Vector3;
  /** The first hole's place on the lower and on the upper face. */
  lower: Vector3;
  upper: Vector3;
}

/** The stage's own ground: a hole looks like what is behind it. */
const GROUND = '#262c5e';
const ON_THE_FACE = { polygonOffset: true, polygonOffsetFactor: -1, polygonOffsetUnits: -1 };
/** The longer side of what is painted, pixels. */
const MOST_PIXELS = 1024;
/** A hole is painted no larger than this, pixels. */
const LARGEST = 24;
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

/** The box around numbers that are x, y, x, y. */
function boxOf(flat: ArrayLike<number>): [number, number, number, number] {
  const box: [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let at = 0; at < flat.length; at += 2) {
    box[0] = Math.min(box[0], flat[at]!);
    box[1] = Math.min(box[1], flat[at + 1]!);
    box[2] = Math.max(box[2], flat[at]!);
    box[3] = Math.max(box[3], flat[at + 1]!);
  }
  return box;
}

export class FieldCopies extends Group {
  private readonly few: BufferGeometry;
  private readonly all: BufferGeometry;
  private readonly holes: InstancedMesh<BufferGeometry, MeshBasicMaterial>;
  private readonly sheets: [
    lower: Mesh<BufferGeometry, MeshBasicMaterial>,
    upper: Mesh<BufferGeometry, MeshBasicMaterial>,
  ];
  private readonly box: [number, number, number, number];
  /** How large a hole is, mm. */
  private readonly size: number;
  /** Pixels a millimetre of what is painted. */
  private readonly fine: number;
  /** What was painted, once it was asked for. */
  private painted: DataTexture | null = null;

  constructor(private readonly field: FieldPlace) {
    super();
    const { ring, places } = field;
    const [x0, y0, x1, y1] = boxOf(places);
    const own = boxOf(ring);
    this.box = [x0 + own[0], y0 + own[1], x1 + own[2], y1 + own[3]];
    this.size = Math.max(own[2] - own[0], own[3] - own[1]);
    const [wide, high] = [this.box[2] - this.box[0], this.box[3] - this.box[1]];
    this.fine = Math.min(MOST_PIXELS / Math.max(wide, high, 1e-6), LARGEST / Math.max(this.size, 1e-6));
    this.all = ringFace(ring, 1);
    this.few = ringFace(ring, Math.max(1, Math.floor(ring.length / 2 / FEW)));
    this.holes = new InstancedMesh(
      this.few,
      new MeshBasicMaterial({ color: GROUND, ...ON_THE_FACE }),
      places.length / 2,
    );
    this.holes.frustumCulled = false;
    this.sheets = [this.sheet(field.lower, false), this.sheet(field.upper, true)];
    for (const one of [this.holes, ...this.sheets]) {
      // Copies are not picked: their operation is picked from its sentence or from the blank.
      one.raycast = () => {};
      this.add(one);
    }
  }

  /** One face with all of its holes, facing out of its own side. */
  private sheet(first: Vector3, upper: boolean): Mesh<BufferGeometry, MeshBasicMaterial> {
    const { along, across } = this.field;
    const [x0, y0, x1, y1] = this.box;
    const corners = [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
    ].flatMap(([x, y]) => first.clone().addScaledVector(along, x!).addScaledVector(across, y!).toArray());
    const geometry = new BufferGeometry();
    geometry.setAttribute('position', new BufferAttribute(new Float32Array(corners), 3));
    geometry.setAttribute('uv', new BufferAttribute(new Float32Array([0, 1, 1, 1, 1, 0, 0, 0]), 2));
    geometry.setIndex(upper ? [0, 1, 2, 0, 2, 3] : [0, 2, 1, 0, 3, 2]);
    const made = new Mesh(
      geometry,
      new MeshBasicMaterial({ color: GROUND, transparent: true, depthWrite: false, ...ON_THE_FACE }),
    );
    // Over the metal, also where that is seen through.
    made.renderOrder = 1;
    return made;
  }

  /** How far the holes cover each pixel; `fine` says how large a pixel is. Its rows run down. */
  private paint(): DataTexture {
    const { ring, places } = this.field;
    const [x0, y0, x1, y1] = this.box;
    const picture = new ImageData(
      Math.max(1, Math.ceil((x1 - x0) * this.fine)),
      Math.max(1, Math.ceil((y1 - y0) * this.fine)),
    );
    const [sx, sy] = [picture.width / (x1 - x0), picture.height / (y1 - y0)];
    const [left, low, right, top] = boxOf(ring);
    put(
      picture,
      {
        x: left * sx,
        y: -top * sy,
        width: (right - left) * sx,
        height: (top - low) * sy,
        draw: (own) => {
          own.beginPath();
          for (let at = 0; at < ring.length; at += 2) own.lineTo(ring[at]! * sx, -ring[at + 1]! * sy);
          own.fill();
        },
      },
      places.map((value, at) => (at % 2 === 0 ? (value - x0) * sx : (y1 - value) * sy)),
    );
    // How far a pixel is covered is read from the second of its numbers.
    const covered = new Uint8Array(picture.width * picture.height * 2);
    for (let at = 0; at < covered.length; at += 2) covered[at + 1] = picture.data[at * 2 + 3]!;
    const made = new DataTexture(covered, picture.width, picture.height, RGFormat);
    made.magFilter = LinearFilter;
    made.minFilter = LinearMipmapLinearFilter;
    made.generateMipmaps = true;
    // Seen at a slant it stays holes rather than a grey.
    made.anisotropy = 4;
    made.needsUpdate = true;
    return made;
  }

  /** How many holes are drawn one by one; none from afar. */
  get oneByOne(): number {
    return this.holes.visible ? this.holes.count : 0;
  }

  /** Where hole `at` of those that are drawn one by one lies. */
  placeOf(at: number): Matrix4 {
    const matrix = new Matrix4();
    this.holes.getMatrixAt(at, matrix);
    return matrix;
  }

  /** Makes ready for a picture of so many pixels a millimetre, seen through `camera`. */
  seenAt(camera: Camera, pixels: number): void {
    const { lower, along, across } = this.field;
    const near = pixels > this.fine * 1.25;
    this.holes.visible = near;
    for (const one of this.sheets) one.visible = !near;
    if (!near) {
      this.painted ??= this.paint();
      for (const { material } of this.sheets) material.alphaMap = this.painted;
      return;
    }
    this.holes.geometry = this.size * pixels > FAR ? this.all : this.few;
    const normal = along.clone().cross(across);
    // Only the face that looks at the eye is drawn: seen from below the outline turns the other way, and its y is
    // flipped with the normal so that it faces out.
    const upper = normal.dot(camera.getWorldDirection(new Vector3())) < 0;
    const first = upper ? this.field.upper : lower;
    const turned = new Matrix4().makeBasis(
      along,
      upper ? across : across.clone().negate(),
      upper ? normal : normal.clone().negate(),
    );
    // Square projections keep steps equal: a step along and a step across on the screen, from -1 to 1.
    const at = first.clone().project(camera);
    const stepX = first.clone().add(along).project(camera).sub(at);
    const stepY = first.clone().add(across).project(camera).sub(at);
    const reach = [
      1 + (Math.abs(stepX.x) + Math.abs(stepY.x)) * this.size,
      1 + (Math.abs(stepX.y) + Math.abs(stepY.y)) * this.size,
    ] as const;
    const place = new Vector3();
    let count = 0;
    const { places } = this.field;
    for (let one = 0; one < places.length; one += 2) {
      const [x, y] = [places[one]!, places[one + 1]!];
      if (Math.abs(at.x + stepX.x * x + stepY.x * y) > reach[0]) continue;
      if (Math.abs(at.y + stepX.y * x + stepY.y * y) > reach[1]) continue;
      place.copy(first).addScaledVector(along, x).addScaledVector(across, y);
      this.holes.setMatrixAt(count, turned.setPosition(place));
      count += 1;
    }
    this.holes.count = count;
    this.holes.instanceMatrix.needsUpdate = true;
  }

  /** Leaves out what lies beyond a plane, as the metal does. */
  cutAt(plane: Plane | null): void {
    for (const { material } of [this.holes, ...this.sheets]) {
      material.clippingPlanes = plane ? [plane] : null;
      material.needsUpdate = true;
    }
  }

  dispose(): void {
    this.painted?.dispose();
    this.all.dispose();
    this.few.dispose();
    this.holes.material.dispose();
    this.holes.dispose();
    for (const one of this.sheets) {
      one.geometry.dispose();
      one.material.dispose();
    }
  }
}
