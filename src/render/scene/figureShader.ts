/** Light and fine detail on people: clay lit by a large soft window, with skin, strands and threads near by. */
import {
  Color,
  DataTexture,
  DoubleSide,
  FrontSide,
  GLSL3,
  LinearFilter,
  RepeatWrapping,
  ShaderMaterial,
  Vector3
} from 'three';

/** Where the light comes from, and what kind it is. */
export interface FigureLighting {
  readonly key: Color;
  readonly sky: Color;
  readonly ground: Color;
  readonly rim: Color;
  /** Towards the key light, in the picture: right, up, towards the camera. */
  readonly towards: Vector3;
}

export const lightingChunk = /* glsl */ `
uniform vec3 keyLight;
uniform vec3 skyLight;
uniform vec3 groundLight;
uniform vec3 rimLight;
uniform vec3 towardsKey;
vec3 litBy(vec3 n, vec3 toEye, float open, float wrap) {
  float key = max(0.0, (dot(n, towardsKey) + wrap) / (1.0 + wrap));
  float up = n.y * 0.5 + 0.5;
  vec3 around = mix(groundLight, skyLight, up) * (0.35 + 0.65 * open);
  float rim = pow(1.0 - max(0.0, dot(n, toEye)), 3.0) * max(0.0, 0.4 - dot(n, towardsKey) * 0.6);
  return around + keyLight * key * key * (0.55 + 0.45 * open) + rimLight * rim * open;
}
uniform sampler2D grain;
// Noise in space from one look into a table whose two channels hold neighbouring slices.
float noise(vec3 x) {
  vec3 i = floor(x);
  vec3 f = x - i;
  f = f * f * (3.0 - 2.0 * f);
  vec2 slices = textureLod(grain, (i.xy + vec2(37.0, 17.0) * i.z + f.xy + 0.5) / 256.0, 0.0).yx;
  return mix(slices.x, slices.y, f.z);
}
`;

const vertex = /* glsl */ `
in float openness;
in float made;
uniform vec4 face;
uniform vec2 muzzle;
out vec3 vObject;
out vec3 vNormal3;
out vec3 vPlace;
out float vOpen;
flat out int vMade;
void main() {
  vec3 p = position;
  // Faces differ: width of the jaw, fullness of the cheeks, length of the skull behind; the landmarks stay where they are.
  float low = smoothstep(-10.0, -70.0, p.y);
  float side = smoothstep(0.0, 30.0, abs(p.x));
  p.x *= 1.0 + face.x * low * step(-170.0, p.y) * smoothstep(-190.0, -130.0, p.y);
  p.x += sign(p.x) * side * face.y * exp(-dot((p - vec3(sign(p.x) * 42.0, -38.0, -24.0)) / 26.0, (p - vec3(sign(p.x) * 42.0, -38.0, -24.0)) / 26.0));
  p.z *= p.z > 0.0 ? mix(1.0, muzzle.x, step(0.5, muzzle.y)) : 1.0;
  vObject = p;
  vOpen = openness;
  vMade = int(made + 0.5);
  vNormal3 = normalize(mat3(modelMatrix) * normal);
  vec4 place = modelMatrix * vec4(p, 1.0);
  vPlace = place.xyz;
  gl_Position = projectionMatrix * viewMatrix * place;
}`;

