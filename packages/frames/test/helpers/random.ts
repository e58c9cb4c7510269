/** Numbers that are the same on every run, unless SEED says otherwise. */
export function random(seed: number): () => number {
  const asked = process.env.SEED;
  let state = (seed + (asked === 'random' ? Date.now() : Number(asked ?? 0))) >>> 0;
  return () => {
    // Mulberry32: small, and even enough for drawing pictures.
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

export function normal(draw: () => number): () => number {
  return () => Math.sqrt(-2 * Math.log(1 - draw())) * Math.cos(2 * Math.PI * draw());
}
