import { describe, expect, it } from 'vitest';
import { Matrix4 } from 'three';
import { unpack } from './mesh';

const base64 = (array: Float32Array | Uint32Array) => btoa(String.fromCharCode(...new Uint8Array(array.buffer)));

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
    // Two holes on two faces, each facing out of its own.
    const copies = drawn.fields[0];
    expect(copies?.count).toBe(4);
    const matrix = new Matrix4();
    copies?.getMatrixAt(0, matrix);
    expect(matrix.elements.slice(8, 15).map((one) => one + 0)).toEqual([0, 0, -1, 0, 5, 6, 0]);
    copies?.getMatrixAt(3, matrix);
    expect(matrix.elements.slice(8, 15).map((one) => one + 0)).toEqual([0, 0, 1, 0, 15, 6, 2]);
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
    const at = (copy: number) => {
      const matrix = new Matrix4();
      drawn.fields[0]?.getMatrixAt(copy, matrix);
      return matrix.elements.slice(12, 15);
    };
    expect(drawn.fields[0]?.count).toBe(4);
    // 7 to the right and 7 up from the first, on both faces.
    expect([at(0), at(1), at(2), at(3)]).toEqual([
      [50, 80, 12],
      [57, 80, 19],
      [50, 78, 12],
      [57, 78, 19],
    ]);
  });
});
