import { arrowStep } from '../src/drawing/arrows.js';

const plain = { shiftKey: false, altKey: false, ctrlKey: false, metaKey: false };

describe('arrow keys', () => {
  it('step by the detent, Shift ten times, Alt a tenth', () => {
    expect(arrowStep({ ...plain, key: 'ArrowUp' }, 0.5)).toEqual([0, 0.5]);
    expect(arrowStep({ ...plain, key: 'ArrowLeft', shiftKey: true }, 0.5)).toEqual([-5, 0]);
    expect(arrowStep({ ...plain, key: 'ArrowDown', altKey: true }, 0.5)).toEqual([0, -0.05]);
  });

  it('leave other keys and commands to others', () => {
    expect(arrowStep({ ...plain, key: 'Home' }, 1)).toBeNull();
    expect(arrowStep({ ...plain, key: 'ArrowUp', ctrlKey: true }, 1)).toBeNull();
    expect(arrowStep({ ...plain, key: 'ArrowUp', metaKey: true }, 1)).toBeNull();
  });
});
