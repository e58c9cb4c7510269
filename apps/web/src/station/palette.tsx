import { Command } from 'cmdk';
import { useNavigate, useParams } from 'react-router';
import { CONTROL_IDS, CONTROLS, type ControlId } from '@gangway/station';
import { exportStation } from '../records/export.js';
import { groundGlassFlipped, lightChosen, unitsChosen } from '../store/preferences.js';
import { selectStation, selectWaysOut } from '../store/selectors.js';
import { changed, redone, undone } from '../store/station.js';
import { useAppDispatch, useAppSelector, useAppStore } from '../store/store.js';
import { Dialog } from '../ui/dialog.js';
import { STEPS } from '../places.js';

interface Props {
  onClose: () => void;
  onPick: (id: ControlId) => void;
  onKeys: () => void;
}

const ITEM =
  'flex cursor-pointer justify-between gap-4 px-2 py-1.5 data-[selected=true]:bg-ink data-[selected=true]:text-on-strong';

export default function Palette({ onClose, onPick, onKeys }: Props) {
  return (
    <Dialog open onClose={onClose} title="Commands">
      <Commands onClose={onClose} onPick={onPick} onKeys={onKeys} />
    </Dialog>
  );
}

function Commands({ onClose, onPick, onKeys }: Props) {
  const store = useAppStore();
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const { job: jobId = '' } = useParams();
  const { light, units } = useAppSelector((state) => state.preferences);
  const ways = useAppSelector(selectWaysOut);
  const commands: [string, string, () => void][] = [
    ...ways.map((way): [string, string, () => void] => [
      way.title,
      way.detail,
      () => dispatch(changed({ station: way.after, label: way.title })),
    ]),
    ...STEPS.flatMap(({ key, label, places }) =>
      places.map(({ path, label: place }, i): [string, string, () => void] => [
        i === 0 ? `Go to ${label}` : `Go to ${label}: ${place}`,
        i === 0 ? key : '',
        () => void navigate(path),
      ]),
    ),
    ...CONTROL_IDS.map((id): [string, string, () => void] => [
      `Set ${CONTROLS[id].label.toLowerCase()}`,
      CONTROLS[id].key,
      () => setTimeout(() => onPick(id)),
    ]),
    ['Go to the kit', '', () => void navigate('/kit')],
    ['Go to the rigs', '', () => void navigate('/rigs')],
    ['Go to the job’s log', '', () => void navigate(`/jobs/${jobId}/log`)],
    ['Go to the shoot’s files', '', () => void navigate(`/jobs/${jobId}/files`)],
    ['Save the whole job as a file', '', () => location.assign(`/api/job-files/${jobId}`)],
    ['Take in a job from a file', '', () => void navigate('/jobs/take-in')],
    ['Turn the picture as on a ground glass', 'F', () => dispatch(groundGlassFlipped())],
    ['Undo', 'Ctrl Z', () => dispatch(undone())],
    ['Redo', 'Ctrl Shift Z', () => dispatch(redone())],
    ['Export this station', '', () => exportStation(selectStation(store.getState()))],
    [
      light === 'daylight' ? 'Switch to Darkcloth' : 'Switch to Daylight',
      '',
      () => dispatch(lightChosen(light === 'daylight' ? 'darkcloth' : 'daylight')),
    ],
    [
      units === 'metric' ? 'Show distances in feet' : 'Show distances in metres',
      '',
      () => dispatch(unitsChosen(units === 'metric' ? 'feet' : 'metric')),
    ],
    ['Show the keys', '?', () => setTimeout(onKeys)],
  ];
  return (
    <Command label="Commands" loop>
      <Command.Input
        autoFocus
        placeholder="What to do"
        className="mb-2 min-h-11 w-full border border-rule-strong bg-transparent px-3 text-[16px]"
      />
      <Command.List className="max-h-[44vh] overflow-y-auto">
        <Command.Empty className="px-2 py-3 text-quiet">
          No command has these letters.
        </Command.Empty>
        {commands.map(([title, hint, run]) => (
          <Command.Item
            key={title}
            value={title}
            className={ITEM}
            onSelect={() => {
              onClose();
              run();
            }}
          >
            <span>{title}</span>
            <span className="truncate opacity-70">{hint}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
