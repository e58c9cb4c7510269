import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Beside } from '../ui/beside.js';
import { Explained } from './explained.js';
import type { TermId } from './terms.js';
import { WORD } from './word-look.js';

/** What a word means, open beside it. */
export default function WordPopover({ id, children }: { id: TermId; children: ReactNode }) {
  return (
    <Beside label={undefined} mark={children} className={WORD}>
      <Explained id={id} />
      <p className="mt-3 border-t border-rule pt-2 text-[13px]">
        <Link to={`/words#${id}`} className="underline underline-offset-4">
          All words
        </Link>
      </p>
    </Beside>
  );
}
