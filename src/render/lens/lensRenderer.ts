/** Renderings as a lens draws them: many looks through the pupil, added up in linear light. */
import {
  DataTexture,
  DepthTexture,
  FloatType,
  HalfFloatType,
  LinearFilter,
  LinearSRGBColorSpace,
  Matrix4,
  Mesh,
  NearestFilter,
  OrthographicCamera,
  PerspectiveCamera,
  PlaneGeometry,
  RGBAFormat,
  Scene,
  Vector3,
  WebGLRenderer,
  WebGLRenderTarget,
  type RawShaderMaterial
} from 'three';
import { toScene, type Viewpoint } from '../../core/setup/scene';
import { blurDiscDiameter } from '../../core/optics/blur';
import { depthRange, frustumFrom, pupilRadius, type LensState, type Cutout } from './lensView';
import { accumulatePass, quickBlurPass, showPass } from './passes';
import { pupilPoint, type Pupil } from './pupil';

export interface LensExposure {
  readonly lens: LensState;
  readonly pupil: Pupil;
  /** Stops the pupil is closed from wide open. */
  readonly stopsDown: number;
  readonly view: Viewpoint;
  readonly cutout: Cutout;
  readonly width: number;
  readonly height: number;
  /** How far the barrel's opening shifts at the corner, in radii of the pupil wide open; 0 for none. */
  readonly barrelShift: number;
  readonly exposure: number;
  /** Shows the light as it is, for measuring. */
  readonly plain?: boolean;
  /** The camera's own movement while the shutter is open, in widths and heights of the whole picture. */
  readonly moved?: { readonly x: number; readonly y: number };
}

/** A picture being added up. */
export interface Accumulation {
  readonly shot: LensExposure;
  readonly scene: Scene;
  views: number;
  front: WebGLRenderTarget;
  back: WebGLRenderTarget;
}

/** Largest share of the picture's width that the quick blur reaches. */
const quickReach = 0.09;

/** A first picture has this share of the width: two fifths are drawn in software, with fifteen people, in time. */
export const quickShare = 0.4;

export class LensRenderer {
  readonly #gl: WebGLRenderer;
  readonly #camera = new PerspectiveCamera();
  readonly #flat = new OrthographicCamera(-1, 1, 1, -1, 0, 1);
  readonly #quad = new Mesh(new PlaneGeometry(2, 2));
  readonly #quadScene = new Scene();
  readonly #accumulate = accumulatePass();
  readonly #quickBlur = quickBlurPass();
  readonly #show = showPass();
  readonly #black = new DataTexture(new Uint8Array([0, 0, 0, 255]), 1, 1);
  readonly #screen = new WebGLRenderTarget(8, 8, { depthBuffer: false });
  readonly #looks = new Map<string, WebGLRenderTarget>();

