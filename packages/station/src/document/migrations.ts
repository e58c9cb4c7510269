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
