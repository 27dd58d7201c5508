/** A typed time with a thin gap before its unit: "4f" → "4 f"; timecode stays as it is. */
export function readableTime(text: string): string {
  const trimmed = text.trim();
  if (/^[+-]?[\d.]+$/.test(trimmed)) return `${trimmed} f`;
  return trimmed.replace(/^([+-]?[\d.]+)\s*(f|s|ms|min)$/, '$1 $2').replace(/^-/, '−');
}
