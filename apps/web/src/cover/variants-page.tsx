import { useState } from 'react';
import {
  coverVerdict,
  degrees,
  distance,
  fixed,
  fStop,
  presentName,
  readingOf,
  refusedName,
  signed,
  trimmed,
  variantsOf,
  withNewVariant,
  withoutVariant,
  withVariant,
  withVariantNamed,
  type Variant,
} from '@gangway/station';
import { useEditing } from '../store/editing.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { NameDialog } from '../ui/name-dialog.js';
import { useNotice } from '../ui/notices.js';
import { RowMenu } from '../ui/row-menu.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { MiniFinder } from '../drawing/mini-finder.js';

type Asking = { kind: 'new' } | { kind: 'rename'; from: string };

/** Alternatives of this station side by side; one of them is the chosen. */
export function VariantsPage() {
  const station = useAppSelector(selectStation);
  const { change } = useEditing();
  const notice = useNotice();
  const [asking, setAsking] = useState<Asking | null>(null);
  const variants = variantsOf(station);
  const edit = (label: string, write: Parameters<typeof change>[2]): void => {
    const refused = change(label, '/variants', write);
    if (refused !== null) notice([refused]);
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col overflow-y-auto bg-stage">
      <div className="flex flex-wrap items-center justify-between gap-3 px-4 pt-3">
        <p className="text-quiet">
          {variants.length === 1
            ? 'Keep what is set under a name, go on with another, and lay them side by side here.'
            : `${variants.length} variants; you are working on “${presentName(station)}”.`}
        </p>
        <Button look="strong" onClick={() => setAsking({ kind: 'new' })}>
          Keep this, go on with a copy
        </Button>
      </div>
      <ul className="grid flex-1 gap-x-1 [grid-template-columns:repeat(auto-fit,minmax(260px,1fr))]">
        {variants.map((variant) => (
          <li key={variant.name} className="flex min-h-80 border-t border-rule">
            <OneVariant
              variant={variant}
              onChoose={() =>
                edit(`Choose ${variant.name}`, (now) => withVariant(now, variant.name))
              }
              onRename={() => setAsking({ kind: 'rename', from: variant.name })}
              onRemove={() =>
                edit(`Remove ${variant.name}`, (now) => withoutVariant(now, variant.name))
              }
            />
          </li>
        ))}
      </ul>
      {asking && (
        <NameDialog
          open
          title={asking.kind === 'new' ? 'Go on with a copy' : 'Rename the variant'}
          label={asking.kind === 'new' ? 'Name of the new variant' : 'New name'}
          action={asking.kind === 'new' ? 'Go on with it' : 'Rename'}
          initial={asking.kind === 'new' ? `Variant ${variants.length + 1}` : asking.from}
          onClose={() => setAsking(null)}
          onSubmit={(name) => {
            const from = asking.kind === 'rename' ? asking.from : undefined;
            return Promise.resolve(
              refusedName(station, name, from) ??
                change('Name a variant', '/variants', (now) =>
                  from === undefined
                    ? withNewVariant(now, name)
                    : withVariantNamed(now, from, name),
                ),
            );
          }}
        />
      )}
    </div>
  );
}

function OneVariant({
  variant: { name, station, present },
  onChoose,
  onRename,
  onRemove,
}: {
  variant: Variant;
  onChoose: () => void;
  onRename: () => void;
  onRemove: () => void;
}) {
  const report = readingOf(station);
  const units = useAppSelector((state) => state.preferences.units);
  const verdict = coverVerdict(station, report, units);
  const { movements, camera, facade } = station;
  const rows: [string, string][] = [
    ['Lens, stop', `${trimmed(report.optics.focal_length_mm, 1)} mm, ${fStop(station.aperture)}`],
    ['Rise, shift', `${signed(movements.rise_mm, 1)}, ${signed(movements.shift_mm, 1)} mm`],
    ['Pitch, yaw', `${degrees(camera.pitch_deg)}, ${degrees(camera.yaw_deg)}`],
    ['Uprights meet at', degrees(Math.abs(report.perspective.convergence_deg))],
    [
      'Worst corner loses',
      report.coverage.corner_falloff_stops === null
        ? 'all light'
        : `${fixed(report.coverage.corner_falloff_stops, 1)} stops`,
    ],
    ['Camera height', distance(camera.height_m, units)],
    ...(facade ? [['Stands from it', distance(facade.distance_m, units)] as [string, string]] : []),
  ];
  return (
    <MiniFinder
      station={station}
      title={
        <span className="flex items-center justify-between gap-2">
          <span>
            {name}
            {present && <span className="ml-2 font-normal text-quiet">chosen</span>}
          </span>
          <RowMenu
            label={`More for ${name}`}
            itemsOf={() => [
              { label: 'Rename', onSelect: onRename },
              ...(present ? [] : [{ label: 'Remove', onSelect: onRemove }]),
            ]}
          />
        </span>
      }
    >
      <p className={STANDING_TEXT[verdict.standing]}>
        <span className="figure text-[22px]">{verdict.figure}</span> {verdict.words}
      </p>
      <dl>
        {rows.map(([term, figure]) => (
          <div key={term} className="flex justify-between gap-3">
            <dt className="text-quiet">{term}</dt>
            <dd className="figure text-right">{figure}</dd>
          </div>
        ))}
      </dl>
      <Button
        className="mt-2"
        disabled={present}
        onClick={onChoose}
        aria-label={present ? `${name} is chosen` : `Choose ${name}`}
      >
        {present ? 'Chosen' : 'Choose'}
      </Button>
    </MiniFinder>
  );
}
