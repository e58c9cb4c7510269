import { sideOf, trimmed, type MatchedPicture, type MatchedSide } from '@gangway/station';
import { Drawn } from '../drawing/drawn.js';
import { sheetAt } from '../drawing/sheet.js';
import { useSize } from '../drawing/use-size.js';

/** Below the plan: the two distances, and the names of the walls. */
const FOOT_PX = 92;

/** Plan of both camera places before the same subject, true to scale, and the wall that ends the room. */
export function MatchDrawing({
  picture,
  other,
  behindMm,
  roomMm,
  side,
}: {
  picture: MatchedPicture;
  other: MatchedPicture;
  behindMm: number;
  roomMm: number | null;
  side: MatchedSide;
}) {
  const [box, size] = useSize<HTMLDivElement>();
  const { width, height } = size;
  const far = Math.max(picture.distanceMm, other.distanceMm, roomMm ?? 0);
  const depth = Math.min(behindMm, far * 1.5);
  const reach = far + depth;
  const half = Math.max(
    ...[picture, other].map(
      (each) => (sideOf(each.sides, side) / 2 / each.magnification) * (1 + depth / each.objectMm),
    ),
  );
  const scale = Math.min((width - 90) / reach, (height - FOOT_PX - 30) / (2 * half));
  const cy = 24 + (height - FOOT_PX - 24) / 2;
  // The subject is where both agree; cameras stand to its left.
  const { x, y } = sheetAt(width / 2 - (reach / 2 - far) * scale, cy, scale);
  const cameras = [
    { of: picture, dash: '', name: 'here' },
    { of: other, dash: '7 4', name: 'other back' },
  ];
  const words = `Plan: here the camera stands ${trimmed(picture.distanceMm / 1000, 2)} m from the subject, the other ${trimmed(other.distanceMm / 1000, 2)} m.`;
  return (
    <Drawn {...{ box, size }} label={words} className="h-70 bg-stage text-ink">
      <line
        x1={x(depth)}
        x2={x(depth)}
        y1={y(half)}
        y2={y(-half)}
        stroke="var(--rule-strong)"
        strokeWidth="2"
      />
      <text x={x(depth)} y={height - 8} textAnchor="end" className="narrow">
        background
      </text>
      {cameras.map(({ of, dash, name }, index) => {
        const camera = x(-of.distanceMm);
        const lens = x(-of.objectMm);
        const edge = (sideOf(of.sides, side) / 2 / of.magnification) * (1 + depth / of.objectMm);
        return (
          <g key={name} stroke="var(--ink)" strokeDasharray={dash} strokeWidth="1.4" fill="none">
            <path d={`M ${x(depth)} ${y(edge)} L ${lens} ${cy} L ${x(depth)} ${y(-edge)}`} />
            <rect
              x={camera - 12}
              y={cy - 8}
              width="12"
              height="16"
              fill="var(--paper)"
              strokeDasharray=""
            />
            <line
              x1={camera - 4}
              x2={x(0)}
              y1={height - FOOT_PX + 26 + index * 24}
              y2={height - FOOT_PX + 26 + index * 24}
              strokeWidth="1"
              strokeDasharray=""
            />
            <text
              x={(camera + x(0)) / 2}
              y={height - FOOT_PX + 21 + index * 24}
              stroke="none"
              textAnchor="middle"
              style={{ fill: 'currentColor' }}
              className="narrow"
            >
              {name} {trimmed(of.distanceMm / 1000, 2)} m
            </text>
          </g>
        );
      })}
      <line
        x1={x(0)}
        x2={x(0)}
        y1={y(picture.fieldMm / 2)}
        y2={y(-picture.fieldMm / 2)}
        stroke="var(--within)"
        strokeWidth="4"
      />
      <text x={x(0)} y={16} textAnchor="middle" className="narrow">
        subject, {trimmed(picture.fieldMm / 1000, 2)} m {side}
      </text>
      {roomMm !== null && (
        <g>
          <line
            x1={x(-roomMm)}
            x2={x(-roomMm)}
            y1={26}
            y2={height - FOOT_PX + 6}
            stroke={other.distanceMm > roomMm ? 'var(--outside)' : 'var(--rule-strong)'}
            strokeWidth="3"
          />
          <text x={x(-roomMm)} y={height - 8} textAnchor="middle" className="narrow">
            wall behind you
          </text>
        </g>
      )}
    </Drawn>
  );
}
