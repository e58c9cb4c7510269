import { tiltSwingOf, turnedAxis } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { heldOffPair } from '../focus/held-off-answer.js';
import { degrees, mm } from '../words/format.js';
import { SEEN, type Order, type Setting } from './order.js';

/** A lens in the hand, told by the method first and by its figures after it. */

/** How far the body is turned from the way that the lens looks, as the hand turns it. */
interface BodyTurn {
  readonly holds: 'right' | 'down';
  /** The lens against the body: to the right, or down. */
  readonly deg: number;
  /** The way that the body goes. */
  readonly way: string;
}

const LENS_GOES = { right: ['left', 'right'], down: ['up', 'down'] } as const;

/** The turns of the body that a lean asks for; none where it is held straight. */
export function bodyTurns(leanDeg: number, turnDeg = 0): BodyTurn[] {
  const { tiltDeg, swingDeg } = tiltSwingOf(turnedAxis({ leanDeg, turnDeg }));
  return (
    [
      ['right', swingDeg],
      ['down', tiltDeg],
    ] as const
  )
    .filter(([, deg]) => Math.abs(deg) >= SEEN)
    .map(([holds, deg]) => ({ holds, deg, way: LENS_GOES[holds][deg > 0 ? 0 : 1] }));
}

const nameIn = ({ marks = [] }: Station, index: number | undefined, other: string): string =>
  index === undefined ? other : marks[index]!.label || `mark ${index + 1}`;

/** What a hand does with a lens and a body that are not joined; figures are approximate by nature. */
export function heldOrders(
  station: Station,
  hand: Pick<NonNullable<Station['held_off']>, 'gap_mm' | 'lean_deg' | 'turn_deg'>,
): Order[] {
  const [first, second] = heldOffPair(station);
  const near = nameIn(station, first, 'the near thing');
  const turns = bodyTurns(hand.lean_deg, hand.turn_deg);
  const ways = turns.map(({ way }) => (way === 'left' || way === 'right' ? `to the ${way}` : way));
  const figure = turns.map(({ deg, way }) => `${degrees(Math.abs(deg))} ${way}`).join(' · ');
  const sets = (['right', 'down'] as const).map((holds): Setting => {
    const turn = turns.find((each) => each.holds === holds);
    return {
      control: { kind: 'hand', holds },
      to: turn?.deg ?? 0,
      said: degrees(Math.abs(turn?.deg ?? 0)),
      way: turn?.way ?? '',
    };
  });
  const until = second === undefined ? '' : ` until ${nameIn(station, second, '')} is crisp too`;
  return [
    {
      id: 'held ring',
      part: 'focus',
      says: 'Set the focusing ring to infinity and leave it',
      figure: '∞',
      line: 'Set the focusing ring to infinity and leave it',
      short: 'ring to infinity',
      sets: [{ control: { kind: 'ring', engraved: 'distance' }, to: null, said: '∞', way: '' }],
    },
    {
      id: 'gap',
      part: 'focus',
      says: `Draw the lens off the body until ${near} is crisp, about`,
      detail: 'Between the flanges, at their middle.',
      figure: mm(hand.gap_mm),
      short: `held off ${mm(hand.gap_mm)}`,
      rests: ['held'],
      sets: [
        {
          control: { kind: 'hand', holds: 'gap' },
          to: hand.gap_mm,
          said: mm(hand.gap_mm),
          way: '',
        },
      ],
    },
    {
      id: 'turn body',
      part: 'focus',
      says:
        turns.length === 0
          ? 'Hold it straight'
          : `Leave the lens and turn the body ${ways.join(' and ')}${until}, about`,
      ...(figure === '' ? {} : { figure }),
      detail: 'Rock a little, and shoot bursts.',
      short: figure === '' ? 'held straight' : `body turned ${figure.replace(' · ', ', ')}`,
      rests: ['held'],
      sets,
    },
  ];
}

/** Orders as lines to read. */
export const orderLines = (orders: readonly Order[]): string[] =>
  orders.map(
    ({ says, figure, line }) => `${line ?? (figure === undefined ? says : `${says} ${figure}`)}.`,
  );
