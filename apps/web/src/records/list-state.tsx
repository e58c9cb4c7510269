import { isAway, sentence } from './api.js';

interface Props {
  error: unknown;
  loading: boolean;
  empty: boolean | undefined;
  whenEmpty: string;
}

/** What a list says when it has nothing to show. */
export function ListState({ error, loading, empty, whenEmpty }: Props) {
  if (error) {
    return (
      <p role="status" className="mb-4 border-l-4 border-outside px-3 py-1">
        {sentence(error)} {isAway(error) && 'Trying again.'}
      </p>
    );
  }
  if (loading) return <p className="py-6 text-quiet">Loading …</p>;
  return empty ? <p className="py-6 text-quiet">{whenEmpty}</p> : null;
}
