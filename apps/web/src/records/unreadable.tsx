import { useState, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { cutText, faultSentence, keptName, type Problem } from '@gangway/station';
import { saveDocument } from './export.js';
import { Button } from '../ui/button.js';
import { sentence } from './api.js';
import type { StoredDocument } from './shapes.js';
import { BackTo, Said } from './states.js';

const MOST_SHOWN = 6;

type Made = Promise<{ error?: unknown }>;

interface Props {
  /** “This station” */
  what: string;
  stored: StoredDocument;
  faults: readonly Problem[];
  /** Where the list is that it stands in; there the page goes once it is archived or deleted. */
  back: string;
  onArchive: (archived: boolean) => Made;
  /** Loads it again once it is archived or restored; without it the page goes back to the list. */
  look?: () => Promise<void>;
  onDelete: () => Made;
  /** The words of the way back. */
  children: ReactNode;
}

/** Something stored that cannot be read: what is wrong with it, and what may be done all the same. */
export function Unreadable({ what, stored, faults, back, children, ...does }: Props) {
  const { document, archived } = stored;
  const [failed, setFailed] = useState<string | null>(null);
  const navigate = useNavigate();
  const leave = async (made: Made, then?: () => Promise<void>): Promise<void> => {
    const { error } = await made;
    setFailed(error ? sentence(error) : null);
    if (!error) await (then ?? (() => navigate(back)))();
  };
  const more = faults.length - MOST_SHOWN;
  return (
    <Said title={`${what} cannot be read.`}>
      <p className="mb-3 text-ink">{cutText(keptName(document), 200)}</p>
      <ul className="mb-3 list-disc pl-5">
        {faults.slice(0, MOST_SHOWN).map((fault) => (
          <li key={fault.pointer + fault.message}>{faultSentence(fault)}</li>
        ))}
        {faults.length === 0 && <li>Nothing can be worked out from its values.</li>}
        {more > 0 && <li>And {more} more.</li>}
      </ul>
      <p className="mb-4">
        It is kept as it is. Save it as a file to mend it and take it in again; archive it to have
        it out of the way.
      </p>
      <div className="mb-4 flex flex-wrap gap-2">
        <Button look="strong" onClick={() => saveDocument(document)}>
          Save as file
        </Button>
        <Button onClick={() => void leave(does.onArchive(!archived), does.look)}>
          {archived ? 'Restore' : 'Archive'}
        </Button>
        {archived && <Button onClick={() => void leave(does.onDelete())}>Delete for good</Button>}
      </div>
      {failed !== null && (
        <p role="alert" className="mb-3 text-outside">
          {failed}
        </p>
      )}
      <BackTo to={back}>{children}</BackTo>
    </Said>
  );
}
