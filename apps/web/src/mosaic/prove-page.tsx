import { useEffect, useMemo } from 'react';
import { useParams } from 'react-router';
import { fixed, nextTime, overlapSaid, proofPlan, waySaid, type Station } from '@gangway/station';
import type { Plan, ProvedFrame, ProvedOverlap } from '@gangway/frames';
import { saveBlob } from '../browser/save-file.js';
import { onPicturesDropped, type FoundFile } from '../files/dropped-pictures.js';
import { takeHanded } from '../files/handed-pictures.js';
import { PictureChoice } from '../files/picture-choice.js';
import { isPicture } from '../files/picture-names.js';
import { Aside } from '../station/aside.js';
import { Group } from '../station/results.js';
import { StationPart } from '../station/station-part.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { useNotice } from '../ui/notices.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { MosaicDrawing } from './drawing.js';
import { Nothing } from './nothing.js';
import { proofDesk, useProofDesk, type Desk } from './proof-desk.js';
import type { Proved, SavedAs } from './proof-messages.js';
import { PROOF_STANDING, verdictMark, VERDICT_SAID } from './proof-standing.js';
import { ProofView, useProofHold, type ProofHold } from './proof-view.js';
import { useStepping } from './stepping.js';

/** The stations of the demo that have frames to try with. */
const DEMO: Readonly<Record<string, readonly (readonly [zip: string, words: string])[]>> = {
  'Ropewalk in three frames': [
    ['/demo-mosaic-holds.zip', 'Demo: one that holds'],
    ['/demo-mosaic-slipped.zip', 'Demo: one that slipped'],
  ],
};

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Whether what was shot holds together, found in the files themselves. */
export function ProvePage() {
  const { station: id = '' } = useParams();
  const station = useAppSelector(selectStation);
  const plan = useMemo(() => proofPlan(station), [station]);
  const desk = useProofDesk(id);
  const hold = useProofHold();
  const { put } = hold;
  useEffect(() => {
    if (!plan) return undefined;
    const take = (files: readonly FoundFile[]): void => {
      put(null);
      proofDesk.begin(id, files.filter(({ path }) => isPicture(path)), plan); // prettier-ignore
    };
    const handed = takeHanded();
    if (handed) take(handed);
    return onPicturesDropped((find) => void find().then(({ files }) => take(files)));
  }, [id, plan, put]);
  if (!plan) return <Nothing title="Nothing to prove yet" />;
  return <Proving {...{ id, station, plan, desk, hold }} />;
}

interface Props {
  readonly id: string;
  readonly station: Station;
  readonly plan: Plan;
  readonly desk: Desk;
  readonly hold: ProofHold;
}

function Proving({ id, station, plan, desk, hold }: Props) {
  const stepping = useStepping(plan.frames.length);
  const { proved } = desk;
  return (
    <>
      <div className="flex min-h-0 flex-1 flex-col bg-stage max-lg:min-h-[24rem]">
        <StationPart name="The drawing">
          {proved && proved.proof.frames.length > 0 ? (
            <ProofView key={desk.files.length} proved={proved} held={hold} />
          ) : (
            <MosaicDrawing stepping={stepping} />
          )}
        </StationPart>
      </div>
      <Aside label="Prove">
        {desk.progress ? (
          <Working {...desk.progress} />
        ) : proved ? (
          <Result {...{ id, station, plan, desk, proved, hold }} />
        ) : (
          <Begin {...{ id, station, plan, desk, hold }} />
        )}
      </Aside>
    </>
  );
}

const begin = ({ id, plan, hold }: Pick<Props, 'id' | 'plan' | 'hold'>, files: readonly FoundFile[]): void => {
  hold.put(null);
  proofDesk.begin(id, files.filter(({ path }) => isPicture(path)), plan);
}; // prettier-ignore

