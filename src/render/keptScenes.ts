/** Scenes kept between pictures. The one being looked at always stays; what goes lets go of all it held. */
import type { Scene } from 'three';
import { buildScene, releaseScene, type SceneRequest } from './scene/build';

interface Kept {
  /** What it was built from. */
  readonly from: string;
  readonly scene: Scene;
}

export class KeptScenes {
  readonly #most: number;
  readonly #kept = new Map<string, Kept>();
  /** Scenes that have been replaced. */
  #retired: Scene[] = [];
  #lookedAt: string | null = null;

  constructor(most: number) {
    this.#most = most;
  }

  /** The scene for a request, built anew only if something in it has changed. `lookedAt`: it is on the screen now. */
  get(request: SceneRequest, lookedAt: boolean): Scene {
    const { setup, eyesOf, widthPx, view, lens } = request;
    const key = `${setup.id} ${Math.round(widthPx)} ${eyesOf ?? ''}`;
    if (lookedAt) this.#lookedAt = key;
    const { people, things, backgrounds, place, light } = setup;
    const from = JSON.stringify([people, things, backgrounds, place, light.level, view, lens.focalLengthMm]);
    const known = this.#kept.get(key);
    const scene = known?.from === from ? known.scene : buildScene(request);
    if (known && known.scene !== scene) this.#retired.push(known.scene);
    // The latest used stands last.
    this.#kept.delete(key);
    this.#kept.set(key, { from, scene });
    for (const [oldest, { scene: old }] of this.#kept) {
      if (this.#kept.size <= this.#most) break;
      if (oldest === key || oldest === this.#lookedAt) continue;
      this.#kept.delete(oldest);
      this.#retired.push(old);
    }
    return scene;
  }

  /**
   * Lets go of what has been replaced. Only once its successor has been drawn: until then both share compiled programs,
   * which would otherwise be compiled again.
   */
  release(): void {
    for (const scene of this.#retired) releaseScene(scene);
    this.#retired = [];
  }
}
