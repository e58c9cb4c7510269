import { readFileSync } from 'node:fs';
import {
  backFrom,
  chainPartFrom,
  goesInChain,
  lensFrom,
  newRig,
  parseKitItem,
  rigProblems,
  rigProblemSaid,
  rigStation,
  type Back,
  type ChainPart,
  type KitItem,
  type Lens,
  type RigProblem,
  type RigSaid,
  type Stored,
  type WholeRig,
} from '../../src/index.js';

/** The demo's kit, so that what ships is what is tested. */
export const KIT: readonly Stored[] = (
  JSON.parse(
    readFileSync(new URL('../../../../apps/server/demo-kit/kit.json', import.meta.url), 'utf8'),
  ) as { items: unknown[] }
).items.map((item, i) => {
  const read = parseKitItem(item);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return { id: `item-${i}`, revision: 1, document: read.value };
});

export function item(name: string): Stored {
  const found = KIT.find(({ document }) => document.name === name);
  if (!found) throw new Error(`no ${name}`);
  return found;
}

export function rigOf(lens: string, chain: readonly string[], back: string): WholeRig {
  return {
    ...newRig(lens),
    lens: lensFrom(item(lens) as never),
    chain: chain.map((name) => {
      const stored = item(name);
      const { document }: { document: KitItem } = stored;
      if (!goesInChain(document)) throw new Error(`${name} is no part of a chain`);
      return chainPartFrom({ ...stored, document });
    }),
    back: backFrom(item(back) as never),
  };
}

/** A plain lens and back that are well together; changes make the case. */
export const plain = (
  lens: Partial<Lens> = {},
  chain: ChainPart[] = [],
  back: Partial<Back> = {},
): WholeRig => ({
  ...newRig('plain'),
  lens: {
    name: 'Normal 50',
    focal_length_mm: 50,
    f_min: 2,
    f_max: 16,
    circle: [{ f_number: 2, diameter_mm: 60 }],
    register_mm: 44,
    ...lens,
  },
  chain,
  back: { width_mm: 36, height_mm: 24, orientation: 'landscape', register_mm: 44, ...back },
});

/** Problems with their words. */
export type SaidProblem = RigProblem & RigSaid;

export const problemsOf = (rig: WholeRig): SaidProblem[] =>
  rigProblems(rigStation(rig)).map((problem) => ({ ...problem, ...rigProblemSaid(problem) }));

export const codes = (rig: WholeRig): string[] => problemsOf(rig).map(({ code }) => code);
