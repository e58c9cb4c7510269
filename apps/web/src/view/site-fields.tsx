import { withSite } from '@gangway/station';
import { Button } from '../ui/button.js';
import { BoxFields } from './box-fields.js';
import { MarkList } from '../station/mark-list.js';
import { CameraFields } from './camera-fields.js';
import { FacadeFields } from './facade-fields.js';
import { useStation } from '../fields/fields.js';
import { MetreField } from '../fields/metre-field.js';
import { RoomFields } from './room-fields.js';
import { Titled, useSiteEdit } from '../fields/site-part.js';

export function SiteFields() {
  return (
    <div className="space-y-6">
      <CameraFields />
      <FacadeFields />
      <RoomFields />
      <BoxFields />
      <LevelFields />
      <MarkList />
    </div>
  );
}

function LevelFields() {
  const { site, camera } = useStation();
  const edit = useSiteEdit();
  const levels = site?.levels ?? [];
  return (
    <Titled
      title="Level lines"
      action={
        <Button
          aria-label="Add a level line"
          onClick={() =>
            edit('Add a level line', '/site/levels', (now) =>
              withSite(now, {
                levels: [...(now.site?.levels ?? []), { height_m: camera.height_m }],
              }),
            )
          }
        >
          Add
        </Button>
      }
    >
      {levels.map((level, i) => (
        <div key={i} className="flex items-start gap-2">
          <div className="flex-1">
            <MetreField
              label={`Height of line ${i + 1}`}
              pointer={`/site/levels/${i}/height_m`}
              value={level.height_m}
              write={(now, height_m) =>
                withSite(now, {
                  levels: now.site!.levels!.map((each, j) =>
                    i === j ? { ...each, height_m } : each,
                  ),
                })
              }
            />
          </div>
          <Button
            look="quiet"
            className="px-1"
            aria-label={`Remove level line ${i + 1}`}
            onClick={() =>
              edit('Remove a level line', '/site/levels', (now) =>
                withSite(now, { levels: now.site!.levels!.filter((_, j) => j !== i) }),
              )
            }
          >
            ×
          </Button>
        </div>
      ))}
    </Titled>
  );
}
