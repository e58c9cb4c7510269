import { useEffect, useState } from 'react';
import type { Typeface } from '@gangway/paper';

/** The letters a text is set in on paper, once they are there; “failed” where they cannot be had. */
export function useFace(text: string): Typeface | 'failed' | null {
  const [face, setFace] = useState<Typeface | 'failed' | null>(null);
  useEffect(() => {
    let left = false;
    import('./paper-pdf.js')
      .then(({ faceFor }) => faceFor(text))
      .then((read) => !left && setFace(read))
      .catch(() => !left && setFace('failed'));
    return () => {
      left = true;
    };
  }, [text]);
  return face;
}