function Begin({ id, station, plan, desk, hold }: Props) {
  return (
    <>
      <p className="border-b border-rule pb-2">
        <span className="figure block text-[24px] leading-8">Do the frames fit?</span>
        <span className="text-quiet">
          Drop the {plan.frames.length} frames here. They are read on this machine; nothing is sent
          anywhere.
        </span>
      </p>
      {desk.failed && (
        <p role="alert" className="text-outside">
          {desk.failed}
        </p>
      )}
      <Chooser {...{ id, station, plan, hold }} strong />
      <Group title="What it finds">
        <ul className="list-disc space-y-1 pl-4">
          <li>where each frame really lay, to a fraction of a pixel</li>
          <li>whether lens and body stood still, and which frame slipped</li>
          <li>whether near and far part, or something moved in between</li>
          <li>whether the light changed</li>
        </ul>
      </Group>
      <p className="text-[13px] text-quiet">
        JPEG, PNG, WebP, and TIFF of 8 or 16 bits; of a raw file the preview inside it. Develop all
        frames alike, without straightening, cropping or lens correction.
      </p>
    </>
  );
}

function Chooser({
  id,
  station,
  plan,
  hold,
  strong = false,
}: Pick<Props, 'id' | 'station' | 'plan' | 'hold'> & { strong?: boolean }) {
  const notice = useNotice();
  const take = (files: readonly FoundFile[]): void => begin({ id, plan, hold }, files);
  const demo = async (zip: string): Promise<void> => {
    try {
      take((await (await import('../files/demo-pictures.js')).demoPictures(zip)).files);
    } catch {
      notice(['The demo’s frames could not be loaded. Try again.']);
    }
  };
  return (
    <div className="flex flex-wrap gap-2">
      <PictureChoice label="Frames of the mosaic" strong={strong} onFiles={take}>
        {strong ? 'Choose the frames' : 'Other frames'}
      </PictureChoice>
      {(DEMO[station.name] ?? []).map(([zip, words]) => (
        <Button key={zip} look="quiet" onClick={() => void demo(zip)}>
          {words}
        </Button>
      ))}
    </div>
  );
}

const Working = ({ done, of }: { done: number; of: number }) => (
  <div className="space-y-3">
    <p className="figure text-[24px] leading-8" role="status">
      {Math.round((100 * done) / Math.max(1, of))} % <span className="text-[14px] text-quiet">proved</span>
    </p>
    <progress value={done} max={of} aria-label="Proving the frames" className="h-2 w-full" />
    <Button onClick={() => proofDesk.stop()}>Stop</Button>
  </div>
); // prettier-ignore

/** The middle of an overlap, mm. */
function middleOf({ a, b }: ProvedOverlap, frames: readonly ProvedFrame[]): { x: number; y: number } {
  const [one, other] = [a, b].map((each) => frames.find(({ order }) => order === each)!);
  return { x: (one!.xMm + other!.xMm) / 2, y: (one!.yMm + other!.yMm) / 2 };
} // prettier-ignore

