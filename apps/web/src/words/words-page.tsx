import { useEffect } from 'react';
import { useLocation } from 'react-router';
import { PageTop } from '../pages/page-top.js';
import { Explained } from './explained.js';
import { TERMS, type TermId } from './terms.js';

/** Every word of the trade that Gangway uses, with a small drawing. */
export function WordsPage() {
  const { hash } = useLocation();
  useEffect(() => {
    document.getElementById(hash.slice(1))?.scrollIntoView({ block: 'center' });
  }, [hash]);
  return (
    <>
      <PageTop />
      <main className="mx-auto max-w-5xl px-5 py-6">
        <h1 className="mb-1 text-2xl font-semibold">Words</h1>
        <p className="mb-6 text-quiet">
          What the scales and pages mean by them. Wherever a word is dotted underneath, press it.
        </p>
        <div className="grid gap-x-10 gap-y-6 md:grid-cols-2">
          {(Object.keys(TERMS) as TermId[]).map((id) => (
            <div
              key={id}
              id={id}
              className={`border-t-2 pt-3 ${hash === `#${id}` ? 'border-within' : 'border-ink'}`}
            >
              <Explained id={id} />
            </div>
          ))}
        </div>
      </main>
    </>
  );
}
