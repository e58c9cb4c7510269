import type { MeasuringProblem } from '@gangway/station';

/** What spoiled a measurement, and what to do about it. */
export const Problems = ({ of }: { of: readonly MeasuringProblem[] }) =>
  of.length === 0 ? null : (
    <ul aria-label="What spoiled it" className="space-y-1 border-l-2 border-costs pl-3">
      {of.map(({ code, message }) => (
        <li key={code}>{message}</li>
      ))}
    </ul>
  );
