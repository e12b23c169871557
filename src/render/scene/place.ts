/** What stands round the people: backgrounds and foregrounds by type and detail, the floor, steps, and the scenery. */
import {
  BoxGeometry,
  Color,
  ConeGeometry,
  CylinderGeometry,
  Group,
  InstancedMesh,
  Matrix4,
  Mesh,
  PlaneGeometry,
  Quaternion,
  SphereGeometry,
  Vector3,
  type BufferGeometry
} from 'three';
import { textHash } from '../../core/people/appearance';
import { newPerson } from '../../core/setup/defaults';
import type { Viewpoint } from '../../core/setup/scene';
import type { Background, Scenery, Setup } from '../../core/setup/schema';
import type { FigureLighting } from './figureShader';
import { figure } from './figure';
import { paint, paintFloor, sequence, type Painted } from './paint';
import { placeMaterial, type PlaceSurface } from './placeShader';

const plane = new PlaneGeometry(1, 1);
const ball = new SphereGeometry(1, 14, 10);
const leaf = new SphereGeometry(0.5, 8, 4).scale(1, 1, 0.06);
const cube = new BoxGeometry(1, 1, 1);
const cylinder = new CylinderGeometry(1, 1, 1, 24);
const flame = new ConeGeometry(1, 2.6, 12);

export interface Surroundings {
  readonly setup: Setup;
  readonly view: Viewpoint;
  readonly lighting: FigureLighting;
  readonly evening: boolean;
  /** Half the width and height of what the picture takes in at a depth from the lens, mm. */
  readonly halfFrameAt: (depth: number) => { width: number; height: number };
}

export class PlaceBuilder {
  readonly group = new Group();
  readonly #s: Surroundings;

  constructor(surroundings: Surroundings) {
    this.#s = surroundings;
  }

  build(): Group {
    const { setup } = this.#s;
    for (const background of setup.backgrounds) this.#background(background);
    this.#ground();
    this.#steps();
    this.#scenery(setup.place.scenery);
    return this.group;
  }

  #add(geometry: BufferGeometry, surface: PlaceSurface, matrix: Matrix4): void {
    const item = new Mesh(geometry, placeMaterial(surface, this.#s.lighting));
    item.matrixAutoUpdate = false;
    item.matrix.copy(matrix);
    this.group.add(item);
  }

  #many(geometry: BufferGeometry, surface: PlaceSurface, matrices: readonly Matrix4[]): void {
    const item = new InstancedMesh(geometry, placeMaterial(surface, this.#s.lighting), matrices.length);
    matrices.forEach((matrix, index) => item.setMatrixAt(index, matrix));
    item.frustumCulled = false;
    this.group.add(item);
  }

  /** A painted wall facing the subject line, its lower edge on the floor or below the picture. */
  #wall(
    painted: Painted,
    at: { x: number; depthMm: number; lowMm: number; width: number; height: number },
    surface: PlaceSurface = {}
  ): void {
    const matrix = new Matrix4()
      .makeTranslation(at.x, at.lowMm + at.height / 2, -at.depthMm)
      .scale(new Vector3(at.width, at.height, 1));
    const repeat = [at.width / painted.widthMm, at.height / painted.heightMm] as const;
    this.#add(plane, { map: painted.texture, repeat, cut: painted.cut, ...surface }, matrix);
  }

  #depthOf(background: Background): number {
    return background.depthMm + this.#s.view.distance;
  }

