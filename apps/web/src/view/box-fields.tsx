import { useState } from 'react';
import { distance, parseAngleDeg, startBox, withBox, withSite, type Box } from '@gangway/station';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { FigureField, TextField, useStation } from '../fields/fields.js';
import { MetreField } from '../fields/metre-field.js';
import { Titled, useSiteEdit } from '../fields/site-part.js';

const BOX: readonly (readonly [keyof Box, string])[] = [
  ['x_m', 'Middle, right positive'],
  ['z_m', 'Middle, ahead'],
  ['width_m', 'Width'],
  ['depth_m', 'Depth'],
  ['height_m', 'Height'],
];

export function BoxFields() {
  const units = useAppSelector((state) => state.preferences.units);
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
                {distance(box.width_m, units)} × {distance(box.height_m, units)},{' '}
                {distance(box.z_m, units)} ahead
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
