import { migrated, parseRig, VERSION, type Rig } from '@gangway/station';
import { kindOf } from './documents/kind.js';

/** Gear put together under a name. */
export const RIGS = kindOf<Rig>({
  what: 'rig',
  table: 'rigs',
  revisions: 'rig_revisions',
  owner: 'rig_id',
  parse: parseRig,
  own: {},
  shown: {},
  isOld: `gangway_is_old(document, ${VERSION})`,
  migrated,
  beside: '$1::uuid is not null',
});
