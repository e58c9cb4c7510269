import { format } from 'date-fns';
import { useEffect, useMemo, type ComponentType } from 'react';
import { Link, useParams } from 'react-router';
import * as z from 'zod';
import { PAPERS, type Paper } from '@gangway/paper';
import type { MeasuredFrom } from '@gangway/station';
import { session, writeTo } from '../browser/storage.js';
import { useKept } from '../browser/use-kept.js';
import { onPicturesDropped, type FoundFile } from '../files/dropped-pictures.js';
import { takeHanded } from '../files/handed-pictures.js';
import { PaperChoice, Told, useSavePdf } from '../files/paper-choice.js';
import { PictureChoice } from '../files/picture-choice.js';
import { isPicture } from '../files/picture-names.js';
import { NotFound } from '../records/states.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { useNotice } from '../ui/notices.js';
import { deskOf, useDesk, type Desk } from './desk.js';
import { EdgePart } from './edge-part.js';
import { useTyped } from './file-fields.js';
import { type Typed } from './typed.js';
import { FlatPart } from './flat-part.js';
import { LensFrame } from './lens-frame.js';
import { isMethod, METHOD_WORDS, METHODS, type Method } from './methods.js';
import type { PartProps } from './part-props.js';
import { SeriesPart } from './series-part.js';
import { useBack, useKeeping, type StoredLens } from './use-lens.js';
import { ZeroPart } from './zero-part.js';

const PARTS: Readonly<Record<Method, ComponentType<PartProps>>> = {
  series: SeriesPart,
  flat: FlatPart,
  edge: EdgePart,
  zero: ZeroPart,
};

/** Pictures of the demo to try with, and what is typed beside them. */
const DEMO: Readonly<Partial<Record<Method, { readonly zip: string; readonly typed?: (name: string) => Readonly<Record<string, string>> | undefined }>>> = {
  series: { zip: '/demo-series.zip' },
  edge: { zip: '/demo-edge.zip' },
  flat: { zip: '/demo-flat.zip', typed: (name) => Object.entries(WHITE).find(([place]) => name.includes(place))?.[1] },
  zero: { zip: '/demo-zero.zip', typed: (name) => ({ deg: /^lean(.*)\.jpg$/.exec(name)?.[1] ?? '' }) },
}; // prettier-ignore

/** Where the demo's pictures of the white were taken, mm. */
const WHITE = {
  middle: { rise: '0', shift: '0' },
  right14: { rise: '0', shift: '14' },
  left14: { rise: '0', shift: '-14' },
  up14: { rise: '14', shift: '0' },
  down14: { rise: '-14', shift: '0' },
};

/** Only the demo's own lens has pictures made for it. */
const DEMO_LENS = 'Shift 24 f/3.5';

const paperShape = z.enum(Object.keys(PAPERS) as [Paper, ...Paper[]]);

export function MethodPage() {
  const { method = '' } = useParams();
  if (!isMethod(method)) return <NotFound />;
  return (
    <LensFrame>
      {(lens) => <Measuring key={`${lens.id}/${method}`} {...{ lens, method }} />}
    </LensFrame>
  );
}

