import { RAYS } from './rig';

/** The shadows lie in a square of so many by so many fields, one for each ray. */
export const FIELDS = Math.sqrt(RAYS);

export const VERTEX = /* glsl */ `
  attribute vec2 sheet;
  uniform vec2 sheetSize;
  uniform vec2 sheetEdge;
  varying vec3 place;
  varying vec3 out_;
  varying vec2 mm;
  varying vec2 on;
  void main() {
    vec4 world = modelMatrix * vec4(position, 1.0);
    place = world.xyz;
    out_ = mat3(modelMatrix) * normal;
    mm = sheet;
    // The picture of a sheet has a bleed around it; its rows begin below.
    vec2 share = sheet / sheetSize;
    on = mix(sheetEdge, 1.0 - sheetEdge, vec2(share.x, 1.0 - share.y));
    gl_Position = projectionMatrix * viewMatrix * world;
  }
`;

/** What all surfaces know of the light. Colours are linear until they are written. */
const LIGHT = /* glsl */ `
  precision highp sampler2DShadow;
  uniform sampler2DShadow shadows;
  uniform mat4 rays[${RAYS}];
  uniform vec3 towards[${RAYS}];
  uniform vec3 lights[${RAYS}];
  uniform bool flatLight;
  /** Every so many of the rays are looked at: fewer while something moves. */
  uniform int stride;
  uniform float lift;
  varying vec3 place;
  varying vec3 out_;

  float reached(int ray, vec3 at) {
    vec3 own = (rays[ray] * vec4(at, 1.0)).xyz;
    if (own.x < 0.01 || own.x > 0.99 || own.y < 0.01 || own.y > 0.99) return 1.0;
    vec2 field = vec2(float(ray % ${FIELDS}), float(ray / ${FIELDS}));
    return texture(shadows, vec3((field + own.xy) / ${FIELDS}.0, min(own.z, 1.0)));
  }
  vec3 encoded(vec3 linear) {
    vec3 low = linear * 12.92;
    vec3 high = 1.055 * pow(max(linear, vec3(0.0)), vec3(1.0 / 2.4)) - 0.055;
    return mix(high, low, vec3(lessThanEqual(linear, vec3(0.0031308))));
  }
`;

export const FRAGMENT = /* glsl */ `
  ${LIGHT}
  uniform sampler2D picture;
  uniform bool printed;
  uniform vec3 own;
  uniform vec3 inside;
  /** How much is reflected as by a gloss, and how narrowly. */
  uniform float gloss;
  uniform float narrow;
  /** Threads or fibres: mm from one to the next, and how deep they are. */
  uniform float thread;
  uniform float depth;
  uniform float lit;
  varying vec2 mm;
  varying vec2 on;

  void main() {
    bool back = !gl_FrontFacing;
    vec3 n = normalize(back ? -out_ : out_);
    vec3 colour = printed ? (back ? inside : texture(picture, on).rgb) : own;
    if (flatLight) {
      gl_FragColor = vec4(encoded(colour), 1.0);
      return;
    }
    float weave = 1.0;
    if (depth > 0.0 && printed) {
      // Threads over and under each other; they fade where they are finer than the picture.
      vec2 at = mm / thread;
      float fine = 1.0 - smoothstep(0.15, 0.6, max(length(fwidth(at)), 0.0));
      vec2 wave = sin(at * 6.2832);
      float over = step(0.0, sin(at.x * 3.1416) * sin(at.y * 3.1416));
      weave = 1.0 - depth * fine * (0.5 - 0.5 * mix(wave.x, wave.y, over));
    }
    vec3 at = place + n * lift;
    vec3 eye = normalize(cameraPosition - place);
    vec3 sum = vec3(0.0);
    vec3 shine = vec3(0.0);
    for (int ray = 0; ray < ${RAYS}; ray += stride) {
      float facing = dot(n, towards[ray]);
      if (facing <= 0.0) continue;
      vec3 came = lights[ray] * reached(ray, at) * float(stride);
      sum += came * facing;
      if (gloss > 0.0) {
        float mirror = max(0.0, dot(n, normalize(towards[ray] + eye)));
        shine += came * pow(mirror, narrow);
      }
    }
    // Some light comes back from floor and walls wherever it falls.
    sum += vec3(0.10) + vec3(0.07, 0.068, 0.062) * max(0.0, -n.y);
    float edge = pow(1.0 - max(0.0, dot(n, eye)), 5.0);
    vec3 result = colour * sum * weave + shine * gloss + vec3(gloss * 0.12) * edge;
    result = mix(result, colour, lit);
    gl_FragColor = vec4(encoded(min(result, vec3(1.0))), 1.0);
  }
`;

/**
 * The floor is its own colour where all light comes to it, and only its shadows where it is clear. What comes to it does not
 * depend on where one looks from, so that it is kept as a picture (keeps) for while something moves (kept).
 */
export const FLOOR = /* glsl */ `
  ${LIGHT}
  uniform vec3 own;
  uniform vec3 whole;
  uniform bool clear;
  uniform bool keeps;
  uniform bool kept;
  uniform sampler2D picture;
  varying vec2 mm;
  void main() {
    vec3 share;
    if (kept) {
      vec3 root = texture(picture, mm).rgb;
      share = root * root;
    } else {
      vec3 sum = vec3(0.0);
      for (int ray = 0; ray < ${RAYS}; ray += stride)
        sum += float(stride) * lights[ray] * towards[ray].y * reached(ray, place + vec3(0.0, lift, 0.0));
      share = min((sum + 0.10) / (whole + 0.10), vec3(1.0));
    }
    if (keeps) {
      gl_FragColor = vec4(sqrt(share), 1.0);
      return;
    }
    if (clear) {
      float dark = 1.0 - (share.r + share.g + share.b) / 3.0;
      if (dark < 0.004) discard;
      // Over white it has the same lightness as a shadow on white paper.
      gl_FragColor = vec4(0.0, 0.0, 0.0, 1.0 - encoded(vec3(1.0 - dark)).r);
    } else gl_FragColor = vec4(encoded(own * share), 1.0);
  }
`;

export const ONTO = /* glsl */ `
  varying vec2 on;
  void main() {
    on = uv;
    gl_Position = vec4(position.xy, 0.0, 1.0);
  }
`;

/** Lays a picture over all, each of its values by a share. */
export const SHARE = /* glsl */ `
  uniform sampler2D picture;
  uniform float share;
  varying vec2 on;
  void main() {
    gl_FragColor = texture(picture, on) * share;
  }
`;
