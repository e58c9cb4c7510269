import { fixed, withSubjectAt, type CloseUp } from '@gangway/station';
import { DimensionLine } from '../drawing/dimension-line.js';
import { Drawn } from '../drawing/drawn.js';
import { Handle } from '../drawing/handle.js';
import { fitted } from '../drawing/sheet.js';
import { useSize } from '../drawing/use-size.js';

const mm = (value: number): string => `${fixed(value, value < 100 ? 1 : 0)} mm`;

/** Thinner than this a depth is drawn as a line, px. */
const LEAST_PX = 2;

/** Sensor, lens and subject from the side, true to scale; the subject is moved by hand. */
export function CloseDrawing({ read, frameMm }: { read: CloseUp; frameMm: number }) {
  const [box, size] = useSize<HTMLDivElement>();
  const { imageDistanceMm: v, subjectToLensMm: ahead, frontMm: front, seenMm, limitsMm } = read;
  const seen = seenMm[1];
  const half = Math.max(frameMm, ahead === null ? 0 : seen) / 2;
  const subject = ahead === null ? v * 4 : v + ahead;
  const [near, far] = limitsMm;
  const right = Math.max(subject, Math.min(far ?? subject * 1.3, subject * 1.3));
  const sheet = fitted(
    // Room on the right for the height that is seen.
    { left: 0, right: right * 1.16, bottom: -half * 1.05, top: half * 1.05 },
    { width: size.width, height: size.height - 84 },
    { pad: 44 },
  );
  const { x, y, scaleX: scale } = sheet;
  const [lensX, lensHalf] = [x(v), Math.max(12, 0.32 * read.focalLengthMm * scale)];
  const frontX = front === null ? null : x(v + front);
  return (
    <Drawn
      {...{ box, size }}
      role="group"
      label={
        ahead === null
          ? 'Sensor and lens; the lens is focused at infinity'
          : `Sensor, lens and subject from the side: ${mm(ahead)} from lens to subject, ${mm(seen)} high seen at ${fixed(read.magnification, 2)} times, ${read.depthMm === null ? 'depth without end' : `${mm(read.depthMm)} deep`}`
      }
      className="min-h-72 flex-1"
    >
      <text x={16} y={20} className="halo text-quiet">
        From the side, true to scale
      </text>
      <path
        d={`M${x(0)},${y(0)}H${x(right) + 20}`}
        className="stroke-quiet"
        strokeDasharray="10 3 2 3"
      />
      <path
        d={`M${x(0)},${y(frameMm / 2)}V${y(-frameMm / 2)}`}
        className="stroke-ink"
        strokeWidth={5}
      />
      <text x={x(0)} y={y(frameMm / 2) - 8} textAnchor="middle" className="halo text-quiet">
        sensor
      </text>
      {ahead !== null && (
        <path
          d={`M${x(0)},${y(frameMm / 2)}L${x(subject)},${y(-seen / 2)}M${x(0)},${y(-frameMm / 2)}L${x(subject)},${y(seen / 2)}`}
          className="stroke-rule-strong"
        />
      )}
      <ellipse
        cx={lensX}
        cy={y(0)}
        rx={7}
        ry={lensHalf}
        className="fill-glass stroke-ink"
        strokeWidth={1.75}
      />
      {frontX !== null && (
        <path
          d={`M${frontX},${y(0) - lensHalf}v${2 * lensHalf}`}
          className="stroke-ink"
          strokeWidth={2.5}
        />
      )}
      {ahead !== null && (
        <>
          <rect
            x={x(near)}
            y={y(half * 1.05)}
            width={Math.max(LEAST_PX, x(far ?? right) - x(near))}
            height={2.1 * half * scale}
            className="fill-within opacity-25"
          />
          <Handle
            label="Subject"
            value={ahead}
            valueText={`${mm(ahead)} from the lens, ${fixed(read.magnification, 2)} times`}
            what="distance"
            pointer="/focus/magnification"
            step={Math.max(0.5, ahead / 200)}
            {...{ scale }}
            write={(from, dx) => withSubjectAt(from, ahead + dx)}
            writeStep={(from, dx, dy) => withSubjectAt(from, ahead + (dx || dy))}
          >
            <path
              d={`M${x(subject)},${y(seen / 2)}V${y(-seen / 2)}`}
              stroke="transparent"
              strokeWidth={26}
            />
            <path
              d={`M${x(subject)},${y(seen / 2)}V${y(-seen / 2)}`}
              className="stroke-within"
              strokeWidth={3}
            />
            <circle
              cx={x(subject)}
              cy={y(0)}
              r={8}
              className="fill-paper stroke-within"
              strokeWidth={2.5}
            />
          </Handle>
          <DimensionLine
            from={{ x: x(subject), y: y(seen / 2) }}
            to={{ x: x(subject), y: y(-seen / 2) }}
            offset={26}
            words={`sees ${mm(seen)}`}
            tone="text-ink"
          />
          <Below {...{ read, ahead, frontX, size }} left={x(0)} lens={lensX} subject={x(subject)} />
        </>
      )}
    </Drawn>
  );
}

/** The lengths people measure, one under the other. */
function Below({
  read,
  ahead,
  frontX,
  size,
  left,
  lens,
  subject,
}: {
  read: CloseUp;
  ahead: number;
  frontX: number | null;
  size: { height: number };
  left: number;
  lens: number;
  subject: number;
}) {
  const at = (row: number): number => size.height - 74 + row * 26;
  const lines = [
    frontX !== null && read.workingMm !== null
      ? ([frontX, subject, `${mm(read.workingMm)} free in front of the lens`] as const)
      : ([lens, subject, `${mm(ahead)} from the lens’s middle`] as const),
    [left, subject, `${mm(read.subjectToSensorMm ?? 0)} from the sensor`] as const,
  ];
  return lines.map(([from, to, words], row) => (
    <DimensionLine
      key={words}
      from={{ x: from, y: at(row) }}
      to={{ x: to, y: at(row) }}
      offset={1}
      words={words}
      tone={row === 0 ? 'text-ink' : 'text-quiet'}
    />
  ));
}
