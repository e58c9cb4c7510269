import { partTitle } from '../words/names.js';
import type { Rig } from './rig-document.js';

/** A rig begun with nothing in it; while it is called so, it takes the name of its parts. */
export const UNNAMED_RIG = 'New rig';

const plain = (name: string): string => name.replace(/^./, (first) => first.toLowerCase());

/**
 * What a rig is called after its parts: the lens, what lets it move or draw, the camera or back.
 * Plain adapters are left out: nobody names a rig after them.
 */
export function rigNameOf({ lens, chain, back }: Pick<Rig, 'lens' | 'chain' | 'back'>): string {
  if (!lens && !back) return UNNAMED_RIG;
  const bellows = chain.find((part) => part.kind === 'view_camera');
  const moving = chain.find(
    (part) => part !== bellows && 'movement' in part && part.movement !== undefined,
  );
  const multiplier = chain.find((part) => part.kind === 'multiplier');
  const between = [multiplier, moving].filter((part) => part !== undefined);
  const on = bellows ?? back;
  return [
    lens?.name ?? (lens ? `${lens.focal_length_mm} mm` : 'No lens yet'),
    ...(between.length > 0
      ? [`with ${between.map((part) => plain(partTitle(part))).join(' and ')}`]
      : []),
    ...(on
      ? [
          `on ${on === bellows ? partTitle(bellows) : (back!.name ?? `${back!.width_mm} × ${back!.height_mm} mm`)}`,
        ]
      : []),
  ].join(' ');
}

/** A changed rig, called after its parts unless its owner named it. */
export const namedAfterParts = <R extends Rig>(before: Rig, next: R): R =>
  next.name === before.name && (before.name === UNNAMED_RIG || before.name === rigNameOf(before))
    ? { ...next, name: rigNameOf(next) }
    : next;
