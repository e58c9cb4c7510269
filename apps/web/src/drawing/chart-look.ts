/** The page's colours as they are in a light; asked anew when the light changes. */
export const coloursIn =
  (_light: string) =>
  (name: string): string =>
    getComputedStyle(document.documentElement).getPropertyValue(name);

/** Words along the axes of a chart. */
export const axisText = (colour: (name: string) => string) => ({
  color: colour('--quiet'),
  font: { family: 'Archivo Variable', size: 12 },
});
