import { Link } from 'react-router';
import { CircleDrawing } from '../drawing/circle-drawing.js';
import { PageTop } from '../pages/page-top.js';
import { useKept } from '../browser/use-kept.js';
import { BeginForm } from './begin-form.js';
import { NO_LENS_YET, ownLensShape } from './own-lens.js';

/** From a lens on a data sheet to a station with a verdict, on one page. */
export function OwnLensPage() {
  const [texts, setTexts] = useKept('begin.lens', ownLensShape, NO_LENS_YET);
  return (
    <>
      <PageTop />
      <main className="mx-auto grid max-w-4xl gap-x-14 gap-y-6 px-5 py-6 md:grid-cols-[minmax(0,1fr)_20rem]">
        <div>
          <h1 className="mb-1 text-2xl font-semibold">Your own lens</h1>
          <p className="mb-4 text-quiet">
            Three figures and the size of the sensor are enough to begin. It goes into your kit and
            opens a station.
          </p>
          <BeginForm
            ownOnly
            texts={texts}
            onTexts={setTexts}
            aside={
              <Link to="/jobs" className="inline-flex min-h-9 items-center px-3 text-quiet">
                Not now
              </Link>
            }
          />
        </div>
        <div className="max-md:order-first max-md:hidden md:sticky md:top-6 md:self-start">
          <CircleDrawing
            text={`${/^f/i.test(texts.widest.trim()) ? texts.widest : `f/${texts.widest || '4'}`}: ${texts.circle}`}
            format={texts.format}
          />
        </div>
      </main>
    </>
  );
}
