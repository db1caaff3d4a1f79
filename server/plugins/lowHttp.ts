import type { IncomingMessage, Server } from 'node:http';
import type { Socket } from 'node:net';
import { rawAnswer } from './errors.ts';

const BY_CODE: Readonly<Record<string, 'too_slow' | 'too_large'>> = {
  ERR_HTTP_REQUEST_TIMEOUT: 'too_slow',
  HPE_HEADER_OVERFLOW: 'too_large',
};

/** Answers as a problem what never becomes a request: bytes that are no HTTP, a request half sent. */
export function answerClientError(error: Error & { code?: string }, socket: Socket): void {
  if (error.code === 'ECONNRESET' || !socket.writable) socket.destroy();
  else socket.end(rawAnswer(BY_CODE[error.code ?? ''] ?? 'malformed'));
}

/** Answers as a problem a request that expects what this server cannot do. */
export function answerExpectations(server: Server): void {
  server.on('checkExpectation', ({ socket }: IncomingMessage) => socket.end(rawAnswer('expectation')));
}
