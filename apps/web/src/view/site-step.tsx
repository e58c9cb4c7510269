import { ElevationView } from './elevation-view.js';
import { PlanView } from './plan-view.js';
import { SiteFields } from './site-fields.js';
import { SiteFinder } from './site-finder.js';
import { StationPart } from '../station/station-part.js';
import { useStation } from '../fields/fields.js';

/** Where the camera stands and what is in front of it. */
export function SiteStep() {
  const { facade, site, marks } = useStation();
  const empty =
    !facade && !site?.room && !site?.boxes?.length && !site?.levels?.length && !marks?.length;
  return (
    <>
      <div className="flex min-h-0 flex-1 flex-col bg-stage lg:flex-row">
        <div className="flex min-h-0 flex-[5] flex-col">
          <StationPart name="The plan">
            <PlanView />
          </StationPart>
          <div className="border-t border-rule" />
          <StationPart name="The elevation">
            <ElevationView />
          </StationPart>
        </div>
        <div className="flex min-h-0 flex-[4] flex-col border-rule max-lg:border-t lg:border-l">
          <StationPart name="The finder">
            <SiteFinder />
          </StationPart>
          {empty && (
            <p className="px-4 pb-3 text-quiet">
              Nothing stands in front yet. Add a façade, a room or a box at the right: the finder
              shows it as this rig sees it.
            </p>
          )}
        </div>
      </div>
      <aside
        aria-label="Site"
        className="w-full shrink-0 overflow-y-auto border-l border-rule bg-paper px-5 py-3 lg:w-[332px]"
      >
        <StationPart name="This part">
          <SiteFields />
        </StationPart>
      </aside>
    </>
  );
}