const fragment = /* glsl */ `
precision highp float;
in vec3 vObject;
in vec3 vNormal3;
in vec3 vPlace;
in float vOpen;
flat in int vMade;
out vec4 colour;
uniform vec3 palette[9];
uniform int part;
uniform int weave;
uniform ivec2 dress;
uniform float drop;
uniform vec3 seed;
uniform float age;
${lightingChunk}
// What a place is made of, where that is a line drawn on the cloth or the face: 0 skin, 1 lips, 2 cloth, 3 shirt,
// 4 trousers, 7 accent. dress.x: 0 suit, 1 dress, 2 shirt, 3 coat; dress.y: 1 when seated.
int madeOf(int made, vec3 o) {
  if (part == 0) {
    float t = max(0.0, 1.0 - o.x * o.x / 600.0);
    float upper = -76.0 + 8.6 * pow(t, 0.75) - 1.3 * exp(-o.x * o.x / 14.0);
    float lower = -76.2 - 10.6 * pow(t, 1.1);
    return o.z > -4.0 && t > 0.0 && o.y < upper && o.y > lower ? 1 : made;
  }
  if (made != 2) return made;
  float up = o.y + drop;
  float aside = abs(o.x);
  if (dress.x == 1) {
    float neckline = 1298.0 + 26.0 * smoothstep(10.0, 70.0, aside) - 62.0 * smoothstep(92.0, 150.0, aside) + (o.z < 0.0 ? 14.0 : 0.0);
    return up > neckline ? 0 : 2;
  }
  float r = length(vec2(o.x, o.z + 8.0));
  if (up > 1396.0 && r < 60.5 || up > 1436.0 && r < 76.0) return 0;
  if (up > 1388.0 && r < 74.0) return dress.x == 3 ? 2 : 3;
  if (dress.x == 2) return up > (dress.y == 1 ? 985.0 : 962.0) || aside > 168.0 ? 2 : 4;
  float foot = dress.x == 0 ? 1115.0 : 1235.0;
  float open = o.z > 15.0 && up > foot ? (up - foot) * (dress.x == 0 ? 0.2 : 0.27) : 0.0;
  if (aside < open) return dress.x == 0 && aside < 15.0 + 8.0 * smoothstep(1380.0, 1130.0, up) ? 7 : 3;
  float hem = dress.x == 3 ? (dress.y == 1 ? 1000.0 : 556.0) : dress.y == 1 ? 930.0 : 822.0;
  return up > hem || aside > 165.0 && up > 790.0 && dress.y == 0 ? 2 : 4;
}
float thread(float x) { return 0.5 + 0.5 * sin(x * 6.28318); }
void main() {
  vec3 n = normalize(vNormal3) * (gl_FrontFacing ? 1.0 : -1.0);
  vec3 toEye = normalize(cameraPosition - vPlace);
  int made = madeOf(vMade, vObject);
  vec3 base = palette[made];
  float wrap = 0.35;
  float shine = 0.0;
  float tight = 20.0;
  vec3 o = vObject;
  if (made == 0 || made == 1) {
    #ifdef COARSE
    float pores = 0.5;
    float patches = 0.5;
    #else
    float pores = noise(o * 1.15 + seed) * 0.6 + noise(o * 2.6) * 0.4;
    float patches = noise(o * 0.055 + seed * 3.0);
    #endif
    base *= 0.93 + 0.1 * pores + 0.08 * (patches - 0.5);
    if (part == 0) {
      float flush = exp(-dot((vec3(abs(o.x), o.yz) - vec3(38.0, -38.0, -14.0)) / vec3(20.0, 17.0, 30.0), (vec3(abs(o.x), o.yz) - vec3(38.0, -38.0, -14.0)) / vec3(20.0, 17.0, 30.0)));
      float tip = exp(-dot((o - vec3(0.0, -43.0, 26.0)) / 13.0, (o - vec3(0.0, -43.0, 26.0)) / 13.0));
      base *= mix(vec3(1.0), vec3(1.07, 0.86, 0.83), 0.6 * flush + 0.45 * tip);
      // Lines that come with the years: brow, and round the eyes.
      float brow = smoothstep(26.0, 34.0, o.y) * smoothstep(62.0, 52.0, o.y) * smoothstep(46.0, 30.0, abs(o.x));
      float lines = smoothstep(0.55, 0.95, sin(o.y * 0.82 + 1.6 * sin(o.x * 0.06)));
      vec2 corner = vec2(abs(o.x) - 47.0, o.y + 1.0);
      float crow = smoothstep(16.0, 7.0, length(corner)) * smoothstep(0.4, 0.95, sin(atan(corner.y, corner.x + 9.0) * 15.0));
      base *= 1.0 - age * (0.16 * brow * lines + 0.2 * crow);
      if (made == 1) base *= 0.92 + 0.16 * thread(o.x * 0.42 + noise(o * 0.5) * 0.8);
    }
    shine = made == 1 ? 0.22 : 0.085 * (0.6 + 0.8 * pores);
    tight = made == 1 ? 34.0 : 15.0;
    wrap = 0.42;
  } else if (made == 6) {
    float around = atan(o.x, o.z + 88.0) * 92.0;
    #ifdef COARSE
    float strand = 0.5 + 0.4 * sin(around * 0.35);
    float fine = 0.5;
    #else
    float strand = noise(vec3(around * 1.5, o.y * 0.045, length(o.xz) * 0.25) + seed);
    float fine = noise(vec3(around * 4.2, o.y * 0.09, o.z * 0.1));
    #endif
    base *= 0.62 + 0.55 * strand + 0.3 * (fine - 0.5);
    float band = pow(max(0.0, 1.0 - abs(dot(n, normalize(towardsKey + toEye)) - 0.86) * 5.5), 2.0);
    shine = 0.0;
    base += palette[6] * band * (0.35 + 0.9 * strand) * 0.9;
    wrap = 0.25;
  } else if (made >= 2 && made <= 4) {
    vec3 a = abs(n);
    vec2 t = a.y > max(a.x, a.z) ? o.xz : a.x > a.z ? o.zy : o.xy;
    float cloth = 1.0;
    #ifndef COARSE
    if (weave == 0) cloth = 0.86 + 0.2 * thread((t.x + t.y) / 3.2) * thread((t.x - t.y) / 9.0) + 0.12 * noise(o * 0.9);
    else if (weave == 1) cloth = 0.94 + 0.1 * noise(vec3(t * 0.8, 1.0)) + 0.1 * smoothstep(0.72, 0.95, thread(t.x / 22.0) * thread(t.y / 22.0));
    else if (weave == 2) cloth = 0.9 + 0.14 * thread(t.x / 2.2) * thread(t.y / 2.2) + 0.09 * step(0.72, thread(t.x / 13.0));
    else cloth = 0.74 + 0.32 * noise(vec3(t * 0.45, 2.0)) + 0.18 * thread((t.x + t.y) / 6.0);
    #endif
    base *= made == 3 ? 0.95 + 0.07 * thread(t.x / 1.6) * thread(t.y / 1.6) : cloth;
    shine = weave == 1 && made == 2 ? 0.16 : 0.02;
    tight = 9.0;
    wrap = 0.2;
  } else if (made == 7) {
    base *= 0.85 + 0.3 * thread((o.x + o.y) / 4.0);
    shine = 0.12;
  } else if (made == 8) {
    shine = 0.5;
    tight = 60.0;
  } else {
    shine = 0.25;
    tight = 26.0;
  }
  vec3 half3 = normalize(towardsKey + toEye);
  vec3 light = base * litBy(n, toEye, vOpen, wrap);
  light += keyLight * shine * pow(max(0.0, dot(n, half3)), tight) * vOpen;
  if (made == 0) light += vec3(0.05, 0.012, 0.006) * keyLight * smoothstep(0.35, 0.0, abs(dot(n, towardsKey))) * 0.7 * palette[0].r;
  colour = vec4(light, 1.0);
}`;

