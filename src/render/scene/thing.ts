/** Things: rings, a bouquet, a tuba, or a plain block of the size given. */
import {
  BoxGeometry,
  CatmullRomCurve3,
  Color,
  Group,
  LatheGeometry,
  Matrix4,
  Mesh,
  SphereGeometry,
  TorusGeometry,
  TubeGeometry,
  Vector2,
  Vector3,
  type BufferGeometry
} from 'three';
import { textHash } from '../../core/people/appearance';
import type { Thing } from '../../core/setup/schema';
import type { FigureLighting } from './figureShader';
import { sequence } from './paint';
import { placeMaterial, type PlaceSurface } from './placeShader';

const gold: PlaceSurface = { tint: new Color('#d8a94a'), metal: true };
const brass: PlaceSurface = { tint: new Color('#c9963c'), metal: true };
const ring = new TorusGeometry(1, 0.13, 18, 64);
const leafBlade = new SphereGeometry(0.5, 20, 10).scale(1, 0.05, 0.36);
const cube = new BoxGeometry(1, 1, 1);
const petal = new SphereGeometry(1, 14, 10);

const bell = new LatheGeometry(
  [0.07, 0.075, 0.085, 0.1, 0.13, 0.18, 0.26, 0.38, 0.5].map((r, n) => new Vector2(r, n / 8)),
  56
);
const coils = [0, 1, 2].map((n) => {
  const wide = 0.34 - n * 0.05;
  const points = Array.from({ length: 24 }, (_, i) => {
    const a = (i / 24) * Math.PI * 2;
    return new Vector3(Math.cos(a) * wide, Math.sin(a) * (0.42 - n * 0.05), 0.06 * (n - 1));
  });
  return new TubeGeometry(new CatmullRomCurve3(points, true), 90, 0.035 - n * 0.005, 12, true);
});
const engraving = new TorusGeometry(0.1, 0.012, 8, 40);

export function thing(item: Thing, lighting: FigureLighting): Group {
  const group = new Group();
  const middle = new Matrix4().makeTranslation(item.lateralMm, item.heightMm, -item.depthMm);
  const add = (geometry: BufferGeometry, surface: PlaceSurface, local: Matrix4) => {
    const part = new Mesh(geometry, placeMaterial(surface, lighting));
    part.matrixAutoUpdate = false;
    part.matrix.copy(middle).multiply(local);
    group.add(part);
  };
  const { widthMm: wide, tallMm: tall, deepMm: deep } = item;
  switch (item.form) {
    case 'rings': {
      const r = Math.max(4, wide / 5.2);
      // On a fern leaf, one leaning on the other, within the depth the thing is said to have.
      const lean = new Matrix4().makeRotationX(Math.min(1.2, deep / (2 * r)));
      const size = new Matrix4().makeScale(r, r, r);
      add(
        ring,
        gold,
        new Matrix4()
          .makeTranslation(-r * 0.75, 0, 0)
          .multiply(lean)
          .multiply(size)
      );
      const small = new Matrix4().makeScale(r * 0.86, r * 0.86, r * 0.86);
      add(
        ring,
        { ...gold, tint: new Color('#dcd8d0') },
        new Matrix4()
          .makeTranslation(r * 0.8, -r * 0.1, 0)
          .multiply(new Matrix4().makeRotationY(0.5))
          .multiply(lean)
          .multiply(small)
      );
      const under = new Matrix4().makeTranslation(0, -r * 1.15, -deep * 0.1);
      add(
        leafBlade,
        { tint: new Color('#5b7f42') },
        under.multiply(new Matrix4().makeScale(wide * 2.2, r * 2, wide * 1.2))
      );
      return group;
    }
    case 'bouquet': {
      const random = sequence(textHash(item.id));
      for (let n = 0; n < 26; n++) {
        const a = n * 2.39996;
        const spread = Math.sqrt((n + 0.5) / 26);
        const at = new Matrix4().makeTranslation(
          (Math.cos(a) * spread * wide) / 2.3,
          (Math.sin(a) * spread * tall) / 2.6,
          ((1 - spread * spread) * deep) / 2
        );
        const size = Math.min(wide, tall) * (0.1 + random() * 0.05);
        const tint = new Color().setHSL(0.93 + random() * 0.12, 0.3 + random() * 0.3, 0.62 + random() * 0.25);
        for (let layer = 0; layer < 3; layer++) {
          const s = size * (1 - layer * 0.26);
          add(
            petal,
            { tint },
            at
              .clone()
              .multiply(
                new Matrix4().makeTranslation(0, 0, layer * size * 0.4).scale(new Vector3(s, s * 0.92, s * 0.6))
              )
          );
        }
      }
      const stems = new Matrix4()
        .makeTranslation(0, -tall * 0.55, 0)
        .scale(new Vector3(wide * 0.18, tall * 0.5, Math.max(10, deep * 0.4)));
      add(cube, { tint: new Color('#3f6136') }, stems);
      return group;
    }
    case 'tuba': {
      const size = new Matrix4().makeScale(wide * 1.1, tall, wide);
      add(
        bell,
        brass,
        new Matrix4()
          .makeTranslation(wide * 0.12, -tall * 0.12, 0)
          .multiply(new Matrix4().makeScale(wide * 0.95, tall * 0.66, wide * 0.95))
      );
      for (const coil of coils) add(coil, brass, new Matrix4().makeTranslation(0, -tall * 0.12, 0).multiply(size));
      add(
        engraving,
        { ...brass, tint: new Color('#7b5a20') },
        new Matrix4().makeTranslation(wide * 0.12, tall * 0.2, deep / 2).scale(new Vector3(wide, wide, wide))
      );
      return group;
    }
    case 'box':
      add(
        cube,
        { tint: new Color('#b7a68c') },
        new Matrix4().makeScale(Math.max(2, wide), Math.max(2, tall), Math.max(2, deep))
      );
      return group;
  }
}