  /** Throws when WebGL 2 with float targets is not to be had. */
  constructor(canvas: OffscreenCanvas) {
    const attributes = { antialias: false, alpha: false, depth: true, powerPreference: 'high-performance' } as const;
    const context = canvas.getContext('webgl2', attributes);
    if (!context) throw new Error('WebGL 2 is missing.');
    this.#gl = new WebGLRenderer({ canvas, context, ...attributes });
    if (!this.#gl.extensions.has('EXT_color_buffer_float')) throw new Error('Float targets are missing.');
    this.#gl.outputColorSpace = LinearSRGBColorSpace;
    this.#gl.autoClear = true;
    this.#gl.setPixelRatio(1);
    this.#quad.frustumCulled = false;
    this.#quadScene.add(this.#quad);
    this.#black.needsUpdate = true;
    this.#camera.matrixAutoUpdate = false;
    this.#camera.matrixWorldAutoUpdate = false;
  }

  /** How much the graphics hold, in counts: growth here is a leak. */
  get memory(): { geometries: number; textures: number } {
    return { geometries: this.#gl.info.memory.geometries, textures: this.#gl.info.memory.textures };
  }

  begin(scene: Scene, shot: LensExposure): Accumulation {
    const target = () =>
      new WebGLRenderTarget(shot.width, shot.height, {
        type: FloatType,
        format: RGBAFormat,
        minFilter: NearestFilter,
        magFilter: NearestFilter,
        depthBuffer: false
      });
    return { shot, scene, views: 0, front: target(), back: target() };
  }

  end(picture: Accumulation): void {
    picture.front.dispose();
    picture.back.dispose();
  }

  /** One more look through the pupil. */
  add(picture: Accumulation): void {
    const { shot } = picture;
    const n = picture.views;
    const point = pupilPoint(shot.pupil, n);
    const radius = pupilRadius(shot.lens);
    const look = this.#look(shot.width, shot.height);
    // Halton's bases 2 and 3 shift the grid of samples within a pixel.
    // A hand that moves shifts each look along its track, at a moment of its own.
    const moved = shot.moved ?? { x: 0, y: 0 };
    const moment = momentOf(n);
    const jitter = {
      x: (radicalInverse(n + 1, 2) - 0.5) / shot.width + (moment * moved.x) / (shot.cutout.right - shot.cutout.left),
      y: (radicalInverse(n + 1, 3) - 0.5) / shot.height + (moment * moved.y) / (shot.cutout.bottom - shot.cutout.top)
    };
    this.#render(picture.scene, shot, { x: point.x * radius, y: point.y * radius }, jitter, look);

    const closed = 2 ** (-shot.stopsDown / 2);
    const { uniforms } = this.#accumulate;
    const diagonal = Math.hypot(shot.lens.pictureWidthMm, shot.lens.pictureHeightMm);
    set(uniforms, {
      mean: n === 0 ? this.#black : picture.front.texture,
      look: look.texture,
      share: 1 / (n + 1),
      barrelShift: shot.barrelShift
    });
    uniforms['fromPupil']?.value.set(point.x * closed, point.y * closed);
    uniforms['cutout']?.value.set(shot.cutout.left, shot.cutout.top, shot.cutout.right, shot.cutout.bottom);
    uniforms['halfPicture']?.value.set(shot.lens.pictureWidthMm / diagonal, shot.lens.pictureHeightMm / diagonal);
    this.#pass(this.#accumulate, picture.back);
    [picture.front, picture.back] = [picture.back, picture.front];
    picture.views = n + 1;
  }

  /** The picture so far. */
  image(picture: Accumulation): Promise<ImageBitmap> {
    return this.#bitmap(picture.front, picture.shot);
  }

  /** A first picture at a share of the size, at once. */
  quick(scene: Scene, shot: LensExposure, share: number = quickShare): Promise<ImageBitmap> {
    const width = Math.max(8, Math.round(shot.width * share));
    const height = Math.max(8, Math.round(shot.height * share));
    const look = this.#look(width, height);
    this.#render(scene, shot, { x: 0, y: 0 }, { x: 0, y: 0 }, look);
    const blurred = this.#look(width, height, true);
    const { lens, cutout } = shot;
    const pxPerMm = width / (lens.pictureWidthMm * (cutout.right - cutout.left));
    const { uniforms } = this.#quickBlur;
    set(uniforms, {
      look: look.texture,
      depth: look.depthTexture,
      discAtInfinity:
        blurDiscDiameter(lens.focalLengthMm, lens.fNumber, lens.focusMm, Infinity, lens.pupilMagnification) * pxPerMm,
      focus: lens.focusMm,
      most: Math.max(2, width * quickReach)
    });
    uniforms['pixel']?.value.set(1 / width, 1 / height);
    uniforms['range']?.value.set(depthRange.near, depthRange.far);
    this.#pass(this.#quickBlur, blurred);
    return this.#bitmap(blurred, { ...shot, width, height });
  }

  /** Waits until the machine has drawn what it was given, so that work that is dropped is really dropped. */
  finish(picture: Accumulation): void {
    const one = new Float32Array(4);
    this.#gl.readRenderTargetPixels(picture.front, 0, 0, 1, 1, one);
  }

  /** The light itself, row by row from the bottom, four floats a pixel. */
  light(picture: Accumulation): Float32Array {
    const { width, height } = picture.shot;
    const floats = new Float32Array(width * height * 4);
    this.#gl.readRenderTargetPixels(picture.front, 0, 0, width, height, floats);
    return floats;
  }

  #render(
    scene: Scene,
    { lens, view, cutout }: LensExposure,
    from: { x: number; y: number },
    jitter: { x: number; y: number },
    target: WebGLRenderTarget
  ): void {
    const camera = this.#camera;
    const { left, right, top, bottom, near, far } = frustumFrom(lens, cutout, from, jitter);
    camera.projectionMatrix.makePerspective(left, right, top, bottom, near, far);
    camera.projectionMatrixInverse.copy(camera.projectionMatrix).invert();
    camera.matrix.copy(cameraMatrix(view, from));
    camera.matrixWorld.copy(camera.matrix);
    camera.matrixWorldInverse.copy(camera.matrix).invert();
    this.#gl.setRenderTarget(target);
    this.#gl.render(scene, camera);
  }

  #pass(material: RawShaderMaterial, target: WebGLRenderTarget | null): void {
    this.#quad.material = material;
    this.#gl.setRenderTarget(target);
    this.#gl.render(this.#quadScene, this.#flat);
  }

