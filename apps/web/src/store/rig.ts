import type { Rig } from '@gangway/station';
import { openSlice, type OpenDocument, type OpenState } from '../records/open.js';

/** The open rig. */
export const { actions: rigActions, reducer: rigReducer } = openSlice<Rig>('rig');

export function selectOpenRig({ rig }: { readonly rig: OpenState<Rig> }): OpenDocument<Rig> {
  if (rig.kind !== 'open') throw new Error('no rig is open');
  return rig.open;
}
