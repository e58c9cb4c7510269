import { useRef, type ChangeEvent } from 'react';
import { Button } from '../ui/button.js';
import { chosenFrom, type FoundFile } from './dropped-pictures.js';

/** Choosing pictures by name, beside dropping them anywhere. */
export function PictureChoice({
  label,
  onFiles,
  strong = false,
  children,
}: {
  /** What is chosen, as it is read out. */
  label: string;
  onFiles: (files: readonly FoundFile[]) => void;
  strong?: boolean;
  children: string;
}) {
  const input = useRef<HTMLInputElement>(null);
  const onChange = ({ target }: ChangeEvent<HTMLInputElement>): void => {
    const chosen = [...(target.files ?? [])];
    target.value = '';
    if (chosen.length > 0) onFiles(chosenFrom(chosen).files);
  };
  return (
    <>
      <Button look={strong ? 'strong' : 'plain'} onClick={() => input.current?.click()}>
        {children}
      </Button>
      <input
        ref={input}
        type="file"
        multiple
        accept="image/*,.tif,.tiff,.dng,.cr2,.cr3,.nef,.arw,.raf,.rw2,.orf,.pef,.iiq,.3fr,.fff"
        aria-label={label}
        className="sr-only"
        tabIndex={-1}
        onChange={onChange}
      />
    </>
  );
}
