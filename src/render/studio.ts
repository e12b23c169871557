/**
 * Draws whatever is asked for, the most pressing first: a first picture of everything, then more and more looks through
 * the lens. What is asked for again replaces what was; nothing stale is finished.
 */
import type { Viewpoint } from '../core/setup/scene';
import type { Setup } from '../core/setup/schema';
import { LensRenderer, quickShare, type Accumulation, type LensExposure } from './lens/lensRenderer';
import type { Cutout } from './lens/lensView';
import { KeptScenes } from './keptScenes';
import { meshesFor, type SceneRequest } from './scene/build';
import { loadMeshes, type FetchBytes } from './scene/meshes';
import { viewsRange } from './lens/pupil';
import type { LensShot } from './shot';

export interface RenderingRequest {
  /** What it is for; a new request for the same slot replaces the old one. */
  readonly slot: string;
  /** Which request of the slot this is; told back with every picture. */
  readonly turn: number;
  /** Lower comes first. */
  readonly priority: number;
  readonly setup: Setup;
  readonly view: Viewpoint;
  readonly shot: LensShot & Pick<LensExposure, 'moved'>;
  readonly cutout: Cutout;
  readonly width: number;
  readonly height: number;
  readonly views: number;
  /** Draws a rough picture first. */
  readonly quick: boolean;
  /** Looks into the eyes of this person only. */
  readonly eyesOf?: string | undefined;
}

/** Before it has its turn. */
export type RenderingQuestion = Omit<RenderingRequest, 'turn'>;

export interface Rendering {
  readonly slot: string;
  readonly turn: number;
  readonly image: ImageBitmap;
  /** Looks so far; 0 for the rough first one. */
  readonly views: number;
  readonly of: number;
  /** Drawn smaller than asked for, because this machine draws slowly. */
  readonly reduced: boolean;
  /** From asking to this picture, ms. */
  readonly afterMs: number;
}

interface Job {
  readonly request: RenderingRequest;
  readonly askedAt: number;
  shown: boolean;
  scale: number;
  accumulation: Accumulation | null;
  spentMs: number;
}

/** From this priority on, a picture waits until everything else is done. */
export const backgroundPriority = 5;

/** Up to this priority a picture is what somebody is working on. */
const pressingPriority = 1;

/** Nothing is refined until this long after the last change, ms. */
const calmMs = 140;

/** After a first picture the machine is left alone for this many times what it took: dragging stays smooth without a GPU. */
const restShare = 2;
/** No first picture waits longer than this for such a rest, ms. */
const longestRestMs = 400;

/** Looks after which a picture can be judged. */
const fairViews = 16;

/** Pictures are shown at these counts, and at the end. */
const shownAt: ReadonlySet<number> = new Set([16, 32, 64, 128]);

/** A look slower than this makes the picture smaller. */
const slowLookMs = 420;
const slowScale = 0.62;

/** A small picture is not made smaller still, px. */
const neverReducedPx = 300;
const keptScenes = 6;

export class Studio {
  readonly #renderer: LensRenderer;
  readonly #fetchBytes: FetchBytes;
  readonly #show: (picture: Rendering) => void;
  readonly #fail: (slot: string, reason: string) => void;
  readonly #jobs = new Map<string, Job>();
  readonly #scenes = new KeptScenes(keptScenes);
  #running = false;
  #lastPressing = 0;
  #restUntil = 0;
  /** Learned once: this machine draws slowly. */
  #slow = false;

  constructor(
    renderer: LensRenderer,
    fetchBytes: FetchBytes,
    show: (picture: Rendering) => void,
    fail: (slot: string, reason: string) => void
  ) {
    this.#renderer = renderer;
    this.#fetchBytes = fetchBytes;
    this.#show = show;
    this.#fail = fail;
  }

