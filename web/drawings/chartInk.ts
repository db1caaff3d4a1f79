/** A colour token as the page has it now: a chart is painted, and follows no style by itself. */
export const colourOf = (token: string) =>
  getComputedStyle(document.documentElement).getPropertyValue(`--zl-colors-${token}`).trim();

/** How a chart's figures are written: as large as the page's, in its face. */
export const chartTicks = () => ({
  color: colourOf('faded'),
  font: { size: 14, family: getComputedStyle(document.body).fontFamily },
});
