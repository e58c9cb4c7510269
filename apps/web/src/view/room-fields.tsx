import { endWallAsFacade, startRoom, withoutRoom, withSite } from '@gangway/station';
import { Button } from '../ui/button.js';
import { FigureField, parseNumber, useStation } from '../fields/fields.js';
import { Rows, type Row } from '../fields/rows.js';
import { Titled, useSiteEdit } from '../fields/site-part.js';

const ROOM: readonly Row[] = [
  { at: '/site/room/length_m', label: 'Length', as: 'metre' },
  { at: '/site/room/width_m', label: 'Width', as: 'metre' },
  { at: '/site/room/ceiling_m', label: 'Ceiling height', as: 'metre' },
  { at: '/site/room/behind_m', label: 'Camera from the wall behind', as: 'metre' },
  { at: '/site/room/left_m', label: 'Camera from the left wall', as: 'metre' },
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
      <Rows rows={ROOM} />
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
