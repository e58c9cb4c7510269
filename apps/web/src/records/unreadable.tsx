import { useState, type ReactNode } from 'react';
import { cutText, faultSentence, keptName, type Problem } from '@gangway/station';
import { saveDocument } from './export.js';
import { Button } from '../ui/button.js';
import { Said } from './states.js';

const MOST_SHOWN = 6;

interface Props {
  /** “This station” */
  what: string;
  document: unknown;
  faults: readonly Problem[];
  archived: boolean;
  /** Each: null when it was done, else the sentence that says why not. */
  onArchive: (archived: boolean) => Promise<string | null>;
  onDelete: () => Promise<string | null>;
  children: ReactNode;
}

/** Something stored that cannot be read: what is wrong with it, and what may be done all the same. */
export function Unreadable({ what, document, faults, archived, ...does }: Props) {
  const [failed, setFailed] = useState<string | null>(null);
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
        <Button onClick={() => void does.onArchive(!archived).then(setFailed)}>
          {archived ? 'Restore' : 'Archive'}
        </Button>
        {archived && (
          <Button onClick={() => void does.onDelete().then(setFailed)}>Delete for good</Button>
        )}
      </div>
      {failed !== null && (
        <p role="alert" className="mb-3 text-outside">
          {failed}
        </p>
      )}
      {does.children}
    </Said>
  );
}
