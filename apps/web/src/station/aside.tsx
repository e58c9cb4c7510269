import type { ReactNode } from 'react';
import { StationPart } from './station-part.js';

/** What stands beside a drawing. */
export function Aside({ label, children }: { label: string; children: ReactNode }) {
  return (
    <aside
      aria-label={label}
      className="w-full shrink-0 space-y-4 overflow-y-auto border-l border-rule bg-paper px-5 py-3 lg:w-[352px]"
    >
      <StationPart name="This page">{children}</StationPart>
    </aside>
  );
}
