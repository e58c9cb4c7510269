import * as z from 'zod';
import {
  count,
  diameterMm,
  kindFault,
  lengthMm,
  list,
  oneOf,
  record,
  text,
  thicknessMm,
  versionField,
  yesOrNo,
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
import { filmShape, filterStops } from '../document/exposure.js';
import { backRules, bellowsRules, filmRules, lensRules, movementRules } from '../document/rules.js';
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
  'film',
  'extra',
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
  /** Light it takes. */
  stops: filterStops().optional(),
  /** Denser in the middle, against falloff. */
  centre: yesOrNo().optional(),
  ...common,
};

export const COMES_WITH = ['every_job', 'film', 'digital', 'bellows'] as const;

/** What comes along beside lenses and cameras: batteries, a release, a dark cloth. */
export const extraShape = {
  comes_with: oneOf(COMES_WITH),
  /** How many there are, spares with them. */
  count: count().optional(),
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
  record({ kind: z.literal('film'), ...filmShape, ...common, ...name }),
  record({ kind: z.literal('extra'), ...extraShape, ...name }),
] as const;

const itemUnion = z.discriminatedUnion('kind', items, { error: kindFault('kind', KINDS) });

export type KitItem = Known<z.infer<typeof itemUnion>>;
export type KitItemOf<K extends Kind> = Extract<KitItem, { kind: K }>;

/** What the fields of one item owe each other. */
function itemRules(item: KitItem, context: z.RefinementCtx): void {
  const refuse: Refuse = (path, message) => context.addIssue({ code: 'custom', path, message });
  if (item.kind === 'lens') lensRules(item, [], refuse);
  else if ('movement' in item) movementRules(item.movement, ['movement'], refuse);
  if (item.kind === 'back') backRules(item, [], refuse);
  if (item.kind === 'camera') cameraRules(item, refuse);
  if (item.kind === 'film') filmRules(item, [], refuse);
}

/** A camera has a bellows with both its draws, or a depth from mount to mount. */
function cameraRules(item: KitItemOf<'camera'>, refuse: Refuse): void {
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
  } else if (least !== undefined && most !== undefined) {
    bellowsRules({ bellows_min_mm: least, bellows_max_mm: most }, [], refuse);
  }
}

export const kitItemSchema = itemUnion.superRefine(itemRules);

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
