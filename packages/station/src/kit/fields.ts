import type { Kind } from './schema.js';

/** How a field of kit is written by hand. */
export type Input =
  | 'text'
  | 'notes'
  | 'length'
  | 'offset'
  | 'angle'
  | 'fstop'
  | 'number'
  | 'ratio'
  | 'mass'
  | 'pixels'
  | 'choice'
  | 'yesno'
  | 'range_mm'
  | 'range_deg'
  | 'angles'
  | 'circle'
  | 'reduced'
  | 'frame_stops'
  | 'light'
  | 'reciprocity'
  | 'developments';

export interface FieldDef {
  /** Where it lies in the item: names of the station file, joined by dots. */
  readonly path: string;
  readonly label: string;
  readonly input: Input;
  readonly needed?: true;
  readonly options?: readonly (readonly [string, string])[];
  readonly help?: string;
}

export interface FieldGroup {
  readonly title: string;
  readonly fields: readonly FieldDef[];
  /** Open from the start; others open when wanted, or when they hold something. */
  readonly open?: true;
}

const field = (
  path: string,
  label: string,
  input: Input,
  more: Omit<FieldDef, 'path' | 'label' | 'input'> = {},
): FieldDef => ({ path, label, input, ...more });

const NAME = field('name', 'Name', 'text', { needed: true });

const HANDLING: FieldGroup = {
  title: 'Weight and notes',
  fields: [
    field('mass_g', 'Mass', 'mass'),
    field('modified', 'Altered by its owner', 'yesno'),
    field('notes', 'Notes', 'notes'),
  ],
};

const NOTES: FieldGroup = {
  title: 'Notes',
  fields: [field('notes', 'Notes', 'notes')],
};

const MOUNT_HELP = 'Any name, as long as what fits together carries the same one.';

const FACES: FieldGroup = {
  title: 'Mounts and contacts',
  open: true,
  fields: [
    field('front_mount', 'Mount towards the lens', 'text', { help: MOUNT_HELP }),
    field('rear_mount', 'Mount towards the back', 'text'),
    field('throat_mm', 'Clear throat', 'length'),
    field('contacts', 'Carries the contacts through', 'yesno'),
  ],
};

const MOVEMENT: FieldGroup = {
  title: 'Movements as built',
  fields: [
    field('movement.rise_mm', 'Rise and fall', 'range_mm', {
      help: '12 is ±12; or −8 to 12. Of the front, unless only the back moves.',
    }),
    field('movement.shift_mm', 'Shift', 'range_mm'),
    field('movement.tilt_deg', 'Tilt', 'range_deg'),
    field('movement.swing_deg', 'Swing', 'range_deg'),
    field('movement.radial_shift_mm', 'Length of the shift when it turns', 'length'),
    field('movement.rear_tilt_deg', 'Tilt of the back, by itself', 'range_deg'),
    field('movement.rear_swing_deg', 'Swing of the back, by itself', 'range_deg'),
    field('movement.rear_rise_mm', 'Rise of the back, by itself', 'range_mm'),
    field('movement.rear_shift_mm', 'Shift of the back, by itself', 'range_mm'),
    field('movement.rear_pivot_mm', 'Tilt axis of the back below its middle', 'length'),
    field('movement.radial_tilt_deg', 'Length of the tilt when it turns', 'angle'),
    field('movement.turn_stops_deg', 'Stops of its turning', 'angles', {
      help: 'Degrees, apart by commas: 0, 30, 60, 90; or every 30.',
    }),
    field('movement.one_way_tilt', 'Tilts one way only', 'yesno'),
    field('movement.shift_tilt', 'Shift and tilt', 'choice', {
      options: [
        ['in_line', 'locked in line'],
        ['crossed', 'locked crossed'],
        ['free', 'turn apart'],
      ],
    }),
    field('movement.reduced', 'Less shift at some stops', 'reduced', {
      help: 'From stop to stop: length. f/3.5 to f/5.6: 8',
    }),
    field('movement.pivot_mm', 'Tilt axis behind the lens centre', 'offset'),
    field('movement.detent_mm', 'Detents of the shift', 'length'),
    field('movement.frame_stops', 'Stops for several frames', 'frame_stops', {
      help: 'Columns and rows with their pitch: 4 × 2, 12 × 16 mm; places: −8 0; 0 0; 8 0; or turns: 4 turns, 4.5 10.5.',
    }),
    field('movement.detent_deg', 'Detents of the tilt', 'angle'),
    field('movement.moves', 'What moves', 'choice', {
      options: [
        ['front', 'the lens'],
        ['rear', 'the back'],
      ],
    }),
  ],
};

