import { BedPage as Bed } from './bed-page.js';
import { ClosePage as Close } from './close-page.js';
import { FocusStep as Plane } from './focus-step.js';
import { whileMounted } from '../station/in-hand.js';
import { SoftPage as Soft } from './soft-page.js';
import { StackPage as Stack } from './stack-page.js';
import { StopPage as Stop } from './stop-page.js';

export { HeldOffPage } from './held-off-page.js';

export const BedPage = whileMounted(Bed);
export const ClosePage = whileMounted(Close);
export const FocusStep = whileMounted(Plane);
export const SoftPage = whileMounted(Soft);
export const StackPage = whileMounted(Stack);
export const StopPage = whileMounted(Stop);
