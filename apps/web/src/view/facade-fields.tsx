import { useState } from 'react';
import { distance, fixed, startFacade, withFacade, without, type Station } from '@gangway/station';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { useStation } from '../fields/fields.js';
import { MeasureDialog } from './measure-dialog.js';
import { Rows, type Row } from '../fields/rows.js';
import { Titled, useSiteEdit } from '../fields/site-part.js';

/** A distance that is typed is no longer one that was read. */
const typed = (name: string) => (station: Station, value: number) =>
  withFacade(station, { [name]: value });

const FACADE: readonly Row[] = (
  [
    ['distance_m', 'Distance, level', false],
    ['top_m', 'Top above ground', false],
    ['base_m', 'Foot above ground', true],
    ['width_m', 'Width', false],
    ['headroom_m', 'Room wanted above', true],
    ['footroom_m', 'Room wanted below', true],
    ['x_m', 'Middle, right positive', true],
  ] as const
).map(([name, label, clear]) => ({
  at: `/facade/${name}`,
  label,
  as: 'metre',
  write: typed(name),
  ...(clear ? { clear } : {}),
}));

export function FacadeFields() {
  const { facade } = useStation();
  const edit = useSiteEdit();
  const units = useAppSelector((state) => state.preferences.units);
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
      <Rows rows={FACADE} />
      <div className="flex justify-end pt-1">
        <Button onClick={() => setMeasuring(true)}>Distance from a reading …</Button>
      </div>
      {facade.measured && (
        <p className="text-[13px] text-quiet">
          Read{' '}
          {units === 'metric'
            ? `${fixed(facade.measured.reading_m, 2)} m`
            : distance(facade.measured.reading_m, units)}{' '}
          {facade.measured.slope ? 'along the slope' : 'level'}, from the {facade.measured.from}.
        </p>
      )}
      {measuring && <MeasureDialog onClose={() => setMeasuring(false)} />}
    </Titled>
  );
}
