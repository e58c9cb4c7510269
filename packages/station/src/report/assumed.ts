import { bellowsStops, circleDiameterMm, magnificationAt } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { criterionWords } from '../words/sharpness.js';
import { fixed, fStop, mm, trimmed } from '../words/format.js';
import {
  circleGiven,
  circleTable,
  DEFAULT_SHARP_FRACTION,
  setup,
  type Setup,
} from '../optical/setup.js';
import { sharpRadiusMm } from '../optical/measured.js';
import { leanSizeDeg } from '../words/lean.js';
import { crossesInFocus } from '../exposure/passing.js';
import { lengthsOf } from '../document/chain.js';
import { BITS, DEFAULT_OVERLAP, MOSAIC_SECONDS_EACH } from '../mosaic/customs.js';
import { blanksOf } from '../rig/blanks.js';

/** What a figure may rest on. */
export type Rests =
  | 'circle'
  | 'core'
  | 'light'
  | 'stop'
  | 'criterion'
  | 'sharpness'
  | 'exposure'
  | 'reach'
  | 'level'
  | 'iris'
  | 'held'
  | 'clearance'
  | 'overlap'
  | 'travel'
  | 'work'
  | 'depths'
  | 'meter'
  | 'dial'
  | 'crossing';

/** One input that nobody gave, and what was taken in its place. */
export interface Assumption {
  /** JSON pointer of the input. */
  readonly pointer: string;
  /** What is reckoned with; null where it is taken to be in order without a figure. */
  readonly value: unknown;
  /** One sentence: what was taken, and why. */
  readonly why: string;
  /** The figures that would move with it. */
  readonly rests: readonly Rests[];
}

type Look = (station: Station, s: Setup) => Assumption[];

const circle: Look = ({ lens, aperture }) => {
  if (circleGiven(lens, aperture)) return [];
  const table = circleTable(lens);
  const [{ fNumber: first }, { fNumber: last }] = [table[0]!, table.at(-1)!];
  const wider = aperture < first;
  const from = wider ? first : last;
  const value = circleDiameterMm(circleTable(lens), aperture);
  return [
    {
      pointer: '/lens/circle',
      value,
      why: `The circle is given ${wider ? 'from' : 'to'} ${fStop(from)} only; at ${fStop(aperture)} that of ${fStop(from)} is taken, ${mm(value)}.${wider ? ' Wider open it is as a rule smaller.' : ''}`,
      rests: ['circle', 'core'],
    },
  ];
};

const core: Look = ({ lens, aperture }, s) =>
  lens.sharp_fraction !== undefined ||
  sharpRadiusMm(lens, aperture, s.cocMm / s.combined)?.beyond === false
    ? []
    : [
        {
          pointer: '/lens/sharp_fraction',
          value: DEFAULT_SHARP_FRACTION,
          why: `Nobody measured how much of the circle is sharp; ${fixed(100 * DEFAULT_SHARP_FRACTION, 0)} % of it is taken.`,
          rests: ['core'],
        },
      ];

/** From here on a pupil ratio of 2 would change the light by a sixth of a stop. */
const CLOSE_M = 0.1;
/** From here on one of 2 would move the circle by tenths of a millimetre on any lens. */
const LEANED_DEG = 0.5;

const pupil: Look = ({ lens, movements }, s) => {
  if (lens.pupil_ratio !== undefined) return [];
  const close = magnificationAt(s.focalLengthMm, s.axis[2], s.imageDistanceMm) > CLOSE_M;
  const leaned =
    Math.max(
      leanSizeDeg({ tiltDeg: movements.tilt_deg, swingDeg: movements.swing_deg }),
      leanSizeDeg({
        tiltDeg: movements.rear_tilt_deg ?? 0,
        swingDeg: movements.rear_swing_deg ?? 0,
      }),
    ) > LEANED_DEG;
  if (!close && !leaned) return [];
  return [
    {
      pointer: '/lens/pupil_ratio',
      value: 1,
      why: 'Exit and entrance pupil are taken to be alike. On a retrofocus wide or a telephoto design they are not, and leaned or close up it shows.',
      rests: [...(close ? (['sharpness', 'exposure'] as const) : []), 'circle', 'core'],
    },
  ];
};

const sharpness: Look = ({ criterion, criterion_by, back }) =>
  criterion_by !== 'default'
    ? []
    : [
        {
          pointer: '/criterion',
          value: criterion,
          why: `Nobody said what counts as sharp; ${criterionWords(criterion)} is usual ${back.medium === 'film' ? 'on film' : criterion.pixels === undefined ? 'where the pixels are not known' : 'where the pixels are known'}.`,
          rests: ['criterion', 'sharpness'],
        },
      ];

