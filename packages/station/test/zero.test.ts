import { cardOf } from '../src/card/index.js';
import { newStation } from '../src/document/new-station.js';
import { movementsOf } from '../src/kit/assemble.js';
import { newRig, parseRig, type Rig } from '../src/kit/rig-document.js';
import { withZero, zeroOf } from '../src/lens/index.js';

const LENS = { name: 'Shift 24 f/3.5', focal_length_mm: 24, f_min: 3.5, f_max: 22, circle: [{ f_number: 3.5, diameter_mm: 60 }] }; // prettier-ignore
const tilting: Rig = { ...newRig('Rig'), lens: { ...LENS, movement: { moves: 'front', tilt_deg: [-8, 8] } } }; // prettier-ignore
const adapted: Rig = {
  ...newRig('Rig'),
  lens: LENS,
  chain: [{ kind: 'adapter', thickness_mm: 10, movement: { moves: 'front', radial_tilt_deg: 8 } }],
};

describe('the true zero of a lean', () => {
  it.each([['the lens', tilting], ['an adapter', adapted]] as const)('is kept with %s that leans, and taken away again', (_, rig) => {
    const kept = withZero(rig, 'tilt_deg', 0.3)!;
    const read = parseRig(kept);
    expect(read.ok && zeroOf(read.value, 'tilt_deg')).toBe(0.3);
    expect(movementsOf({ lens: kept.lens!, chain: kept.chain }).zero).toEqual({ tilt_deg: 0.3 });
    const none = withZero(kept, 'tilt_deg', 0)!;
    expect(none).toEqual(rig);
    expect(zeroOf(none, 'tilt_deg')).toBeNull();
  }); // prettier-ignore

  it('has no place where nothing leans that way', () => {
    expect(withZero(tilting, 'swing_deg', 0.3)).toBeNull();
    expect(withZero({ ...newRig('Bare'), lens: LENS }, 'tilt_deg', 0.3)).toBeNull();
  });

  it('two leans have two zeros', () => {
    const both = withZero(withZero(adapted, 'tilt_deg', 0.3)!, 'swing_deg', -0.2)!;
    expect([zeroOf(both, 'tilt_deg'), zeroOf(both, 'swing_deg')]).toEqual([0.3, -0.2]);
  });

  it('is reckoned in on the card: what to set on the scale', () => {
    const plain = newStation('Test');
    const station = {
      ...plain,
      movements: { ...plain.movements, tilt_deg: 3.5 },
      movement_limits: { ...plain.movement_limits, zero: { tilt_deg: 0.3, swing_deg: -0.2 } },
    };
    const told = (id: string) => cardOf(station).steps.find((step) => step.id === id)!;
    // One act, one figure: what the scale reads.
    expect(told('move tilt_deg')).toMatchObject({ says: 'Lean the lens forward until its scale reads', figure: '3.8° forward', detail: 'Its true zero is at 0.3° forward, as measured.' });
    expect(told('move swing_deg')).toMatchObject({ says: 'For a straight lens set its swing scale to', figure: '0.2° left' });
    expect(cardOf(plain).steps.some(({ id }) => id === 'move swing_deg')).toBe(false);
  }); // prettier-ignore
});