/** Every field of every kind, in the order and groups they are asked for. */
export const KIT_FIELDS: Record<Kind, readonly FieldGroup[]> = {
  lens: [
    {
      title: 'Lens',
      open: true,
      fields: [
        NAME,
        field('focal_length_mm', 'Focal length', 'length', { needed: true }),
        field('f_min', 'Widest stop', 'fstop', { needed: true }),
        field('f_max', 'Smallest stop', 'fstop', { needed: true }),
      ],
    },
    {
      title: 'Image circle by stop, at infinity',
      open: true,
      fields: [field('circle', 'Circle', 'circle', { needed: true })],
    },
    {
      title: 'Mount, iris and focus',
      fields: [
        field('mount', 'Mount', 'text', { help: MOUNT_HELP }),
        field('register_mm', 'Register', 'length'),
        field('flange_focal_mm', 'Flange focal distance', 'offset', {
          help: 'For the bellows; differs from the focal length in telephoto designs.',
        }),
        field('iris', 'Iris', 'choice', {
          options: [
            ['mechanical', 'set on the lens'],
            ['electronic', 'set by the body'],
            ['none', 'none'],
          ],
        }),
        field('focus_by', 'Focus', 'choice', {
          options: [
            ['helicoid', 'by its own ring'],
            ['wire', 'by wire'],
            ['bellows', 'on a bed or bellows'],
            ['rail', 'by moving the camera on a rail'],
          ],
        }),
        field('bed_infinity_mm', 'The bed reads at infinity', 'offset', {
          help: 'On its own scale, lens and back straight. Every order then counts from there.',
        }),
        field('close_focus.distance_mm', 'Closest focus, from the sensor', 'length'),
        field('close_focus.magnification', 'Magnification there', 'ratio'),
        field('rear_protrusion_mm', 'Rear reaches behind the flange', 'length'),
        field('rear_diameter_mm', 'Width of the rear barrel', 'length'),
        field('needs_open_shutter', 'Shutter must be open or cocked to mount it', 'yesno'),
      ],
    },
    {
      title: 'Filter, sharpness and pupil',
      fields: [
        field('filter_thread_mm', 'Filter thread', 'length'),
        field('thread_ahead_of_pupil_mm', 'Thread ahead of the entrance pupil', 'length'),
        field('sharp_fraction', 'Sharp part of the circle’s radius', 'number', {
          help: '0.8 is common practice; give what you measured.',
        }),
        field('pupil_ratio', 'Exit pupil / entrance pupil', 'number'),
      ],
    },
    MOVEMENT,
    {
      title: 'Weight and notes',
      fields: [
        field('mass_g', 'Mass', 'mass'),
        field('balance_ahead_mm', 'Balance point ahead of the flange', 'offset'),
        field('has_foot', 'Has a tripod foot', 'yesno'),
        field('modified', 'Altered by its owner', 'yesno'),
        field('notes', 'Notes', 'notes'),
      ],
    },
  ],
  back: [
    {
      title: 'Back',
      open: true,
      fields: [
        NAME,
        field('width_mm', 'Long side', 'length', { needed: true }),
        field('height_mm', 'Short side', 'length', { needed: true }),
        field('width_px', 'Pixels along the long side', 'pixels', {
          help: 'Their number, or their pitch: 3.76 µm.',
        }),
        field('height_px', 'Pixels along the short side', 'pixels'),
        field('medium', 'Medium', 'choice', {
          options: [
            ['digital', 'digital'],
            ['film', 'film'],
          ],
        }),
      ],
    },
    {
      title: 'Mount and contacts',
      fields: [
        field('mount', 'Mount', 'text', { help: MOUNT_HELP }),
        field('register_mm', 'Register', 'length'),
        field('throat_mm', 'Clear throat', 'length'),
        field('clear_depth_mm', 'Free depth behind the flange', 'length', {
          help: 'To the mirror, the shutter or the glass.',
        }),
        field('contacts', 'Has contacts', 'yesno'),
        field('mirror', 'Has a mirror that goes up', 'yesno'),
      ],
    },
    HANDLING,
  ],
  adapter: [
    {
      title: 'Adapter',
      open: true,
      fields: [
        NAME,
        field('thickness_mm', 'Thickness', 'length', { needed: true }),
        field('least_thickness_mm', 'What its mechanism needs', 'length'),
        field('extends_mm', 'Draws out further by', 'length', {
          help: 'For a focusing adapter.',
        }),
      ],
    },
    FACES,
    MOVEMENT,
    HANDLING,
  ],
  multiplier: [
    {
      title: 'Converter or reducer',
      open: true,
      fields: [
        NAME,
        field('factor', 'Factor', 'number', {
          needed: true,
          help: 'Below 1 it reduces, above 1 it extends.',
        }),
        field('circle_limit_mm', 'Circle it lets pass, behind it', 'length'),
        field('length_mm', 'Its length', 'length'),
        field('replaces_mm', 'Thickness of the plain adapter it stands in for', 'length'),
        field('clear_depth_mm', 'Free depth in front of its glass', 'length'),
      ],
    },
    FACES,
    HANDLING,
  ],
  board: [
    {
      title: 'Board',
      open: true,
      fields: [
        NAME,
        field('offset_mm', 'Offset', 'offset', {
          needed: true,
          help: 'Recessed below zero, extended above.',
        }),
      ],
    },
    FACES,
    HANDLING,
  ],
  camera: [
    {
      title: 'Camera',
      open: true,
      fields: [
        NAME,
        field('bellows_min_mm', 'Least draw of the bellows', 'length'),
        field('bellows_max_mm', 'Greatest draw of the bellows', 'length'),
        field('thickness_mm', 'Depth of a rigid camera, mount to mount', 'length', {
          help: 'Instead of the draws.',
        }),
      ],
    },
    FACES,
    { ...MOVEMENT, open: true },
    HANDLING,
  ],
  filter: [
    {
      title: 'Filter',
      open: true,
      fields: [
        NAME,
        field('thread_mm', 'Thread', 'length', { needed: true }),
        field('clear_diameter_mm', 'Clear diameter', 'length', { needed: true }),
        field('thickness_mm', 'From its seat to its front edge', 'length', { needed: true }),
        field('stops', 'Light it takes', 'light', {
          help: 'In stops, 1 1/3, or as a factor of time, 2.5×.',
        }),
        field('centre', 'Denser in the middle, for the corners', 'yesno'),
      ],
    },
    HANDLING,
  ],
  film: [
    {
      title: 'Film',
      open: true,
      fields: [
        NAME,
        field('iso', 'Sensitivity, ISO', 'number'),
        field('range_stops', 'Range it holds', 'light', { help: 'In stops, as you develop it.' }),
        field('reciprocity', 'Long times', 'reciprocity', {
          help: 'An exponent, 1.31 past 1 s; or a table, metered and given: 1 s: 1.5 s; 10 s: 25 s.',
        }),
        field('developments', 'Developments', 'developments', {
          help: 'Name, ISO and the range it then holds: Normal: ISO 100, 7 stops; Pushed: ISO 200, 6 stops, +1.',
        }),
      ],
    },
    NOTES,
  ],
  extra: [
    {
      title: 'Extra',
      open: true,
      fields: [
        NAME,
        field('comes_with', 'Comes along', 'choice', {
          needed: true,
          options: [
            ['every_job', 'on every job'],
            ['film', 'with film'],
            ['digital', 'with a digital back'],
            ['bellows', 'with a bellows camera'],
          ],
        }),
        field('count', 'How many, with spares', 'number'),
      ],
    },
    HANDLING,
  ],
};

export const fieldsOf = (kind: Kind): FieldDef[] =>
  KIT_FIELDS[kind].flatMap((group) => group.fields);

export const KIND_WORDS: Record<Kind, { one: string; many: string }> = {
  lens: { one: 'lens', many: 'Lenses' },
  back: { one: 'back', many: 'Backs' },
  adapter: { one: 'adapter', many: 'Adapters' },
  multiplier: { one: 'converter or reducer', many: 'Converters and reducers' },
  board: { one: 'board', many: 'Boards' },
  camera: { one: 'camera', many: 'Cameras' },
  filter: { one: 'filter', many: 'Filters' },
  film: { one: 'film', many: 'Films' },
  extra: { one: 'extra', many: 'Extras' },
};

/** Mounts that are open standards, offered by name. */
export const OPEN_MOUNTS = [
  { name: 'C-mount', register_mm: 17.526, throat_mm: 25.4, source: 'from memory' },
  { name: 'M42 × 1', register_mm: 45.46, throat_mm: 42, source: 'from memory' },
  { name: 'T2 (M42 × 0.75)', register_mm: 55, throat_mm: 42, source: 'from memory' },
] as const;
