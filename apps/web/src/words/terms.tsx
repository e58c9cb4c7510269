import type { ReactNode } from 'react';
import { Arrow, Back, Circle, Dot, Good, Lens, Line, Name, Soft, Thin } from './strokes.js';

export interface Term {
  readonly term: string;
  readonly words: string;
  readonly drawing: ReactNode;
}

const frame = (x: number, y: number): string => `M${x - 24},${y - 16}h48v32h-48z`;

/** The trade's words, one meaning each, in the order they are met. */
export const TERMS = {
  'image-circle': {
    term: 'Image circle',
    words:
      'The round picture a lens throws. It grows as the lens is stopped down and as it focuses nearer; the frame may move within it.',
    drawing: (
      <>
        <Circle r={42} />
        <Good d={frame(0, 0)} />
      </>
    ),
  },
  'sharp-core': {
    term: 'Sharp core',
    words:
      'The inner part of the circle that is as sharp as you want it. Nobody prints its size: 80 % is common practice until you measure yours.',
    drawing: (
      <>
        <Circle r={42} />
        <Soft d="M33,0A33,33 0 1 1 -33,0A33,33 0 1 1 33,0" />
        <Good d={frame(0, -6)} />
      </>
    ),
  },
  rise: {
    term: 'Rise and fall',
    words:
      'Lens up (or back down) is rise: more of the top comes in and upright lines stay upright. The other way is fall. Zero: the lens stands before the middle of the frame.',
    drawing: (
      <>
        <Thin d="M-70,34H70M-48,34V-40H-12V34" />
        <Back x={58} y={8} />
        <Lens x={36} y={-2} />
        <Arrow x={36} y={-22} dy={-16} />
      </>
    ),
  },
  shift: {
    term: 'Shift',
    words:
      'Rise, but sideways. It moves the frame across the circle without turning the camera, so that a wall seen square stays square.',
    drawing: (
      <>
        <Circle r={42} />
        <Thin d={frame(-6, 0)} />
        <Good d={frame(8, 0)} />
        <Arrow x={-20} y={28} dx={28} />
      </>
    ),
  },
  tilt: {
    term: 'Tilt',
    words:
      'The lens leans forward or back about a level axis. The plane of sharp focus then leans too: forward tilt lays it towards the ground.',
    drawing: (
      <>
        <Back x={46} />
        <Lens x={18} lean={-14} />
        <Good d="M-76,36L8,20" />
        <Thin d="M-76,40H74" />
      </>
    ),
  },
  swing: {
    term: 'Swing',
    words:
      'Tilt about an upright axis, seen here from above: the plane of sharp focus turns towards a wall that runs away.',
    drawing: (
      <>
        <Back x={46} />
        <Lens x={18} lean={12} />
        <Good d="M-70,-34L4,-4" />
        <Name x={-72} y={42}>
          from above
        </Name>
      </>
    ),
  },
  standard: {
    term: 'Standard',
    words:
      'What holds the lens (front) or the sensor or film (back) on a view camera. Shift the back to keep the lens still, for a stitch; lean the front for sharpness, the back for shape.',
    drawing: (
      <>
        <Thin d="M-46,34H62M-30,34V20M46,34V24" />
        <Thin d="M-28,-18L-12,-22L4,-18L20,-22L36,-18L46,-22M-28,18L-12,22L4,18L20,22L36,18L46,22" />
        <Lens x={-30} />
        <Back x={46} />
        <Name x={-44} y={-28}>
          front
        </Name>
        <Name x={38} y={-28}>
          back
        </Name>
      </>
    ),
  },
  plane: {
    term: 'Plane of sharp focus',
    words:
      'Where things are sharpest. With nothing leaned it lies parallel to the sensor; with the lens leaned it leans.',
    drawing: (
      <>
        <Back x={54} />
        <Lens x={30} />
        <Good d="M-28,-40V40" />
        <Dot x={-28} y={12} />
      </>
    ),
  },
  'hinge-line': {
    term: 'Hinge line',
    words:
      'The line, below or beside the lens, about which the plane of sharp focus turns as you focus. More tilt brings it nearer to the lens.',
    drawing: (
      <>
        <Back x={50} y={-14} />
        <Lens x={26} y={-14} lean={-12} />
        <Thin d="M22,38L-60,-4M22,38L-66,14" />
        <Good d="M22,38L-72,30" />
        <Dot x={22} y={38} r={3.5} />
      </>
    ),
  },
  wedge: {
    term: 'Wedge',
    words:
      'What is sharp enough when the lens leans: thin at the hinge line, thicker with distance. Stopping down opens it.',
    drawing: (
      <>
        <path d="M34,34L-74,-14L-74,40Z" className="fill-within opacity-20" />
        <Soft d="M34,34L-74,-14M34,34L-74,40" />
        <Good d="M34,34L-74,18" />
        <Dot x={34} y={34} />
        <Lens x={40} y={-16} lean={-12} />
      </>
    ),
  },
  stop: {
    term: 'Stop',
    words:
      'The opening, as f/8. Each whole stop halves the light: f/4, 5.6, 8, 11, 16, 22. Close up, the stop that acts is smaller than the one engraved.',
    drawing: (
      <>
        <Circle r={34} x={-38} />
        <Circle r={17} x={38} />
        <Name x={-48} y={4}>
          f/4
        </Name>
        <Name x={31} y={4}>
          f/8
        </Name>
      </>
    ),
  },
  diffraction: {
    term: 'Diffraction',
    words:
      'A small opening spreads every point into a disc. It begins to cost where it no longer passes the finest detail the sensor can hold; from there on every stop down softens the whole picture.',
    drawing: (
      <>
        <Line d="M-50,-40V-6M-50,6V40" />
        <Thin d="M-50,0L60,-26M-50,0L60,26" />
        <Good d="M60,-26V26" />
        <Arrow x={-76} y={0} dx={20} />
      </>
    ),
  },
  'blur-disc': {
    term: 'Circle of confusion',
    words:
      'The largest blur disc that still counts as sharp: by the pixels, by the diagonal, or by a print and how far away it is seen.',
    drawing: (
      <>
        <Lens x={-40} />
        <Thin d="M-40,-20L40,10M-40,20L40,-10" />
        <Line d="M40,-40V40" />
        <Good d="M40,-10V10" />
      </>
    ),
  },
  hyperfocal: {
    term: 'Hyperfocal distance',
    words:
      'Focused there, a straight lens is sharp enough from half that distance to infinity, at this stop and this standard of sharpness.',
    drawing: (
      <>
        <Lens x={62} />
        <Thin d="M-76,24H76M-10,24V-10M26,24V4" />
        <Good d="M26,30H-76" />
        <Name x={-22} y={-16}>
          focus here
        </Name>
        <Name x={22} y={42}>
          ½
        </Name>
      </>
    ),
  },
  overlap: {
    term: 'Overlap',
    words:
      'What two neighbouring frames both see, as a share of one. The merge needs it to find how they fit; it adds no pixels.',
    drawing: (
      <>
        <Line d="M-52,-24h64v48h-64z" />
        <Line d="M-12,-24h64v48h-64z" />
        <Good d="M-12,-24h24v48h-24z" />
      </>
    ),
  },
  parallax: {
    term: 'Near and far part',
    words:
      'When the lens goes sideways between two frames, near things move against far ones, and the frames no longer fit. With the lens still, or the body moved back by as much, they do.',
    drawing: (
      <>
        <Lens x={-40} />
        <Thin d="M-40,-14L70,-14M-40,14L70,-30" />
        <Dot x={10} y={-2} />
        <Good d="M70,-34V-8" />
        <Arrow x={-64} y={14} dx={0} dy={-28} />
      </>
    ),
  },
  'entrance-pupil': {
    term: 'Entrance pupil',
    words:
      'The opening as it is seen from the front: where the lens looks from. Turn the camera about it and near and far stay together.',
    drawing: (
      <>
        <Lens x={0} />
        <Thin d="M-10,0L60,-34M-10,0L60,34" />
        <Dot x={-10} y={0} />
        <Name x={-44} y={34}>
          pupil
        </Name>
      </>
    ),
  },
  pinwheel: {
    term: 'Pinwheel',
    words:
      'The sensor sits off the middle of the circle and is turned round it by stops: few frames fill a square, and the lens stays still.',
    drawing: (
      <>
        <Circle r={42} />
        <Line d="M-12,-34h40v28h-40zM6,-12h28v40h-28zM-28,6h40v28h-40zM-34,-28h28v40h-28z" />
        <Dot x={0} y={0} />
      </>
    ),
  },
  'normal-lens': {
    term: 'Normal lens',
    words:
      'A focal length as long as the frame’s diagonal. Shorter is wide, longer is narrow: 43 mm before 24 × 36 mm, 153 mm before 4 × 5 in.',
    drawing: (
      <>
        <Good d={frame(0, 0)} />
        <Line d="M-24,-16L24,16" />
      </>
    ),
  },
  equivalent: {
    term: 'Equivalent',
    words:
      'The focal length that sees as wide on 24 × 36 mm. It says how much is in the picture, and nothing about light or sharpness.',
    drawing: (
      <>
        <Thin d="M-40,-28h80v56h-80z" />
        <Good d={frame(0, 0)} />
      </>
    ),
  },
  register: {
    term: 'Register',
    words:
      'From the mount’s face to the sensor. A lens made for a longer register leaves a gap that an adapter fills; one made for a shorter register never reaches infinity.',
    drawing: (
      <>
        <Back x={44} />
        <Lens x={-40} />
        <Line d="M-26,-30V30" />
        <Thin d="M-26,36H42" />
        <Arrow x={-10} y={36} dx={50} />
        <Arrow x={20} y={36} dx={-44} />
      </>
    ),
  },
  throat: {
    term: 'Throat',
    words:
      'The clear width of a mount. A narrow one shades the corners of a long register or a large format, most of all when the lens is shifted.',
    drawing: (
      <>
        <Back x={52} />
        <Line d="M0,-44V-14M0,14V44" strokeWidth={4} />
        <Thin d="M-60,-8L52,22M-60,8L52,-22" />
      </>
    ),
  },
  draw: {
    term: 'Draw',
    words:
      'How far the bellows are pulled out, lens to back. At infinity about the focal length, at life size twice that; twice the draw costs two stops.',
    drawing: (
      <>
        <Thin d="M-40,-18L-28,-22L-16,-18L-4,-22L8,-18L20,-22L36,-18M-40,18L-28,22L-16,18L-4,22L8,18L20,22L36,18" />
        <Lens x={-42} />
        <Back x={38} />
        <Arrow x={0} y={38} dx={36} />
        <Arrow x={0} y={38} dx={-40} />
      </>
    ),
  },
  converter: {
    term: 'Converter or reducer',
    words:
      'Glass behind the lens that lengthens it (converter) or shortens it (reducer). The circle grows or shrinks with it; shift a reducer and only what it lets pass is left.',
    drawing: (
      <>
        <Lens x={-44} />
        <g transform="scale(0.7)">
          <Lens x={10} />
        </g>
        <Back x={48} />
        <Thin d="M-44,-20L7,-13L48,-22M-44,20L7,13L48,22" />
      </>
    ),
  },
  'pixel-pitch': {
    term: 'Pixel pitch',
    words:
      'From one pixel to the next, in thousandths of a millimetre: the width of the sensor over the pixels along it.',
    drawing: (
      <>
        <Thin d="M-40,-30H40M-40,-10H40M-40,10H40M-40,30H40M-40,-30V30M-20,-30V30M0,-30V30M20,-30V30M40,-30V30" />
        <Good d="M-20,0H0" />
      </>
    ),
  },
  'bellows-factor': {
    term: 'Bellows factor',
    words:
      'The farther a lens is drawn out, the thinner its light is spread: at life size four times the time. A meter in the hand knows nothing of it.',
    drawing: (
      <>
        <Lens x={-50} />
        <Back x={56} />
        <Thin d="M-50,-14L56,-34M-50,14L56,34M-50,-14L6,-24M-50,14L6,24" />
        <Good d="M6,-24V24" />
        <Arrow x={10} y={40} dx={40} />
      </>
    ),
  },
  reciprocity: {
    term: 'Long times on film',
    words:
      'Film answers less to weak light that lasts: past about a second it wants more than was metered, by a power or by its maker’s table. A sensor does not.',
    drawing: (
      <>
        <Thin d="M-60,36H64M-60,36V-40M-60,36L40,-40" />
        <Line d="M-60,36L-20,4C0,-12 12,-28 18,-40" />
        <Good d="M22,-26L12,-26" />
      </>
    ),
  },
  'held-off': {
    term: 'Held off the body',
    words:
      'The lens in one hand, the body in the other. The gap sets the distance, the lean sets the plane. Mind dust, light through the gap, and the sun.',
    drawing: (
      <>
        <Back x={50} />
        <Line d="M36,-28V28M36,-28H50M36,28H50" />
        <Lens x={4} lean={10} />
        <Good d="M10,-34H34M10,-38V-30M34,-38V-30" />
      </>
    ),
  },
} satisfies Record<string, Term>;

export type TermId = keyof typeof TERMS;
