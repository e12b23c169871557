/** A setup as a scene to be looked at. */
import { Color, InstancedMesh, Mesh, Scene, Vector3 } from 'three';
import { imageDistance } from '../../core/optics/thinLens';
import type { Viewpoint } from '../../core/setup/scene';
import type { Person, Setup } from '../../core/setup/schema';
import { isEvening } from '../evening';
import type { FigureLighting } from './figureShader';
import type { LensState } from '../lens/lensView';
import { figure, levelFor, meshNames, type Level, type Moment } from './figure';
import { crowdLevel, crowdOf, PlaceBuilder } from './place';
import { thing } from './thing';

export interface SceneRequest {
  readonly setup: Setup;
  readonly view: Viewpoint;
  readonly lens: LensState;
  /** Width of the rendering of the whole picture, px; decides how finely people are drawn. */
  readonly widthPx: number;
  /** Looks into the eyes of this person only, so near that nothing else of them is seen. */
  readonly eyesOf?: string | undefined;
  /** What faces do in the moment of a frame, by person; as planned without. */
  readonly moments?: ReadonlyMap<string, Moment>;
}

const daylight: FigureLighting = {
  key: new Color(1.02, 0.98, 0.92),
  sky: new Color(0.46, 0.49, 0.53),
  ground: new Color(0.26, 0.24, 0.21),
  rim: new Color(0.5, 0.55, 0.6),
  towards: new Vector3(-0.56, 0.5, 0.66).normalize()
};
const sunlight: FigureLighting = { ...daylight, key: new Color(1.9, 1.75, 1.5) };
const bulbLight: FigureLighting = {
  key: new Color(1.15, 0.8, 0.5),
  sky: new Color(0.17, 0.17, 0.21),
  ground: new Color(0.13, 0.095, 0.065),
  rim: new Color(0.9, 0.62, 0.36),
  towards: new Vector3(-0.5, 0.55, 0.67).normalize()
};

function lightingOf(setup: Setup): FigureLighting {
  if (isEvening(setup)) return bulbLight;
  const { level } = setup.light;
  return level.kind === 'estimated' && level.as === 'sun' ? sunlight : daylight;
}

/** px per mm at a depth, for a rendering of the whole picture. */
const scaleAt =
  ({ lens, widthPx }: SceneRequest) =>
  (depth: number) =>
    ((imageDistance(lens.focalLengthMm, lens.focusMm, lens.pupilMagnification) / depth) * widthPx) /
    lens.pictureWidthMm;

/** How finely a person of the setup is drawn. */
function levelOf(request: SceneRequest, person: Person): Level {
  return person.id === request.eyesOf ? 'eyes' : levelFor(person, request.view, scaleAt(request));
}

/** Near eyes, people elsewhere in the picture are hardly seen. */
function shownPeople({ setup, eyesOf }: SceneRequest): readonly Person[] {
  return eyesOf === undefined ? setup.people : setup.people.filter((person) => person.id === eyesOf);
}

/** The meshes a scene needs. */
export function meshesFor(request: SceneRequest): string[] {
  const crowd = request.setup.backgrounds.filter((item) => item.surface === 'people').flatMap(crowdOf);
  return [
    ...shownPeople(request).flatMap((person) => meshNames(person, levelOf(request, person))),
    ...crowd.flatMap((person) => meshNames(person, crowdLevel))
  ];
}

/** Builds the scene; `loadMeshes(meshesFor(request))` comes first. */
export function buildScene(request: SceneRequest): Scene {
  const { setup, view, lens } = request;
  const scene = new Scene();
  scene.matrixWorldAutoUpdate = false;
  const lighting = lightingOf(setup);
  const v = imageDistance(lens.focalLengthMm, lens.focusMm, lens.pupilMagnification);
  scene.add(
    new PlaceBuilder({
      setup,
      view,
      lighting,
      evening: isEvening(setup),
      halfFrameAt: (depth) => ({
        width: (lens.pictureWidthMm * depth) / v / 2,
        height: (lens.pictureHeightMm * depth) / v / 2
      })
    }).build()
  );
  for (const person of shownPeople(request)) {
    const drawn = figure(person, levelOf(request, person), view, lighting, request.moments?.get(person.id));
    drawn.name = person.id;
    scene.add(drawn);
  }
  for (const item of setup.things) scene.add(thing(item, lighting));
  scene.background = isEvening(setup) ? new Color(0.01, 0.012, 0.016) : new Color(0.32, 0.34, 0.36);
  scene.updateMatrixWorld(true);
  return scene;
}

/** Lets go of what a scene alone holds: its materials and instances. Meshes and paintings are shared and stay. */
export function releaseScene(scene: Scene): void {
  scene.traverse((item) => {
    if (!(item instanceof Mesh)) return;
    const { material } = item as Mesh;
    for (const one of Array.isArray(material) ? material : [material]) one.dispose();
    if (item instanceof InstancedMesh) item.dispose();
  });
}
