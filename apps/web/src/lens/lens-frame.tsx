import type { ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { PageTop } from '../pages/page-top.js';
import { BackTo, Said, Unopened } from '../records/states.js';
import { useLens, type StoredLens } from './use-lens.js';

/** A page about one lens of the kit: its head, and what to do when there is none. */
export function LensFrame({ children }: { children: (lens: StoredLens) => ReactNode }) {
  const { item: id = '' } = useParams();
  const { lens, error } = useLens(id);
  if (lens === undefined) return <Unopened error={error} />;
  if (lens === null) {
    return (
      <Said title="This is no lens of the kit.">
        <BackTo to="/lenses">Back to the lenses</BackTo>
      </Said>
    );
  }
  return (
    <div className="flex min-h-dvh flex-col">
      <PageTop
        trail={
          <Link to={`/lenses/${lens.id}`} className="truncate font-semibold hover:underline">
            {lens.document.name}
          </Link>
        }
      />
      {children(lens)}
    </div>
  );
}
