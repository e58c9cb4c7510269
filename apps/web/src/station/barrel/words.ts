import {
  allowedRun,
  distanceParts,
  fixed,
  fStop,
  trimmed,
  type ControlId,
  type Scale,
  type Units,
} from '@gangway/station';

/** A scale's value as figure and unit. Hundredths are shown when they were set. */
export function figureOf(id: ControlId, value: number, units: Units): [string, string] {
  switch (id) {
    case 'rise':
      return [amount(value), value < 0 ? 'mm fall' : value > 0 ? 'mm up' : 'mm'];
    case 'shift':
      return [amount(value), value < 0 ? 'mm left' : value > 0 ? 'mm right' : 'mm'];
    case 'tilt':
      return [amount(value), value < 0 ? '° back' : value > 0 ? '° forward' : '°'];
    case 'swing':
      return [amount(value), value < 0 ? '° left' : value > 0 ? '° right' : '°'];
    case 'aperture':
      return [fStop(value), ''];
    case 'distance':
      return distanceParts(value, units);
  }
}

const amount = (value: number): string => {
  const text = trimmed(Math.abs(value), 2);
  return text.includes('.') ? text : `${text}.0`;
};

/** What a person edits: the value with its sign, and no words. */
export function editable(id: ControlId, value: number, units: Units): string {
  if (id === 'aperture') return fStop(value);
  if (id === 'distance') return distanceParts(value, units)[0];
  return value < 0 ? `−${amount(value)}` : amount(value);
}

const plain = (id: ControlId, value: number, units: Units): string => {
  if (id === 'aperture') return fStop(value);
  if (id === 'distance') return distanceParts(value, units).join(' ').trim();
  return fixed(value, 1);
};

/** The allowed stretch in a few words, to stand beside the engraved one. */
export function allowedWords(scale: Scale, units: Units): string {
  if (scale.blocked) return 'blocked as the others are set';
  if (scale.segments.every(({ beyond }) => beyond)) return 'not on this rig';
  const run = allowedRun(scale);
  if (!run) return 'no setting serves';
  const out = scale.value < run.from - 1e-9 || scale.value > run.to + 1e-9;
  const [from, to] = [plain(scale.id, run.from, units), plain(scale.id, run.to, units)];
  const all = run.from <= scale.domain[0] && run.to >= scale.domain[1];
  if (all) return 'all serve';
  return `${out ? 'serves: ' : ''}${from} to ${to}`;
}
