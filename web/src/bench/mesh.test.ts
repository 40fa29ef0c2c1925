import { describe, expect, it } from 'vitest';
import { OrthographicCamera, Vector3, type Mesh } from 'three';
import { unpack } from './mesh';

const base64 = (array: Float32Array | Uint32Array) => btoa(String.fromCharCode(...new Uint8Array(array.buffer)));

/** An eye that sees 20 mm to every side of what it looks at. */
function eyeAt(from: number[], to = [from[0]!, from[1]!, 0]): OrthographicCamera {
  const camera = new OrthographicCamera(-20, 20, 20, -20, -1000, 1000);
  camera.position.fromArray(from);
  camera.lookAt(new Vector3().fromArray(to));
  camera.updateMatrixWorld();
  return camera;
}

describe('the mesh on the wire', () => {
  it('comes out as it went in, a triangle with its owner', () => {
    const drawn = unpack({
      positions: base64(new Float32Array([0, 0, 0, 30, 0, 0, 0, 40, 0])),
      triangles: base64(new Uint32Array([0, 1, 2])),
      owners: base64(new Uint32Array([1])),
      lines: base64(new Uint32Array([0, 1, 1, 2, 2, 0])),
      features: ['base.top', 'base.bottom'],
      fields: [
        {
          feature: 'perf',
          ring: [2, 0, 0, 2, -2, 0, 0, -2],
          along: [1, 0, 0],
          across: [0, 1, 0],
          lower: [5, 6, 0],
          upper: [5, 6, 2],
          places: base64(new Float32Array([0, 0, 10, 0])),
        },
      ],
      extents: [0, 0, 0, 30, 40, 0],
    });
    expect(drawn.geometry.getAttribute('position').count).toBe(3);
    expect([...(drawn.lines.getIndex()?.array ?? [])]).toEqual([0, 1, 1, 2, 2, 0]);
    expect([...drawn.owners]).toEqual([1]);
    expect(drawn.features[drawn.owners[0] ?? 0]).toBe('base.bottom');
    // From afar they are painted on the two faces; near by those in sight are drawn one by one, on the face that looks
    // at the eye, facing out of it.
    const copies = drawn.fields[0]!;
    const placed = (eye: number[]) => {
      copies.seenAt(eyeAt(eye), 100);
      return Array.from({ length: copies.oneByOne }, (_, at) =>
        copies
          .placeOf(at)
          .elements.slice(8, 15)
          .map((one) => one + 0),
      );
    };
    expect(placed([0, 0, 50])).toEqual([
      [0, 0, 1, 0, 5, 6, 2],
      [0, 0, 1, 0, 15, 6, 2],
    ]);
    expect(placed([0, 0, -50])).toEqual([
      [0, 0, -1, 0, 5, 6, 0],
      [0, 0, -1, 0, 15, 6, 0],
    ]);
    // What is painted lies as the holes do: its rows run down, so each corner of a sheet has the picture's own corner.
    const sheets = copies.children.slice(1) as Mesh[];
    expect(sheets.length).toBe(2);
    for (const { geometry } of sheets) {
      const [at, uv] = [geometry.getAttribute('position'), geometry.getAttribute('uv')];
      for (let one = 0; one < 4; one += 1) {
        // The holes' box: 3 to 17 by 4 to 8.
        expect(uv.getX(one)).toBeCloseTo((at.getX(one) - 3) / 14, 9);
        expect(uv.getY(one)).toBeCloseTo((8 - at.getY(one)) / 4, 9);
      }
    }
    // What lies beyond the edge of the screen is left out, the hole at its edge is not: 20 mm either way.
    copies.seenAt(eyeAt([-10, 0, 50]), 100);
    expect(copies.oneByOne).toBe(1);
    copies.seenAt(eyeAt([-6, 0, 50]), 100);
    expect(copies.oneByOne).toBe(2);
    expect(drawn.centre).toEqual([15, 20, 0]);
    expect(drawn.radius).toBe(25);
  });

  it('takes places that came with the blank, whose y runs down', () => {
    // A flange that stands up: what is up on the blank is up in space.
    const perf = {
      feature: 'perf',
      ring: [2, 0, 0, 2, -2, 0, 0, -2],
      along: [1, 0, 0],
      across: [0, 0, 1],
      lower: [50, 80, 12],
      upper: [50, 78, 12],
    };
    const none = base64(new Uint32Array([]));
    const empty = { positions: none, triangles: none, owners: none, lines: none, features: [] };
    const drawn = unpack({ ...empty, fields: [perf], extents: [0, 0, 0, 0, 0, 0] }, [
      { operation: 'perf', path: '', count: 2, text: '', places: base64(new Float32Array([30, -90, 37, -97])) },
    ]);
    const placed = (eye: number[]) => {
      drawn.fields[0]?.seenAt(eyeAt(eye, [50, 80, 12]), 100);
      return [0, 1].map((at) => drawn.fields[0]?.placeOf(at).elements.slice(12, 15));
    };
    // 7 to the right and 7 up from the first, on the face that looks at the eye.
    expect(placed([50, 200, 12])).toEqual([
      [50, 80, 12],
      [57, 80, 19],
    ]);
    expect(placed([50, -200, 12])).toEqual([
      [50, 78, 12],
      [57, 78, 19],
    ]);
  });
});
