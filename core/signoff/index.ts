export { proofLines, type ProofLine } from './proofLines.ts';
