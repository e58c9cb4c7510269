import { useNavigate } from 'react-router';
import {
  asPanorama,
  atMagnification,
  closeUp,
  fixed,
  fStop,
  parseRatio,
  stops,
  trimmed,
  CLOSE_UP_NOT_KNOWN,
} from '@gangway/station';
import { selectStation } from '../store/selectors.js';
import { changed } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { FigureField } from '../fields/fields.js';
import { Big, Page } from './page.js';

const mmOr = (value: number | null, decimals = 1): string =>
  value === null ? '—' : fixed(value, decimals);

/** Close work: magnification first, then what acts and how little is deep. */
export function ClosePage() {
  const station = useAppSelector(selectStation);
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const read = closeUp(station);
  return (
    <Page
      title="Close up"
      about="Set how large things are to be on the back; the rest follows. Depth is from the near limit to the far one, at the plane of sharp focus straight ahead."
    >
      <div className="max-w-xs pb-5">
        <FigureField
          label="Magnification on the back"
          pointer="/focus/magnification"
          unit="×"
          parse={parseRatio}
          value={Number(trimmed(read.magnification, 4).replace('−', '-'))}
          write={atMagnification}
        />
      </div>
      <div className="flex flex-wrap gap-x-8 gap-y-4">
        <Big
          name={`${fStop(station.aperture)} acts as`}
          figure={`f/${fixed(read.effective, read.effective < 10 ? 1 : 0)}`}
        >
          costs {stops(read.stopsLost)} of light
        </Big>
        <Big
          name="Depth"
          figure={mmOr(read.depthMm, read.depthMm !== null && read.depthMm < 10 ? 2 : 0)}
          unit="mm"
        />
        <Big name="From the front of the lens" figure={mmOr(read.workingMm, 0)} unit="mm">
          {read.workingMm === null
            ? 'give the lens its thread’s distance from the pupil, in the kit'
            : 'to the subject'}
        </Big>
        <Big name="From the sensor" figure={mmOr(read.subjectToSensorMm, 0)} unit="mm">
          to the subject
        </Big>
        <Big
          name="Sees"
          figure={`${fixed(read.seenMm[0], 1)} × ${fixed(read.seenMm[1], 1)}`}
          unit="mm"
        />
        <Big name="Focal length that acts" figure={fixed(read.focalLengthMm, 1)} unit="mm">
          {read.breathes ? 'shorter than engraved: the lens breathes' : 'as engraved'}
        </Big>
      </div>
      <table className="mt-6 text-right">
        <caption className="pb-1 text-left text-[13px] font-semibold text-quiet">By stop</caption>
        <thead>
          <tr className="text-[13px] text-quiet [&>th]:px-4 [&>th]:font-normal">
            <th className="pl-0 text-left">Stop</th>
            <th>acts as</th>
            <th>depth mm</th>
            <th>Airy µm</th>
          </tr>
        </thead>
        <tbody>
          {read.stops.map((each) => (
            <tr key={each.fNumber} className="border-t border-rule [&>td]:px-4">
              <th className="figure py-1 text-left">{fStop(each.fNumber)}</th>
              <td className="figure">f/{fixed(each.effective, each.effective < 10 ? 1 : 0)}</td>
              <td className="figure">
                {mmOr(each.depthMm, each.depthMm !== null && each.depthMm < 10 ? 2 : 0)}
              </td>
              <td className="figure">{fixed(each.airyUm, 1)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-4 max-w-[60ch] text-[13px] text-quiet">{CLOSE_UP_NOT_KNOWN}</p>
      <section className="mt-6 max-w-[60ch]">
        <h2 className="text-[15px] font-semibold">Wider than one frame</h2>
        <p className="pb-2 text-quiet">
          Shift through three frames without touching the focus; near and far limits go with the
          plan, so that it can be told how far they part.
        </p>
        <Button
          onClick={() => {
            dispatch(changed({ station: asPanorama(station), label: 'Plan three frames' }));
            void navigate('../cover');
          }}
        >
          Plan three frames at this focus
        </Button>
      </section>
    </Page>
  );
}
