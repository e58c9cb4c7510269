import isEqual from 'fast-deep-equal';
import { memo, useEffect, useId, useMemo, useRef, useState } from 'react';
import {
  boxFaceMarks,
  distanceParts,
  fixed,
  parseMarkPlace,
  pickablePlaces,
  withNewMark,
  type MarkPlace,
  withMark,
  withMarks,
  withoutMark,
  type Mark,
  type MarkReport,
  type Station,
  longerAtMarks,
} from '@gangway/station';
import { selectReport } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { Field } from '../fields/field.js';
import {
  ChoiceField,
  FigureField,
  given,
  parseNumber,
  TextField,
  useStation,
} from '../fields/fields.js';
import { Titled, useSiteEdit } from '../fields/site-part.js';

const PLACES = [
  ['x_m', 'Right of the axis'],
  ['y_m', 'Above ground'],
  ['z_m', 'Ahead'],
] as const;

/** Nearer than this marks are measured in millimetres. */
const NEAR_M = 2;

const MUST = [
  ['sharp', 'sharp'],
  ['soft', 'soft'],
  ['free', 'free'],
] as const;

/** Marks on the subject: by tape, from the site, many at once. */
export function MarkList() {
  const station = useStation();
  const edit = useSiteEdit();
  const report = useAppSelector(selectReport);
  const marks = station.marks ?? [];
  const longer = useMemo(() => longerAtMarks(station), [station]);
  const [added, setAdded] = useState<number | null>(null);
  return (
    <Titled
      title="Marks"
      action={
        <Button
          aria-label="Add a mark"
          onClick={() => {
            setAdded(marks.length);
            edit('Add a mark', '/marks', withNewMark);
          }}
        >
          Add
        </Button>
      }
    >
      {marks.map((mark, i) => (
        <MarkLine
          key={i}
          index={i}
          mark={mark}
          read={report.marks?.[i]}
          longer={longer[i]!}
          fresh={added === i}
        />
      ))}
      <FromSite station={station} />
    </Titled>
  );
}

/** Its fields are made when it is opened: two hundred marks would be two thousand fields. */
const MarkLine = memo(function MarkLine({
  index,
  mark,
  read,
  longer,
  fresh,
}: {
  index: number;
  mark: Mark;
  read: MarkReport | undefined;
  /** Where its patch is drawn out by the leaned stop. */
  longer: string;
  /** It was added just now: it opens, with the keyboard in it. */
  fresh: boolean;
}) {
  const edit = useSiteEdit();
  const [open, setOpen] = useState(fresh);
  const fields = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!fresh) return;
    const name = fields.current?.querySelector('input');
    name?.focus();
    name?.select();
    name?.scrollIntoView({ block: 'center' });
  }, [fresh]);
  const name = mark.label || `Mark ${index + 1}`;
  const near = Math.abs(mark.z_m) < NEAR_M && !mark.infinite;
  const tone = mark.must === 'free' ? 'text-quiet' : read?.holds ? 'text-within' : 'text-outside';
  return (
    <details
      className="border-t border-rule"
      open={open}
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="flex min-h-8 cursor-pointer items-baseline justify-between gap-2 py-1 pointer-coarse:min-h-11">
        <span className="font-medium">{name}</span>
        <span className={`text-[13px] ${tone}`}>
          <span className="text-quiet">{mark.must}</span>{' '}
          <span className="figure">
            {read === undefined || read.blur_um === null
              ? 'no focus'
              : `${fixed(read.blur_um, 0)} µm`}
          </span>
          {longer && `, ${longer}`}
          {read && !read.holds ? (mark.must === 'soft' ? ', too sharp' : ', does not hold') : ''}
          {read && !read.in_frame ? ', outside the frame' : ''}
        </span>
      </summary>
      {open && (
        <div ref={fields} className="space-y-1.5 pb-2">
          <TextField
            label="Name"
            pointer={`/marks/${index}/label`}
            value={mark.label}
            write={(now, label) => withMark(now, index, { label })}
          />
          {PLACES.map(([field, label]) => (
            <PlaceField key={field} {...{ field, label, index, near }} value={mark[field]} />
          ))}
          <ChoiceField
            label="Must be"
            pointer={`/marks/${index}/must`}
            value={mark.must}
            options={MUST}
            write={(now, must) => withMark(now, index, { must })}
          />
          {mark.must === 'soft' && (
            <FigureField
              label="Blur at least"
              pointer={`/marks/${index}/blur_um`}
              unit="µm"
              parse={parseNumber}
              value={mark.blur_um}
              write={(now, blur_um) => withMark(now, index, { blur_um })}
              clear={(now) =>
                withMarks(
                  now,
                  now.marks!.map((each, j) => (j === index ? unasked(each) : each)),
                )
              }
            />
          )}
          <label className="flex min-h-8 items-center gap-2 pointer-coarse:min-h-11">
            <input
              type="checkbox"
              checked={mark.infinite === true}
              onChange={() =>
                edit('Set how far the mark is', `/marks/${index}`, (now) =>
                  withMark(now, index, { infinite: mark.infinite !== true }),
                )
              }
              className="size-4 accent-within"
            />
            At infinity, in this direction
          </label>
          <div className="flex justify-end">
            <Button
              look="quiet"
              aria-label={`Remove ${name}`}
              onClick={() => edit('Remove a mark', '/marks', (now) => withoutMark(now, index))}
            >
              Remove
            </Button>
          </div>
        </div>
      )}
    </details>
  );
}, isEqual);

