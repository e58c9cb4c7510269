/** How far a station has come in its job; kept beside the document, not in it. */
export const STATUSES = ['planned', 'ready', 'shot', 'again'] as const;

export type Status = (typeof STATUSES)[number];
