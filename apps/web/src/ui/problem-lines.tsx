/** What stands in the way, and what to know. */
export function ProblemLines({
  problems,
}: {
  problems: readonly { code: string; severity: 'stop' | 'warn'; message: string }[];
}) {
  if (problems.length === 0) return null;
  return (
    <ul className="space-y-1.5">
      {problems.map(({ code, severity, message }) => (
        <li
          key={code}
          role={severity === 'stop' ? 'alert' : undefined}
          className={`border-l-2 pl-3 ${severity === 'stop' ? 'border-outside text-outside' : 'border-costs'}`}
        >
          {message}
        </li>
      ))}
    </ul>
  );
}
