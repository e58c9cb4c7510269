import { CONTROL_IDS, CONTROLS } from '@gangway/station';
import { Dialog } from '../ui/dialog.js';
import { STEPS } from '../places.js';

const GROUPS: readonly { title: string; rows: readonly [string, string][] }[] = [
  {
    title: 'Steps',
    rows: STEPS.map(({ key, label }): [string, string] => [key, label]),
  },
  {
    title: 'Pick a scale',
    rows: CONTROL_IDS.map((id): [string, string] => [CONTROLS[id].key, CONTROLS[id].label]),
  },
  {
    title: 'Move the picked scale',
    rows: [
      ['Arrows', 'one detent'],
      ['Shift arrows', 'ten detents'],
      ['Alt arrows', 'a tenth of a detent'],
      ['0', 'to zero; distance to infinity, aperture wide open'],
      ['M', 'to the last allowed value'],
    ],
  },
  {
    title: 'Everywhere',
    rows: [
      ['F', 'turn the picture as on a ground glass'],
      ['N, P', 'next frame and the one before, in Mosaic'],
      ['Ctrl Z', 'undo'],
      ['Ctrl Shift Z', 'redo'],
      ['Ctrl K', 'all commands'],
      ['?', 'this sheet'],
    ],
  },
];

export default function KeySheet({ onClose }: { onClose: () => void }) {
  return (
    <Dialog open onClose={onClose} title="Keys">
      <div className="grid gap-x-8 gap-y-5 sm:grid-cols-2">
        {GROUPS.map(({ title, rows }) => (
          <section key={title}>
            <h3 className="mb-1 text-quiet">{title}</h3>
            <dl>
              {rows.map(([key, meaning]) => (
                <div key={key} className="flex gap-3 border-t border-rule py-1">
                  <dt className="figure w-24 shrink-0">{key}</dt>
                  <dd>{meaning}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
    </Dialog>
  );
}