function Measuring({ lens, method }: { lens: StoredLens; method: Method }) {
  const desk = useDesk(lens.id, method);
  const { backs, back, choose } = useBack();
  const typed = useTyped(lens.id, method);
  const keep = useKeeping(lens);
  const Part = PARTS[method];
  useEffect(() => {
    const take = (files: readonly FoundFile[]): void => {
      const pictures = files.filter(({ path }) => isPicture(path));
      if (pictures.length > 0) deskOf(lens.id, method).open(pictures);
    };
    const handed = takeHanded();
    if (handed) take(handed);
    return onPicturesDropped((find) => void find().then(({ files }) => take(files)));
  }, [lens.id, method]);
  const told = useMemo(
    () =>
      (files: readonly string[]): MeasuredFrom => ({
        on: format(new Date(), 'd MMMM yyyy'),
        back: back?.document.name,
        files,
      }),
    [back],
  );
  const words = METHOD_WORDS[method];
  return (
    <main className="flex flex-1 flex-col">
      <nav aria-label="Ways of measuring" className="flex flex-wrap gap-x-5 border-b border-rule bg-paper px-5">
        {METHODS.map((each) => (
          <Link
            key={each}
            to={`/lenses/${lens.id}/${each}`}
            aria-current={each === method ? 'page' : undefined}
            className="-mb-px flex min-h-10 items-center border-b-2 border-transparent text-[13px] text-quiet hover:text-ink aria-[current]:border-ink aria-[current]:font-semibold aria-[current]:text-ink pointer-coarse:min-h-11"
          >
            {METHOD_WORDS[each].title}
          </Link>
        ))}
      </nav>
      {desk.files === null ? (
        <Begin {...{ lens, method, typed, desk }} />
      ) : (
        <>
          <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-rule bg-paper px-5 py-2">
            <h1 className="text-[20px] font-semibold">{words.title}</h1>
            <span className="flex-1" />
            {backs.length > 1 && (
              <label className="flex items-center gap-2 text-[13px] text-quiet">
                Taken on
                <select
                  value={back?.id}
                  onChange={({ target }) => choose(target.value)}
                  className="min-h-9 max-w-48 border-b border-rule bg-paper font-medium text-ink pointer-coarse:min-h-11"
                >
                  {backs.map(({ id, document }) => (
                    <option key={id} value={id}>
                      {document.name}
                    </option>
                  ))}
                </select>
              </label>
            )}
            <PictureChoice label="Pictures to measure" onFiles={(files) => deskOf(lens.id, method).open(files)}>
              Other pictures
            </PictureChoice>
          </div>
          {desk.failed && (
            <p role="alert" className="px-5 py-2 text-outside">
              {desk.failed}
            </p>
          )}
          {desk.doing && <Doing {...{ lens, method, doing: desk.doing }} />}
          <Part {...{ lens, desk, back, typed, told, keep }} />
          <Aside desk={desk} onAll={() => deskOf(lens.id, method).openAll()} />
        </>
      )}
    </main>
  );
} // prettier-ignore

/** How to shoot it, the chart to print, and where the pictures go. */
function Begin({ lens, method, typed, desk }: { lens: StoredLens; method: Method; typed: Typed; desk: Desk }) {
  const { title, finds, lines, target, care } = METHOD_WORDS[method];
  const units = useAppSelector((state) => state.preferences.units);
  const [paper, setPaper] = useKept<Paper>('paper', paperShape, units === 'feet' ? 'Letter' : 'A4');
  const { save, told, working } = useSavePdf();
  const demo = lens.document.name === DEMO_LENS ? DEMO[method] : undefined;
  return (
    <div className="mx-auto w-full max-w-5xl px-5 py-6">
      <h1 className="text-[24px] leading-8 font-semibold">{title}</h1>
      <p className="text-quiet">{finds}</p>
      <div className="mt-5 grid gap-8 lg:grid-cols-[minmax(0,1fr)_360px]">
        <section aria-label="How to shoot it">
          <ol className="max-w-[62ch]">
            {lines.map((line, i) => (
              <li key={line} className="flex gap-4 border-t border-rule py-2.5">
                <span className="figure text-[20px] leading-6 text-quiet">{i + 1}</span>
                <span className="text-[16px]">{line}</span>
              </li>
            ))}
          </ol>
          {care && (
            <p role="note" className="mt-3 max-w-[62ch] border-l-2 border-costs pl-3">
              {care}
            </p>
          )}
          {target && (
            <div className="mt-5 flex flex-wrap items-center gap-x-4 gap-y-2">
              <Button
                disabled={working}
                onClick={() => void target.sheet(paper).then((sheet) => save(() => [sheet], target.file))}
              >
                {target.words} (PDF)
              </Button>
              <PaperChoice papers={PAPERS} value={paper} onChoose={setPaper} />
              <span className="text-[13px] text-quiet">true to scale: print it at 100 %</span>
            </div>
          )}
          <Told said={told} />
        </section>
        <div className="flex flex-col items-center justify-center border-2 border-dashed border-rule-strong px-6 py-12 text-center">
          {desk.doing ? (
            <Doing {...{ lens, method, doing: desk.doing }} />
          ) : (
            <>
              <p className="text-[20px] font-semibold">Drop the pictures here</p>
              <p className="mt-1 mb-4 text-[13px] text-quiet">
                JPEG, PNG, WebP, TIFF of 8 or 16 bits; of a raw file the preview inside it.
              </p>
              {desk.failed && (
                <p role="alert" className="mb-3 text-outside">
                  {desk.failed}
                </p>
              )}
              <div className="flex flex-wrap justify-center gap-2">
                <PictureChoice strong label="Pictures to measure" onFiles={(files) => deskOf(lens.id, method).open(files)}>
                  Choose pictures
                </PictureChoice>
                {demo && <DemoButton {...{ lens, method, typed, demo }} />}
              </div>
            </>
          )}
        </div>
      </div>
    </div>
  );
} // prettier-ignore

