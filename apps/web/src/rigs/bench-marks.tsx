import { trimmed, type Bench, type RigProblem } from '@gangway/station';
import type { Sheet } from '../drawing/sheet.js';

/** Height above the bench for the numbers of problems. */
export const LABELS_PX = 64;

/** The bellows' draw between least and greatest, below the bellows. */
export function Draw({ bench, sheet }: { bench: Bench; sheet: Sheet }) {
  const { rearMm, leastMm, greatestMm, drawMm } = bench.bellows!;
  const y = sheet.y(-bench.halfMm) + 14;
  const [from, least, now, most] = [
    rearMm,
    rearMm + leastMm,
    rearMm + drawMm,
    rearMm + greatestMm,
  ].map(sheet.x) as [number, number, number, number];
  const end = Math.max(6, most);
  return (
    <g fontSize="11">
      <line x1={from} x2={end} y1={y} y2={y} stroke="var(--within)" strokeWidth="2" />
      <line
        x1={from}
        x2={least}
        y1={y}
        y2={y}
        stroke="var(--outside)"
        strokeWidth="3"
        strokeDasharray="2 3"
      />
      {most >= 6 && <line x1={most} x2={most} y1={y - 5} y2={y + 5} stroke="var(--ink)" />}
      <line x1={least} x2={least} y1={y - 5} y2={y + 5} stroke="var(--ink)" />
      <circle cx={now} cy={y} r="4" fill="var(--ink)" />
      <text x={from + 10} y={y + 4} className="narrow">
        draw {trimmed(drawMm, 1)} of {trimmed(leastMm, 0)} to {trimmed(greatestMm, 0)} mm
      </text>
    </g>
  );
}

export function Sensor({ bench, sheet }: { bench: Bench; sheet: Sheet }) {
  if (bench.sensorHalfMm === null) return null;
  const x = sheet.x(0);
  return (
    <g pointerEvents="none">
      <line
        x1={x}
        x2={x}
        y1={sheet.y(bench.sensorHalfMm)}
        y2={sheet.y(-bench.sensorHalfMm)}
        stroke="var(--ink)"
        strokeWidth="4"
      />
    </g>
  );
}

/** The register the lens asks for, from its flange; where it ends, infinity is sharp. */
export function Register({ bench, sheet, height }: { bench: Bench; sheet: Sheet; height: number }) {
  const { flangeMm, infinityMm } = bench;
  if (flangeMm === null || infinityMm === null) return null;
  const [from, to] = [sheet.x(flangeMm), sheet.x(infinityMm)];
  const y = height - 20;
  const off = Math.abs(infinityMm) > 0.005;
  const colour = off ? 'var(--outside)' : 'var(--within)';
  const half = (bench.sensorHalfMm ?? 12) * 1.15;
  return (
    <g pointerEvents="none" fontSize="12">
      <line
        x1={from}
        x2={from}
        y1={sheet.y(-bench.halfMm) - 8}
        y2={y + 5}
        stroke="var(--rule-strong)"
        strokeDasharray="2 3"
      />
      <line x1={from} x2={to} y1={y} y2={y} stroke={colour} strokeWidth="1.4" />
      <line x1={to} x2={to} y1={y - 5} y2={y + 5} stroke={colour} strokeWidth="1.4" />
      <line x1={from} x2={from} y1={y - 5} y2={y + 5} stroke={colour} strokeWidth="1.4" />
      <line
        x1={to}
        x2={to}
        y1={sheet.y(half)}
        y2={sheet.y(-half)}
        stroke={colour}
        strokeWidth="1.6"
        strokeDasharray={off ? '5 3' : undefined}
      />
      <text x={(from + to) / 2} y={y - 6} textAnchor="middle" className="narrow">
        {trimmed(flangeMm - infinityMm, 2)} mm from flange to infinity’s picture
        {off
          ? `, ${trimmed(Math.abs(infinityMm), 2)} mm ${infinityMm > 0 ? 'before' : 'behind'} the sensor`
          : ''}
      </text>
    </g>
  );
}

/** Problems at the joint where they occur, by number as in the list. */
export function Joints({
  bench,
  sheet,
  problems,
}: {
  bench: Bench;
  sheet: Sheet;
  problems: readonly RigProblem[];
}) {
  const at = new Map<number, number[]>();
  problems.forEach(({ joint }, index) => {
    if (joint === null) return;
    at.set(joint, [...(at.get(joint) ?? []), index]);
  });
  const y = LABELS_PX - 22;
  return (
    <g fontSize="12" pointerEvents="none">
      {[...at].map(([joint, indices]) => {
        const x = sheet.x(bench.jointsMm[joint] ?? 0);
        return (
          <g key={joint}>
            <line
              x1={x}
              x2={x}
              y1={y + 10}
              y2={sheet.y(-bench.halfMm)}
              stroke="var(--outside)"
              strokeDasharray="3 3"
            />
            {indices.map((index, i) => {
              const stop = problems[index]!.severity === 'stop';
              return (
                <g
                  key={index}
                  transform={`translate(${x + (i - (indices.length - 1) / 2) * 24} ${y})`}
                >
                  <circle
                    r="10"
                    fill={stop ? 'var(--outside)' : 'var(--page)'}
                    stroke={stop ? 'var(--outside)' : 'var(--costs)'}
                    strokeWidth="2"
                  />
                  <text
                    y="4"
                    textAnchor="middle"
                    style={{ fill: stop ? 'var(--on-strong)' : 'var(--ink)' }}
                    fontWeight="600"
                  >
                    {index + 1}
                  </text>
                </g>
              );
            })}
          </g>
        );
      })}
    </g>
  );
}
