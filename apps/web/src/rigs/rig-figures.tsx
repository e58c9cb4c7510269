import type { ReactNode } from 'react';
import { distance, fStop, trimmed, type RigFigures } from '@gangway/station';
import { useAppSelector } from '../store/store.js';

/** What a rig becomes and can do, the figure people look for first the largest. */
export function RigFiguresList({
  figures,
  children,
}: {
  figures: RigFigures;
  children?: ReactNode;
}) {
  const units = useAppSelector((state) => state.preferences.units);
  const movement = (value: number | null): string =>
    value === null ? 'not covered' : Number.isFinite(value) ? `${trimmed(value, 1)} mm` : 'free';
  const rows: [string, string][] = [
    ['Sees', `${trimmed(figures.horizontalDeg, 1)}° × ${trimmed(figures.verticalDeg, 1)}°`],
    ['Like, on 24 × 36 mm', `${trimmed(figures.equivalentMm, 1)} mm`],
    ['Widest stop', fStop(figures.widestFNumber)],
    ['Circle on the back', `${trimmed(figures.circleMm, 1)} mm`],
    ['Rise left', movement(figures.riseMm)],
    ['Shift left', movement(figures.shiftMm)],
    [
      'Farthest focus',
      figures.reachesInfinity
        ? '∞'
        : figures.farthestM === null
          ? 'none'
          : distance(figures.farthestM, units),
    ],
    [
      'Focus at its nearest',
      figures.closestM === null ? 'not known' : distance(figures.closestM, units),
    ],
    [
      'Largest magnification',
      figures.largestMagnification === null
        ? 'not known'
        : `${trimmed(figures.largestMagnification, 2)} ×`,
    ],
    [
      'Weight',
      figures.massG === null
        ? 'not known'
        : `${trimmed(figures.massG / 1000, 2)} kg${figures.massWhole ? '' : ' at least'}`,
    ],
  ];
  return (
    <section>
      <p className="mb-2">
        <span className="figure text-[34px] leading-none">{trimmed(figures.focalLengthMm, 1)}</span>{' '}
        <span className="text-quiet">mm on this back, {fStop(figures.fNumber)}</span>
      </p>
      {children}
      <dl className="mt-1">
        {rows.map(([label, value]) => (
          <div
            key={label}
            className="flex items-baseline justify-between gap-4 border-b border-rule py-1"
          >
            <dt className="text-quiet">{label}</dt>
            <dd className="figure text-right">{value}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