function DemoButton({ lens, method, typed, demo }: { lens: StoredLens; method: Method; typed: Typed; demo: NonNullable<(typeof DEMO)[Method]> }) {
  const notice = useNotice();
  const take = async (): Promise<void> => {
    try {
      const { files } = await (await import('../files/demo-pictures.js')).demoPictures(demo.zip);
      // The demo’s edge is cut out of a picture.
      if (method === 'edge') writeTo(session, `gangway.lens.piece.${lens.id}`, '"piece"');
      const told = files.flatMap(({ path }) => {
        const own = demo.typed?.(path);
        return own ? [[path, own] as const] : [];
      });
      typed.typeAll(Object.fromEntries(told));
      deskOf(lens.id, method).open(files);
    } catch {
      notice(['The demo’s pictures could not be loaded. Try again.']);
    }
  };
  return (
    <Button look="quiet" onClick={() => void take()}>
      Use the demo’s pictures
    </Button>
  );
} // prettier-ignore

function Doing({ lens, method, doing }: { lens: StoredLens; method: Method; doing: NonNullable<Desk['doing']> }) {
  const { what, done, of } = doing;
  return (
    <div className="flex w-full items-center gap-4 px-5 py-2">
      <progress value={done} max={of} aria-label={what === 'reading' ? 'Reading the pictures' : 'Measuring'} className="h-2 min-w-0 flex-1" />
      <span className="figure whitespace-nowrap" role="status">
        {what === 'reading' ? `${done} of ${of} read` : `${Math.round((100 * done) / Math.max(1, of))} % measured`}
      </span>
      <Button onClick={() => deskOf(lens.id, method).end()}>Stop</Button>
    </div>
  );
} // prettier-ignore

/** What was set aside, and how files were read that are not read as they are. */
function Aside({ desk: { files, aside }, onAll }: { desk: Desk; onAll: () => void }) {
  const lines = [
    ...aside.map(({ file, why }) => [file, `set aside: ${why}`] as const),
    ...(files ?? []).flatMap(({ name, note }) => (note === null ? [] : [[name, note] as const])),
  ];
  if (lines.length === 0) return null;
  return (
    <ul aria-label="How the files were read" className="border-t border-rule px-5 py-3 text-[13px]">
      {aside.some(({ large }) => large) && (
        <li className="pb-2">
          <Button onClick={onAll}>Read the large ones too</Button>
        </li>
      )}
      {lines.map(([file, words], i) => (
        <li key={i} className="break-words">
          <span className="font-medium">{file}</span> <span className="text-quiet">{words}</span>
        </li>
      ))}
    </ul>
  );
}
