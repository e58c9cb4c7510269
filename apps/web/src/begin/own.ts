/** The choice of gear that is in no rig yet. */
export const OWN = 'own';
