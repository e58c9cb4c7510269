import { houseRules } from './scripts/lib/house.mjs';

/** Who may import whom, types included. The table is in scripts/lib/house.mjs. */
export default {
  forbidden: houseRules(),
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|node_modules)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
    },
  },
};
