/** npm run models: polygonises every solid into static/models. Run by start, test and dev when the models are out of date. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { encodeMesh } from '../render/scene/meshFile';
import { body, cuts, poses } from './body';
import { faceDetails } from './details';
import { dog } from './dog';
import { eyeRegion, hairSolids, head } from './head';
import { polygonise, type Solid } from './polygonise';

/** Size of the grid, mm: fine for faces that fill the picture, coarse for groups. */
const cells = { head: [2.2, 5.5, 12], hair: [4.2, 8, 15], body: [18, 26, 42], dog: [6, 10, 18] } as const;

/** Positions are kept to this share of a cell. */
const finest = 1 / 40;

function write(folder: string, name: string, solid: Solid, sizes: readonly number[]): void {
  sizes.forEach((cell, level) => {
    const mesh = polygonise(solid, cell);
    const packed = gzipSync(encodeMesh(mesh, cell * finest), { level: 9 });
    writeFileSync(join(folder, `${name}-${level}.mesh`), packed);
    console.log(`${name}-${level}: ${mesh.materials.length} vertices, ${Math.round(packed.length / 1024)} KB`);
  });
}

const folder = process.argv[2] ?? 'static/models';
mkdirSync(folder, { recursive: true });
write(folder, 'head', head(), cells.head);
write(folder, 'eyes', eyeRegion(), [1.3]);
for (const [name, solid] of Object.entries(hairSolids)) write(folder, `hair-${name}`, solid(), cells.hair);
for (const cut of cuts) for (const pose of poses) write(folder, `body-${cut}-${pose}`, body(cut, pose), cells.body);
write(folder, 'dog', dog(), cells.dog);
for (const level of [0, 1] as const) {
  writeFileSync(join(folder, `details-${level}.mesh`), gzipSync(encodeMesh(faceDetails(level), 0.05), { level: 9 }));
}
