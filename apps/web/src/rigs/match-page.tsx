import { Link, useParams } from 'react-router';
import {
  backgroundBlur,
  backgroundScale,
  distance,
  evaluate,
  formatNamed,
  fStop,
  isWhole,
  parseRig,
  readKept,
  matchDistance,
  matchFocalLength,
  matchFormat,
  parseDistanceM,
  parseFNumber,
  parseLengthMm,
  pictureOf,
  rigStation,
  trimmed,
  turnedBack,
  type MatchedPicture,
  MATCHED_SIDES,
  type MatchedSide,
  type Parsed,
  type WholeRig,
} from '@gangway/station';
import * as z from 'zod';
import { useRigQuery } from '../records/kit-api.js';
import { isMissing } from '../records/api.js';
import { useAppSelector } from '../store/store.js';
import { PageTop } from '../pages/page-top.js';
import { useKept } from '../browser/use-kept.js';
import { useTries } from '../records/use-tries.js';
import { NotFound, Unopened } from '../records/states.js';
import { MatchDrawing } from './match-drawing.js';
import { MatchFrame } from './match-frame.js';
import { FormatSelect } from './format-choice.js';
import { SideChoice } from './side-choice.js';

export function MatchPage() {
  const { rig: id = '' } = useParams();
  const [pollingInterval, heed] = useTries();
  const { currentData: data, error } = useRigQuery(id, { pollingInterval });
  heed(error);
  if (!data || isMissing(error)) return <Unopened error={error} />;
  const rig = readKept(parseRig, data.document).value;
  return rig && isWhole(rig) ? <Match id={id} rig={rig} /> : <NotFound />;
}

/** A figure typed by hand, held as text until it can be read. */
function useFigure(key: string, start: string, parse: (text: string) => Parsed) {
  const [text, setText] = useKept(`match.${key}`, z.string(), start);
  const read = parse(text);
  const value = read.ok && read.value > 0 ? read.value : null;
  const message = read.ok ? (read.value > 0 ? null : 'Give a figure above zero.') : read.message;
  return { text, setText, value, message };
}

type Figure = ReturnType<typeof useFigure>;

function FigureLine({ label, figure, unit }: { label: string; figure: Figure; unit?: string }) {
  const id = `match-${label.replace(/\W+/g, '-').toLowerCase()}`;
  return (
    <div>
      <div className="flex items-baseline justify-between gap-4">
        <label htmlFor={id} className="text-quiet">
          {label}
        </label>
        <span className="flex items-baseline gap-1">
          <input
            id={id}
            value={figure.text}
            onChange={(event) => figure.setText(event.target.value)}
            aria-invalid={figure.message !== null}
            autoComplete="off"
            className="min-h-8 w-24 border-b border-rule bg-transparent text-right figure hover:border-rule-strong pointer-coarse:min-h-11"
          />
          <span className="w-7 text-[12px] text-quiet">{unit}</span>
        </span>
      </div>
      {figure.message !== null && (
        <p role="alert" className="text-[13px] text-outside">
          {figure.message}
        </p>
      )}
    </div>
  );
}

/** How much room, m, is wanting behind the camera. */
const roomMissing = ({ distanceMm }: MatchedPicture, roomM: number | null): number =>
  roomM === null ? 0 : distanceMm / 1000 - roomM;

