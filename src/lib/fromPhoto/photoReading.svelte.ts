/** One photo on its way to a call: read, corrected, planned anew. */
import { likePhoto, type PhotoAnswer, type PhotoAsked } from '$core/fromPhoto/answer';
import { projectionOf } from '$core/fromPhoto/projection';
import { distanceOfFace, type FaceSeen, type PhotoProjection } from '$core/fromPhoto/rulers';
import { bodyOf } from '$core/kit/find';
import { withKitOnOffer } from '$core/setup/chooseKit';
import { setupFrom } from '$core/setup/templates';
import { withSchools } from '$core/technique/schools';
import type { Setup } from '$core/setup/schema';
import { untoldWords } from '$core/words/fromPhoto';
import { getApp, type App } from '$lib/state/app.svelte';
import { Search } from '$lib/state/screen/search.svelte';
import { readPhoto } from '../../workers/clients/photos';
import { readFromPhoto } from '../../workers/clients/planner';
import type { ReadFrame } from '../../photos/measurePhoto';

/** From the last row to the background, where nobody has said, mm. */
const usualBehindMm = 3000;

interface PhotoRead {
  readonly frame: ReadFrame;
  readonly faces: readonly FaceSeen[];
  readonly projection: PhotoProjection;
  readonly base: Setup;
  readonly ids: Readonly<Record<string, string>>;
}

/** What a setup of a photo is begun with: a group with the job's kit and the usual choices. */
function beginning({ open, newId, settings }: App): Setup {
  const made = setupFrom({ template: 'smallGroup' }, newId());
  const camera = withKitOnOffer(made.camera, open.offered);
  const intent = { ...made.intent, viewing: settings.now.viewing };
  return { ...withSchools(open.input({ ...made, camera, intent }), settings.now.schools), name: 'From a photo' };
}

export class PhotoReading {
  readonly #app: App = getApp();
  /** What the answer is looked for with; the latest only. */
  readonly search = new Search<PhotoAsked, PhotoAnswer | null>((asked) => readFromPhoto(asked));
  reading = $state(false);
  /** Why the photo tells nothing. */
  refused = $state<string | null>(null);
  /** The body whose sensor is taken for the photo's; null where the file tells. */
  assumed = $state<string | null>(null);
  read = $state.raw<PhotoRead | null>(null);
  /** Faces that are not part of the group. */
  without = $state.raw<readonly string[]>([]);
  /** Lens to the front row where it is known, mm. */
  frontMm = $state<number | null>(null);
  behindMm = $state(usualBehindMm);
  #last: AbortController | null = null;

  /** As corrected so far. */
  readonly answer = $derived.by(() => this.search.answer?.found ?? null);
  /** The call for it; null until there is one. */
  readonly planned = $derived.by(() => (this.answer ? this.#app.open.planned(this.answer.setup) : null));

  async open(file: File): Promise<void> {
    this.#last?.abort();
    const last = new AbortController();
    this.#last = last;
    this.refused = null;
    this.read = null;
    this.without = [];
    this.frontMm = null;
    this.behindMm = usualBehindMm;
    this.search.answer = null;
    this.reading = true;
    try {
      const result = await readPhoto(file, { eyesShare: null, faces: null }, { signal: last.signal });
      if (this.#last !== last) return;
      if (!result.ok) this.refused = `${result.reason} Nothing was changed.`;
      else this.#take(result.frame);
    } catch (error) {
      if (this.#last === last) this.refused = error instanceof Error ? error.message : String(error);
    }
    if (this.#last === last) this.reading = false;
  }

  /** Nobody waits for it any more. */
  close(): void {
    this.#last?.abort();
    this.#last = null;
    this.reading = false;
    this.search.stop();
  }

  #take(frame: ReadFrame): void {
    // Where the file tells no size of the sensor, it is the job's camera's.
    const own = beginning(this.#app);
    const body = bodyOf(this.#app.open.offered, own.camera);
    const told = projectionOf(frame.facts, frame);
    const projection = told === 'noFocalLength' ? projectionOf(frame.facts, frame, body?.sensor.widthMm ?? null) : told;
    if (typeof projection === 'string') {
      this.refused = untoldWords[projection];
      return;
    }
    const faces = frame.faces.map(({ left, right, irisPx, yawDeg, pitchDeg }, index): FaceSeen => ({
      id: `face-${index + 1}`,
      left,
      right,
      irisPx,
      yawDeg,
      pitchDeg
    }));
    if (!faces.some((face) => distanceOfFace(face, projection))) {
      this.refused = untoldWords[faces.length === 0 ? 'noFace' : 'small'];
      return;
    }
    const ids = Object.fromEntries(faces.map(({ id }) => [id, this.#app.newId()]));
    this.assumed = told === 'noFocalLength' ? (body?.name ?? null) : null;
    const base = likePhoto(own, this.#app.open.offered, projection, frame.facts);
    this.read = { frame, faces, projection, base, ids };
    this.ask();
  }

  /** Plans with what has been corrected. */
  ask(): void {
    const { read, without, frontMm, behindMm } = this;
    if (!read) return;
    const { faces, projection, base, ids } = read;
    const { kit, habits, stopStep } = this.#app.open.input(base);
    const distance = frontMm === null ? {} : { distance: { mm: frontMm, faceId: null } };
    void this.search.ask({
      faces,
      projection,
      base,
      ids,
      behindMm,
      kit,
      habits,
      stopStep,
      known: { without, ...distance }
    });
  }

  /** Takes a face off, or back in. */
  toggle(faceId: string): void {
    const without = this.without.includes(faceId)
      ? this.without.filter((id) => id !== faceId)
      : [...this.without, faceId];
    // Someone has to be left.
    if (this.read?.faces.every(({ id }) => without.includes(id))) return;
    this.without = without;
    this.ask();
  }
}
