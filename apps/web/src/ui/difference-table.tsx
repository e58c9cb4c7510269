import type { Difference } from '@gangway/station';

const MOST_SHOWN = 8;

/** Where two versions part, field by field. */
export function DifferenceTable({
  rows,
  mine,
  theirs,
}: {
  rows: readonly Difference[];
  mine: string;
  theirs: string;
}) {
  return (
    <>
      <table className="mb-4 w-full">
        <thead>
          <tr className="text-left text-quiet">
            <th className="pr-3 font-normal">What differs</th>
            <th className="pr-3 font-normal">{mine}</th>
            <th className="font-normal">{theirs}</th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, MOST_SHOWN).map((row) => (
            <tr key={row.name} className="border-t border-rule">
              <td className="py-1 pr-3">{row.name}</td>
              <td className="figure py-1 pr-3 [overflow-wrap:anywhere]">{row.mine}</td>
              <td className="figure py-1 [overflow-wrap:anywhere]">{row.theirs}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > MOST_SHOWN && (
        <p className="mb-4 text-quiet">and {rows.length - MOST_SHOWN} more</p>
      )}
    </>
  );
}
