import { useState } from 'react';
import {
  distance,
  fixed,
  startFacade,
  withFacade,
  without,
  type Facade,
  type Station,
} from '@gangway/station';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { useStation } from '../fields/fields.js';
import { MeasureDialog } from './measure-dialog.js';
import { MetreField } from '../fields/metre-field.js';
import { Titled, useSiteEdit } from '../fields/site-part.js';

const FACADE: readonly (readonly [keyof Facade, string, boolean])[] = [
  ['distance_m', 'Distance, level', false],
  ['top_m', 'Top above ground', false],
  ['base_m', 'Foot above ground', true],
  ['width_m', 'Width', false],
  ['headroom_m', 'Room wanted above', true],
  ['footroom_m', 'Room wanted below', true],
  ['x_m', 'Middle, right positive', true],
];

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
