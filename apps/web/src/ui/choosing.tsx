/** A choice among a few words, as a line of its own above what it changes. */
export const Choosing = <T extends string>({
  label,
  value,
  options,
  onChoose,
}: {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onChoose: (value: T) => void;
}) => (
  <label className="flex items-center gap-2 text-quiet print:hidden">
    {label}
    <select
      value={value}
      onChange={(event) => onChoose(event.target.value as T)}
      className="min-h-9 max-w-64 border-b border-rule bg-paper font-medium text-ink pointer-coarse:min-h-11"
    >
      {options.map(([key, words]) => (
        <option key={key} value={key}>
          {words}
        </option>
      ))}
    </select>
  </label>
);