function Match({ id, rig }: { id: string; rig: WholeRig }) {
  const units = useAppSelector((state) => state.preferences.units);
  const bare = units === 'feet' ? 'ft' : 'm';
  const { optics } = evaluate(rigStation(rig));
  const subject = useFigure('subject', units === 'feet' ? '10 ft' : '3', (text) =>
    parseDistanceM(text, bare),
  );
  const behind = useFigure('behind', units === 'feet' ? '13 ft' : '4', (text) =>
    parseDistanceM(text, bare),
  );
  const room = useFigure('room', units === 'feet' ? '16 ft' : '5', (text) =>
    parseDistanceM(text, bare),
  );
  const stop = useFigure(`stop.${id}`, `f/${trimmed(optics.f_number, 1)}`, parseFNumber);
  const focal = useFigure(`focal.${id}`, trimmed(optics.focal_length_mm, 1), (text) =>
    parseLengthMm(text, 'mm'),
  );
  const [format, setFormat] = useKept('match.format', z.string(), '44 × 33 mm');
  const [side, setSide] = useKept<MatchedSide>('match.side', z.enum(MATCHED_SIDES), 'width');
  const other = formatNamed(format);
  const otherSides = turnedBack({ ...other, orientation: rig.back.orientation });

  const picture =
    subject.value === null || stop.value === null
      ? null
      : pictureOf(
          {
            focalLengthMm: optics.focal_length_mm,
            fNumber: stop.value,
            sides: turnedBack(rig.back),
            distanceMm: subject.value * 1000,
          },
          side,
        );
  const matches =
    picture && focal.value !== null
      ? {
          lens: matchFocalLength(picture, otherSides, side),
          place: matchDistance(picture, focal.value, otherSides, side),
          format: matchFormat(picture, focal.value, otherSides, side),
        }
      : null;
  const behindMm = (behind.value ?? 0) * 1000;
  const missing = matches ? roomMissing(matches.place, room.value) : 0;

  return (
    <>
      <PageTop />
      <main className="mx-auto max-w-6xl px-5 py-6">
        <div className="mb-4 flex flex-wrap items-baseline justify-between gap-3">
          <h1 className="text-2xl font-semibold">Match the picture of {rig.name}</h1>
          <Link to={`/rigs/${id}`} className="text-quiet hover:text-ink">
            Back to the bench
          </Link>
        </div>
        <div className="grid gap-x-12 gap-y-6 lg:grid-cols-[20rem_minmax(0,1fr)]">
          <div className="space-y-5">
            <section className="space-y-1.5">
              <h2 className="mb-1 text-[15px] font-semibold">The picture as it is</h2>
              <FigureLine label="Subject, from the sensor" figure={subject} unit={bare} />
              <FigureLine label="Background behind the subject" figure={behind} unit={bare} />
              <FigureLine label="Stop on this rig" figure={stop} />
              {picture && (
                <MatchFrame picture={picture} behindMm={behindMm} side={side} label="As it is" />
              )}
            </section>
            <section className="space-y-1.5">
              <h2 className="mb-1 text-[15px] font-semibold">The other back</h2>
              <FormatSelect
                label="Format"
                labelClassName="flex items-baseline justify-between gap-4 text-quiet"
                value={format}
                onChange={setFormat}
                className="mr-8 min-h-8 border-b border-rule bg-page text-right font-medium text-ink pointer-coarse:min-h-11"
              />
              <SideChoice value={side} onChange={setSide} />
              <FigureLine label="A lens at hand" figure={focal} unit="mm" />
              <FigureLine label="Room to step back, from the subject" figure={room} unit={bare} />
            </section>
          </div>
          <div className="min-w-0">
            {!picture && subject.value !== null && (
              <p className="text-outside">
                This lens does not focus that near; its thin-lens limit is four focal lengths,{' '}
                {distance((4 * optics.focal_length_mm) / 1000, units)}.
              </p>
            )}
            {picture && matches && (
              <>
                <MatchDrawing
                  picture={picture}
                  other={matches.place}
                  behindMm={behindMm}
                  roomMm={room.value === null ? null : room.value * 1000}
                  side={side}
                />
                <div className="mt-4 grid gap-6 md:grid-cols-3">
                  <Way
                    title="From the same place"
                    figure={trimmed(matches.lens.focalLengthMm, 1)}
                    unit="mm"
                    words={`on ${other.name} frames the same. Perspective stays; at ${fStop(matches.lens.fNumber)} the background blurs alike.`}
                    was={picture}
                    now={matches.lens}
                    behindMm={behindMm}
                    side={side}
                  />
                  <Way
                    title={`With the ${trimmed(matches.place.focalLengthMm, 1)} mm at hand`}
                    figure={distance(matches.place.distanceMm / 1000, units)}
                    unit=""
                    words={
                      missing > 0.005
                        ? `from the subject frames the same on ${other.name}. The room is too small by ${distance(missing, units)}.`
                        : `from the subject frames the same on ${other.name}.`
                    }
                    bad={missing > 0.005}
                    was={picture}
                    now={matches.place}
                    behindMm={behindMm}
                    side={side}
                  />
                  <Way
                    title={`The ${trimmed(matches.format.focalLengthMm, 1)} mm, same place`}
                    figure={`${trimmed(matches.format.sides.widthMm, 1)} × ${trimmed(matches.format.sides.heightMm, 1)}`}
                    unit="mm"
                    words={
                      matches.format.sides.widthMm > otherSides.widthMm + 0.05
                        ? `is the format it would take; ${other.name} is too small and cuts the picture.`
                        : `of ${other.name} hold the same picture; the rest is to spare.`
                    }
                    was={picture}
                    now={matches.format}
                    behindMm={behindMm}
                    side={side}
                  />
                </div>
              </>
            )}
          </div>
        </div>
      </main>
    </>
  );
}

const change = (now: number, was: number): string => {
  const percent = (now / was - 1) * 100;
  if (Math.abs(percent) < 0.5) return 'the same';
  return `${trimmed(Math.abs(percent), 0)} % ${percent > 0 ? 'larger' : 'smaller'}`;
};

function Way({
  title,
  figure,
  unit,
  words,
  bad = false,
  was,
  now,
  behindMm,
  side,
}: {
  title: string;
  figure: string;
  unit: string;
  words: string;
  bad?: boolean;
  was: MatchedPicture;
  now: MatchedPicture;
  behindMm: number;
  side: MatchedSide;
}) {
  const blur = (picture: MatchedPicture): number => backgroundBlur(picture, behindMm, side);
  return (
    <section>
      <h2 className="text-[15px] font-semibold">{title}</h2>
      <p className={`mt-1 ${bad ? 'text-outside' : ''}`}>
        <span className="figure text-[26px]">{figure}</span>{' '}
        <span className="text-quiet">{unit}</span>
      </p>
      <p className={bad ? 'text-outside' : 'text-quiet'}>{words}</p>
      <MatchFrame picture={now} behindMm={behindMm} side={side} label={title} />
      <dl className="mt-2 text-[13px]">
        <div className="flex justify-between gap-3 border-t border-rule py-1">
          <dt className="text-quiet">Things behind look</dt>
          <dd className="figure">
            {change(backgroundScale(now, behindMm), backgroundScale(was, behindMm))}
          </dd>
        </div>
        <div className="flex justify-between gap-3 border-t border-rule py-1">
          <dt className="text-quiet">Their blur, at {fStop(now.fNumber)}</dt>
          <dd className="figure">{change(blur(now), blur(was))}</dd>
        </div>
        <div className="flex justify-between gap-3 border-y border-rule py-1">
          <dt className="text-quiet">Blur disc of the frame</dt>
          <dd className="figure">{trimmed(blur(now) * 100, 2)} %</dd>
        </div>
      </dl>
    </section>
  );
}
