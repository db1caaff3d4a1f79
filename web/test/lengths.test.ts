import { engineChange } from '@zero-lash/contract/engines';
import { newSheet } from '@zero-lash/contract/sheets';
import { describe, expect, it } from 'vitest';
import { lengthsOf } from '../app/lengthsOf.ts';

describe('how long a text may be', () => {
  it('is read off what it is held to, through lists and what may be left out', () => {
    expect(lengthsOf(engineChange)).toMatchObject({ name: 60, owner: 80, duty: 120, place: 60 });
    const sheet = lengthsOf(newSheet);
    expect(sheet).toMatchObject({
      ...{ name: 80, maker: 60, 'body.wanted.#.name': 60, 'body.source.manual': 120 },
      ...{ 'body.torques.#.steps': 60, 'body.limits.#.also.#.asWritten': 60 },
    });
    // a list of texts is typed as one
    expect(Object.keys(sheet).filter((path) => path.endsWith('#'))).toEqual([]);
  });
});
