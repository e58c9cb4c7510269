import { useId } from 'react';
import { FORMATS, OPEN_MOUNTS } from '@gangway/station';

const SELECT =
  'min-h-8 max-w-full min-w-0 border-b border-rule bg-page text-right font-medium hover:border-rule-strong pointer-coarse:min-h-11';

/** Film formats and common sensors by size; choosing one fills in both sides. */
export function FormatChoice({
  width,
  height,
  onChoose,
}: {
  width: string;
  height: string;
  onChoose: (width: string, height: string) => void;
}) {
  const id = useId();
  const chosen = FORMATS.findIndex(
    (each) => String(each.width_mm) === width.trim() && String(each.height_mm) === height.trim(),
  );
  return (
    <div className="flex items-baseline justify-between gap-4">
      <label htmlFor={id} className="shrink-0 text-quiet">
        Format
      </label>
      <span className="flex min-w-0 items-baseline gap-1">
        <select
          id={id}
          value={chosen < 0 ? '' : String(chosen)}
          onChange={(event) => {
            const format = FORMATS[Number(event.target.value)];
            if (event.target.value !== '' && format) {
              onChoose(String(format.width_mm), String(format.height_mm));
            }
          }}
          className={SELECT}
        >
          <option value="">Other: give the sides</option>
          {FORMATS.map((format, index) => (
            <option key={format.name} value={index}>
              {format.name}
            </option>
          ))}
        </select>
        <span className="w-7" />
      </span>
    </div>
  );
}

type OpenMount = (typeof OPEN_MOUNTS)[number];

/** Mounts that are open standards; any other is typed. */
export function MountChoice({ onChoose }: { onChoose: (mount: OpenMount) => void }) {
  const id = useId();
  return (
    <div className="flex items-baseline justify-between gap-4">
      <label htmlFor={id} className="shrink-0 text-quiet">
        Fill in an open standard
      </label>
      <span className="flex min-w-0 items-baseline gap-1">
        <select
          id={id}
          value=""
          onChange={(event) => {
            const mount = OPEN_MOUNTS.find(({ name }) => name === event.target.value);
            if (mount) onChoose(mount);
          }}
          className={SELECT}
        >
          <option value="">choose</option>
          {OPEN_MOUNTS.map((mount) => (
            <option key={mount.name} value={mount.name}>
              {mount.name}, register {mount.register_mm} mm
            </option>
          ))}
        </select>
        <span className="w-7" />
      </span>
    </div>
  );
}
