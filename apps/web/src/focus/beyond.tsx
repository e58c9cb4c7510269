import { NOT_KNOWN } from '@gangway/station';

/** What a thin lens does not tell, in few words, closed until it is asked for. */
export function Beyond() {
  return (
    <details className="pt-2 text-[13px]">
      <summary className="cursor-pointer text-quiet pointer-coarse:py-2.5">
        Keep half a stop in hand
      </summary>
      <ul className="max-w-[60ch] list-disc space-y-1 pt-1 pl-5">
        {NOT_KNOWN.map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
    </details>
  );
}