  ask(request: RenderingRequest): void {
    this.drop(request.slot);
    if (request.priority <= pressingPriority) this.#lastPressing = performance.now();
    const reducible = request.width > neverReducedPx;
    this.#jobs.set(request.slot, {
      request,
      askedAt: performance.now(),
      shown: !request.quick,
      scale: this.#slow && reducible ? slowScale : 1,
      accumulation: null,
      spentMs: 0
    });
    if (!this.#running) void this.#run();
  }

  drop(slot: string): void {
    const job = this.#jobs.get(slot);
    if (job?.accumulation) this.#renderer.end(job.accumulation);
    this.#jobs.delete(slot);
  }

  async #run(): Promise<void> {
    this.#running = true;
    for (let job = this.#next(); job; job = this.#next()) {
      // Somebody may be dragging: then first pictures of the Finder only, and the machine is left to them in between.
      const first = !job.shown && job.request.priority <= pressingPriority;
      const waitMs = (first ? this.#restUntil : this.#lastPressing + calmMs) - performance.now();
      if (waitMs > 0) {
        await new Promise((resume) => setTimeout(resume, Math.min(waitMs, 30)));
        continue;
      }
      try {
        await this.#step(job);
      } catch (reason) {
        this.drop(job.request.slot);
        this.#fail(job.request.slot, reason instanceof Error ? reason.message : String(reason));
      }
      // Lets new requests in, so that the next look is never one too many.
      await new Promise((resume) => setTimeout(resume, 0));
    }
    this.#running = false;
  }

  /** First pictures first; then everything comes to a fair state before anything is finished. */
  #next(): Job | undefined {
    const rank = (job: Job) => {
      const views = job.accumulation?.views ?? 0;
      if (job.request.priority >= backgroundPriority) return 3;
      return !job.shown ? 0 : views < fairViews ? 1 : views < viewsRange.least ? 2 : 3;
    };
    let best: Job | undefined;
    for (const job of this.#jobs.values()) {
      const sooner =
        !best || rank(job) < rank(best) || (rank(job) === rank(best) && job.request.priority < best.request.priority);
      if (sooner) best = job;
    }
    return best;
  }

  async #step(job: Job): Promise<void> {
    const { request } = job;
    const sceneRequest: SceneRequest = {
      setup: request.setup,
      view: request.view,
      lens: request.shot.lens,
      widthPx: request.width / (request.cutout.right - request.cutout.left),
      eyesOf: request.eyesOf
    };
    await loadMeshes(meshesFor(sceneRequest), this.#fetchBytes);
    // Meanwhile somebody may have asked again.
    if (this.#jobs.get(request.slot) !== job) return;
    const scene = this.#scenes.get(sceneRequest, request.priority <= pressingPriority);
    if (!job.shown) {
      const share = request.width > neverReducedPx ? quickShare : 1;
      const before = performance.now();
      const image = await this.#renderer.quick(scene, this.#shot(job, 1), share);
      const now = performance.now();
      this.#restUntil = now + Math.min(longestRestMs, restShare * (now - before));
      job.shown = true;
      this.#scenes.release();
      this.#publish(job, image, 0);
      return;
    }
    job.accumulation ??= this.#renderer.begin(scene, this.#shot(job, job.scale));
    const { accumulation } = job;
    const before = performance.now();
    this.#renderer.add(accumulation);
    this.#renderer.finish(accumulation);
    this.#scenes.release();
    job.spentMs += performance.now() - before;
    if (accumulation.views === 4 && job.scale === 1 && request.width > neverReducedPx && job.spentMs / 4 > slowLookMs) {
      this.#slow = true;
      job.scale = slowScale;
      this.#renderer.end(accumulation);
      job.accumulation = null;
      return;
    }
    const done = accumulation.views >= request.views;
    if (!done && !shownAt.has(accumulation.views)) return;
    const image = await this.#renderer.image(accumulation);
    this.#publish(job, image, accumulation.views);
    if (done && this.#jobs.get(request.slot) === job) this.drop(request.slot);
  }

  #publish({ request, scale, askedAt }: Job, image: ImageBitmap, views: number): void {
    const { slot, turn, views: of } = request;
    this.#show({ slot, turn, image, views, of, reduced: scale < 1, afterMs: performance.now() - askedAt });
  }

  #shot({ request }: Job, scale: number): LensExposure {
    const { shot, view, cutout, width, height } = request;
    return { ...shot, view, cutout, width: Math.round(width * scale), height: Math.round(height * scale) };
  }
}
