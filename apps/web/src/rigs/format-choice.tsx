import { FORMATS } from '@gangway/station';

/** A format by its name, among those offered by size, under its label. */
export function FormatSelect({
  label,
  value,
  onChange,
  labelClassName,
  className,
}: {
  label: string;
  value: string;
  onChange: (name: string) => void;
  labelClassName: string;
  className: string;
}) {
  return (
    <label className={labelClassName}>
      {label}
      <select
        value={value}
        onChange={(event) => onChange(event.target.value)}
        className={className}
      >
        {FORMATS.map(({ name }) => (
          <option key={name} value={name}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
