/** The figures' meshes, fetched and unpacked once. */
import { BufferAttribute, BufferGeometry } from 'three';
import { decodeMesh } from './meshFile';

const asked = new Map<string, Promise<BufferGeometry>>();
const ready = new Map<string, BufferGeometry>();

export type FetchBytes = (name: string) => Promise<ArrayBuffer>;

async function load(name: string, fetchBytes: FetchBytes): Promise<BufferGeometry> {
  const packed = await fetchBytes(name);
  const stream = new Blob([packed]).stream().pipeThrough(new DecompressionStream('gzip'));
  const mesh = decodeMesh(new Uint8Array(await new Response(stream).arrayBuffer()));
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(mesh.positions, 3));
  geometry.setAttribute('normal', new BufferAttribute(mesh.normals, 3));
  geometry.setAttribute('openness', new BufferAttribute(mesh.openness, 1));
  geometry.setAttribute('made', new BufferAttribute(Float32Array.from(mesh.materials), 1));
  geometry.setIndex(new BufferAttribute(mesh.indices, 1));
  geometry.computeBoundingSphere();
  ready.set(name, geometry);
  return geometry;
}

/** Fetches the meshes that are not here yet. */
export async function loadMeshes(names: Iterable<string>, fetchBytes: FetchBytes): Promise<void> {
  await Promise.all(
    [...new Set(names)].map((name) => {
      const known = asked.get(name);
      if (known) return known;
      const loading = load(name, fetchBytes);
      asked.set(name, loading);
      // A failed download may be tried again.
      loading.catch(() => asked.delete(name));
      return loading;
    })
  );
}

/** A mesh that `loadMeshes` has brought. */
export function mesh(name: string): BufferGeometry {
  const geometry = ready.get(name);
  if (!geometry) throw new Error(`The mesh ${name} has not been loaded.`);
  return geometry;
}
