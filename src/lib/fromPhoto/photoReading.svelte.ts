/** One photo on its way to a call: read, corrected, planned anew. */
import { inLightOf, likePhoto, type PhotoAnswer, type PhotoAsked } from '$core/fromPhoto/answer';
import { projectionOf } from '$core/fromPhoto/projection';
import { distanceOfFace, type FaceSeen, type PhotoProjection } from '$core/fromPhoto/rulers';
import { bodyOf } from '$core/kit/find';
import { withKitOnOffer } from '$core/setup/chooseKit';
import { notTaken } from '$core/setup/schedule';
import { setupFrom } from '$core/setup/templates';
import { withSchools } from '$core/technique/schools';
import type { Setup } from '$core/setup/schema';
import { untoldWords } from '$core/words/fromPhoto';
import { getApp, type App } from '$lib/state/app.svelte';
import { errorReason } from '$lib/state/job/services';
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

/** A setup beside the planned one: its camera, light and background, and whoever the photo shows. */
const lookedAt = (planned: Setup, id: string): Setup => ({
  ...planned,
  id,
  name: `${planned.name}, from a photo`,
  taken: notTaken,
  ticked: [],
  intent: { ...planned.intent, target: { kind: 'best' }, stop: { kind: 'byStyle' } }
});

export class PhotoReading {
  readonly #app: App = getApp();
  readonly #planned: () => Setup | null;
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

  /** @param planned the setup that is looked at; null for a new one */
  constructor(planned: () => Setup | null) {
    this.#planned = planned;
  }

  /** As corrected so far. */
  readonly answer = $derived.by(() => this.search.answer?.found ?? null);
  /** The call for it; null until there is one. */
  readonly planned = $derived.by(() => (this.answer ? this.#app.open.planned(this.answer.setup) : null));

  /** As before any photo. */
  clear(): void {
    this.close();
    this.refused = null;
    this.read = null;
    this.without = [];
    this.frontMm = null;
    this.behindMm = usualBehindMm;
    this.search.answer = null;
  }

  async open(file: File): Promise<void> {
    this.clear();
    const last = new AbortController();
    this.#last = last;
    this.reading = true;
    try {
      const result = await readPhoto(file, { eyesShare: null, faces: null }, { signal: last.signal });
      if (this.#last !== last) return;
      if (!result.ok) this.refused = `${result.reason} Nothing was changed.`;
      else this.#take(result.frame);
    } catch (error) {
      if (this.#last === last) this.refused = `${errorReason(error)} Nothing was changed.`;
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
    const planned = this.#planned();
    const own = planned ? lookedAt(planned, this.#app.newId()) : beginning(this.#app);
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
    const { facts } = frame;
    const base = planned ? inLightOf(own, facts) : likePhoto(own, this.#app.open.offered, projection, facts);
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
      behindMm: this.#planned() ? null : behindMm,
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
