import { REGISTER_PLAY_MM } from '@gangway/optics';
import type { ChainPart, Station } from '../document/station.js';
import { barrelPath, partName } from './problems/mounting.js';
import { named } from './problems/problem.js';
import type { RigParts } from '../document/rig-parts.js';
import { perRig, rigFacts, type RigFacts } from '../optical/facts.js';
import type { Setup } from '../optical/setup.js';

/** Something nobody told of a rig on which it depends whether the parts go together. */
export interface Blank {
  /** JSON pointer of the field that is blank. */
  readonly pointer: string;
  /** What is blank, as a person calls it: “mount of the lens”. */
  readonly what: string;
  /** What it decides, to go on with “decides”: “whether it joins the adapter”. */
  readonly decides: string;
}

export const blanksOfGear = perRig((facts): readonly Blank[] => [
  ...mounts(facts),
  ...registers(facts),
  ...barrel(facts),
  ...contacts(facts),
]);

const NONE: readonly Blank[] = [];

/** What is not known of a rig; parts that are known to fit, or not to, leave nothing open. */
export const blanksIn = ({ station, facts }: Pick<Setup, 'station' | 'facts'>): readonly Blank[] =>
  // Held in the hand, the lens is not mounted: no blank decides whether it goes on.
  station.held_off ? NONE : blanksOfGear(facts);

export const blanksOf = (station: Station): readonly Blank[] =>
  blanksIn({ station, facts: rigFacts(station) });

interface Face {
  readonly name: string;
  readonly mount: string | undefined;
  readonly pointer: string;
}

/** Both faces of every joint, from the lens to the back. */
function joints({ lens, chain, back }: RigParts): [Face, Face][] {
  const face = (part: ChainPart, i: number, side: 'front' | 'rear'): Face => ({
    name: partName(part),
    mount: part[`${side}_mount`],
    pointer: `/chain/${i}/${side}_mount`,
  });
  const ahead: Face[] = [
    { name: named(lens, 'the lens'), mount: lens.mount, pointer: '/lens/mount' },
    ...chain.map((part, i) => face(part, i, 'rear')),
  ];
  const behind: Face[] = [
    ...chain.map((part, i) => face(part, i, 'front')),
    { name: named(back, 'the back'), mount: back.mount, pointer: '/back/mount' },
  ];
  return ahead.map((each, i) => [each, behind[i]!]);
}

const mounts = (rig: RigParts): Blank[] =>
  joints(rig).flatMap((pair) =>
    pair
      .filter(({ mount }) => !mount?.trim())
      .map(({ name, pointer }) => ({
        pointer,
        what: `mount of ${name}`,
        decides: `whether ${pair[0].name} and ${pair[1].name} join`,
      })),
  );

/** Without bellows the registers say whether infinity is reached; bellows make up for what they are. */
function registers({ lens, chain, back }: RigParts): Blank[] {
  if (chain.some(({ kind }) => kind === 'view_camera')) return [];
  const decides = 'whether infinity is reached';
  const own = lens.register_mm ?? lens.flange_focal_mm;
  return [
    ...(own === undefined
      ? [{ pointer: '/lens/register_mm', what: `register of ${named(lens, 'the lens')}`, decides }]
      : []),
    ...(back.register_mm === undefined
      ? [{ pointer: '/back/register_mm', what: `register of ${named(back, 'the back')}`, decides }]
      : []),
  ];
}

/** What a rear that is known to reach in has to pass. */
function barrel(rig: RigParts): Blank[] {
  const { lens, back } = rig;
  const { passes, leftMm } = barrelPath(rig);
  const name = named(lens, 'the lens');
  const throats =
    lens.rear_diameter_mm === undefined
      ? passes.some(({ throatMm }) => throatMm !== undefined)
        ? [
            {
              pointer: '/lens/rear_diameter_mm',
              what: `diameter of the rear of ${name}`,
              decides: 'whether it goes through the throat',
            },
          ]
        : []
      : passes
          .filter(({ throatMm }) => throatMm === undefined)
          .map(({ joint, name: part }) => ({
            pointer: joint === rig.chain.length ? '/back/throat_mm' : `/chain/${joint}/throat_mm`,
            what: `throat of ${part}`,
            decides: `whether the rear of ${name} goes in`,
          }));
  const depth =
    leftMm > REGISTER_PLAY_MM && back.clear_depth_mm === undefined
      ? [
          {
            pointer: '/back/clear_depth_mm',
            what: `clear depth of ${named(back, 'the back')}`,
            decides: `whether the rear of ${name} strikes mirror or shutter`,
          },
        ]
      : [];
  return [...throats, ...depth];
}

/** Contacts that a lens is set or focused through. */
function contacts({ lens, chain, back, contacts: reach }: RigFacts): Blank[] {
  const electric = lens.iris === 'electronic' || lens.focus_by === 'wire';
  if (!electric) {
    const ring = lens.iris !== undefined || lens.focus_by === 'bellows' || chain.length === 0;
    return ring || reach === 'yes'
      ? []
      : [
          {
            pointer: '/lens/iris',
            what: `how the iris of ${named(lens, 'the lens')} is set`,
            decides: 'whether it can be stopped down on this chain',
          },
        ];
  }
  if (reach !== 'unknown') return [];
  const decides =
    lens.iris !== 'electronic'
      ? 'whether the lens can be focused'
      : lens.focus_by === 'wire'
        ? 'whether the lens can be stopped down and focused'
        : 'whether the lens can be stopped down';
  const blank = (part: { contacts?: boolean | undefined }): boolean => part.contacts === undefined;
  return [
    ...chain.flatMap((part, i) =>
      part.kind === 'board' || !blank(part)
        ? []
        : [{ pointer: `/chain/${i}/contacts`, what: `contacts of ${partName(part)}`, decides }],
    ),
    // A lens on the body it is made for speaks to it.
    ...(chain.length > 0 && blank(back)
      ? [{ pointer: '/back/contacts', what: `contacts of ${named(back, 'the back')}`, decides }]
      : []),
  ];
}

/** The blanks as one line each: “Mount of the lens: decides whether …”. */
export const blankSentence = ({ what, decides }: Blank): string =>
  `${what.charAt(0).toUpperCase()}${what.slice(1)} decides ${decides}.`;
