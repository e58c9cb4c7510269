import type { LensFact } from '@gangway/station';

/** What one would say of the lens, in a few words each. */
export const Facts = ({ of }: { of: readonly LensFact[] }) =>
  of.length === 0 ? null : (
    <ul className="flex flex-wrap gap-x-8 gap-y-2" aria-label="In short">
      {of.map(({ figure, words, good }) => (
        <li key={words} className="max-w-60">
          <span className={`figure block text-[20px] ${good ? '' : 'text-costs'}`}>{figure}</span>
          <span className="block text-[13px] text-quiet">{words}</span>
        </li>
      ))}
    </ul>
  );