const lengths: Look = (station) => {
  const { lens, back } = station;
  const { bellows, fixedMm, boardOffsetMm } = lengthsOf(station);
  const own = lens.register_mm ?? lens.flange_focal_mm;
  if (bellows) {
    return [
      ...(own === undefined
        ? [
            {
              pointer: '/lens/flange_focal_mm',
              value: lens.focal_length_mm,
              why: `The flange focal distance is taken to be the focal length, ${trimmed(lens.focal_length_mm, 1)} mm; a telephoto design needs less draw, a retrofocus more.`,
              rests: ['reach'] as const,
            },
          ]
        : []),
      ...(back.register_mm === undefined && back.medium !== 'film'
        ? [
            {
              pointer: '/back/register_mm',
              value: 0,
              why: 'The sensor is taken to lie where the back is mounted.',
              rests: ['reach'] as const,
            },
          ]
        : []),
    ];
  }
  const there = back.register_mm === undefined ? null : fixedMm + boardOffsetMm;
  return [
    ...(own === undefined
      ? [
          {
            pointer: '/lens/register_mm',
            value: there,
            why: 'The register of the lens is not given: it is taken to meet the body at infinity.',
            rests: ['reach'] as const,
          },
        ]
      : []),
    ...(back.register_mm === undefined
      ? [
          {
            pointer: '/back/register_mm',
            value: null,
            why: 'The register of the body is not given: it is taken to meet the lens at infinity.',
            rests: ['reach'] as const,
          },
        ]
      : []),
  ];
};

/** What the light of an adapted lens has to pass, where nobody gave its width. */
const throats: Look = ({ chain, back }) => {
  const blank = (pointer: string, name: string): Assumption => ({
    pointer,
    value: null,
    why: `The throat of ${name} is not given; it is taken to be wide enough to leave the corners light.`,
    rests: ['circle', 'core'],
  });
  const adapters = chain.flatMap((part, i) =>
    part.kind === 'adapter' && part.throat_mm === undefined
      ? [blank(`/chain/${i}/throat_mm`, part.name?.trim() || 'the adapter')]
      : [],
  );
  const adapted = chain.some(({ kind }) => kind === 'adapter');
  return adapted && back.throat_mm === undefined
    ? [...adapters, blank('/back/throat_mm', back.name?.trim() || 'the back')]
    : adapters;
};

const contacts: Look = (station) =>
  blanksOf(station)
    .filter(({ pointer }) => pointer.endsWith('/contacts'))
    .map(({ pointer, what }) => ({
      pointer,
      value: true,
      why: `Not known: ${what}. They are taken to be there, so that the aperture is reckoned as set.`,
      rests: ['iris'],
    }));

const level: Look = ({ camera }) =>
  camera.level_offset_deg !== undefined
    ? []
    : [
        {
          pointer: '/camera/level_offset_deg',
          value: 0,
          why: 'The camera’s own level was never checked; it is taken to be true.',
          rests: ['level'],
        },
      ];

/** A lens in the hand: how far its own register leaves it from the body, and where they would touch. */
const held: Look = ({ held_off: hand }) => {
  if (!hand) return [];
  const { lens_register_mm: lens, body_register_mm: body } = hand;
  const blank = (pointer: string, why: string, rests: Rests): Assumption => ({
    pointer,
    value: null,
    why,
    rests: [rests],
  });
  return [
    ...(lens === undefined || body === undefined
      ? [
          blank(
            lens === undefined ? '/held_off/lens_register_mm' : '/held_off/body_register_mm',
            'Both registers are not given: lens and body are taken to have the same one, and the gap counts from where the lens would reach infinity.',
            'held',
          ),
        ]
      : []),
    ...(hand.flange_diameter_mm === undefined && hand.throat_mm === undefined
      ? [
          blank(
            '/held_off/throat_mm',
            'Neither the throat nor the width of the lens’s back is given: whether the flanges touch is not reckoned.',
            'clearance',
          ),
        ]
      : []),
  ];
};

/** What is laid out in several frames, where the station leaves it to custom. */
/** Movements that carry the frames of a mosaic and whose ends nobody gave. */
function travel({ mosaic: laid, movement_limits: limits }: Station): Assumption[] {
  if (!laid || laid.moves === 'camera') return [];
  const own = laid.moves === (limits.moves === 'rear' ? 'rear' : 'lens');
  const stops = limits.frame_stops !== undefined && laid.moves === 'rear';
  const turned = own && (limits.radial_shift_mm !== undefined || laid.pattern === 'pinwheel');
  if (stops || turned) return [];
  const what = laid.moves === 'rear' ? 'back' : 'lens';
  const names = own
    ? (['rise_mm', 'shift_mm'] as const)
    : (['rear_rise_mm', 'rear_shift_mm'] as const);
  return names.flatMap((name, i) =>
    limits[name] === undefined
      ? [
          {
            pointer: `/movement_limits/${name}`,
            value: null,
            why: `How far the ${what} goes ${i === 0 ? 'up and down' : 'sideways'} is not given; the frames are laid as if it went far enough.`,
            rests: ['travel'] as const,
          },
        ]
      : [],
  );
}

