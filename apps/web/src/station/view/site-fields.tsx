import { withSite, type Station } from '@gangway/station';
import { Button } from '../../ui/button.js';
import { BoxFields } from './box-fields.js';
import { CameraFields } from './camera-fields.js';
import { FacadeFields } from './facade-fields.js';
import { ChoiceField, TextField, useStation } from './fields.js';
import { MetreField } from './metre-field.js';
import { RoomFields } from './room-fields.js';
import { Titled, useSiteEdit } from './site-part.js';

export function SiteFields() {
  return (
    <div className="space-y-6">
      <CameraFields />
      <FacadeFields />
      <RoomFields />
      <BoxFields />
      <LevelFields />
      <MarkFields />
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

const MARK = [
  ['x_m', 'Right of the axis'],
  ['y_m', 'Above ground'],
  ['z_m', 'Ahead'],
] as const;

function MarkFields() {
  const { marks = [], focus, camera } = useStation();
  const edit = useSiteEdit();
  const ahead = 'distance_m' in focus && focus.distance_m !== null ? focus.distance_m : 5;
  const set = (now: Station, i: number, change: object): Station => ({
    ...now,
    marks: now.marks!.map((mark, j) => (i === j ? { ...mark, ...change } : mark)),
  });
  return (
    <Titled
      title="Marks"
      action={
        <Button
          aria-label="Add a mark"
          onClick={() =>
            edit('Add a mark', '/marks', (now) => ({
              ...now,
              marks: [
                ...(now.marks ?? []),
                {
                  label: `Mark ${(now.marks ?? []).length + 1}`,
                  x_m: 0,
                  y_m: camera.height_m,
                  z_m: ahead,
                  must: 'sharp' as const,
                },
              ],
            }))
          }
        >
          Add
        </Button>
      }
    >
      {marks.map((mark, i) => (
        <details key={i} className="border-t border-rule">
          <summary className="min-h-8 cursor-pointer py-1 font-medium pointer-coarse:min-h-11">
            {mark.label || `Mark ${i + 1}`}
          </summary>
          <div className="space-y-1.5 pb-2">
            <TextField
              label="Name"
              pointer={`/marks/${i}/label`}
              value={mark.label}
              write={(now, label) => set(now, i, { label })}
            />
            {MARK.map(([field, label]) => (
              <MetreField
                key={field}
                label={label}
                pointer={`/marks/${i}/${field}`}
                value={mark[field]}
                write={(now, value) => set(now, i, { [field]: value })}
              />
            ))}
            <ChoiceField
              label="Must be"
              pointer={`/marks/${i}/must`}
              value={mark.must}
              options={[
                ['sharp', 'sharp'],
                ['soft', 'soft'],
              ]}
              write={(now, must) => set(now, i, { must })}
            />
            <div className="flex justify-end">
              <Button
                look="quiet"
                aria-label={`Remove ${mark.label}`}
                onClick={() =>
                  edit('Remove a mark', '/marks', (now) => ({
                    ...now,
                    marks: now.marks!.filter((_, j) => j !== i),
                  }))
                }
              >
                Remove
              </Button>
            </div>
          </div>
        </details>
      ))}
    </Titled>
  );
}
