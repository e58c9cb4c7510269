import type { Rig } from '@gangway/station';
import { openSlice } from '../records/open.js';

/** The open rig. */
export const { actions: rigActions, reducer: rigReducer } = openSlice<Rig>('rig');
