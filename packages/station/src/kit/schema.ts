import * as z from 'zod';
import {
  diameterMm,
  lengthMm,
  list,
  record,
  shown,
  text,
  thicknessMm,
  versionField,
  type Known,
} from '../document/fields.js';
import {
  adapterShape,
  backShape,
  boardShape,
  common,
  faces,
  lensWithMovementShape,
  movementShape,
  multiplierShape,
} from '../document/parts.js';
import { backRules, lensRules } from '../document/rules.js';
import type { Refuse } from '../document/refuse.js';

/** The kit: gear one owns or thinks of buying, each thing on its own. */

export const KIT_FORMAT = 'gangway.kit';
export const KIT_VERSION = 1;

export const KINDS = [
  'lens',
  'back',
  'adapter',
  'multiplier',
  'board',
  'camera',
  'filter',
] as const;
export type Kind = (typeof KINDS)[number];

const name = { name: text().min(1, { error: 'must not be empty; give it a name' }) };

export const cameraShape = {
  /** A bellows camera gives both draws, a rigid one its depth from mount to mount. */
  bellows_min_mm: thicknessMm().optional(),
  bellows_max_mm: lengthMm().optional(),
  thickness_mm: thicknessMm().optional(),
  ...faces,
  ...movementShape,
  ...common,
};

export const filterItemShape = {
  thread_mm: diameterMm(),
  clear_diameter_mm: diameterMm(),
  /** From its seat to its front edge. */
  thickness_mm: thicknessMm(),
  ...common,
};

const items = [
  record({ kind: z.literal('lens'), ...lensWithMovementShape, ...name }),
  record({ kind: z.literal('back'), ...backShape, ...name }),
  record({ kind: z.literal('adapter'), ...adapterShape, ...name }),
  record({ kind: z.literal('multiplier'), ...multiplierShape, ...name }),
  record({ kind: z.literal('board'), ...boardShape, ...name }),
  record({ kind: z.literal('camera'), ...cameraShape, ...name }),
  record({ kind: z.literal('filter'), ...filterItemShape, ...name }),
] as const;

/** What the fields of one item owe each other. */
function itemRules(item: { kind: Kind } & Record<string, unknown>, context: z.RefinementCtx): void {
  const refuse: Refuse = (path, message) => context.addIssue({ code: 'custom', path, message });
  if (item.kind === 'lens') lensRules(item as never, [], refuse);
  if (item.kind === 'back') backRules(item as never, [], refuse);
  if (item.kind === 'camera') {
    const { bellows_min_mm: least, bellows_max_mm: most, thickness_mm: depth } = item;
    if (depth === undefined && most === undefined) {
      refuse(
        ['bellows_max_mm'],
        'is missing; give the bellows’ draw, or thickness_mm of a rigid camera',
      );
    } else if (most !== undefined && least === undefined) {
      refuse(['bellows_min_mm'], 'is missing; give the least draw of the bellows');
    } else if (depth !== undefined && most !== undefined) {
      refuse(['thickness_mm'], 'must be left out when the camera has bellows');
    } else if (Number(most) < Number(least)) {
      refuse(['bellows_max_mm'], `must be at least bellows_min_mm, ${String(least)}`);
    }
  }
}

export const kitItemSchema = z
  .discriminatedUnion('kind', items, {
    error: (issue) =>
      issue.code === 'invalid_union'
        ? `must be one of ${KINDS.map((kind) => `"${kind}"`).join(', ')}`
        : `must be an object, not ${shown(issue.input)}`,
  })
  .superRefine(itemRules);

export type KitItem = Known<z.infer<typeof kitItemSchema>>;
export type KitItemOf<K extends Kind> = Extract<KitItem, { kind: K }>;

/** Most items one kit document holds. */
export const MOST_ITEMS = 50_000;

export const kitSchema = record({
  format: z.literal(KIT_FORMAT, { error: `must be "${KIT_FORMAT}"` }),
  version: versionField(KIT_VERSION),
  items: list(kitItemSchema, MOST_ITEMS),
});

/** The JSON Schema (2020-12) of the kit file. */
export const kitJsonSchema = (): Record<string, unknown> => ({
  ...z.toJSONSchema(kitSchema, { target: 'draft-2020-12', io: 'input' }),
  title: 'Gangway kit, version 1',
});
