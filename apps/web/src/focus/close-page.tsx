import { useNavigate } from 'react-router';
import {
  atMagnification,
  closeUp,
  rowAtFocus,
  fixed,
  fStop,
  parseRatio,
  stops,
  trimmed,
  CLOSE_UP_NOT_KNOWN,
  type CloseUp,
} from '@gangway/station';
import { FigureField } from '../fields/fields.js';
import { DrawnPage } from '../station/drawn-page.js';
import { Group, Line } from '../station/results.js';
import { selectStation } from '../store/selectors.js';
import { changed } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { CloseDrawing } from './close-drawing.js';

const mmOr = (value: number | null, decimals = 1): string =>
  value === null ? '—' : fixed(value, decimals);

const depth = (mm: number | null): string => mmOr(mm, mm !== null && mm < 10 ? 2 : 0);

/** Close work: magnification first, then what acts and how little is deep. */
export function ClosePage() {
  const station = useAppSelector(selectStation);
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const read = closeUp(station);
  const row = rowAtFocus(station);
  const { back } = station;
  const upright = back.orientation === 'portrait';
  return (
    <DrawnPage
      title="Close up"
      about="Set how large things are to be on the back, or move the subject in the drawing; the rest follows."
      drawing={<CloseDrawing read={read} frameMm={upright ? back.width_mm : back.height_mm} />}
    >
      <FigureField
        label="Magnification on the back"
        pointer="/focus/magnification"
        unit="×"
        parse={parseRatio}
        value={Number(trimmed(read.magnification, 4).replace('−', '-'))}
        write={atMagnification}
      />
      <p className="flex items-baseline gap-6 border-y border-rule py-2">
        <span>
          <span className="figure text-[28px] leading-8">{depth(read.depthMm)}</span>{' '}
          <span className="text-quiet">mm deep</span>
        </span>
        <span>
          <span className="figure text-[28px] leading-8">
            f/{fixed(read.effective, read.effective < 10 ? 1 : 0)}
          </span>{' '}
          <span className="text-quiet">acts</span>
        </span>
      </p>
      <Group title={`At ${fStop(station.aperture)}`}>
        <Line
          name="Costs, of light"
          figure={stops(read.stopsLost)}
          term="draw"
          rests={['exposure']}
        />
        <Line name="From the front of the lens" figure={mmOr(read.workingMm, 0)} unit="mm" />
        {read.workingMm === null && (
          <p className="text-[13px] text-quiet">
            Give the lens its thread’s distance from the pupil, in the kit.
          </p>
        )}
        <Line name="From the sensor" figure={mmOr(read.subjectToSensorMm, 0)} unit="mm" />
        <Line
          name="Sees"
          figure={`${fixed(read.seenMm[0], 1)} × ${fixed(read.seenMm[1], 1)}`}
          unit="mm"
        />
        <Line
          name={`Focal length that acts${read.breathes ? ', as it breathes' : ''}`}
          figure={fixed(read.focalLengthMm, 1)}
          unit="mm"
        />
      </Group>
      <ByStop read={read} />
      <p className="text-[13px] text-quiet">{CLOSE_UP_NOT_KNOWN}</p>
      <Group title="Wider than one frame">
        <p className="pb-2 text-quiet">
          Shift through three frames without touching the focus; near and far limits go with the
          plan, so that it can be told how far they part.
        </p>
        {typeof row === 'string' ? (
          <p className="text-costs">{row}</p>
        ) : (
          <Button
            onClick={() => {
              dispatch(changed({ station: row, label: 'Plan three frames' }));
              void navigate('../mosaic');
            }}
          >
            Plan three frames at this focus
          </Button>
        )}
      </Group>
    </DrawnPage>
  );
}

const ByStop = ({ read }: { read: CloseUp }) => (
  <table className="w-full text-right">
    <caption className="pb-1 text-left text-[13px] font-semibold text-quiet">By stop</caption>
    <thead>
      <tr className="text-[13px] text-quiet [&>th]:font-normal">
        <th className="text-left">Stop</th>
        <th>acts as</th>
        <th>depth mm</th>
        <th>Airy µm</th>
      </tr>
    </thead>
    <tbody>
      {read.stops.map((each) => (
        <tr key={each.fNumber} className="border-t border-rule">
          <th className="figure py-1 text-left">{fStop(each.fNumber)}</th>
          <td className="figure">f/{fixed(each.effective, each.effective < 10 ? 1 : 0)}</td>
          <td className="figure">{depth(each.depthMm)}</td>
          <td className="figure">{fixed(each.airyUm, 1)}</td>
        </tr>
      ))}
    </tbody>
  </table>
);
