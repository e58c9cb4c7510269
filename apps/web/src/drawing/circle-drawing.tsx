import { FORMATS, KIT_FIELDS, readField, trimmed } from '@gangway/station';

interface Entry {
  f_number: number;
  diameter_mm: number;
}

const CIRCLE = KIT_FIELDS.lens
  .flatMap((group) => group.fields)
  .find(({ path }) => path === 'circle')!;

/** Whatever of the table can be read so far; a half-typed line is left out. */
function entriesIn(text: string): Entry[] {
  return text
    .split(';')
    .flatMap((part) => {
      const read = readField(CIRCLE, part);
      return read.ok ? (read.value as Entry[]) : [];
    })
    .filter(({ diameter_mm, f_number }) => diameter_mm > 0 && f_number > 0)
    .sort((a, b) => a.f_number - b.f_number);
}

const SIZE = 320;

/** The circles of a lens and the formats they hold, true to scale with each other, drawn as they are typed. */
export function CircleDrawing({
  text,
  sharp = '',
  format,
}: {
  text: string;
  sharp?: string;
  /** The format it is to stand before; without one, the largest it holds are drawn. */
  format?: string;
}) {
  const entries = entriesIn(text);
  const largest = Math.max(0, ...entries.map((entry) => entry.diameter_mm));
  if (largest === 0) {
    return (
      <p className="border border-rule bg-stage p-4 text-quiet">
        The circle is drawn here as it is typed, over the formats it may hold.
      </p>
    );
  }
  const wanted = FORMATS.find(({ name }) => name === format);
  const scale =
    (SIZE - 24) / Math.max(largest, ...(wanted ? [wanted.width_mm, wanted.height_mm] : []));
  const held = FORMATS.filter(
    (format) => Math.hypot(format.width_mm, format.height_mm) <= largest + 1e-9,
  );
  const part = Number(sharp.trim().replace(',', '.')) || 0.8;
  // The largest it holds, and the largest its sharp part holds.
  const sharply = held.filter(
    (format) => Math.hypot(format.width_mm, format.height_mm) <= largest * part,
  );
  const shown = wanted
    ? [wanted]
    : [...new Set([held.at(-1), sharply.at(-1)])].filter((each) => each !== undefined);
  const covered = wanted && held.includes(wanted);
  const words = `Circles: ${entries.map((each) => `f/${each.f_number} ${trimmed(each.diameter_mm, 1)} mm`).join(', ')}. ${
    held.length === 0
      ? 'No format of the list is held.'
      : `Holds ${held.map(({ name }) => name).join(', ')}.`
  }`;
  return (
    <figure className="text-center">
      <svg
        role="img"
        aria-label={words}
        viewBox={`${-SIZE / 2} ${-SIZE / 2} ${SIZE} ${SIZE}`}
        className="w-full bg-stage text-ink"
      >
        {entries
          .map((entry, index) => (
            <circle
              key={entry.f_number}
              r={(entry.diameter_mm / 2) * scale}
              fill={index === entries.length - 1 ? 'var(--glass)' : 'none'}
              stroke="var(--within)"
              strokeWidth={index === entries.length - 1 ? 1.6 : 1}
            />
          ))
          .reverse()}
        <circle
          r={(largest / 2) * part * scale}
          fill="none"
          stroke="var(--costs)"
          strokeDasharray="1.5 4"
          strokeLinecap="round"
        />
        {shown.map((format) => (
          <g key={format.name}>
            <rect
              x={(-format.width_mm / 2) * scale}
              y={(-format.height_mm / 2) * scale}
              width={format.width_mm * scale}
              height={format.height_mm * scale}
              fill="none"
              stroke={covered === false ? 'var(--outside)' : 'var(--ink)'}
              strokeWidth={wanted ? 2 : 1}
            />
            <text
              x={(-format.width_mm / 2) * scale + 5}
              y={(format.height_mm / 2) * scale - 6}
              fontSize="11"
              textAnchor="start"
            >
              {format.name}
            </text>
          </g>
        ))}
      </svg>
      <figcaption className="mt-2 text-left text-[13px] text-quiet">
        <span className="figure text-[20px] text-ink">{trimmed(largest, 1)}</span> mm at{' '}
        {entries.length === 1 ? 'all stops' : 'its widest'}; dotted: the sharp part,{' '}
        {trimmed(part * 100, 0)} % of it.{' '}
        {wanted
          ? `${wanted.name} is ${covered ? 'held whole' : 'not held whole'}.`
          : held.length === 0
            ? 'No common format is held whole.'
            : `Holds up to ${held.at(-1)!.name}.`}
      </figcaption>
    </figure>
  );
}
