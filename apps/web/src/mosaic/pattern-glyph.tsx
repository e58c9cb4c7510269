import { memo, useMemo } from 'react';
import { layoutOf, PRESETS, type Station, mostOf } from '@gangway/station';

const [W, H] = [52, 34];

/** A pattern as it would lie on the gear in hand, small; a turn as a fan. */
export const PatternGlyph = memo(function PatternGlyph({
  station,
  preset,
}: {
  station: Station;
  preset: string;
}) {
  const paths = useMemo(() => {
    const laid = PRESETS.find(({ id }) => id === preset)!.of(station);
    if (typeof laid === 'string') return null;
    const layout = layoutOf(laid);
    if (layout.turn) return fan(layout.turn.yawsDeg, layout.turn.frameDeg);
    const points = layout.frames.flatMap(({ corners }) => corners);
    if (points.length === 0) return null;
    const far = mostOf(
      points.map(({ x, y }) =>
        Math.max(Math.abs(x - layout.middle.x) / W, Math.abs(y - layout.middle.y) / H),
      ),
    );
    const scale = 0.48 / far;
    return layout.frames.map(
      ({ corners }) =>
        `M${corners
          .map(
            ({ x, y }) =>
              `${W / 2 + (x - layout.middle.x) * scale},${H / 2 - (y - layout.middle.y) * scale}`,
          )
          .join('L')}Z`,
    );
  }, [station, preset]);
  return (
    <svg width={W} height={H} aria-hidden className="shrink-0">
      {paths === null ? (
        <path d={`M8,${H / 2}H${W - 8}`} className="stroke-faint" strokeDasharray="2 3" />
      ) : (
        paths.map((d, i) => (
          <path key={i} d={d} className="fill-within/15 stroke-ink" strokeWidth={1} />
        ))
      )}
    </svg>
  );
});

/** Frames as wedges from above. */
function fan(yaws: readonly number[], frameDeg: number): string[] {
  const r = H - 6;
  const at = (deg: number): string => {
    const a = (deg * Math.PI) / 180;
    return `${W / 2 + r * Math.sin(a)},${H - 3 - r * Math.cos(a)}`;
  };
  return yaws.map(
    (yaw) => `M${W / 2},${H - 3}L${at(yaw - frameDeg / 2)}L${at(yaw + frameDeg / 2)}Z`,
  );
}
