/** Passes over the whole picture, in linear light. */
import { GLSL3, RawShaderMaterial, Vector2, Vector4, type IUniform } from 'three';

const vertex = /* glsl */ `
in vec3 position;
out vec2 uv;
void main() {
  uv = position.xy * 0.5 + 0.5;
  gl_Position = vec4(position.xy, 0.0, 1.0);
}`;

const head = /* glsl */ `
precision highp float;
precision highp sampler2D;
in vec2 uv;
out vec4 colour;
`;

function pass(fragment: string, uniforms: Record<string, IUniform>): RawShaderMaterial {
  return new RawShaderMaterial({
    glslVersion: GLSL3,
    vertexShader: vertex,
    fragmentShader: head + fragment,
    uniforms,
    depthTest: false,
    depthWrite: false
  });
}

/**
 * Adds one look to the mean of those before. Rays that pass the pupil near its edge are cut off by the barrel towards the
 * corners: mechanical vignetting, a second opening that shifts with the place in the picture.
 */
export const accumulatePass = () =>
  pass(
    /* glsl */ `
uniform sampler2D mean;
uniform sampler2D look;
uniform float share;
uniform vec2 fromPupil;
uniform vec4 cutout;
uniform vec2 halfPicture;
uniform float barrelShift;
void main() {
  vec2 place = (mix(cutout.xy, cutout.zw, vec2(uv.x, 1.0 - uv.y)) - 0.5) * 2.0 * halfPicture;
  vec2 offset = fromPupil - barrelShift * vec2(place.x, -place.y);
  float passes = 1.0 - smoothstep(1.03, 1.09, length(offset));
  vec3 light = min(texture(look, uv).rgb, vec3(4000.0)) * passes;
  colour = vec4(mix(texture(mean, uv).rgb, light, share), 1.0);
}`,
    {
      mean: { value: null },
      look: { value: null },
      share: { value: 1 },
      fromPupil: { value: new Vector2() },
      cutout: { value: new Vector4(0, 0, 1, 1) },
      halfPicture: { value: new Vector2(1, 1) },
      barrelShift: { value: 0 }
    }
  );

/** Taps of the quick blur. */
const taps = 28;

/**
 * A first picture from one look and its depths: every place gathers from those whose disc reaches it. Wrong behind edges,
 * right on the whole, and there at once; the looks through the pupil replace it.
 */
export const quickBlurPass = () =>
  pass(
    /* glsl */ `
uniform sampler2D look;
uniform sampler2D depth;
uniform vec2 pixel;
uniform float discAtInfinity;
uniform float focus;
uniform vec2 range;
uniform float most;
float discAt(vec2 at) {
  float d = texture(depth, at).r;
  float z = range.x * range.y / (range.y - d * (range.y - range.x));
  return min(most, discAtInfinity * abs(z - focus) / z * 0.5);
}
void main() {
  float own = discAt(uv);
  float reach = own;
  for (int i = 0; i < 4; i++) {
    vec2 way = vec2(cos(float(i) * 1.5708 + 0.6), sin(float(i) * 1.5708 + 0.6));
    reach = max(reach, discAt(uv + way * pixel * most * 0.45));
  }
  vec3 light = texture(look, uv).rgb;
  float weight = 1.0;
  if (reach > 0.6) {
    float turn = fract(52.9829189 * fract(dot(gl_FragCoord.xy, vec2(0.06711056, 0.00583715)))) * 6.2832;
    for (int i = 0; i < ${taps}; i++) {
      float r = reach * sqrt((float(i) + 0.5) / ${taps}.0);
      float a = float(i) * 2.39996 + turn;
      vec2 at = uv + vec2(cos(a), sin(a)) * r * pixel;
      float disc = discAt(at);
      float w = clamp(disc - r + 1.0, 0.0, 1.0) / max(1.0, disc * disc * 0.12);
      light += texture(look, at).rgb * w;
      weight += w;
    }
  }
  colour = vec4(light / weight, 1.0);
}`,
    {
      look: { value: null },
      depth: { value: null },
      pixel: { value: new Vector2() },
      discAtInfinity: { value: 0 },
      focus: { value: 1000 },
      range: { value: new Vector2(1, 2) },
      most: { value: 24 }
    }
  );

/** From linear light to the screen: a gentle shoulder, then the sRGB curve (IEC 61966-2-1). */
export const showPass = () =>
  pass(
    /* glsl */ `
uniform sampler2D mean;
uniform float exposure;
uniform bool plain;
void main() {
  // Rows from the top, as images are kept.
  vec3 light = texture(mean, vec2(uv.x, 1.0 - uv.y)).rgb;
  if (!plain) {
    light *= exposure;
    light = light * (1.0 + light / 12.0) / (1.0 + light * 0.55);
  }
  light = clamp(light, 0.0, 1.0);
  vec3 low = light * 12.92;
  vec3 high = 1.055 * pow(light, vec3(1.0 / 2.4)) - 0.055;
  colour = vec4(mix(high, low, vec3(lessThanEqual(light, vec3(0.0031308)))), 1.0);
}`,
    { mean: { value: null }, exposure: { value: 1 }, plain: { value: false } }
  );
