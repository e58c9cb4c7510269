import { Choosing } from '../ui/choosing.js';
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
  <Choosing
    label="Lens"
    value={chosen.name}
    options={lenses.map(({ name }) => [name, name] as const)}
    onChoose={choose}
  />
);
