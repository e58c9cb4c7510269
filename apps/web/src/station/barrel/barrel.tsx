import { CONTROL_IDS } from '@gangway/station';
import { Hatching } from './hatching.js';
import { ScaleView } from './scale-view.js';

/** Six engraved scales, each showing the stretch that the other settings still allow. */
export function Barrel() {
  return (
    <section
      aria-label="Barrel"
      className="print:hidden grid shrink-0 border-t border-rule-strong bg-paper sm:grid-cols-2 lg:grid-cols-3"
    >
      <Hatching />
      {CONTROL_IDS.map((id) => (
        <ScaleView key={id} id={id} />
      ))}
    </section>
  );
}
