import * as z from 'zod';
import { record } from './fields.js';
import { settingsRules, stationRules } from './rules.js';
import { settingsShape, stationShape, variantsField } from './station.js';

/** The open document, version 1. Unknown fields are kept everywhere. */
export const stationSchema = stationShape
  .extend({ variants: variantsField(record(settingsShape).superRefine(settingsRules)).optional() })
  .superRefine(stationRules);

/** The JSON Schema (2020-12) of the station file, made from the same definitions. */
export function stationJsonSchema(): Record<string, unknown> {
  return {
    ...z.toJSONSchema(stationSchema, { target: 'draft-2020-12', io: 'input' }),
    title: 'Gangway station, version 1',
  };
}
