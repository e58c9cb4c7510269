import { parseFNumber, stopOf, type WholeRig } from '@gangway/station';
import { useRigText } from '../store/typed-text.js';

export function NameField({
  name,
  onChange,
}: {
  name: string;
  onChange: (name: string) => string | null;
}) {
  const { message, props } = useRigText('/name', name, (text) =>
    text.trim() === '' ? 'Give the rig a name.' : onChange(text.trim()),
  );
  return (
    <div className="min-w-48 flex-1">
      <input
        aria-label="Name of the rig"
        {...props}
        className="min-h-9 w-full border-b border-transparent bg-transparent text-xl font-semibold hover:border-rule focus:border-rule-strong"
      />
      {message !== null && (
        <p role="alert" className="text-[13px] text-outside">
          {message}
        </p>
      )}
    </div>
  );
}

export function StopField({
  rig,
  onChange,
}: {
  rig: WholeRig;
  onChange: (aperture: number) => string | null;
}) {
  const now = stopOf(rig);
  const refused = (text: string): string | null => {
    const read = parseFNumber(text);
    if (!read.ok) return read.message;
    const { f_min, f_max } = rig.lens;
    const held = read.value >= f_min && read.value <= f_max;
    return held ? null : `This lens opens from f/${f_min} to f/${f_max}.`;
  };
  const { message: then, props } = useRigText('/aperture', `f/${now}`, (text) => {
    const read = parseFNumber(text);
    return refused(text) ?? (read.ok && read.value !== now ? onChange(read.value) : null);
  });
  // Judged by the lens that is there now: it may have been swapped since the stop was typed.
  const message = then === null ? null : refused(props.value);
  return (
    <div className="flex flex-wrap items-baseline justify-between gap-x-4">
      <label htmlFor="rig-stop" className="text-quiet">
        Looked at, at
      </label>
      <input
        id="rig-stop"
        {...props}
        className="min-h-8 w-20 border-b border-rule bg-transparent text-right figure hover:border-rule-strong pointer-coarse:min-h-11"
      />
      {message !== null && (
        <p role="alert" className="basis-full text-[13px] text-outside">
          {message}
        </p>
      )}
    </div>
  );
}
