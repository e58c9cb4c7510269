import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react';
import { X } from 'lucide-react';

/** What can be done about it, at once. */
interface Deed {
  readonly label: string;
  readonly onSelect: () => void;
}

interface Notice {
  id: number;
  lines: string[];
  deed?: Deed | undefined;
}

const Context = createContext<(lines: string[], deed?: Deed) => void>(() => {});

/** Says something that belongs to no field: a refused file, a failed copy. Stays until closed. */
export const useNotice = () => useContext(Context);

export function Notices({ children }: { children: ReactNode }) {
  const [notices, setNotices] = useState<Notice[]>([]);
  const say = useCallback((lines: string[], deed?: Deed) => {
    setNotices((now) => [...now.slice(-2), { id: Date.now() + Math.random(), lines, deed }]);
  }, []);
  const close = (id: number): void => setNotices((now) => now.filter((each) => each.id !== id));
  return (
    <Context value={useMemo(() => say, [say])}>
      {children}
      <div
        role="status"
        aria-live="polite"
        className="fixed bottom-4 left-4 z-40 flex max-w-[min(34rem,calc(100vw-2rem))] flex-col gap-2"
      >
        {notices.map(({ id, lines, deed }) => (
          <div
            key={id}
            className={`flex gap-3 border-l-4 bg-ink px-4 py-3 text-on-strong ${deed ? 'border-within' : 'border-outside'}`}
          >
            <div className="min-w-0 flex-1 break-words">
              {lines.map((line) => (
                <p key={line}>{line}</p>
              ))}
            </div>
            {deed && (
              <button
                type="button"
                className="-my-2 px-2 py-2 font-semibold underline underline-offset-4"
                onClick={() => {
                  close(id);
                  deed.onSelect();
                }}
              >
                {deed.label}
              </button>
            )}
            <button aria-label="Close message" onClick={() => close(id)} className="-m-2 p-2">
              <X size={16} aria-hidden />
            </button>
          </div>
        ))}
      </div>
    </Context>
  );
}