/** 0 twill, 1 satin, 2 shirting, 3 tweed. */
export type Weave = 0 | 1 | 2 | 3;

let table: DataTexture | undefined;

/** Random numbers, each beside the one of the slice above it. */
function grain(): DataTexture {
  if (table) return table;
  const size = 256;
  const random = new Uint8Array(size * size);
  let state = 1;
  for (let n = 0; n < random.length; n++) {
    state = (state * 48271) % 2147483647;
    random[n] = state >> 8;
  }
  const data = new Uint8Array(size * size * 4);
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      const n = y * size + x;
      data[4 * n] = random[n] as number;
      data[4 * n + 1] = random[((y + size - 17) % size) * size + ((x + size - 37) % size)] as number;
    }
  table = new DataTexture(data, size, size);
  table.wrapS = RepeatWrapping;
  table.wrapT = RepeatWrapping;
  table.minFilter = LinearFilter;
  table.magFilter = LinearFilter;
  table.needsUpdate = true;
  return table;
}

export function lightUniforms(lighting: FigureLighting) {
  return {
    keyLight: { value: lighting.key },
    skyLight: { value: lighting.sky },
    groundLight: { value: lighting.ground },
    rimLight: { value: lighting.rim },
    towardsKey: { value: lighting.towards },
    grain: { value: grain() }
  };
}

export interface FigureSurface {
  readonly palette: readonly Color[];
  readonly weave: Weave;
  /** 0 suit, 1 dress, 2 shirt, 3 coat. */
  readonly cut: 0 | 1 | 2 | 3;
  readonly seated: boolean;
  readonly seed: Vector3;
  /** 0 young, 1 old. */
  readonly age: number;
  /** Widths of jaw and cheeks, as shares and mm. */
  readonly jaw: number;
  readonly cheeks: number;
  /** Pets: length of the muzzle over the modelled one. */
  readonly muzzle?: number;
}

/** How much lower the body of somebody seated was modelled, mm (src/modelling/body.ts). */
const seatedDropMm = 368;

/**
 * @param part 0 for a head, 1 for all else
 * @param coarse without pores, threads and strands, which are not seen from afar
 */
export function figureMaterial(
  surface: FigureSurface,
  lighting: FigureLighting,
  part: 0 | 1,
  coarse: boolean,
  thin = false
): ShaderMaterial {
  return new ShaderMaterial({
    glslVersion: GLSL3,
    defines: coarse ? { COARSE: '' } : {},
    vertexShader: vertex,
    fragmentShader: fragment,
    side: thin ? DoubleSide : FrontSide,
    uniforms: {
      ...lightUniforms(lighting),
      palette: { value: surface.palette },
      part: { value: part },
      weave: { value: surface.weave },
      dress: { value: [surface.cut, surface.seated ? 1 : 0] },
      drop: { value: surface.seated ? seatedDropMm : 0 },
      seed: { value: surface.seed },
      age: { value: surface.age },
      face: { value: part === 0 ? [surface.jaw, surface.cheeks, 0, 0] : [0, 0, 0, 0] },
      muzzle: { value: [surface.muzzle ?? 1, surface.muzzle === undefined ? 0 : 1] }
    }
  });
}

