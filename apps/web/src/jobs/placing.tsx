import { useDrag } from '@use-gesture/react';
import { GripVertical } from 'lucide-react';
import { useCallback, useEffect, useRef, useState } from 'react';
import { answered } from '../records/answered.js';
import { api, PAGE, sentence, usePlaceStationMutation } from '../records/api.js';
import type { StoredStation } from '../records/shapes.js';
import { useAppStore } from '../store/store.js';
import { useNotice } from '../ui/notices.js';

/** Height of a line of the list, which a drag counts in. */
export const ROW_PX = 84;

interface Which {
  readonly jobId: string;
  readonly archived: boolean;
  readonly total: number;
}

/** Moves stations within their job, by hand and by keys, and says where they went. */
export function usePlacing({ jobId, archived, total }: Which) {
  const [place] = usePlaceStationMutation();
  const store = useAppStore();
  const notice = useNotice();
  const [said, setSaid] = useState('');
  const [focused, setFocused] = useState<number | null>(null);

  const at = useCallback(
    async (index: number): Promise<StoredStation | null> => {
      const { items } = await answered(() =>
        store.dispatch(
          api.endpoints.stations.initiate(
            { jobId, archived, page: Math.floor(index / PAGE) },
            { subscribe: false },
          ),
        ),
      );
      return items[index % PAGE] ?? null;
    },
    [store, jobId, archived],
  );

  const move = useCallback(
    async (from: number, to: number, byKey: boolean): Promise<void> => {
      const target = Math.max(0, Math.min(total - 1, to));
      if (target === from) return;
      // Down the list it goes after the one that is there.
      const next = target > from ? target + 1 : target;
      const asked = async (): Promise<{ error?: unknown }> => {
        const moved = await at(from);
        const before = next >= total ? null : await at(next);
        if (!moved || (next < total && !before)) return {};
        return place({ id: moved.id, before: before?.id ?? null });
      };
      const { error } = await asked().catch((refused: unknown) => ({ error: refused }));
      if (error) {
        notice([sentence(error)]);
        return;
      }
      setSaid(`Now ${target + 1} of ${total}.`);
      if (byKey) setFocused(target);
    },
    [at, place, notice, total],
  );

  return { move, said, focused };
}

/** Takes hold of a line: dragged, or moved with the arrow keys. */
export function Grip({
  index,
  total,
  top,
  focused,
  onMove,
}: {
  index: number;
  total: number;
  /** Where the list begins on the screen, px. */
  top: () => number;
  focused: boolean;
  onMove: (from: number, to: number, byKey: boolean) => Promise<void>;
}) {
  const button = useRef<HTMLButtonElement>(null);
  const [over, setOver] = useState<number | null>(null);
  useEffect(() => {
    if (focused) button.current?.focus();
  }, [focused]);
  const drag = useDrag(
    ({ xy: [, y], last, canceled, tap }) => {
      const to = Math.max(0, Math.min(total - 1, Math.floor((y - top()) / ROW_PX)));
      if (!last) {
        setOver(to);
        return;
      }
      setOver(null);
      if (!canceled && !tap) void onMove(index, to, false);
    },
    { filterTaps: true, pointer: { capture: true } },
  );
  return (
    <>
      <button
        ref={button}
        type="button"
        {...drag()}
        aria-label={`Move station ${index + 1} of ${total}: arrow keys, or drag`}
        onKeyDown={(event) => {
          const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
          if (by === 0) return;
          event.preventDefault();
          void onMove(index, index + by, true);
        }}
        className="flex h-11 w-8 shrink-0 cursor-grab touch-none items-center justify-center text-faint hover:text-ink print:hidden"
      >
        <GripVertical size={18} aria-hidden />
      </button>
      {over !== null && over !== index && (
        <span
          aria-hidden
          className="pointer-events-none absolute inset-x-0 z-10 h-1 bg-within"
          style={{ top: (over - index) * ROW_PX + (over > index ? ROW_PX : 0) }}
        />
      )}
    </>
  );
}