  /** What fills the picture reaches well beyond its edges, since the pupil looks round corners. */
  #across(depth: number): { width: number; height: number } {
    const half = this.#s.halfFrameAt(Math.max(500, depth));
    return { width: half.width * 2.6 + 2500, height: half.height * 2.6 + 2500 };
  }

  #background(background: Background): void {
    const depth = this.#depthOf(background);
    if (depth < 250) return;
    const { surface, detailMm, lateralMm: x, depthMm } = background;
    const { evening } = this.#s;
    const inFront = depthMm < 0;
    switch (surface) {
      case 'lights':
        this.#bulbs(background);
        return;
      case 'candles':
        this.#candles(background);
        return;
      case 'people':
        this.#crowd(background);
        return;
      case 'trunks':
      case 'columns': {
        const painted = paint(surface, detailMm);
        const { width } = this.#across(depth);
        // An odd number, so that one stands where the setup says (core/setup/growing.ts).
        const rows = inFront ? 1 : 2 * Math.ceil((width / painted.widthMm - 1) / 2) + 1;
        const wide = painted.widthMm * Math.max(1, rows);
        this.#wall(painted, { x, depthMm, lowMm: 0, width: wide, height: 4200 });
        return;
      }
      case 'arch': {
        const painted = paint('arch', detailMm);
        this.#wall(
          painted,
          { x, depthMm, lowMm: 0, width: painted.widthMm, height: painted.heightMm },
          { glow: evening ? 0 : 0.1 }
        );
        return;
      }
      case 'lettering': {
        const painted = paint('lettering', detailMm);
        const wide = Math.max(detailMm * 40, 1600);
        this.#wall(painted, { x, depthMm, lowMm: 900, width: wide, height: wide * 0.62 });
        return;
      }
      case 'foliage':
        this.#foliage(background, inFront);
        return;
      case 'horizon':
      case 'panes':
      case 'brick':
      case 'plain': {
        const painted = paint(surface, detailMm);
        const { width, height } = this.#across(depth);
        if (surface === 'horizon') {
          const wide = Math.max(width, painted.widthMm);
          this.#wall(
            painted,
            { x, depthMm, lowMm: 800 - wide * 0.48, width: wide, height: wide },
            { glow: 0.55, repeat: [1, 1] }
          );
          return;
        }
        const high = Math.max(height, 4500);
        this.#wall(
          painted,
          { x, depthMm, lowMm: -300, width, height: high },
          { glow: surface === 'panes' ? (evening ? 0.12 : 0.75) : 0 }
        );
      }
    }
  }

  /** A painted thicket with leaves standing out of it; in front, fronds along the lower edge. */
  #foliage(background: Background, inFront: boolean): void {
    const { detailMm, depthMm, lateralMm, id } = background;
    const depth = this.#depthOf(background);
    const { width, height } = this.#across(depth);
    const random = sequence(textHash(id));
    if (!inFront) {
      const painted = paint('foliage', detailMm);
      this.#wall(painted, {
        x: this.#s.view.position.x,
        depthMm: depthMm + 200,
        lowMm: -300,
        width,
        height: Math.max(height, 4200)
      });
    }
    const half = this.#s.halfFrameAt(depth);
    const leaves = Array.from({ length: inFront ? 130 : 420 }, () => {
      const x = inFront
        ? lateralMm + (random() - 0.5) * half.width * 1.3
        : this.#s.view.position.x + (random() - 0.5) * half.width * 2.6;
      const y = inFront
        ? this.#s.view.position.y - half.height * (1.05 - random() ** 2 * 0.75)
        : this.#s.view.position.y + (random() - 0.5) * half.height * 2.8;
      const length = detailMm * (1.2 + random() * 1.6) * (inFront ? 2 : 1);
      const turn = new Quaternion().setFromAxisAngle(
        new Vector3(random() - 0.5, random() - 0.5, random()).normalize(),
        random() * 6.3
      );
      return new Matrix4().compose(
        new Vector3(x, y, -(depthMm + (random() - 0.5) * 380)),
        turn,
        new Vector3(length, length * 0.34, 1)
      );
    });
    for (const [share, tint] of [
      [0, '#5d7f45'],
      [1, '#3f6136'],
      [2, '#86a05c']
    ] as const)
      this.#many(
        leaf,
        { tint: new Color(tint) },
        leaves.filter((_, index) => index % 3 === share)
      );
  }

  /** Strings of bulbs sagging across: bright points whose discs are the lens's own. */
  #bulbs(background: Background): void {
    const depth = this.#depthOf(background);
    const { height } = this.#s.halfFrameAt(depth);
    const { width } = this.#across(depth);
    const random = sequence(textHash(background.id));
    const bulbs: Matrix4[] = [];
    for (let string = 0; string < 5; string++) {
      const z = background.depthMm + (string - 2) * 420;
      const high = this.#s.view.position.y + height * (0.95 - string * 0.42);
      const step = Math.max(240, width / 26);
      for (let x = -width / 2; x < width / 2; x += step) {
        const sag = Math.cos(((x / width) * 4 + string) * Math.PI) * height * 0.1;
        bulbs.push(
          new Matrix4().compose(
            new Vector3(background.lateralMm + x + (random() - 0.5) * 80, high + sag, -z),
            new Quaternion(),
            new Vector3(12, 16, 12)
          )
        );
      }
    }
    this.#many(ball, { tint: new Color('#ffca86'), glow: 13 }, bulbs);
  }

  #candles(background: Background): void {
    const depth = this.#depthOf(background);
    const half = this.#s.halfFrameAt(depth);
    const random = sequence(textHash(background.id));
    const base = this.#s.view.position.y - half.height * 0.98;
    const items = Array.from({ length: 9 }, (_, index) => ({
      x: background.lateralMm + ((index - 4) / 4) * half.width * 1.1 + (random() - 0.5) * 40,
      z: background.depthMm + (random() - 0.5) * 320,
      tall: half.height * (0.3 + random() * 0.34)
    }));
    const at = (x: number, y: number, z: number, size: Vector3) =>
      new Matrix4().compose(new Vector3(x, y, -z), new Quaternion(), size);
    const thick = background.detailMm / 2;
    this.#many(
      cylinder,
      { tint: new Color('#efe6d2'), glow: 0.25 },
      items.map(({ x, z, tall }) => at(x, base + tall / 2, z, new Vector3(thick, tall, thick)))
    );
    this.#many(
      flame,
      { tint: new Color('#ffb45a'), glow: 22 },
      items.map(({ x, z, tall }) =>
        at(x, base + tall + thick * 1.6, z, new Vector3(thick * 0.42, thick * 0.75, thick * 0.42))
      )
    );
  }

  /** Guests: figures like the others, coarse. */
  #crowd(background: Background): void {
    const random = sequence(textHash(background.id));
    crowdOf(background).forEach((person) => {
      const shifted = {
        ...person,
        headYawDeg: Math.round((random() - 0.5) * 80),
        bodyYawDeg: Math.round((random() - 0.5) * 60)
      };
      this.group.add(figure(shifted, crowdLevel, this.#s.view, this.#s.lighting));
    });
  }

  #ground(): void {
    const { setup, view, evening } = this.#s;
    const painted = paintFloor(setup.place.scenery);
    const size = 60_000;
    const matrix = new Matrix4()
      .makeTranslation(view.position.x, 0, -(size / 2 - view.distance - 2000))
      .multiply(new Matrix4().makeRotationX(-Math.PI / 2))
      .scale(new Vector3(size, size, 1));
    const repeat = [size / painted.widthMm, size / painted.heightMm] as const;
    this.#add(plane, { map: painted.texture, repeat, fade: evening ? 9000 : 0 }, matrix);
    for (const person of setup.people) {
      const shadow = new Matrix4()
        .makeTranslation(person.lateralMm, person.floorMm + 3, -(person.depthMm + 90))
        .multiply(new Matrix4().makeRotationX(-Math.PI / 2))
        .scale(new Vector3(900, 760, 1));
      if (person.being !== 'pet') this.#add(plane, { shadow: true }, shadow);
    }
  }

  /** A step under everybody who stands above the floor. */
  #steps(): void {
    const { setup } = this.#s;
    const levels = new Map<number, { front: number; back: number; half: number }>();
    for (const person of setup.people) {
      if (person.floorMm < 30 || person.being === 'pet') continue;
      const level = Math.round(person.floorMm / 10) * 10;
      const known = levels.get(level) ?? { front: Infinity, back: -Infinity, half: 0 };
      levels.set(level, {
        front: Math.min(known.front, person.depthMm - 330),
        back: Math.max(known.back, person.depthMm + 1400),
        half: Math.max(known.half, Math.abs(person.lateralMm) + 900)
      });
    }
    const furthest = Math.max(0, ...[...levels.values()].map(({ back }) => back));
    for (const [level, { front, half }] of levels) {
      const deep = furthest - front;
      const matrix = new Matrix4()
        .makeTranslation(0, level / 2, -(front + deep / 2))
        .scale(new Vector3(half * 2, level, deep));
      this.#add(cube, { tint: new Color(setup.place.scenery === 'bandstand' ? '#77644f' : '#a29d94') }, matrix);
    }
  }

  /** What lies behind and beside everything. */
  #scenery(scenery: Scenery): void {
    const { setup, view, evening } = this.#s;
    const furthest = Math.max(
      2500,
      ...setup.backgrounds.map((item) => item.depthMm),
      ...setup.people.map((item) => item.depthMm)
    );
    const depthMm = furthest + 2600;
    const { width, height } = this.#across(depthMm + view.distance);
    const high = Math.max(height, 7000);
    if (scenery === 'plain') {
      this.#wall(
        paint('plain', 60),
        { x: view.position.x, depthMm, lowMm: -400, width, height: high },
        { tint: new Color('#c9c6c1'), glow: 0.05 }
      );
      return;
    }
    if (scenery === 'bandstand') {
      const wide = Math.max(width, 40_000);
      this.#wall(
        paint('horizon', 400),
        { x: 0, depthMm: depthMm + 24_000, lowMm: 600 - wide * 0.48, width: wide, height: wide },
        { glow: 0.6, repeat: [1, 1] }
      );
      this.#railing();
      return;
    }
    this.#wall(
      paint('panes', 190),
      { x: view.position.x, depthMm, lowMm: -300, width, height: high },
      { glow: evening ? 0.1 : 0.5, tint: new Color(evening ? '#3a4d57' : '#b9c6bd') }
    );
    const green = paint('foliage', 90);
    for (const side of [-1, 1]) {
      const matrix = new Matrix4()
        .makeTranslation(side * 4300, 1700, -(depthMm / 2 - 1500))
        .multiply(new Matrix4().makeRotationY((side * -Math.PI) / 2))
        .scale(new Vector3(depthMm + 9000, 4200, 1));
      this.#add(
        plane,
        {
          map: green.texture,
          repeat: [(depthMm + 9000) / green.widthMm, 4200 / green.heightMm],
          fade: evening ? 8000 : 0
        },
        matrix
      );
    }
  }

  #railing(): void {
    const { setup } = this.#s;
    const back = Math.max(2400, ...setup.people.map((item) => item.depthMm + 900));
    const posts = Array.from({ length: 41 }, (_, n) =>
      new Matrix4().compose(new Vector3((n - 20) * 260, 560, -back), new Quaternion(), new Vector3(14, 1120, 14))
    );
    this.#many(cylinder, { tint: new Color('#2d3a38') }, posts);
    for (const y of [180, 1110]) {
      this.#add(
        cube,
        { tint: new Color('#2d3a38') },
        new Matrix4().makeTranslation(0, y, -back).scale(new Vector3(10_600, 50, 50))
      );
    }
  }
}

/** Guests are drawn so coarsely, since they are there to be soft. */
export const crowdLevel = 2;

/** The people of a crowd, always the same for one background. */
export function crowdOf(background: Background) {
  const random = sequence(textHash(background.id) + 3);
  return Array.from({ length: 7 }, (_, index) =>
    newPerson(`${background.id}-${index}`, 'Guest', {
      depthMm: background.depthMm + (random() - 0.3) * 700,
      lateralMm: background.lateralMm + (index - 3) * 620 + (random() - 0.5) * 200,
      statureMm: 1560 + Math.round(random() * 280)
    })
  );
}
