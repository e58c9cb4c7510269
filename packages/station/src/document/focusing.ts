import {
  closeFocalLengthMm,
  distanceAtMagnificationMm,
  focusingLens,
  type ClosestSetting,
  type FocusingLens,
} from '@gangway/optics';
import { contactsReach } from './contacts.js';
import { lengthsOf, type Lengths } from './lengths.js';
import type { RigParts } from './rig-parts.js';
import type { ChainPart } from './station.js';

/** Which lens is focused on a rig, and by what: the rule on the nearest distance asks it too. */

const breaksWire = (rig: RigParts): boolean => rig.lens.focus_by === 'wire' && !contactsReach(rig);

/** Nothing is told of what stands behind the lens: neither a register nor a part. */
export const standsBare = ({ chain, back }: RigParts): boolean =>
  chain.length === 0 && back.register_mm === undefined;

/** Whether a lens has no focusing of its own. */
const hasNone = ({ lens }: RigParts): boolean =>
  lens.focus_by === 'bellows' || lens.focus_by === 'rail';

/** What the lens's own focusing adds to the rig's. */
export function ownFocusing(rig: RigParts, lengths: Lengths): ClosestSetting | 'none' | 'unknown' {
  const { lens } = rig;
  // A lens told by its figures alone stands on a bed that nobody described.
  if (hasNone(rig) && standsBare(rig)) return 'unknown';
  if (hasNone(rig) || breaksWire(rig)) return 'none';
  if (lens.close_focus) {
    const { distance_mm: distance, magnification } = lens.close_focus;
    const acting = closeFocalLengthMm(distance, magnification);
    const f = lens.focal_length_mm;
    // More than the engraved focal length is no longer lens: it is the gap between its two
    // principal points, as in a retrofocus design.
    return acting <= f
      ? { focalLengthMm: acting, magnification, gapMm: 0 }
      : {
          focalLengthMm: f,
          magnification,
          gapMm: distance - distanceAtMagnificationMm(f, magnification),
        };
  }
  return lengths.bellows ? 'none' : 'unknown';
}

/** Index of the part that carries the movements; −1: the lens does, or nothing says. */
export const movementCarrier = (chain: readonly ChainPart[]): number =>
  chain.findLastIndex(
    (part) => part.kind === 'view_camera' || (part.kind === 'adapter' && part.movement),
  );

const factorOf = (chain: readonly ChainPart[]): number =>
  chain.reduce((all, part) => (part.kind === 'multiplier' ? all * part.factor : all), 1);

/** Factor of the multipliers before the movements. */
export const combinedOf = (chain: readonly ChainPart[]): number =>
  factorOf(chain.slice(0, movementCarrier(chain) + 1));

/**
 * Whether the rig is focused by a draw behind a multiplier that is combined with the lens. Distance
 * and magnification are then those of the two together.
 */
export function focusesBehind(rig: RigParts): boolean {
  const { chain } = rig;
  const carrier = movementCarrier(chain);
  const draws = chain.findLastIndex(
    (part) =>
      part.kind === 'view_camera' || (part.kind === 'adapter' && (part.extends_mm ?? 0) > 0),
  );
  if (draws < 0 || factorOf(chain.slice(0, Math.min(draws, carrier) + 1)) === 1) return false;
  const bellows = chain[draws]!.kind === 'view_camera';
  return bellows || hasNone(rig) || breaksWire(rig);
}

/** What a hand focuses with: the lens's own ring, the standard on its bed, or a rail under the camera. */
export type FocusControl = 'ring' | 'bed' | 'rail';

/** Backs as wide as this are those of view cameras, mm; common practice, no source. */
const VIEW_CAMERA_BACK_MM = 90;

/** Whether a back is so wide that it stands on a view camera. */
export const isSheet = ({
  width_mm,
  height_mm,
}: Pick<RigParts['back'], 'width_mm' | 'height_mm'>): boolean =>
  Math.max(width_mm, height_mm) >= VIEW_CAMERA_BACK_MM;

/**
 * What a rig is focused with. Nobody said: a lens on bellows by the bed, one before sheet film too,
 * any other by its ring (common practice, no source).
 */
export function focusControl(rig: RigParts): { readonly by: FocusControl; readonly told: boolean } {
  const { lens, chain, back } = rig;
  if (lens.focus_by === 'rail') return { by: 'rail', told: true };
  if (chain.some(({ kind }) => kind === 'view_camera')) return { by: 'bed', told: true };
  if (hasNone(rig) || breaksWire(rig)) return { by: 'bed', told: true };
  if (lens.focus_by !== undefined) return { by: 'ring', told: true };
  return isSheet(back) && standsBare(rig)
    ? { by: 'bed', told: false }
    : { by: 'ring', told: false };
}

/** The lens that is focused, as it focuses on this rig. */
export function focusingLensOf(rig: RigParts): FocusingLens {
  const { lens } = rig;
  const f = lens.focal_length_mm;
  if (focusesBehind(rig)) return focusingLens(f * combinedOf(rig.chain), null);
  // Most lenses give no closest setting; what follows is asked hundreds of times a frame.
  if (!lens.close_focus) return focusingLens(f, null);
  const lengths = lengthsOf(rig);
  // Drawn out on a bellows the lens itself stays as it is.
  const breathes = !lengths.bellows && ownFocusing(rig, lengths) !== 'none';
  return focusingLens(
    f,
    breathes
      ? {
          distanceMm: lens.close_focus.distance_mm,
          magnification: lens.close_focus.magnification,
        }
      : null,
    lengths.bellows ? 0 : lengths.bareExcessMm[0],
  );
}
