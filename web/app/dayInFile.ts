/** A day as a file has it: `2031-03-12` or `12.03.2031`; null where it is none. */
export function dayInFile(text: string): string | null {
  const [, day, month, year] = /^(\d{1,2})[./](\d{1,2})[./](\d{4})$/.exec(text) ?? [];
  const written = day ? `${year}-${month!.padStart(2, '0')}-${day.padStart(2, '0')}` : text;
  const read = new Date(`${written}T00:00:00Z`);
  return Number.isNaN(read.getTime()) || read.toISOString().slice(0, 10) !== written ? null : written;
}
