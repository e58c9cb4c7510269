import type { Station } from '../document/station.js';
import { hasSecondStandard } from '../document/standards.js';

export interface MosaicReport {
  /** False where the rig cannot take the frames as they are asked for. */
  possible: boolean;
  problems: { code: 'standard_still'; severity: 'stop'; message: string }[];
}

/** Whether a standard can carry frames from one to the next. */
function standardMoves(station: Station, moves: 'rear' | 'lens'): boolean {
  const { moves: own } = station.movement_limits;
  return moves === 'lens' ? own === 'front' : own === 'rear' || hasSecondStandard(station);
}

/** What stands in the way of a planned mosaic. */
export function reportMosaic(
  station: Station,
  { moves }: NonNullable<Station['mosaic']>,
): MosaicReport {
  if (standardMoves(station, moves)) return { possible: true, problems: [] };
  const [asked, own] = moves === 'rear' ? ['back', 'lens'] : ['lens', 'back'];
  return {
    possible: false,
    problems: [
      {
        code: 'standard_still',
        severity: 'stop',
        message: `The mosaic asks for the ${asked} to move; on this rig only the ${own} does.`,
      },
    ],
  };
}
