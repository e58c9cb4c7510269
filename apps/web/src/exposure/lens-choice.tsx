import type { LensChoice } from './use-lenses.js';

/** Which lens on this camera is looked at. */
export const LensChooser = ({
  lenses,
  chosen,
  choose,
}: {
  lenses: readonly LensChoice[];
  chosen: LensChoice;
  choose: (name: string) => void;
}) => (
  <label className="flex items-center gap-2 text-quiet print:hidden">
    Lens
    <select
      value={chosen.name}
      onChange={(event) => choose(event.target.value)}
      className="min-h-9 max-w-64 border-b border-rule bg-paper font-medium text-ink pointer-coarse:min-h-11"
    >
      {lenses.map(({ name }) => (
        <option key={name}>{name}</option>
      ))}
    </select>
  </label>
);
