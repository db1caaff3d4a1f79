import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { agoInWords, dayOfMomentInWords, momentInWords, todayIn } from '../app/dates.ts';

beforeEach(() => {
  vi.useFakeTimers();
  vi.setSystemTime('2031-03-12T23:30:00Z');
});
afterEach(() => vi.useRealTimers());

describe('moments as the shop’s own clock shows them', () => {
  it('lie on the shop’s day, wherever the device is, through its summer time', () => {
    expect([todayIn('UTC'), todayIn('Europe/Vienna'), todayIn('America/Los_Angeles')]).toEqual([
      ...['2031-03-12', '2031-03-13', '2031-03-12'],
    ]);
    expect(dayOfMomentInWords('2031-09-01T22:30:00Z', 'Europe/Vienna')).toBe('2 Sep 2031');
    expect(momentInWords('2031-03-30T00:30:00Z', 'Europe/Vienna')).toBe('30 Mar, 01:30');
    expect(momentInWords('2031-03-30T01:30:00Z', 'Europe/Vienna')).toBe('30 Mar, 03:30');
    expect(momentInWords('2031-03-12T00:00:00Z', 'UTC')).toBe('12 Mar, 00:00');
  });

  it('have their year where it is not this one, as the shop counts it', () => {
    expect(momentInWords('2029-05-13T04:05:00Z', 'UTC')).toBe('13 May 2029, 04:05');
    expect(momentInWords('2030-12-31T23:30:00Z', 'Europe/Vienna')).toBe('1 Jan, 00:30');
  });

  it.each([
    ['2031-03-12T23:29:50Z', '10 seconds ago'],
    ['2031-03-12T23:29:00Z', '1 minute ago'],
    ['2031-03-12T22:29:50Z', '1 hour ago'],
    ['2031-03-12T11:30:00Z', '12 hours ago'],
    ['2031-03-11T23:40:00Z', '1 day ago'],
    ['2031-03-07T23:30:00Z', '5 days ago'],
    ['2031-02-20T23:30:00Z', '3 weeks ago'],
    ['2030-12-12T23:30:00Z', '3 months ago'],
    ['2028-03-12T23:30:00Z', '3 years ago'],
  ])('%s was %s', (moment, said) => {
    expect(agoInWords(moment)).toBe(said);
  });
});
