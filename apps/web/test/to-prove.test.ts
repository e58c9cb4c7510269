import type { Logged, Matched, Station } from '@gangway/station';
import { picturesOf } from '../src/log/picture-files.js';
import { toProve } from '../src/log/prove-part.js';
import { NO_FACTS } from '@gangway/sidecar/facts';

const file = (path: string) => ({ path, file: new File([], path) });
const line = (id: string, station?: string): Logged => ({ id, ...(station ? { station } : {}) }) as unknown as Logged; // prettier-ignore
const station = (name: string, mosaic: boolean): Station => ({ name, ...(mosaic ? { mosaic: {} } : {}) }) as unknown as Station; // prettier-ignore

describe('mosaics among matched files', () => {
  const files = ['a/1.NEF', 'a/1.JPG', 'a/2.JPG', 'a/2.TIF', 'a/2.xmp', 'a/3.JPG', 'a/4.JPG', 'a/5.JPG'].map(file); // prettier-ignore
  const pictures = picturesOf(
    files.filter(({ path }) => !path.endsWith('xmp')).map(({ path }) => ({ path, facts: NO_FACTS, thumb: null, fault: null })), // prettier-ignore
  );
  const pair = (key: string, of: string | null) => ({
    file: key,
    line: of,
    sure: true,
    by: 'time',
  });
  const matched = {
    pairs: [pair('a/1', 'l1'), pair('a/2', 'l2'), pair('a/3', 'l3'), pair('a/4', 'l4'), pair('a/5', null)], // prettier-ignore
    offsets: {},
  } as unknown as Matched;
  const stations = new Map([
    ['s1', station('Ropewalk', true)],
    ['s2', station('Salt marsh', true)],
    ['s3', station('Front', false)],
  ]);

  it('are those with two files or more, each frame by the file that shows it best', () => {
    const lines = [line('l1', 's1'), line('l2', 's1'), line('l3', 's2'), line('l4')];
    const found = toProve({ matched, lines, pictures, files, stations });
    expect(found.map(({ name, files: own }) => [name, own.map(({ path }) => path)])).toEqual([
      ['Ropewalk', ['a/1.JPG', 'a/2.TIF']],
    ]);
  });

  it('are none where the stations lay out no frames', () => {
    const lines = ['l1', 'l2', 'l3', 'l4'].map((id) => line(id, 's3'));
    expect(toProve({ matched, lines, pictures, files, stations })).toEqual([]);
  });
});
