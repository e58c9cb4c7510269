import { useState, type ReactNode } from 'react';
import {
  endWallAsFacade,
  fixed,
  parseAngleDeg,
  startBox,
  startFacade,
  startRoom,
  withBox,
  withFacade,
  withoutRoom,
  withSite,
  without,
  type Box,
  type Facade,
  type Room,
  type Station,
} from '@gangway/station';
import { useEditing } from '../../store/editing.js';
import { textsDropped } from '../../store/station.js';
import { useAppDispatch } from '../../store/store.js';
import { Button } from '../../ui/button.js';
import { useNotice } from '../../ui/notices.js';
import { CameraFields } from './camera-fields.js';
import { ChoiceField, FigureField, parseNumber, TextField, useStation } from './fields.js';
import { MeasureDialog } from './measure-dialog.js';
import { MetreField } from './metre-field.js';

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

/** Changes that add or take away a thing; what typed text belonged to it goes along. */
function useSiteEdit() {
  const { change } = useEditing();
  const dispatch = useAppDispatch();
  const notice = useNotice();
  return (label: string, pointer: string, write: (now: Station) => Station): void => {
    const refused = change(label, pointer, write);
    if (refused === null) dispatch(textsDropped(pointer));
    else notice([refused]);
  };
}

/** A heading with what may be done to the whole thing. */
function Titled({
  title,
  action,
  children,
}: {
  title: string;
  action: ReactNode;
  children?: ReactNode;
}) {
  return (
    <section>
      <div className="mb-2 flex items-center justify-between gap-3">
        <h2 className="text-[15px] font-semibold">{title}</h2>
        {action}
      </div>
      <div className="space-y-1.5">{children}</div>
    </section>
  );
}

const FACADE: readonly (readonly [keyof Facade, string, boolean])[] = [
  ['distance_m', 'Distance, level', false],
  ['top_m', 'Top above ground', false],
  ['base_m', 'Foot above ground', true],
  ['width_m', 'Width', false],
  ['headroom_m', 'Room wanted above', true],
  ['footroom_m', 'Room wanted below', true],
  ['x_m', 'Middle, right positive', true],
];

function FacadeFields() {
  const { facade } = useStation();
  const edit = useSiteEdit();
  const [measuring, setMeasuring] = useState(false);
  if (!facade) {
    return (
      <Titled
        title="Façade or wall"
        action={
          <Button
            onClick={() =>
              edit('Add a façade', '/facade', (now) => ({ ...now, facade: startFacade(now) }))
            }
          >
            Add
          </Button>
        }
      />
    );
  }
  return (
    <Titled
      title="Façade or wall"
      action={
        <Button
          look="quiet"
          aria-label="Remove the façade"
          onClick={() => edit('Remove the façade', '/facade', (now) => without(now, 'facade'))}
        >
          Remove
        </Button>
      }
    >
      {FACADE.map(([field, label, optional]) => (
        <MetreField
          key={field}
          label={label}
          pointer={`/facade/${field}`}
          value={facade[field] as number | undefined}
          write={(now, value) => withFacade(now, { [field]: value })}
          {...(optional
            ? {
                clear: (now: Station) => {
                  const { [field]: _, ...rest } = now.facade!;
                  return { ...now, facade: rest as Facade };
                },
              }
            : {})}
        />
      ))}
      <div className="flex justify-end pt-1">
        <Button onClick={() => setMeasuring(true)}>Distance from a reading …</Button>
      </div>
      {facade.measured && (
        <p className="text-[13px] text-quiet">
          Read {fixed(facade.measured.reading_m, 2)} m{' '}
          {facade.measured.slope ? 'along the slope' : 'level'}, from the {facade.measured.from}.
        </p>
      )}
      {measuring && <MeasureDialog onClose={() => setMeasuring(false)} />}
    </Titled>
  );
}

const ROOM: readonly (readonly [keyof Room, string])[] = [
  ['length_m', 'Length'],
  ['width_m', 'Width'],
  ['ceiling_m', 'Ceiling height'],
  ['behind_m', 'Camera from the wall behind'],
  ['left_m', 'Camera from the left wall'],
];

