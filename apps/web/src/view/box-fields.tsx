import { useState } from 'react';
import { distance, startBox, withSite, type Box } from '@gangway/station';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { useStation } from '../fields/fields.js';
import { Rows, type Row } from '../fields/rows.js';
import { Titled, useSiteEdit } from '../fields/site-part.js';

const rowsOf = (at: string): Row[] => [
  { at: `${at}/name`, label: 'Name', as: 'text' },
  { at: `${at}/x_m`, label: 'Middle, right positive', as: 'metre' },
  { at: `${at}/z_m`, label: 'Middle, ahead', as: 'metre' },
  { at: `${at}/width_m`, label: 'Width', as: 'metre' },
  { at: `${at}/depth_m`, label: 'Depth', as: 'metre' },
  { at: `${at}/height_m`, label: 'Height', as: 'metre' },
  { at: `${at}/base_m`, label: 'Stands above ground', as: 'metre', usual: 0 },
  { at: `${at}/turn_deg`, label: 'Turned clockwise', as: '°', usual: 0 },
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
  return (
    <div className="space-y-1.5 pb-3">
      <Rows rows={rowsOf(`/site/boxes/${index}`)} />
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
