/** The figures' files, for the workers that draw. */

/** @throws when it cannot be fetched */
export async function fetchMesh(name: string): Promise<ArrayBuffer> {
  const response = await fetch(`/models/${name}.mesh`);
  if (!response.ok) throw new Error(`The figure ${name} could not be fetched (${response.status}).`);
  return response.arrayBuffer();
}
