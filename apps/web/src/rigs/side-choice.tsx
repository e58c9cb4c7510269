import { MATCHED_SIDES, type MatchedSide } from '@gangway/station';

/** Which side of two formats is made to see the same. */
export function SideChoice({
  value,
  onChange,
}: {
  value: MatchedSide;
  onChange: (side: MatchedSide) => void;
}) {
  return (
    <label className="flex items-baseline gap-2 text-quiet">
      Matched by
      <select
        value={value}
        onChange={(event) => onChange(event.target.value as MatchedSide)}
        className="min-h-9 border-b border-rule bg-page font-medium text-ink pointer-coarse:min-h-11"
      >
        {MATCHED_SIDES.map((side) => (
          <option key={side} value={side}>
            {side}
          </option>
        ))}
      </select>
    </label>
  );
}