  /**
   * The picture as plain memory. Left on the graphics side it would have to be fetched by whoever shows it, and where
   * graphics are drawn in software that makes the main thread wait for looks still under way.
   */
  #bitmap(source: WebGLRenderTarget, { width, height, exposure, plain = false }: LensExposure): Promise<ImageBitmap> {
    if (this.#screen.width !== width || this.#screen.height !== height) this.#screen.setSize(width, height);
    set(this.#show.uniforms, { mean: source.texture, exposure, plain });
    this.#pass(this.#show, this.#screen);
    const bytes = new Uint8Array(width * height * 4);
    this.#gl.readRenderTargetPixels(this.#screen, 0, 0, width, height, bytes);
    return createImageBitmap(new ImageData(new Uint8ClampedArray(bytes.buffer), width, height));
  }

  /** A target for one look, kept for its size. */
  #look(width: number, height: number, blurred = false): WebGLRenderTarget {
    const key = `${width}×${height}${blurred ? ' blurred' : ''}`;
    const known = this.#looks.get(key);
    if (known) {
      // The latest used stands last: what is drawn now is never let go.
      this.#looks.delete(key);
      this.#looks.set(key, known);
      return known;
    }
    if (this.#looks.size >= mostLooks) {
      const [oldest] = this.#looks;
      if (oldest) {
        oldest[1].dispose();
        this.#looks.delete(oldest[0]);
      }
    }
    const target = new WebGLRenderTarget(width, height, {
      type: HalfFloatType,
      format: RGBAFormat,
      minFilter: LinearFilter,
      magFilter: LinearFilter,
      depthBuffer: !blurred
    });
    if (!blurred) {
      target.depthTexture = new DepthTexture(width, height);
      target.depthTexture.minFilter = NearestFilter;
      target.depthTexture.magFilter = NearestFilter;
    }
    this.#looks.set(key, target);
    return target;
  }
}

const mostLooks = 10;

function set(uniforms: RawShaderMaterial['uniforms'], values: Readonly<Record<string, unknown>>): void {
  for (const [name, value] of Object.entries(values)) {
    const uniform = uniforms[name];
    if (uniform) uniform.value = value;
  }
}

/** Three looks along −z where the scene counts away from the camera along +z; all else is the same. */
export function toThree({ x, y, z }: { x: number; y: number; z: number }): Vector3 {
  return new Vector3(x, y, -z);
}

/** The camera at a place on the pupil, (x, y) mm off its middle. */
function cameraMatrix(view: Viewpoint, from: { x: number; y: number }): Matrix4 {
  const origin = toThree(toScene(view, { x: from.x, y: from.y, z: 0 }));
  const along = (x: number, y: number, z: number) =>
    toThree(toScene(view, { x: from.x + x, y: from.y + y, z })).sub(origin);
  const matrix = new Matrix4().makeBasis(along(1, 0, 0), along(0, 1, 0), along(0, 0, -1));
  return matrix.setPosition(origin);
}

/** When within the exposure a look is taken, −0.5 to 0.5: apart from where on the pupil and within a pixel it is. */
export const momentOf = (look: number): number => radicalInverse(look + 1, 5) - 0.5;

/** van der Corput's sequence. */
function radicalInverse(n: number, base: number): number {
  let result = 0;
  let digit = 1 / base;
  for (let rest = n; rest > 0; rest = Math.floor(rest / base)) {
    result += (rest % base) * digit;
    digit /= base;
  }
  return result;
}
