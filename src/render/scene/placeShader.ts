/** Light on painted surfaces, plain solids and things that shine. */
import { Color, DoubleSide, GLSL3, ShaderMaterial, Texture, Vector2 } from 'three';
import { lightingChunk, lightUniforms, type FigureLighting } from './figureShader';

const vertex = /* glsl */ `
out vec2 vUv;
out vec3 vLight;
#ifdef METAL
out vec3 vNormal3;
out vec3 vPlace;
#endif
uniform vec2 repeat;
uniform float glow;
uniform float fade;
${lightingChunk}
void main() {
  vUv = uv * repeat;
  #ifdef USE_INSTANCING
  mat4 model = modelMatrix * instanceMatrix;
  #else
  mat4 model = modelMatrix;
  #endif
  vec3 n = normalize(mat3(model) * normal);
  vec4 place = model * vec4(position, 1.0);
  vec3 toEye = cameraPosition - place.xyz;
  float away = length(toEye);
  if (dot(n, toEye) < 0.0) n = -n;
  vLight = litBy(n, toEye / away, 1.0, 0.3) + glow;
  if (fade > 0.0) vLight *= exp(-max(0.0, away - 2000.0) / fade);
  #ifdef METAL
  vNormal3 = n;
  vPlace = place.xyz;
  #endif
  gl_Position = projectionMatrix * viewMatrix * place;
}`;

const fragment = /* glsl */ `
precision highp float;
in vec2 vUv;
in vec3 vLight;
#ifdef METAL
in vec3 vNormal3;
in vec3 vPlace;
${lightingChunk}
#endif
out vec4 colour;
uniform sampler2D map;
uniform vec3 tint;
void main() {
  #ifdef PAINTED
  vec4 paint = texture(map, vUv);
  #ifdef CUT
  if (paint.a < 0.5) discard;
  #endif
  vec3 base = paint.rgb * tint;
  #else
  vec3 base = tint;
  #endif
  vec3 light = base * vLight;
  #ifdef SHADOW
  float away = length(vUv - 0.5) * 2.0;
  colour = vec4(0.0, 0.0, 0.0, 0.62 * smoothstep(1.0, 0.1, away));
  return;
  #endif
  #ifdef METAL
  vec3 n = normalize(vNormal3);
  vec3 m = reflect(normalize(vPlace - cameraPosition), n);
  float bands = 0.35 + 0.65 * smoothstep(-0.2, 0.7, m.y) + 1.6 * smoothstep(0.86, 0.97, dot(m, towardsKey));
  light = mix(light, base * (skyLight * 1.1 + keyLight * 0.8) * bands, 0.88);
  #endif
  colour = vec4(light, 1.0);
}`;

export interface PlaceSurface {
  readonly map?: Texture;
  readonly repeat?: readonly [number, number];
  readonly tint?: Color;
  /** Light of its own, in units of its colour. */
  readonly glow?: number;
  /** Like polished metal. */
  readonly metal?: boolean;
  /** The map has holes. */
  readonly cut?: boolean;
  /** A soft shadow instead of a surface. */
  readonly shadow?: boolean;
  /** Distance over which it falls into the dark, mm; 0 for never. */
  readonly fade?: number;
}

export function placeMaterial(surface: PlaceSurface, lighting: FigureLighting): ShaderMaterial {
  const defines: Record<string, string> = {};
  if (surface.map) defines['PAINTED'] = '';
  if (surface.cut) defines['CUT'] = '';
  if (surface.metal) defines['METAL'] = '';
  if (surface.shadow) defines['SHADOW'] = '';
  return new ShaderMaterial({
    glslVersion: GLSL3,
    vertexShader: vertex,
    fragmentShader: fragment,
    side: DoubleSide,
    defines,
    transparent: surface.shadow ?? false,
    depthWrite: !surface.shadow,
    uniforms: {
      ...lightUniforms(lighting),
      map: { value: surface.map ?? null },
      repeat: { value: new Vector2(...(surface.repeat ?? [1, 1])) },
      tint: { value: surface.tint ?? new Color(1, 1, 1) },
      glow: { value: surface.glow ?? 0 },
      fade: { value: surface.fade ?? 0 }
    }
  });
}
