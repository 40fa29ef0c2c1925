import { describe, expect, it } from 'vitest';
import { unpack } from './mesh';

const base64 = (array: Float32Array | Uint32Array) => btoa(String.fromCharCode(...new Uint8Array(array.buffer)));

describe('the mesh on the wire', () => {
  it('comes out as it went in, a triangle with its owner', () => {
    const drawn = unpack({
      positions: base64(new Float32Array([0, 0, 0, 30, 0, 0, 0, 40, 0])),
      triangles: base64(new Uint32Array([0, 1, 2])),
      owners: base64(new Uint32Array([1])),
      features: ['base.top', 'base.bottom'],
      extents: [0, 0, 0, 30, 40, 0],
    });
    expect(drawn.geometry.getAttribute('position').count).toBe(3);
    expect([...drawn.owners]).toEqual([1]);
    expect(drawn.features[drawn.owners[0] ?? 0]).toBe('base.bottom');
    expect(drawn.centre).toEqual([15, 20, 0]);
    expect(drawn.radius).toBe(25);
  });
});
