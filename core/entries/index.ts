export { currentLines, type Entry, type CurrentLine } from './entries.ts';
