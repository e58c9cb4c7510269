import { coverVerdict, keptStation, readingOf } from '@gangway/station';
import RevisionsDialog from '../records/revisions-dialog.js';
import { useEditing } from '../store/editing.js';
import { selectOpen } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';

/** Earlier versions of the open station. */
export default function StationRevisions({ onClose }: { onClose: () => void }) {
  const { id, baseRevision } = useAppSelector(selectOpen);
  const { change } = useEditing();
  return (
    <RevisionsDialog
      of="stations"
      id={id}
      present={baseRevision}
      onClose={onClose}
      tell={(document) => {
        const kept = keptStation(document);
        if (kept.kind === 'broken') return null;
        const verdict = coverVerdict(kept.station, readingOf(kept.station));
        return `${kept.station.name}, ${verdict.figure} ${verdict.words}`;
      }}
      onTake={(document, revision) => {
        const kept = keptStation(document);
        return kept.kind === 'broken'
          ? 'This version cannot be read.'
          : change(`Take back version ${revision}`, '', () => kept.station, { holds: revision });
      }}
    />
  );
}
