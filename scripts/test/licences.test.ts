import { readFileSync } from 'node:fs';
import { licencesOf, licencesText } from '../licences.mjs';
import { at } from '../lib/paths.mjs';

describe('licences', () => {
  it('are listed as the lock has them', () => {
    expect(readFileSync(at('docs/licences.md'), 'utf8')).toBe(licencesText());
  });

  it('that ask for more than their notice are known and named', () => {
    const asking = [...licencesOf().keys()].filter((each) => /GPL|MPL|EPL|CDDL/.test(each));
    for (const each of asking) expect(each).toMatch(/^(?!.*\bA?GPL-)(?=.*LGPL-3\.0|MPL-2\.0)/);
  });
});
