import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { houseFaults } from '../lib/cruise.mjs';
import { houseRules } from '../lib/house.mjs';

const RULES = houseRules({ 'pkg/src': { ground: [], upper: ['ground'] } });

describe('the order of the house', () => {
  let root: string;
  beforeEach(() => {
    root = mkdtempSync(join(tmpdir(), 'house-'));
  });
  afterEach(() => rmSync(root, { recursive: true }));

  const faultsOf = (files: Record<string, string>): Promise<string[]> => {
    for (const [name, text] of Object.entries(files)) {
      const path = join(root, 'pkg/src', name);
      mkdirSync(dirname(path), { recursive: true });
      writeFileSync(path, text);
    }
    return houseFaults(['pkg'], root, RULES);
  };

  const GROUND = { 'ground/a.ts': 'export interface A { n: number }\nexport const a = 1;\n' };

  it('lets a folder import what is below it', async () => {
    const faults = await faultsOf({
      ...GROUND,
      'upper/b.ts': "import { a } from '../ground/a.js';\nexport const b = a;\n",
      'index.ts': "export * from './upper/b.js';\n",
    });
    expect(faults).toEqual([]);
  });

  it('finds an import that runs upward, of a type too', async () => {
    const faults = await faultsOf({
      'upper/b.ts': 'export interface B { n: number }\n',
      'ground/a.ts': "import type { B } from '../upper/b.js';\nexport const a = (b: B) => b;\n",
    });
    expect(faults).toEqual([
      'pkg/src/ground imports only what is below it: pkg/src/ground/a.ts → pkg/src/upper/b.ts',
    ]);
  });

  it('finds a circle, of types too', async () => {
    const faults = await faultsOf({
      'ground/a.ts': "import type { B } from './b.js';\nexport type A = B;\n",
      'ground/b.ts': "import type { A } from './a.js';\nexport interface B { a: A }\n",
    });
    expect(faults.length).toBeGreaterThan(0);
    expect(faults.every((fault) => fault.startsWith('no circle of files: '))).toBe(true);
  });

  it('asks for every folder to be in the table', async () => {
    const faults = await faultsOf({
      ...GROUND,
      'attic/c.ts': "import { a } from '../ground/a.js';\nexport const c = a;\n",
    });
    expect(faults).toEqual([
      'pkg/src: every folder is in the table: pkg/src/attic/c.ts → pkg/src/ground/a.ts',
    ]);
  });
});
