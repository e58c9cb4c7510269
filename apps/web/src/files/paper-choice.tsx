import { useState } from 'react';
import type { Sheet } from '@gangway/paper';
import { saveFile } from '../browser/save-file.js';
import { Choosing } from '../ui/choosing.js';

/** Which paper is at hand. */
export const PaperChoice = <T extends string>({
  papers,
  value,
  onChoose,
}: {
  papers: Readonly<Record<T, unknown>>;
  value: T;
  onChoose: (paper: T) => void;
}) => (
  <Choosing
    label="Paper"
    value={value}
    options={(Object.keys(papers) as T[]).map((each) => [each, each] as const)}
    onChoose={onChoose}
  />
);

/** A name as a file may bear it. */
export const fileName = (name: string): string => name.replace(/[^\p{L}\p{N} ,.-]+/gu, ' ').trim();

/** Saves sheets as a PDF, and says what went wrong or which letters it lacks. */
export function useSavePdf(failed = 'The PDF could not be made. Try again.') {
  const [told, setTold] = useState<string | null>(null);
  const [working, setWorking] = useState(false);
  const save = async (sheets: () => readonly Sheet[], file: string): Promise<void> => {
    setWorking(true);
    setTold(null);
    try {
      // What writes it is loaded with the first one that is asked for.
      const { paperPdf } = await import('./paper-pdf.js');
      const { bytes, missing } = await paperPdf(sheets());
      saveFile(`${file}.pdf`, bytes, 'application/pdf');
      if (missing !== '') setTold(`The PDF’s typeface has no ${[...missing].join(' ')}.`);
    } catch {
      setTold(failed);
    }
    setWorking(false);
  };
  return { save, told, working };
}

export const Told = ({ said }: { said: string | null }) =>
  said === null ? null : (
    <p role="alert" className="pb-3 text-outside">
      {said}
    </p>
  );
