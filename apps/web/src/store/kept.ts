/** Loaded with the first station that is opened: lists need none of the physics it brings. */
export { keptStation } from '@gangway/station';
