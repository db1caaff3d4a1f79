export { checkKey, kindOf, subjectOf, type CheckKind } from './checkKey.ts';
