import { endWallAsFacade, startRoom, withoutRoom, withSite, type Room } from '@gangway/station';
import { Button } from '../ui/button.js';
import { FigureField, parseNumber, useStation } from '../fields/fields.js';
import { MetreField } from '../fields/metre-field.js';
import { Titled, useSiteEdit } from '../fields/site-part.js';

const ROOM: readonly (readonly [keyof Room, string])[] = [
  ['length_m', 'Length'],
  ['width_m', 'Width'],
  ['ceiling_m', 'Ceiling height'],
  ['behind_m', 'Camera from the wall behind'],
  ['left_m', 'Camera from the left wall'],
];

export function RoomFields() {
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