const eyeVertex = /* glsl */ `
out vec3 vLocal;
out vec3 vNormal3;
out vec3 vPlace;
void main() {
  vLocal = position;
  vNormal3 = normalize(mat3(modelMatrix) * normal);
  vec4 place = modelMatrix * vec4(position, 1.0);
  vPlace = place.xyz;
  gl_Position = projectionMatrix * viewMatrix * place;
}`;

const eyeFragment = /* glsl */ `
precision highp float;
in vec3 vLocal;
in vec3 vNormal3;
in vec3 vPlace;
out vec4 colour;
uniform vec3 iris;
uniform vec3 gaze;
uniform float radius;
uniform bool closed;
uniform vec3 skin;
${lightingChunk}
void main() {
  vec3 n = normalize(vNormal3);
  vec3 toEye = normalize(cameraPosition - vPlace);
  vec3 d = normalize(vLocal);
  if (closed) {
    // The upper lid comes down over the ball: skin with fine folds, the lashes where it meets the lower one.
    float seam = -0.3 + 0.16 * d.x * d.x;
    float folds = noise(vec3(d.x * 6.0, d.y * 34.0, 3.0)) * 0.5 + noise(d * 60.0) * 0.5;
    vec3 lidTone = skin * (0.78 + 0.22 * folds);
    float hairs = 0.65 + 0.35 * noise(vec3(d.x * 55.0, d.y * 5.0, 1.0));
    float lashes = smoothstep(0.085, 0.03, abs(d.y - seam)) * hairs;
    colour = vec4(mix(lidTone * litBy(n, toEye, 0.75, 0.5), vec3(0.012), lashes), 1.0);
    return;
  }
  float r = acos(clamp(dot(d, gaze), -1.0, 1.0)) * radius;
  vec3 side = normalize(cross(vec3(0.0, 1.0, 0.0), gaze));
  float angle = atan(dot(d, cross(gaze, side)), dot(d, side));
  float fibre = noise(vec3(cos(angle) * 9.0, sin(angle) * 9.0, r * 0.9)) * 0.5 + noise(vec3(cos(angle) * 26.0, sin(angle) * 26.0, r * 1.6)) * 0.5;
  vec3 ring = iris * (0.55 + 0.9 * fibre) * mix(1.25, 0.7, smoothstep(2.0, 5.6, r));
  ring = mix(ring, iris * 0.18, smoothstep(5.0, 5.9, r));
  vec3 white = vec3(0.50, 0.465, 0.44) * (0.93 + 0.07 * noise(d * 26.0));
  float vein = smoothstep(0.62, 0.7, noise(vec3(d.x * 30.0, d.y * 11.0, d.z * 8.0))) * smoothstep(6.5, 10.0, r);
  white = mix(white, vec3(0.46, 0.27, 0.24), vein * 0.28);
  vec3 base = mix(ring, white, smoothstep(5.7, 6.15, r));
  base = mix(vec3(0.008), base, smoothstep(1.9, 2.25, r));
  // The lids shade the ball, most of all from above and in the corners.
  float lid = (1.0 - 0.6 * smoothstep(0.0, 0.36, d.y)) * (1.0 - 0.45 * smoothstep(0.5, 0.85, abs(d.x)));
  vec3 light = base * litBy(n, toEye, 0.75, 0.5) * lid;
  vec3 mirror = reflect(-toEye, n);
  float windowLight = smoothstep(0.955, 0.972, dot(mirror, towardsKey));
  light += keyLight * windowLight * (r < 6.6 ? 1.5 : 0.35);
  colour = vec4(light, 1.0);
}`;

/** @param lid the skin of a lid that is closed; null for an open eye */
export function eyeMaterial(
  iris: Color,
  gaze: Vector3,
  radius: number,
  lighting: FigureLighting,
  lid: Color | null = null
): ShaderMaterial {
  return new ShaderMaterial({
    glslVersion: GLSL3,
    vertexShader: eyeVertex,
    fragmentShader: eyeFragment,
    uniforms: {
      ...lightUniforms(lighting),
      iris: { value: iris },
      gaze: { value: gaze },
      radius: { value: radius },
      closed: { value: lid !== null },
      skin: { value: lid ?? new Color() }
    }
  });
}