function unasked({ blur_um: _, ...mark }: Mark): Mark {
  return mark;
}

/** One place of a mark: near work by the millimetre, kept in metres; from another mark where it is so written. */
function PlaceField({
  field,
  label,
  index,
  near,
  value,
}: {
  field: MarkPlace;
  label: string;
  index: number;
  near: boolean;
  value: number;
}) {
  const station = useStation();
  const feet = useAppSelector((state) => state.preferences.units) === 'feet';
  const size = Math.abs(value);
  const shown = feet
    ? `${value < 0 ? '−' : ''}${distanceParts(size, 'feet')[0]}`
    : given(near ? Number((value * 1000).toFixed(3)) : value);
  const before = station.marks?.[index - 1]?.label;
  return (
    <Field
      {...{ label, shown }}
      pointer={`/marks/${index}/${field}`}
      unit={feet ? '' : near ? 'mm' : 'm'}
      parse={(text) => parseMarkPlace(text, station, index, field, feet ? 'ft' : near ? 'mm' : 'm')}
      write={(now, next) => withMark(now, index, { [field]: next })}
      {...(field === 'y_m' && before
        ? { help: `From the ground; “+90 mm” counts from ${before}.` }
        : {})}
    />
  );
}

/** Corners of things that stand in the site already. */
function FromSite({ station }: { station: Station }) {
  const id = useId();
  const edit = useSiteEdit();
  const [picked, setPicked] = useState('');
  const places = pickablePlaces(station);
  const boxes = station.site?.boxes ?? [];
  if (places.length === 0) return null;
  const add = (now: Station, more: readonly Mark[]): Station =>
    withMarks(now, [...(now.marks ?? []), ...more]);
  const pick = (value: string): void => {
    setPicked('');
    const [kind, a, b] = value.split(':');
    if (kind === 'place') {
      const { of, name, at } = places[Number(a)]!;
      edit('Add a mark', '/marks', (now) =>
        add(now, [{ label: `${of}, ${name}`, ...at, must: 'sharp' }]),
      );
    } else if (kind === 'face') {
      edit('Add four marks', '/marks', (now) =>
        add(now, boxFaceMarks(now, Number(a), b as 'top' | 'front')),
      );
    }
  };
  return (
    <div className="flex items-baseline justify-between gap-3 border-t border-rule pt-1.5">
      <label htmlFor={id} className="text-quiet">
        From the site
      </label>
      <select
        id={id}
        value={picked}
        onChange={(event) => pick(event.target.value)}
        className="min-h-8 max-w-48 border-b border-rule bg-paper text-right font-medium hover:border-rule-strong pointer-coarse:min-h-11"
      >
        <option value="">add a mark</option>
        {boxes.map((box, i) => (
          <optgroup key={i} label={box.name || `Box ${i + 1}`}>
            <option value={`face:${i}:top`}>four corners of its top</option>
            <option value={`face:${i}:front`}>four corners of its front</option>
            {places.map(
              ({ of, name }, k) =>
                of === (box.name || `Box ${i + 1}`) && (
                  <option key={k} value={`place:${k}`}>
                    {name}
                  </option>
                ),
            )}
          </optgroup>
        ))}
        {station.facade && (
          <optgroup label="Façade">
            {places.map(
              ({ of, name }, k) =>
                of === 'Façade' && (
                  <option key={k} value={`place:${k}`}>
                    {name}
                  </option>
                ),
            )}
          </optgroup>
        )}
      </select>
    </div>
  );
}
