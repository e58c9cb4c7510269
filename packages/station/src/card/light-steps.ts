import { fStop, trimmed } from '../words/format.js';
import { isoOf } from '../exposure/verdict.js';
import type { Station } from '../document/station.js';
import type { CardStep, Told } from './step.js';

/** What is metered again on the spot. */

/** What the plan was metered from. */
function meteredSaid(planned: Station): string {
  const { meter, flash } = planned.exposure!;
  const iso = isoOf(planned);
  const fNumber = flash || meter?.time_s !== undefined ? meter?.f_number : undefined;
  const at = [
    fNumber === undefined ? '' : fStop(fNumber),
    iso === null ? '' : `ISO ${trimmed(iso, 1)}`,
  ].filter(Boolean);
  const what = flash ? 'a flash reading' : meter?.spots ? 'spots' : 'a reading';
  return `Planned from ${what}${at.length > 0 ? ` at ${at.join(', ')}` : ''}.`;
}

export function meterSteps({ planned, exposure }: Told): CardStep[] {
  if (!planned.exposure?.meter || !exposure) return [];
  if (planned.exposure.flash && !exposure.flash) return [];
  const { through_lens: lens } = planned.exposure.meter;
  return [
    {
      id: 'meter',
      part: 'meter',
      says: lens
        ? 'Meter now, lens straight and at zero: shifted, the meter reads wrong'
        : 'Meter again, in the light as it is now',
      detail: `${meteredSaid(planned)} If it reads otherwise, the ${planned.exposure.flash ? 'power' : 'time'} changes with it.`,
    },
  ];
}
