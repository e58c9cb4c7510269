/** Papers, upright, mm. */
export const SIZES = {
  A6: { widthMm: 105, heightMm: 148 },
  A5: { widthMm: 148, heightMm: 210 },
  A4: { widthMm: 210, heightMm: 297 },
  Letter: { widthMm: 215.9, heightMm: 279.4 },
} as const;

export type Size = keyof typeof SIZES;

/** Papers that tapes and strips are laid out on. */
export const PAPERS = { A4: SIZES.A4, Letter: SIZES.Letter } as const;

export type Paper = keyof typeof PAPERS;

/** Nearer to the edge many printers do not print. */
export const MARGIN_MM = 10;

/** Length of the line that proves the print is true. */
export const PROOF_MM = 100;
