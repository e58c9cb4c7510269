import { useWaiting } from '../store/left-behind.js';

/** Edits of a document in a list that the server does not have yet. */
export function WaitingLine({ kind, id }: { kind: 'station' | 'rig'; id: string }) {
  const waiting = useWaiting(kind, id);
  if (!waiting) return null;
  return (
    <span role="status" className="shrink-0 pr-2 text-[13px] text-costs">
      {waiting === 'waits' ? 'Edits wait to be sent' : 'Changed elsewhere, too: open it'}
    </span>
  );
}
