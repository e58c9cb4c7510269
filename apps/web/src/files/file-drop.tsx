import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { dropKit } from './dropped-kit.js';
import { droppedFrom, dropPictures } from './dropped-pictures.js';
import { useImport } from './use-import.js';

const holdsFiles = (event: DragEvent): boolean =>
  event.dataTransfer?.types.includes('Files') ?? false;

/** Pages that take pictures themselves, and what a drop there does. */
const PICTURES: readonly (readonly [RegExp, string])[] = [
  [/^\/jobs\/[^/]+\/files$/, 'Drop the pictures to match them'],
  [/\/mosaic\/prove$/, 'Drop the frames to prove them'],
  [/^\/lenses\/[^/]+/, 'Drop the pictures to measure them'],
];

/**
 * Takes files dropped anywhere on the window: stations into the job on screen or a new one; on
 * the pages of the kit, a kit or table to import.
 */
export function FileDrop({ children }: { children: ReactNode }) {
  const [over, setOver] = useState(false);
  const depth = useRef(0);
  const importFiles = useImport();
  const { pathname } = useLocation();
  const navigate = useNavigate();
  const inKit = /^\/(kit|rigs)\b/.test(pathname);
  const jobId = /^\/jobs\/(?!take-in)([^/]+)/.exec(pathname)?.[1] ?? null;
  const inFiles = PICTURES.find(([path]) => path.test(pathname))?.[1] ?? null;

  useEffect(() => {
    const enter = (event: DragEvent): void => {
      if (!holdsFiles(event)) return;
      depth.current += 1;
      setOver(true);
    };
    const leave = (event: DragEvent): void => {
      if (!holdsFiles(event)) return;
      depth.current -= 1;
      if (depth.current <= 0) setOver(false);
    };
    const hold = (event: DragEvent): void => {
      if (holdsFiles(event)) event.preventDefault();
    };
    const drop = (event: DragEvent): void => {
      if (!holdsFiles(event)) return;
      event.preventDefault();
      depth.current = 0;
      setOver(false);
      if (inFiles !== null && event.dataTransfer) {
        dropPictures(droppedFrom(event.dataTransfer));
        return;
      }
      const files = [...(event.dataTransfer?.files ?? [])];
      if (!inKit) {
        void importFiles(files, jobId);
      } else if (files[0]) {
        dropKit(files[0]);
        void navigate('/kit/import');
      }
    };
    addEventListener('dragenter', enter);
    addEventListener('dragleave', leave);
    addEventListener('dragover', hold);
    addEventListener('drop', drop);
    return () => {
      removeEventListener('dragenter', enter);
      removeEventListener('dragleave', leave);
      removeEventListener('dragover', hold);
      removeEventListener('drop', drop);
    };
  }, [importFiles, jobId, inKit, inFiles, navigate]);

  return (
    <>
      {children}
      {over && (
        <div className="pointer-events-none fixed inset-0 z-50 flex items-center justify-center border-4 border-within bg-paper/80">
          <p className="text-xl font-semibold">
            {inFiles !== null
              ? inFiles
              : inKit
                ? 'Drop it to look before it is imported'
                : jobId
                  ? 'Drop to add to this job'
                  : 'Drop to begin a job'}
          </p>
        </div>
      )}
    </>
  );
}
