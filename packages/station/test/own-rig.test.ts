import {
  fixed,
  isWhole,
  namedAfterParts,
  newRig,
  newStation,
  ownRig,
  parseEdited,
  parseMarkPlace,
  parsePixels,
  parseRig,
  parseStation,
  pitchUm,
  rigNameOf,
  rigOf,
  standardMoved,
  textsOf,
  itemFrom,
  UNNAMED_RIG,
  withNewMark,
  type OwnLensTexts,
  type Rig,
} from '../src/index.js';

const TOLD: OwnLensTexts = {
  focal: '24',
  widest: '3.5',
  smallest: 'f/22',
  circle: '60',
  shift: '12',
  focus: '',
  infinity: '',
  tilt: '',
  format: '24 × 36 mm',
  name: '',
};

describe('a lens of one’s own by its first figures', () => {
  it('becomes a lens and a back, and nothing that was not told', () => {
    const read = ownRig(TOLD);
    if (!read.ok) throw new Error(JSON.stringify(read.messages));
    expect(read.value.lens).toEqual({
      kind: 'lens',
      name: '24 mm f/3.5',
      focal_length_mm: 24,
      // As it stands in the form, to be chosen otherwise.
      focus_by: 'helicoid',
      f_min: 3.5,
      f_max: 22,
      circle: [{ f_number: 3.5, diameter_mm: 60 }],
      movement: { rise_mm: [-12, 12], shift_mm: [-12, 12], moves: 'front' },
    });
    expect(read.value.back).toEqual({
      kind: 'back',
      name: '24 × 36 mm',
      width_mm: 36,
      height_mm: 24,
    });
  });

  it('behind it a format that no sensor has is film', () => {
    const read = ownRig({ ...TOLD, focal: '90', circle: '235', format: '4 × 5 in' });
    expect(read.ok && read.value.back.medium).toBe('film');
  });

  it('asks for what is missing at its own field, and says what is wrong there', () => {
    const none = ownRig({ ...TOLD, focal: '', widest: 'x', circle: '', format: '' });
    expect(none.ok ? {} : none.messages).toEqual({
      focal: 'Give the focal length in millimetres.',
      widest: '“x” is not an aperture; write for example f/11.',
      circle: 'Give the circle’s diameter in millimetres, or choose what the lens was made for.',
      format: 'Choose the size of the sensor or film.',
    });
    const small = ownRig({ ...TOLD, smallest: 'f/2' });
    expect(small.ok ? {} : small.messages).toHaveProperty('smallest');
  });
});

describe('the name of a rig', () => {
  const own = ownRig(TOLD);
  if (!own.ok) throw new Error('not read');
  const { kind: _l, ...lens } = own.value.lens;
  const { kind: _b, ...bare } = own.value.back;
  const back = { ...bare, orientation: 'landscape' as const };

  it('follows its parts until somebody names it', () => {
    const begun: Rig = newRig(UNNAMED_RIG);
    const withLens = namedAfterParts(begun, { ...begun, lens });
    expect(withLens.name).toBe('24 mm f/3.5');
    const whole = namedAfterParts(withLens, { ...withLens, back });
    expect(whole.name).toBe('24 mm f/3.5 on 24 × 36 mm');
    expect(isWhole(whole) && rigOf(whole).name).toBe(whole.name);
    const adapter = { kind: 'adapter' as const, name: 'Tilt adapter', thickness_mm: 20 };
    const plain = namedAfterParts(whole, { ...whole, chain: [adapter] });
    expect(plain.name).toBe(whole.name);
    const movement = { moves: 'front' as const, tilt_deg: [-8, 8] as [number, number] };
    const leaning = namedAfterParts(whole, { ...whole, chain: [{ ...adapter, movement }] });
    expect(leaning.name).toBe('24 mm f/3.5 with tilt adapter on 24 × 36 mm');
  });

  it('is left alone once it was given', () => {
    const named = { ...newRig('Roof rig'), lens };
    expect(namedAfterParts(named, { ...named, back }).name).toBe('Roof rig');
    // A name that is being typed is not overwritten by its parts.
    const typed = { ...newRig(UNNAMED_RIG), name: 'Mine' };
    expect(namedAfterParts(newRig(UNNAMED_RIG), typed).name).toBe('Mine');
    expect(rigNameOf({ lens: undefined, chain: [], back: undefined })).toBe(UNNAMED_RIG);
    expect(parseEdited(parseRig, named, named).ok).toBe(true);
  });
});

