import { bedAnswer, degrees, fixed, fStop, type BedAnswer, type Station } from '@gangway/station';
import { selectStation } from '../store/selectors.js';
import { changed } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { FigureField } from '../fields/fields.js';
import { BedDrawing } from './bed-drawing.js';
import { DrawnPage } from '../station/drawn-page.js';
import { Group } from '../station/results.js';
import { Big } from '../station/page.js';

type Bed = NonNullable<Station['bed']>;
type Rule = 'byDiffraction' | 'byCoc';

const FIELDS: readonly (readonly [keyof Bed, string])[] = [
  ['near_mm', 'Nearest thing crisp at'],
  ['far_mm', 'Farthest thing crisp at'],
  ['infinity_mm', 'Infinity crisp at'],
  ['near_up_mm', 'Nearest thing, above the middle of the glass'],
  ['far_up_mm', 'Farthest thing, above the middle of the glass'],
];

function withoutReading(station: Station, field: keyof Bed): Station {
  const { [field]: _, ...bed } = station.bed ?? {};
  return { ...station, bed };
}

/** Both rules give what acts on the film; drawn out, or behind a multiplier, the ring says less. */
function OnRing({ of: { ring }, rule, acting }: { of: BedAnswer; rule: Rule; acting: number }) {
  if (Math.abs(ring[rule] / acting - 1) < 0.005) return null;
  return (
    <strong className="block text-ink">
      acting; set f/{fixed(ring[rule], 1)} on the ring
      {ring.byFocusSet && ', drawn out as it is focused now'}
    </strong>
  );
}

/** Two readings of the standard on its bed give focus, stop and lean, without a plan. */
export function BedPage() {
  const station = useAppSelector(selectStation);
  const answer = bedAnswer(station);
  return (
    <DrawnPage
      title="From the bed scale"
      about="Lens straight, wide open. Focus on the nearest thing and on the farthest, and read the standard on its scale each time, larger when drawn out. Type the readings, or draw the standards along the rail."
      drawing={<BedDrawing bed={station.bed} answer={answer} />}
    >
      {answer === null ? (
        <p>Two readings are wanted: the nearest thing and the farthest.</p>
      ) : (
        <Answer answer={answer} station={station} />
      )}
      <Group title="Readings">
        <div className="space-y-1.5">
          {FIELDS.map(([field, label], i) => (
            <div key={field}>
              {i === 2 && <p className="pt-2 pb-1 text-[13px] text-quiet">For the lean, also:</p>}
              <FigureField
                label={label}
                pointer={`/bed/${field}`}
                unit="mm"
                value={station.bed?.[field]}
                write={(now, value) => ({ ...now, bed: { ...now.bed, [field]: value } })}
                clear={(now) => withoutReading(now, field)}
              />
            </div>
          ))}
        </div>
        <p className="pt-1 text-[13px] text-quiet">
          Heights as the picture stands upright; on the glass itself up is down.
        </p>
      </Group>
    </DrawnPage>
  );
}

function Answer({ answer, station }: { answer: BedAnswer; station: Station }) {
  const dispatch = useAppDispatch();
  const lean = answer.lean?.frontDeg ?? null;
  return (
    <>
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <Big name="Set the standard at" figure={fixed(answer.focusAtMm, 2)} unit="mm" />
        <Big name="Focus spread" figure={fixed(answer.spreadMm, 2)} unit="mm" />
        <Big name="Stop by diffraction" figure={`f/${fixed(answer.byDiffraction, 1)}`}>
          <OnRing of={answer} rule="byDiffraction" acting={answer.byDiffraction} />
          √(375 Δ). Hansma, View Camera Focusing in Practice (1996)
        </Big>
        <Big name="By circle of confusion" figure={`f/${fixed(answer.byCoc, 1)}`}>
          <OnRing of={answer} rule="byCoc" acting={answer.byCoc} />Δ / (2 c), c as your standard of
          sharpness has it
        </Big>
      </div>
      <p className="text-[13px] text-quiet">
        {answer.spreadMm < answer.meetMm
          ? `Under ${fixed(answer.meetMm, 1)} mm of spread the rule by diffraction stops down further: it makes the picture as sharp as it can be, the other only as sharp as you ask.`
          : `Past ${fixed(answer.meetMm, 1)} mm of spread the circle of confusion asks for more than diffraction makes worth while: no stop gives what you ask; lean, or stack.`}{' '}
        The stop that is set now is {fStop(station.aperture)}.
      </p>
      {answer.lean && (
        <div className="grid grid-cols-2 gap-x-4 gap-y-3">
          {lean !== null && (
            <Big
              name={lean >= 0 ? 'Lean the lens forward' : 'Lean the lens back'}
              figure={degrees(Math.abs(lean))}
            >
              {answer.lean.thumbDeg === null
                ? 'both things then lie on one plane'
                : `by the rule of thumb ${fixed(answer.lean.thumbDeg, 1)}°`}
            </Big>
          )}
          <Big
            name={
              answer.lean.rearDeg >= 0
                ? 'Or lean the back, its top away from the lens'
                : 'Or lean the back, its top to the lens'
            }
            figure={degrees(Math.abs(answer.lean.rearDeg))}
          >
            upright lines then converge
          </Big>
        </div>
      )}
      {lean !== null && (
        <Button
          onClick={() =>
            dispatch(
              changed({
                station: {
                  ...station,
                  movements: { ...station.movements, tilt_deg: Number(lean.toFixed(2)) },
                },
                label: 'Lean from the bed scale',
              }),
            )
          }
        >
          Set this lean
        </Button>
      )}
    </>
  );
}