const mosaic: Look = (station) => {
  const { mosaic: laid, marks, facade, site } = station;
  if (!laid) return [];
  const stops = laid.pattern === 'free' || laid.pattern === 'ring';
  const farKnown = marks?.length || facade || site?.room || site?.boxes?.length;
  const parts = laid.moves !== 'rear' && laid.near_m !== undefined && laid.far_m === undefined;
  return [
    ...travel(station),
    ...(laid.overlap === undefined && !stops
      ? [
          {
            pointer: '/mosaic/overlap',
            value: DEFAULT_OVERLAP,
            why: `No overlap is given; ${fixed(100 * DEFAULT_OVERLAP, 0)} % is taken.`,
            rests: ['overlap'] as const,
          },
        ]
      : []),
    ...(laid.seconds_each === undefined
      ? [
          {
            pointer: '/mosaic/seconds_each',
            value: MOSAIC_SECONDS_EACH,
            why: `Nobody timed a frame; ${MOSAIC_SECONDS_EACH} s for moving, settling and releasing are taken.`,
            rests: ['work'] as const,
          },
        ]
      : []),
    ...(laid.bits === undefined
      ? [
          {
            pointer: '/mosaic/bits',
            value: BITS,
            why: `The size of a file is not given; ${BITS} bits a pixel are taken.`,
            rests: ['work'] as const,
          },
        ]
      : []),
    ...(parts && !farKnown
      ? [
          {
            pointer: '/mosaic/far_m',
            value: null,
            why: 'Only the nearest thing is given; the farthest is taken to be at infinity.',
            rests: ['depths'] as const,
          },
        ]
      : []),
  ];
};

/** From here on whether the meter saw the bellows would be noticed, in stops. */
const METER_SEES = 1 / 6;

const exposure: Look = ({ exposure: set, chain, focus }, s) => {
  if (!set) return [];
  const m = magnificationAt(s.focalLengthMm, s.axis[2], s.imageDistanceMm);
  const between =
    Math.abs(bellowsStops(m, s.pupilRatio)) > METER_SEES ||
    chain.some(({ kind }) => kind === 'multiplier');
  return [
    ...(set.meter && set.meter.through_lens === undefined && between
      ? [
          {
            pointer: '/exposure/meter/through_lens',
            value: false,
            why: 'Nobody said what kind of meter it was; one in the hand is taken, which sees neither bellows nor converter.',
            rests: ['meter'] as const,
          },
        ]
      : []),
    ...(set.shutter?.steps === undefined && !set.flash
      ? [
          {
            pointer: '/exposure/shutter/steps',
            value: 'third',
            why: 'The steps of the shutter are not given; thirds of a stop are taken.',
            rests: ['dial'] as const,
          },
        ]
      : []),
    ...(set.crossing && set.crossing.distance_m === undefined && crossesInFocus(s) !== null
      ? [
          {
            pointer: '/exposure/crossing/distance_m',
            value: focus.distance_m ?? null,
            why: 'How far off it crosses is not given; the distance that is in focus is taken.',
            rests: ['crossing'] as const,
          },
        ]
      : []),
  ];
};

/** What is told of a lens that is mounted: of one in the hand none of it matters. */
const MOUNTED: ReadonlySet<Look> = new Set([lengths, throats, contacts]);

/** Every kind of blank that a figure may rest on. To add one: write it above and list it here. */
const LOOKS: readonly Look[] = [
  circle,
  core,
  pupil,
  sharpness,
  held,
  lengths,
  throats,
  contacts,
  level,
  mosaic,
  exposure,
];

/** Every input of a station that nobody gave and on which a figure rests, as its settings stand. */
export const assumptionsOf = (station: Station, s: Setup = setup(station)): Assumption[] =>
  LOOKS.filter((look) => !station.held_off || !MOUNTED.has(look)).flatMap((look) =>
    look(station, s),
  );

/** Those that a figure would move with. */
export const assumedFor = (all: readonly Assumption[], rests: readonly Rests[]): Assumption[] =>
  all.filter((each) => each.rests.some((one) => rests.includes(one)));
