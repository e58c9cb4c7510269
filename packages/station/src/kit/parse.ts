import { checked, type Result } from '../document/parse.js';
import { shown, versionFault } from '../document/fields.js';
import { KIT_FORMAT, KIT_VERSION, kitItemSchema, type KitItem } from './schema.js';

/** Largest kit file read, in bytes: twenty thousand lenses with their circles. */
export const LARGEST_KIT_BYTES = 20_000_000;

/** Reads one item of kit. Unknown fields are kept. */
export const parseKitItem = (document: unknown): Result<KitItem> =>
  checked<KitItem>(kitItemSchema, document);

/** A kit file: each item read on its own, so that one bad item does not cost the others. */
export function readKitText(text: string): Result<Result<KitItem>[]> {
  const fail = (pointer: string, message: string): Result<never> => ({
    ok: false,
    problems: [{ pointer, message }],
  });
  if (text.trim() === '') return fail('', 'the file is empty; a kit file is a JSON object');
  let document: unknown;
  try {
    document = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    return fail('', 'is not JSON; a kit file is one JSON object in UTF-8');
  }
  const { format, version, items } = (document ?? {}) as Record<string, unknown>;
  if (format !== KIT_FORMAT) {
    return fail('/format', `must be "${KIT_FORMAT}" for a kit, not ${shown(format)}`);
  }
  if (version !== KIT_VERSION) {
    return fail('/version', versionFault(version, KIT_VERSION));
  }
  if (!Array.isArray(items)) return fail('/items', `must be a list, not ${shown(items)}`);
  return { ok: true, value: items.map(parseKitItem) };
}

/** A kit as a file. */
export const kitText = (items: readonly KitItem[]): string =>
  `${JSON.stringify({ format: KIT_FORMAT, version: KIT_VERSION, items }, null, 2)}\n`;
