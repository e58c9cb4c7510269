import { VERSION } from './station.js';

type Document = Record<string, unknown>;

/** One step each: the document of version N to version N + 1. */
const STEPS: Readonly<Record<number, (document: Document) => Document>> = {};

/** Brings a document step by step to the present version; null when there is no way. */
export function migrate(
  document: Document,
  steps: Readonly<Record<number, (document: Document) => Document>> = STEPS,
  target: number = VERSION,
): Document | null {
  let current = document;
  for (;;) {
    const { version } = current;
    if (version === target) return current;
    if (typeof version !== 'number' || version > target) return null;
    const step = Object.hasOwn(steps, version) ? steps[version] : undefined;
    if (!step) return null;
    current = { ...step(current), version: version + 1 };
  }
}

const isObject = (value: unknown): value is Document =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * A part that was copied from the kit once said so in two fields of its own, `kit_id` and
 * `kit_revision`; they are one now, `origin`. One without the other told nothing and is dropped.
 */
function withOrigin(part: unknown): unknown {
  if (!isObject(part)) return part;
  const { kit_id, kit_revision, ...rest } = part;
  const lifted =
    kit_id === undefined && kit_revision === undefined
      ? part
      : kit_id === undefined || kit_revision === undefined || rest.origin !== undefined
        ? rest
        : { ...rest, origin: { kit_id, kit_revision } };
  const { filter } = lifted;
  const own = withOrigin(filter);
  return own === filter ? lifted : { ...lifted, filter: own };
}

/** {@link withOrigin} for every part of a rig or a station; the same object where nothing is old. */
export function withOrigins(document: Document): Document {
  const next = { ...document };
  for (const key of ['lens', 'back'] as const) next[key] = withOrigin(document[key]);
  const { chain, variants } = document;
  if (Array.isArray(chain)) next.chain = alike(chain, chain.map(withOrigin));
  if (isObject(variants) && Array.isArray(variants.kept)) {
    const kept = variants.kept.map((each: unknown) => {
      if (!isObject(each) || !isObject(each.settings)) return each;
      const settings = withOrigins(each.settings);
      return settings === each.settings ? each : { ...each, settings };
    });
    if (alike(variants.kept, kept) !== variants.kept) next.variants = { ...variants, kept };
  }
  const changed = Object.keys(document).some((key) => next[key] !== document[key]);
  return changed ? next : document;
}

/** The list as it was when every entry of the new one is the very same. */
const alike = (before: unknown[], after: unknown[]): unknown[] =>
  after.every((each, i) => each === before[i]) ? before : after;

/** What is kept of a rig or a station in its present form; as it is when that cannot be told. */
export function migrated(document: unknown): unknown {
  if (!isObject(document)) return document;
  return withOrigins(migrate(document) ?? document);
}
