// Unpacks the mesh that the server sends. Nothing is computed here but how it is drawn.
import { BufferAttribute, BufferGeometry } from 'three';
import type { MeshView } from '../api/client';

function bytes(text: string): ArrayBuffer {
  const raw = atob(text);
  const out = new Uint8Array(raw.length);
  for (let at = 0; at < raw.length; at += 1) out[at] = raw.charCodeAt(at);
  return out.buffer;
}

export interface Drawn {
  geometry: BufferGeometry;
  owners: Uint32Array;
  features: string[];
  centre: [number, number, number];
  radius: number;
}

export function unpack(mesh: MeshView): Drawn {
  const positions = new Float32Array(bytes(mesh.positions));
  const triangles = new Uint32Array(bytes(mesh.triangles));
  const indexed = new BufferGeometry();
  indexed.setAttribute('position', new BufferAttribute(positions, 3));
  indexed.setIndex(new BufferAttribute(triangles, 1));
  // Faces stay flat: each triangle gets its own corners and so its own normal and colour.
  const geometry = indexed.toNonIndexed();
  geometry.computeVertexNormals();
  indexed.dispose();
  const e = mesh.extents;
  const [x0, y0, z0, x1, y1, z1] = [e[0] ?? 0, e[1] ?? 0, e[2] ?? 0, e[3] ?? 0, e[4] ?? 0, e[5] ?? 0];
  return {
    geometry,
    owners: new Uint32Array(bytes(mesh.owners)),
    features: mesh.features,
    centre: [(x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2],
    radius: Math.max(1, Math.hypot(x1 - x0, y1 - y0, z1 - z0) / 2),
  };
}
