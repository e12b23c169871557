import { Scene } from 'three';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { planSetup } from '../core/call/planSetup';
import { defaultHabits } from '../core/habits/habits';
import { builtInKit } from '../core/kit/builtInKit';
import { demoSetup } from '../core/testing/demo';
import { viewpoint } from '../core/setup/scene';
import type { Body, Lens } from '../core/kit/schema';
import type { Setup } from '../core/setup/schema';
import type { Accumulation, LensRenderer, LensExposure } from './lens/lensRenderer';
import { wholePicture } from './lens/lensView';
import { lensShot } from './shot';
import { Studio, type Rendering, type RenderingRequest } from './studio';

// The order of the work is looked at here; painting a place needs a canvas, which Node has not.
vi.mock('./scene/build', async (original) => ({
  ...(await original<typeof import('./scene/build')>()),
  buildScene: () => new Scene()
}));

/** A renderer that draws nothing and takes as long as it is told. */
class Drawing {
  /** ms that a first picture and a look take. */
  quickMs = 5;
  lookMs = 5;
  readonly log: string[] = [];
  readonly open = new Set<Accumulation>();
  #name = (shot: LensExposure) => `${shot.width}`;

  async quick(_: unknown, shot: LensExposure): Promise<ImageBitmap> {
    await new Promise((resume) => setTimeout(resume, this.quickMs));
    this.log.push(`quick ${this.#name(shot)}`);
    return { close: () => undefined } as ImageBitmap;
  }
  begin(_: unknown, shot: LensExposure): Accumulation {
    const picture = { shot, views: 0 } as unknown as Accumulation;
    this.open.add(picture);
    return picture;
  }
  add(picture: Accumulation): void {
    const counted = picture as unknown as { views: number; shot: LensExposure };
    counted.views += 1;
    this.log.push(`look ${this.#name(counted.shot)}`);
    vi.setSystemTime(Date.now() + this.lookMs);
  }
  finish(): void {}
  image(): Promise<ImageBitmap> {
    return Promise.resolve({ close: () => undefined } as ImageBitmap);
  }
  end(picture: Accumulation): void {
    this.open.delete(picture);
  }
}

const body = builtInKit.bodies[0] as Body;
const lens = builtInKit.lenses[0] as Lens;
/** An empty place: nothing has to be fetched or modelled. */
const west = demoSetup('West door');
const empty: Setup = { ...west, people: [], things: [], backgrounds: [], place: { ...west.place, scenery: 'plain' } };
const plan = planSetup({ setup: west, kit: builtInKit, stopStep: 'half', habits: defaultHabits });
const shot = plan.kind === 'plan' ? lensShot(west, plan, body, lens) : null;
if (!shot) throw new Error('no shot');

let turn = 0;
const asking = (changes: Partial<RenderingRequest> = {}): RenderingRequest => ({
  slot: 'finder',
  turn: ++turn,
  priority: 1,
  setup: empty,
  view: viewpoint(west, body),
  shot,
  cutout: wholePicture,
  width: 600,
  height: 400,
  views: 64,
  quick: true,
  ...changes
});

let drawing: Drawing;
let shown: Rendering[];
let failures: string[];
let studio: Studio;

beforeEach(() => {
  vi.useFakeTimers();
  const started = Date.now();
  vi.spyOn(performance, 'now').mockImplementation(() => Date.now() - started);
  drawing = new Drawing();
  shown = [];
  failures = [];
  studio = new Studio(
    drawing as unknown as LensRenderer,
    () => Promise.reject(new Error('nothing to fetch')),
    (picture) => shown.push(picture),
    (slot, reason) => failures.push(`${slot}: ${reason}`)
  );
});
afterEach(() => {
  vi.useRealTimers();
  vi.restoreAllMocks();
});

const views = (slot = 'finder') => shown.filter((picture) => picture.slot === slot).map((picture) => picture.views);
/** Until nothing is being drawn any more. */
const rest = () => vi.advanceTimersByTimeAsync(120_000);

