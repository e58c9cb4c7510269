import { distance, fixed, fStop, mm, trimmed } from './format.js';
import type { Found } from './findings.js';
import { atLeast } from './rounded.js';

/** What is said of a rig's problems: what is wrong, with the figures, and what would help. */
export interface RigSaid {
  readonly message: string;
  /** In the imperative. */
  readonly cure: string;
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

export const boardWords = (offsetMm: number): string =>
  offsetMm < 0 ? `a ${mm(-offsetMm, 0)} recessed board` : `a ${mm(offsetMm, 0)} extension board`;

/** A distance of the rig's reach, mm; nothing is reached where it is null. */
const metresSaid = (farMm: number | null): string => distance((farMm ?? 0) / 1000, 'metric');

/** Which thickness would put the lens right. */
export type OtherThickness =
  | { readonly do: 'replace'; readonly thicknessMm: number; readonly nowMm: number }
  | { readonly do: 'add' | 'take'; readonly thicknessMm: number };

function thicknessCure(other: OtherThickness): string {
  const to = mm(other.thicknessMm, 2);
  if (other.do === 'replace') return `Use an adapter of ${to} instead of ${mm(other.nowMm, 2)}.`;
  return other.do === 'add'
    ? `Put an adapter of ${to} between lens and body.`
    : `Take ${to} out between lens and body, or keep it for near work.`;
}

export const RIG_SAYS = {
  mount_mismatch: (v: {
    front: string;
    rear: string;
    ahead: string;
    behind: string;
    /** Of the one adapter that would join them; null where it takes something else. */
    thicknessMm: number | null;
  }): RigSaid => ({
    message: `${v.front} has the mount ${v.ahead}, ${v.rear} takes ${v.behind}: they do not join.`,
    cure:
      v.thicknessMm !== null
        ? `Put an adapter from ${v.ahead} to ${v.behind} between them, ${mm(v.thicknessMm, 2)} thick to keep infinity.`
        : `Put a part from ${v.ahead} to ${v.behind} between them.`,
  }),
  throat_too_narrow: (v: { name: string; rearMm: number; throatMm: number }): RigSaid => ({
    message: `The rear barrel is ${mm(v.rearMm)} wide, the throat of ${v.name} ${mm(v.throatMm)}: it does not go in.`,
    cure: `Use a part with a throat of at least ${mm(v.rearMm)}, or a lens with a slimmer rear.`,
  }),
  /** `glass`: the part whose glass it strikes; null: mirror or shutter. */
  rear_element_strikes: (v: {
    reachesMm: number;
    clearMm: number;
    glass: string | null;
  }): RigSaid => ({
    message: `The rear of the lens reaches ${mm(v.reachesMm)} in, where only ${mm(v.clearMm)} are clear: it may strike ${v.glass === null ? 'mirror or shutter' : `the glass of ${v.glass}`}.`,
    cure: `Do not mount it so. Use a body that clears ${mm(v.reachesMm)}, or an extension of at least ${mm(v.reachesMm - v.clearMm)} and do without infinity.`,
  }),
  register_no_room: (
    v:
      | { lacks: 'thickness'; name: string; leastMm: number; thicknessMm: number }
      | { lacks: 'infinity'; lensMm: number; bodyMm: number }
      | { lacks: 'room'; roomMm: number; needsMm: number; bodyMm: number },
  ): RigSaid => {
    if (v.lacks === 'thickness') {
      return {
        message: `The mechanism of ${v.name} needs ${mm(v.leastMm)}; at ${mm(v.thicknessMm)} it cannot be made.`,
        cure: `Use a body with a shorter register, or a plain adapter without movements.`,
      };
    }
    return v.lacks === 'infinity'
      ? {
          message: `The lens is made for a register of ${mm(v.lensMm, 2)}, the body has ${mm(v.bodyMm, 2)}: no adapter can bring it to infinity.`,
          cure: `Use a body with a register of ${mm(v.lensMm, 2)} or less, or this lens for near work only.`,
        }
      : {
          message: `The registers leave ${mm(v.roomMm, 2)}, the mechanism needs ${mm(v.needsMm, 2)}.`,
          cure: `Use a lens with a register of at least ${mm(v.bodyMm + v.needsMm, 2)}, or do without infinity.`,
        };
  },
  no_infinity: (v: {
    excessMm: number;
    farthestMm: number | null;
    other: OtherThickness;
  }): RigSaid => ({
    message: `Infinity is out of reach: the lens stands ${mm(v.excessMm, 2)} too far out and focuses to ${metresSaid(v.farthestMm)} at most.`,
    cure: thicknessCure(v.other),
  }),
  past_infinity: (v: { excessMm: number; other: OtherThickness }): RigSaid => ({
    message: `The lens stands ${mm(-v.excessMm, 2)} too far in and focuses past infinity: its distance marks no longer tell.`,
    cure: thicknessCure(v.other),
  }),
  bellows_too_long: (v: {
    atInfinityMm: number;
    leastMm: number;
    /** As far as it focuses; null where that is not told. */
    farthestMm: number | null;
    boardMm: number;
    offsetMm: number;
  }): RigSaid => ({
    message: `At infinity the lens needs a draw of ${mm(v.atInfinityMm)}; the bellows close to ${mm(v.leastMm)} only.${v.farthestMm === null ? '' : ` It focuses to ${metresSaid(v.farthestMm)} at most.`}`,
    cure: `Put the lens on ${boardWords(v.offsetMm)}${v.boardMm === 0 ? '' : ' instead'}: the draw becomes ${mm(v.atInfinityMm + v.boardMm - v.offsetMm)}.`,
  }),
  bellows_too_short: (v: { neededMm: number; mostMm: number; offsetMm: number }): RigSaid => ({
    message: `The focus set needs a draw of ${mm(v.neededMm)}; the bellows reach ${mm(v.mostMm)}.`,
    cure: `${v.offsetMm > 0 ? `Put the lens on ${boardWords(v.offsetMm)}` : 'Put the lens on a flat board'}, focus further off, or use a lens of telephoto design.`,
  }),
  bellows_cramped: (v: {
    drawMm: number;
    leastMm: number;
    moved: boolean;
    offsetMm: number;
  }): RigSaid => ({
    message: `The bellows are drawn ${mm(v.drawMm)} with ${mm(v.leastMm)} the least: ${v.moved ? 'the movements set may not be reached' : 'movements will be cramped'}.`,
    cure: `Fit a bag bellows, or a deeper board: ${boardWords(v.offsetMm)}.`,
  }),
  focus_out_of_reach: (
    v:
      | { past: 'everything'; excessMm: number }
      | { past: 'far'; farthestMm: number | null; straight: boolean }
      | { past: 'far_leaned'; byMm: number }
      | {
          past: 'near';
          closestMm: number | null;
          largest: number;
          /** How much further out it is wanted; null where nothing leans. */
          byMm: number | null;
        },
  ): RigSaid => {
    switch (v.past) {
      case 'everything':
        return {
          message: `The lens stands ${mm(-v.excessMm, 2)} too far in: this rig focuses at no distance.`,
          cure: 'Put an extension between lens and body.',
        };
      case 'far':
        return {
          message: `The focus set lies further than this rig reaches, ${metresSaid(v.farthestMm)}.`,
          cure: v.straight ? 'Focus nearer, or shorten the chain.' : 'Focus nearer, or lean less.',
        };
      case 'far_leaned':
        return {
          message: `As lens and back lean, the focus set wants the lens ${mm(v.byMm, 2)} further in than this rig lets it.`,
          cure: 'Focus nearer, or lean less.',
        };
      case 'near': {
        const closest =
          v.closestMm === null
            ? 'This rig has nothing to focus with'
            : `This rig focuses to ${metresSaid(v.closestMm)}, ${trimmed(v.largest, 2)} × at most`;
        return {
          message:
            v.byMm === null
              ? `${closest}; the focus set lies nearer.`
              : `${closest}; as lens and back lean, the focus set wants it ${mm(v.byMm, 2)} further out.`,
          cure:
            v.byMm === null
              ? 'Step back, or put an extension between lens and body.'
              : 'Step back, lean less, or put an extension between lens and body.',
        };
      }
    }
  },
  focus_by_wire: (v: { name: string; known: boolean }): RigSaid =>
    v.known
      ? {
          message: `The lens focuses by wire and ${v.name} carries no contacts: its focus stays where it rests.`,
          cure: 'Use an adapter with contacts, a bellows, or move the camera to focus.',
        }
      : {
          message: `The lens focuses by wire, and whether ${v.name} carries the contacts is not known: without them its focus stays where it rests.`,
          cure: `Look for contacts on ${v.name} and say so in the kit.`,
        },
  nothing_to_focus_with: (_: null): RigSaid => ({
    message: 'The lens has no focusing of its own and nothing in the chain draws out.',
    cure: 'Put it on a bellows camera, or on a focusing adapter.',
  }),
  iris_stuck: (
    v:
      | { by: 'no_iris'; openF: number; plannedF: number }
      | { by: 'no_contacts' | 'unknown'; openF: number; name: string },
  ): RigSaid => {
    const open = fStop(v.openF);
    switch (v.by) {
      case 'no_iris':
        return {
          message: `The lens has no iris: it works at ${open} only, not at ${fStop(v.plannedF)}.`,
          cure: `Plan at ${open}, or use a lens with an iris.`,
        };
      case 'no_contacts':
        return {
          message: `The iris is set electronically and ${v.name} carries no contacts: it is stuck at ${open}.`,
          cure: `Plan at ${open}, use an adapter with contacts, or a lens with an aperture ring.`,
        };
      case 'unknown':
        return {
          message: `The iris is set electronically, and whether ${v.name} carries the contacts is not known: without them it is stuck at ${open}.`,
          cure: `Look for contacts on ${v.name} and say so in the kit; until then plan at ${open}.`,
        };
    }
  },
  circle_small: (v: {
    circleMm: number;
    fNumber: number;
    diagonalMm: number;
    /** The stop from which it serves; null where none does. */
    downTo: number | null;
  }): RigSaid => ({
    message: `The circle is ${mm(v.circleMm)} at ${fStop(v.fNumber)} and infinity, the format’s diagonal ${mm(v.diagonalMm)}: corners stay dark.`,
    cure:
      v.downTo !== null
        ? `Stop down to ${fStop(v.downTo)}, focus closer, or crop.`
        : 'Focus closer, crop, or use a smaller format or a lens with a larger circle.',
  }),
  no_movement: (v: { fNumber: number; riseMm: number; shiftMm: number }): RigSaid => ({
    message: `The circle just holds the format at ${fStop(v.fNumber)}: ${mm(v.riseMm)} of rise and ${mm(v.shiftMm)} of shift are left.`,
    cure: 'Stop down, use a smaller format, or a lens with a larger circle.',
  }),
  converter_clips: (v: { name: string; leftMm: number; wholeMm: number }): RigSaid => ({
    message: capital(
      `${v.name} lets a circle of ${mm(v.leftMm)} pass where the lens would give ${mm(v.wholeMm)}.`,
    ),
    cure: 'Reckon with the smaller circle, or use a converter with wider glass.',
  }),
  ring_cuts: (v: {
    /** From which shift or rise; null: without any. */
    from: readonly { readonly movement: 'shift' | 'rise'; readonly cutMm: number | null }[];
    clearMm: number;
  }): RigSaid => ({
    message: `The filter ring cuts into the corners ${
      v.from.some(({ cutMm }) => cutMm === null)
        ? 'even unshifted'
        : v.from.map(({ movement, cutMm }) => `from ${mm(cutMm!)} of ${movement}`).join(', ')
    }.`,
    cure: `Use a filter with at least ${mm(v.clearMm, 0)} clear on a step-up ring, or take it off.`,
  }),
  throat_shades: (v: {
    name: string;
    throatMm: number;
    neededMm: number;
    /** It would not, with nothing shifted. */
    byShift: boolean;
    /** It would not, stopped down. */
    byStop: boolean;
  }): RigSaid => {
    const needed = mm(atLeast(v.neededMm, 1));
    const cures = [
      ...(v.byShift ? ['shift less'] : []),
      ...(v.byStop ? ['stop down'] : []),
      `use a part with a throat of at least ${needed}`,
      'crop',
    ];
    const words = `${cures.slice(0, -1).join(', ')} or ${cures.at(-1)!}`;
    return {
      message: `The throat of ${v.name}, ${mm(v.throatMm)}, shades the corners${v.byShift ? ' at these movements' : ', even with nothing shifted'}: ${needed} would let the whole stop through.`,
      cure: `${capital(words)}; look at the corners in a trial frame.`,
    };
  },
  axes_locked: ({ lock }: { lock: 'in_line' | 'crossed' }): RigSaid => ({
    message:
      lock === 'in_line'
        ? 'Shift and tilt of this lens are locked in line: it tilts only along the way it shifts.'
        : 'Shift and tilt of this lens are locked crossed: it tilts only across the way it shifts.',
    cure: `Set the shift ${lock === 'in_line' ? 'along' : 'across'} the tilt, or have the lens’s plate turned by a workshop.`,
  }),
  front_heavy: (v: {
    frontG: number;
    momentNm: number;
    bodyG: number;
    foot: boolean;
  }): RigSaid => ({
    message: `What hangs before the body weighs ${fixed(v.frontG / 1000, 1)} kg and pulls with ${fixed(v.momentNm, 1)} N m; the body weighs ${fixed(v.bodyG / 1000, 1)} kg.`,
    cure: v.foot
      ? 'Put the tripod on the foot of the lens, not on the body.'
      : 'Carry the front on a rail or bracket; do not hang it from the mount.',
  }),
  open_shutter: ({ name }: { name: string }): RigSaid => ({
    message: `The shutter of ${name} must be open or cocked for mounting and for a live picture.`,
    cure: 'Open or cock it first; close it before the exposure.',
  }),
  modified: ({ name }: { name: string }): RigSaid => ({
    message: `${capital(name)} was altered by its owner: swarf may be left in it, a rear element may strike mirror or shutter, and its warranty is void.`,
    cure: 'Clean it, check the clearance by hand with the camera off, and have it looked at by a workshop.',
  }),
};

/** A part that would cure it, for the kit to be searched by. */
export type Want =
  | { readonly kind: 'adapter'; readonly thicknessMm: number }
  | { readonly kind: 'board'; readonly offsetMm: readonly [number, number] };

export interface RigPlace {
  /** Where: joint 0 lies behind the lens, joint k behind part k of the chain; null: the whole rig. */
  readonly joint: number | null;
  readonly want?: Want;
}

export type RigProblem = Found<typeof RIG_SAYS, RigPlace>;
export type ProblemCode = keyof typeof RIG_SAYS;