function Result({ id, station, plan, desk, proved, hold }: Props & { proved: Proved }) {
  const { proof, aside, notes } = proved;
  const standing = PROOF_STANDING[proof.verdict];
  const nothing = proof.frames.length === 0;
  const closeUp = (at: { x: number; y: number }): void => hold.put({ ...at, scale: 1 / proof.pitchMm });
  return (
    <>
      <div className="border-b border-rule pb-2">
        <p
          className={`figure text-[24px] leading-8 ${nothing ? STANDING_TEXT.outside : STANDING_TEXT[standing]}`}
        >
          {nothing ? 'No frame could be read' : VERDICT_SAID[proof.verdict]}
        </p>
        <p role="status">{nothing ? 'See below why.' : nextTime(proof)}</p>
      </div>
      {!same(plan, proved.plan) && (
        <p role="note" className="flex flex-wrap items-center gap-2 border-l-4 border-costs pl-3">
          The layout has changed since.
          <Button onClick={() => begin({ id, plan, hold }, desk.files)}>Prove again</Button>
        </p>
      )}
      {proof.overlaps.length > 0 && (
        <Group title="Where neighbours meet">
          <ul>
            {proof.overlaps.map((overlap) => (
              <li key={`${overlap.a} ${overlap.b}`} className="border-t border-rule">
                <button
                  type="button"
                  className="flex w-full gap-3 px-1 py-1 text-left hover:bg-page"
                  aria-label={`${overlap.a} and ${overlap.b}, ${verdictMark(overlap)}: look closer`}
                  onClick={() => closeUp(middleOf(overlap, proof.frames))}
                >
                  <span className="figure min-w-9">
                    {overlap.a}–{overlap.b}
                  </span>
                  <span className="min-w-0 flex-1">
                    <span className={`font-medium ${STANDING_TEXT[PROOF_STANDING[overlap.verdict]]}`}>
                      {overlap.verdict}
                    </span>{' '}
                    {overlapSaid(overlap)}
                  </span>
                  <span className="text-[13px] whitespace-nowrap text-quiet">
                    {fixed(100 * overlap.matched, 0)} % match
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </Group>
      )}
      {!nothing && <Frames frames={proof.frames} by={proof.orderBy} onLook={(x, y) => closeUp({ x, y })} />}
      {aside.length > 0 && (
        <Group title="Set aside">
          <Named of={aside.map(({ file, why }) => [file, why])} />
          {aside.some(({ large }) => large) && (
            <Button onClick={() => begin({ id, plan, hold }, desk.files.map((each) => ({ ...each, anySize: true })))}>
              Read the large ones too
            </Button>
          )}
        </Group>
      )}
      {notes.length > 0 && (
        <Group title="How they were read">
          <Named of={notes.map(({ file, what }) => [file, what])} />
        </Group>
      )}
      {!nothing && <Saving {...{ station, desk }} />}
      <Chooser {...{ id, station, plan, hold }} />
    </>
  );
} // prettier-ignore

function Frames({ frames, by, onLook }: { frames: readonly ProvedFrame[]; by: 'name' | 'overlap'; onLook: (x: number, y: number) => void }) {
  return (
    <Group title={by === 'name' ? 'Frames, off the plan by' : 'Frames, told apart by what they show'}>
      <ul>
        {frames.map(({ order, file, offPx, exposureStops, tied, xMm, yMm, turnedDeg }) => (
          <li key={order} className="border-t border-rule">
            <button
              type="button"
              className="flex w-full items-baseline gap-2 px-1 py-1 text-left hover:bg-page"
              onClick={() => onLook(xMm, yMm)}
            >
              <span className="figure min-w-5">{order}</span>
              <span className="min-w-0 flex-1 truncate text-[13px] text-quiet" title={file}>
                {file}
                {turnedDeg !== 0 && `, turned by ${turnedDeg}°`}
              </span>
              <span className="figure whitespace-nowrap">
                {tied ? (order === frames[0]!.order ? 'the first' : waySaid(offPx)) : 'not tied'}
                {exposureStops !== null && Math.abs(exposureStops) >= 0.05 && (
                  <span className="text-quiet"> {exposureStops > 0 ? '+' : '−'}{fixed(Math.abs(exposureStops), 1)} st</span>
                )}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </Group>
  );
} // prettier-ignore

const Named = ({ of }: { of: readonly (readonly [file: string, words: string])[] }) => (
  <ul className="space-y-1 text-[13px]">
    {of.map(([file, words], i) => (
      <li key={i} className="break-words">
        <span className="font-medium">{file}</span> <span className="text-quiet">{words}</span>
      </li>
    ))}
  </ul>
);

const SAVED: readonly (readonly [SavedAs, string])[] = [
  ['png', 'PNG'],
  ['tiff', 'TIFF'],
];

function Saving({ station, desk }: Pick<Props, 'station' | 'desk'>) {
  const notice = useNotice();
  const save = (as: SavedAs): void =>
    proofDesk.save(as, station.name, (blob) =>
      blob
        ? saveBlob(`${station.name.replace(/[^\p{L}\p{N}]+/gu, '-')}-proof.${as === 'png' ? 'png' : 'tif'}`, blob)
        : notice(['The preview could not be made. Try again with fewer frames.']),
    ); // prettier-ignore
  return (
    <Group title="Save the preview, with its place in the plan">
      <div className="flex flex-wrap items-center gap-2">
        {SAVED.map(([as, words]) => (
          <Button key={as} disabled={desk.saving !== null} onClick={() => save(as)}>
            {desk.saving === as ? 'Saving …' : words}
          </Button>
        ))}
      </div>
      <p className="mt-1 text-[13px] text-quiet">
        Evened and blended at the seams, up to 4096 pixels long: a proof, not the final merge.
      </p>
    </Group>
  );
}
