export { standingLines, type Entry, type Standing } from './entries.ts';