describe('pixels as people know them', () => {
  it('are their number or their pitch', () => {
    expect(parsePixels('8256', 36)).toEqual({ ok: true, value: 8256 });
    expect(parsePixels('8256 px', 36)).toEqual({ ok: true, value: 8256 });
    expect(parsePixels('3.76 µm', 43.8)).toEqual({ ok: true, value: 11649 });
    expect(parsePixels('pitch 3,76 um', 43.8)).toEqual({ ok: true, value: 11649 });
    expect(fixed(pitchUm(43.8, 11649), 2)).toBe('3.76');
    expect(parsePixels('3.76 µm', undefined).ok).toBe(false);
    expect(parsePixels('many', 36).ok).toBe(false);
    expect(parsePixels('0 µm', 36).ok).toBe(false);
  });

  it('in the kit the side beside them makes a pitch a number', () => {
    const { item } = itemFrom('back', {
      name: 'B',
      width_mm: '43.8',
      height_mm: '32.9',
      width_px: '3.76 µm',
    });
    expect(item.ok && item.value).toMatchObject({ width_px: 11649 });
    expect(item.ok && textsOf(item.value).width_px).toBe('11649');
  });
});

describe('a new mark', () => {
  const station = { ...newStation('M'), focus: { distance_m: null } };
  const marks = [
    { label: 'Label', x_m: 0.05, y_m: 0.9, z_m: 0.62, must: 'sharp' as const },
    { label: 'Glass', x_m: 0, y_m: 0.95, z_m: 0.86, must: 'sharp' as const },
  ];

  it('stands where the one before it does; the first before the camera', () => {
    expect(withNewMark(station).marks).toEqual([
      { label: 'Mark 1', x_m: 0, y_m: 1.6, z_m: 1, must: 'sharp' },
    ]);
    const second = withNewMark({ ...station, marks });
    expect(second.marks!.at(-1)).toEqual({ ...marks[1], label: 'Mark 3' });
    expect(parseStation(second).ok).toBe(true);
  });

  it('is placed from the ground, from the mark before it, or from another by name', () => {
    const at = (text: string, index = 1) =>
      parseMarkPlace(text, { ...station, marks }, index, 'y_m', 'mm');
    expect(at('905')).toEqual({ ok: true, value: 0.905 });
    expect(at('+90 mm')).toEqual({ ok: true, value: 0.99 });
    expect(at('+90')).toEqual({ ok: true, value: 0.99 });
    expect(at('label −20 mm')).toEqual({ ok: true, value: 0.88 });
    expect(at('Glass + 1 cm', 0)).toEqual({ ok: true, value: 0.96 });
    // Below zero is a place of its own, and there is no mark before the first.
    expect(at('-20')).toEqual({ ok: true, value: -0.02 });
    expect(at('+90 mm', 0)).toEqual({ ok: true, value: 0.09 });
    expect(at('Cup +90')).toEqual({ ok: false, message: 'There is no mark called “Cup”.' });
    expect(at('high').ok).toBe(false);
  });
});

describe('which standard a scale moves', () => {
  const of = (limits: object) => ({
    ...newStation('S'),
    movement_limits: { ...newStation('S').movement_limits, ...limits },
  });
  it('is told only where it could be the other', () => {
    expect(standardMoved(of({}), 'rise')).toBe(null);
    expect(standardMoved(of({ moves: 'rear' }), 'rise')).toBe('back');
    expect(standardMoved(of({ rear_shift_mm: [-20, 20] }), 'shift')).toBe('front');
    expect(standardMoved(of({ rear_tilt_deg: [-5, 5] }), 'tilt')).toBe('front');
    expect(standardMoved(of({ rear_tilt_deg: [-5, 5] }), 'swing')).toBe(null);
    expect(standardMoved(of({ moves: 'rear' }), 'aperture')).toBe(null);
  });
});
