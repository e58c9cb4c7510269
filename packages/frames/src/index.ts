export { fromSrgb, luminanceOf, toSrgb, type Samples } from './planes/light.js';
export { cut, quarterTurned, reduced, type Area, type Plane } from './planes/plane.js';
export { reducedWhole, type FrameFile, type LoadedFrame } from './planes/source.js';
export type { Plan, PlannedFrame, PlannedPair, Xy } from './prove/plan.js';
export { inShootingOrder, prove } from './prove/prove.js';
export type { Proof, ProvedFrame, ProvedOverlap, ProvedTile, SetAside } from './prove/result.js';
export { VERDICTS, type Verdict } from './prove/verdict.js';
export { Stopped, type Work } from './work.js';
