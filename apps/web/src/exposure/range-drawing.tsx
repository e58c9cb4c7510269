import { fixed, stops, trimmed, type SceneRange } from '@gangway/station';

function heldSaid({ covers, past, over, frames }: SceneRange): string {
  if (covers === null || past === null || over === null) return 'the scene’s range is not given';
  const short = past.darks + past.lights;
  if (short > 0) return `${stops(short)} short`;
  if (!covers) return 'leave gaps between them';
  return `${frames.length === 1 ? 'holds' : 'hold'} all of it, with ${trimmed(Math.max(0, over), 1)} to spare`;
}

interface Place {
  readonly x: (stop: number) => number;
  readonly left: number;
  readonly narrow: boolean;
}

/** Room for the figures under the scale, CSS pixels. */
const FIGURES_PX = 24;

/** How tall it is drawn, CSS pixels. */
export const rangePx = ({ frames }: SceneRange, narrow: boolean): number =>
  (narrow ? 96 : 72) + Math.max(1, frames.length) * 16 + 2 + FIGURES_PX;

export function RangeDrawing({
  range,
  top,
  width,
  narrow,
}: {
  range: SceneRange;
  top: number;
  width: number;
  narrow: boolean;
}) {
  const { scene, frames } = range;
  const ends = [...(scene ?? []), ...frames.flat()];
  const most = Math.ceil(Math.max(4, ...ends.map(Math.abs)) + 0.5);
  const [left, right] = [narrow ? 20 : 250, width - 28];
  const x = (stop: number): number => left + ((stop + most) / (2 * most)) * (right - left);
  const every = (right - left) / (2 * most) < 18 ? 4 : 2;
  const sceneY = top + (narrow ? 52 : 38);
  const framesY = sceneY + (narrow ? 44 : 34);
  const foot = top + rangePx(range, narrow) - FIGURES_PX;
  const place: Place = { x, left: narrow ? 12 : 20, narrow };
  return (
    <g>
      <line x1={place.left} x2={width - 20} y1={top} y2={top} className="stroke-rule" />
      <text x={place.left} y={top + 20} className="halo text-quiet text-[13px]">
        {narrow ? 'Stops from middle grey' : 'What is held: stops from middle grey'}
      </text>
      {Array.from({ length: 2 * most + 1 }, (_, i) => i - most).map((stop) => (
        <g key={stop}>
          <line x1={x(stop)} x2={x(stop)} y1={top + 30} y2={foot} className="stroke-rule" />
          {stop % every === 0 && (
            <text x={x(stop)} y={foot + 15} textAnchor="middle" className="narrow text-quiet">
              {stop > 0 ? `+${stop}` : fixed(stop, 0)}
            </text>
          )}
        </g>
      ))}
      <Scene {...{ range, place }} y={sceneY} />
      <Frames {...{ range, place }} y={framesY} />
    </g>
  );
}

function Scene({
  range: { scene, spots },
  place: { x, left, narrow },
  y,
}: {
  range: SceneRange;
  place: Place;
  y: number;
}) {
  return (
    <g>
      <text x={left} y={narrow ? y - 8 : y + 9} className="halo text-[13px]" fontWeight={600}>
        The scene
        <tspan fontWeight={400} className="fill-quiet" dx={8}>
          {scene ? stops(scene[1] - scene[0]) : 'not given'}
        </tspan>
      </text>
      {scene && (
        <rect
          x={x(scene[0])}
          y={y}
          width={x(scene[1]) - x(scene[0])}
          height={10}
          className="fill-ink"
        />
      )}
      {spots.map(({ label, at }) => (
        <g key={label}>
          <path d={`M${x(at)},${y - 2}l4,-7h-8z`} className="fill-ink" />
          {!narrow && (
            <text x={x(at)} y={y - 12} textAnchor="middle" className="halo narrow text-quiet">
              {label}
            </text>
          )}
        </g>
      ))}
    </g>
  );
}

const toneOf = (covers: boolean | null, what: 'text' | 'fill'): string => {
  if (covers === null) return what === 'text' ? 'text-quiet' : 'fill-quiet';
  if (what === 'text') return covers ? 'text-within' : 'text-costs';
  return covers ? 'fill-within' : 'fill-costs';
};

function Frames({
  range,
  place: { x, left, narrow },
  y,
}: {
  range: SceneRange;
  place: Place;
  y: number;
}) {
  const { frames, covers } = range;
  const count = frames.length;
  const held = count === 0 ? 'say what one exposure holds' : heldSaid(range);
  return (
    <g>
      <text x={left} y={narrow ? y - 8 : y + 9} className="halo text-[13px]" fontWeight={600}>
        {count === 0 ? 'The medium' : count === 1 ? 'One exposure' : `${count} exposures`}
        {narrow && (
          <tspan fontWeight={400} dx={8} className={toneOf(covers, 'fill')}>
            {held}
          </tspan>
        )}
      </text>
      {!narrow && (
        <text x={left} y={y + 26} className={toneOf(covers, 'text')}>
          {held}
        </text>
      )}
      {frames.map(([from, to], i) => (
        <rect
          key={i}
          x={x(from)}
          y={y + i * 16}
          width={x(to) - x(from)}
          height={10}
          fill="none"
          strokeWidth={2}
          strokeDasharray={covers === false ? '4 3' : undefined}
          className={covers === false ? 'stroke-costs' : 'stroke-within'}
        />
      ))}
    </g>
  );
}
