import { useId, type ReactNode } from 'react';
import * as z from 'zod';
import {
  circleFor,
  FORMATS,
  OWN_FOCUS,
  OWN_LENS_FIELDS,
  ownFocus,
  type OwnLensField,
  type OwnLensTexts,
} from '@gangway/station';
import { described, FieldLine, inputLook } from '../fields/line.js';

export const ownLensShape: z.ZodType<OwnLensTexts> = z.record(
  z.enum(OWN_LENS_FIELDS),
  z.string(),
) as z.ZodType<OwnLensTexts>;

/** Only the smallest stop is filled in, in sight: it decides least, and most lenses end there. */
export const NO_LENS_YET: OwnLensTexts = {
  focal: '',
  widest: '',
  smallest: 'f/22',
  circle: '',
  shift: '',
  tilt: '',
  focus: '',
  infinity: '',
  format: '',
  name: '',
};

interface Props {
  texts: OwnLensTexts;
  messages: Readonly<Partial<Record<OwnLensField, string>>>;
  onChange: (texts: OwnLensTexts) => void;
}

/** A lens of one's own: what is needed first, and below it what may wait. */
export function OwnLensFields({ texts, messages, onChange }: Props) {
  const id = useId();
  const set = (field: OwnLensField, text: string): void => onChange({ ...texts, [field]: text });
  const line = (
    field: OwnLensField,
    label: string,
    unit: string | undefined,
    more: { placeholder?: string; help?: string; wide?: boolean } = {},
  ): ReactNode => {
    const message = messages[field] ?? null;
    return (
      <FieldLine id={`${id}-${field}`} {...{ label, message }} help={more.help} unit={unit}>
        <input
          id={`${id}-${field}`}
          value={texts[field]}
          placeholder={more.placeholder}
          onChange={(event) => set(field, event.target.value)}
          autoComplete="off"
          spellCheck={false}
          aria-invalid={message !== null}
          {...described(`${id}-${field}`, message, more.help)}
          className={`min-h-9 text-right placeholder:text-faint ${inputLook(message)} ${more.wide ? 'min-w-0 flex-1 font-medium' : 'figure w-28'}`}
        />
      </FieldLine>
    );
  };
  const select = 'min-h-9 max-w-52 bg-paper text-right font-medium';
  return (
    <div className="space-y-1.5">
      {line('focal', 'Focal length', 'mm')}
      {line('widest', 'Widest stop', '', { placeholder: 'f/3.5' })}
      {line('circle', 'Image circle', 'mm', {
        help: 'Its diameter at infinity and at the widest stop.',
      })}
      <FieldLine id={`${id}-made`} label="Circle not known? Made for" message={null} unit="">
        <select
          id={`${id}-made`}
          value=""
          onChange={(event) => {
            const format = FORMATS.find(({ name }) => name === event.target.value);
            if (format) set('circle', String(circleFor(format)));
          }}
          className={`${select} ${inputLook(null)}`}
        >
          <option value="">choose a format</option>
          {FORMATS.map(({ name }) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </FieldLine>
      <FieldLine
        id={`${id}-format`}
        label="Sensor or film behind it"
        message={messages.format ?? null}
        unit=""
      >
        <select
          id={`${id}-format`}
          value={texts.format}
          onChange={(event) => set('format', event.target.value)}
          aria-invalid={messages.format !== undefined}
          {...described(`${id}-format`, messages.format ?? null)}
          className={`${select} ${inputLook(messages.format ?? null)}`}
        >
          <option value="">choose its size</option>
          {FORMATS.map(({ name }) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </FieldLine>
      <FieldLine id={`${id}-focus`} label="It is focused" message={messages.focus ?? null} unit="">
        <select
          id={`${id}-focus`}
          value={ownFocus(texts)}
          onChange={(event) => set('focus', event.target.value)}
          className={`${select} ${inputLook(null)}`}
        >
          {Object.entries(OWN_FOCUS).map(([value, label]) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
      </FieldLine>
      {ownFocus(texts) === 'bellows' &&
        line('infinity', 'Its bed reads at infinity', 'mm', {
          placeholder: '—',
          help: 'On the bed’s own scale. Left empty, orders count from where infinity is crisp.',
        })}
      <p className="pt-3 text-[13px] text-quiet">May wait, and can be changed at any time:</p>
      {line('shift', 'Shifts by up to', 'mm', {
        placeholder: '—',
        help: 'Left empty, it does not.',
      })}
      {line('tilt', 'Tilts by up to', '°', { placeholder: '—', help: 'Left empty, it does not.' })}
      {line('smallest', 'Smallest stop', '')}
      {line('name', 'Name of the lens', undefined, {
        placeholder: texts.focal === '' ? 'its figures' : `${texts.focal} mm`,
        wide: true,
      })}
    </div>
  );
}
