import { cruise } from 'dependency-cruiser';
import { houseRules } from './house.mjs';

/**
 * Where files import against the table of the house, or in a circle; types count.
 * @param folders to look through, from `baseDir`
 * @returns {Promise<string[]>} one sentence each; empty when all is in order
 */
export async function houseFaults(folders, baseDir, rules = houseRules()) {
  const { output } = await cruise(folders, {
    baseDir,
    ruleSet: { forbidden: rules },
    validate: true,
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|node_modules)/' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types'] },
  });
  return output.summary.violations.map(({ from, to, rule, cycle }) =>
    cycle
      ? `${rule.name}: ${[from, ...cycle.map(({ name }) => name)].join(' → ')}`
      : `${rule.name}: ${from} → ${to}`,
  );
}