describe('one picture', () => {
  it('is rough at once, then better, then done, and nothing of it is kept', async () => {
    studio.ask(asking());
    await vi.advanceTimersByTimeAsync(drawing.quickMs + 1);
    expect(views()).toEqual([0]);
    await rest();
    expect(views()).toEqual([0, 16, 32, 64]);
    expect(shown.every((picture) => picture.of === 64 && !picture.reduced)).toBe(true);
    expect(drawing.open.size).toBe(0);
  });

  it('is refined only once changes have rested', async () => {
    studio.ask(asking());
    await vi.advanceTimersByTimeAsync(100);
    expect(drawing.log.filter((line) => line.startsWith('look'))).toEqual([]);
    await vi.advanceTimersByTimeAsync(300);
    expect(drawing.log.filter((line) => line.startsWith('look')).length).toBeGreaterThan(0);
  });

  it('asked for again, is begun anew; what is stale is dropped at once', async () => {
    const first = asking();
    studio.ask(first);
    await vi.advanceTimersByTimeAsync(400);
    expect(views().length).toBeGreaterThan(0);
    const second = asking();
    studio.ask(second);
    expect(drawing.open.size).toBe(0);
    const before = shown.length;
    await rest();
    expect(shown.slice(before).every((picture) => picture.turn === second.turn)).toBe(true);
    expect(views().slice(-3)).toEqual([16, 32, 64]);
  });

  it('given up, is drawn no further', async () => {
    studio.ask(asking());
    await vi.advanceTimersByTimeAsync(300);
    studio.drop('finder');
    const lines = drawing.log.length;
    await rest();
    expect(drawing.log.length - lines).toBeLessThanOrEqual(1);
    expect(drawing.open.size).toBe(0);
  });

  it('drawn too slowly, is drawn smaller and says so; small ones stay as they are', async () => {
    drawing.lookMs = 500;
    studio.ask(asking({ quick: false }));
    studio.ask(asking({ slot: 'eyes', width: 150, height: 60, quick: false }));
    await rest();
    const finder = shown.filter((picture) => picture.slot === 'finder');
    expect(finder.map((picture) => picture.reduced)).toEqual([true, true, true]);
    expect(drawing.log.filter((line) => line === 'look 600')).toHaveLength(4);
    expect(drawing.log).toContain('look 372');
    expect(shown.filter((picture) => picture.slot === 'eyes').every((picture) => !picture.reduced)).toBe(true);
  });

  it('that fails says why and leaves the others alone', async () => {
    const person = west.people[0];
    if (!person) throw new Error('West door changed');
    studio.ask(asking({ slot: 'broken', setup: { ...empty, id: 'with-ines', people: [person] } }));
    studio.ask(asking());
    await rest();
    expect(failures).toEqual(['broken: nothing to fetch']);
    expect(views()).toEqual([0, 16, 32, 64]);
  });
});

describe('several pictures', () => {
  it('all come to a fair state before any is finished, the most pressing first', async () => {
    studio.ask(asking());
    studio.ask(asking({ slot: 'eyes', priority: 2, width: 150, height: 60 }));
    await rest();
    const order = shown.map((picture) => `${picture.slot} ${picture.views}`);
    expect(order).toEqual([
      'finder 0',
      'eyes 0',
      'finder 16',
      'eyes 16',
      'finder 32',
      'eyes 32',
      'finder 64',
      'eyes 64'
    ]);
  });

  it('small pictures of other setups wait until everything else is done', async () => {
    studio.ask(asking({ slot: 'strip', priority: 5, width: 180, height: 120, views: 40, quick: false }));
    studio.ask(asking());
    await rest();
    const order = shown.map((picture) => `${picture.slot} ${picture.views}`);
    expect(order.indexOf('finder 64')).toBeLessThan(order.indexOf('strip 16'));
    expect(order).toContain('strip 40');
  });
});

describe('while somebody drags', () => {
  it('only first pictures of what is worked on are drawn', async () => {
    for (let move = 0; move < 12; move++) {
      studio.ask(asking());
      studio.ask(asking({ slot: 'eyes', priority: 2, width: 150, height: 60 }));
      await vi.advanceTimersByTimeAsync(40);
    }
    expect(drawing.log.every((line) => line === 'quick 600')).toBe(true);
    expect(drawing.log.length).toBeGreaterThan(6);
  });

  it('a slow machine is left alone for twice as long as a first picture took, and the last change is drawn', async () => {
    drawing.quickMs = 100;
    for (let move = 0; move < 60; move++) {
      studio.ask(asking());
      await vi.advanceTimersByTimeAsync(20);
    }
    // 1200 ms of dragging: about a third of it spent drawing.
    expect(drawing.log.length).toBeGreaterThanOrEqual(3);
    expect(drawing.log.length).toBeLessThanOrEqual(5);
    const last = turn;
    await rest();
    expect(shown[shown.length - 1]).toMatchObject({ turn: last, views: 64 });
  });
});
