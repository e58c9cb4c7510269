/** Cross-hatching for what lies outside, drawn once for the page. */
export function Hatching() {
  return (
    <svg width={0} height={0} aria-hidden className="absolute">
      <defs>
        <pattern id="hatch" width={5} height={5} patternUnits="userSpaceOnUse">
          <path d="M0,0 L5,5 M5,0 L0,5" className="stroke-outside" strokeWidth={0.9} />
        </pattern>
        <pattern id="hatch-beyond" width={5} height={5} patternUnits="userSpaceOnUse">
          <path d="M0,5 L5,0" className="stroke-rule-strong" strokeWidth={0.9} />
        </pattern>
      </defs>
    </svg>
  );
}
