import { describe, expect, it } from 'vitest';
import { Matrix4 } from 'three';
import { fieldPath, unpack } from './mesh';

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
          lower: base64(new Float32Array([5, 6, 0, 15, 6, 0])),
          upper: base64(new Float32Array([5, 6, 2, 15, 6, 2])),
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

  it('draws a perforation as one path', () => {
    expect(fieldPath({ path: 'm1 0a1 1 0 0 0 -2 0z', places: base64(new Float32Array([10, -20, 30, -20])) })).toBe(
      'M10.000 -20.000m1 0a1 1 0 0 0 -2 0zM30.000 -20.000m1 0a1 1 0 0 0 -2 0z',
    );
  });
});