function RoomFields() {
  const { site } = useStation();
  const edit = useSiteEdit();
  const room = site?.room;
  if (!room) {
    return (
      <Titled
        title="Room"
        action={
          <Button
            aria-label="Add a room"
            onClick={() =>
              edit('Add a room', '/site/room', (now) => withSite(now, { room: startRoom(now) }))
            }
          >
            Add
          </Button>
        }
      />
    );
  }
  return (
    <Titled
      title="Room"
      action={
        <Button
          look="quiet"
          aria-label="Remove the room"
          onClick={() => edit('Remove the room', '/site/room', withoutRoom)}
        >
          Remove
        </Button>
      }
    >
      {ROOM.map(([field, label]) => (
        <MetreField
          key={field}
          label={label}
          pointer={`/site/room/${field}`}
          value={room[field] as number}
          write={(now, value) => withSite(now, { room: { ...now.site!.room!, [field]: value } })}
        />
      ))}
      {([0, 1] as const).map((i) => (
        <FigureField
          key={i}
          label={i === 0 ? 'Ceiling panels across' : 'Ceiling panels along'}
          pointer={`/site/room/coffers/${i}`}
          value={room.coffers?.[i]}
          parse={parseNumber}
          write={(now, value) => {
            const [across, along] = now.site!.room!.coffers ?? [1, 1];
            const coffers: [number, number] = i === 0 ? [value, along] : [across, value];
            return withSite(now, { room: { ...now.site!.room!, coffers } });
          }}
          clear={(now) => {
            const { coffers: _, ...rest } = now.site!.room!;
            return withSite(now, { room: rest });
          }}
        />
      ))}
      <div className="flex justify-end pt-1">
        <Button onClick={() => edit('Frame the end wall', '/facade', endWallAsFacade)}>
          Frame its end wall
        </Button>
      </div>
    </Titled>
  );
}

const BOX: readonly (readonly [keyof Box, string])[] = [
  ['x_m', 'Middle, right positive'],
  ['z_m', 'Middle, ahead'],
  ['width_m', 'Width'],
  ['depth_m', 'Depth'],
  ['height_m', 'Height'],
];

function BoxFields() {
  const { site } = useStation();
  const edit = useSiteEdit();
  const [open, setOpen] = useState<number | null>(null);
  const boxes = site?.boxes ?? [];
  return (
    <Titled
      title="Things"
      action={
        <Button
          aria-label="Add a box"
          onClick={() => {
            edit('Add a box', '/site/boxes', (now) =>
              withSite(now, { boxes: [...(now.site?.boxes ?? []), startBox(now)] }),
            );
            setOpen(boxes.length);
          }}
        >
          Add
        </Button>
      }
    >
      {boxes.length === 0 && (
        <p className="text-[13px] text-quiet">
          Cupboards, columns, tables, trees: as boxes of their size.
        </p>
      )}
      <ul>
        {boxes.map((box, i) => (
          <li key={i} className="border-t border-rule">
            <button
              type="button"
              aria-expanded={open === i}
              onClick={() => setOpen(open === i ? null : i)}
              className="flex min-h-9 w-full items-center justify-between text-left pointer-coarse:min-h-11"
            >
              <span className="font-medium">{box.name || `Box ${i + 1}`}</span>
              <span className="text-[13px] text-quiet">
                {fixed(box.width_m, 1)} × {fixed(box.height_m, 1)} m, {fixed(box.z_m, 1)} m ahead
              </span>
            </button>
            {open === i && <OneBox box={box} index={i} onGone={() => setOpen(null)} />}
          </li>
        ))}
      </ul>
    </Titled>
  );
}

function OneBox({ box, index, onGone }: { box: Box; index: number; onGone: () => void }) {
  const edit = useSiteEdit();
  const at = `/site/boxes/${index}`;
  return (
    <div className="space-y-1.5 pb-3">
      <TextField
        label="Name"
        pointer={`${at}/name`}
        value={box.name}
        write={(now, name) => withBox(now, index, { name })}
      />
      {BOX.map(([field, label]) => (
        <MetreField
          key={field}
          label={label}
          pointer={`${at}/${field}`}
          value={box[field] as number}
          write={(now, value) => withBox(now, index, { [field]: value })}
        />
      ))}
      <MetreField
        label="Stands above ground"
        pointer={`${at}/base_m`}
        value={box.base_m ?? 0}
        write={(now, base_m) => withBox(now, index, { base_m })}
      />
      <FigureField
        label="Turned clockwise"
        pointer={`${at}/turn_deg`}
        unit="°"
        parse={parseAngleDeg}
        value={box.turn_deg ?? 0}
        write={(now, turn_deg) => withBox(now, index, { turn_deg })}
      />
      <div className="flex justify-end">
        <Button
          look="quiet"
          aria-label={`Remove ${box.name}`}
          onClick={() => {
            edit(`Remove ${box.name}`, '/site/boxes', (now) =>
              withSite(now, { boxes: now.site!.boxes!.filter((_, i) => i !== index) }),
            );
            onGone();
          }}
        >
          Remove
        </Button>
      </div>
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
