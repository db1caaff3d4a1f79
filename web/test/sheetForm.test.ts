// Long because every field of the form is tried against what it may be given.
import { z } from 'zod';
import { sheetFile, sheetInFile } from '@zero-lash/contract/sheets';
import { describe, expect, it } from 'vitest';
import { patternOf, readForm, valuesFrom, sheetCodec, valuesOf } from '../sheets/sheetCodec.ts';
import { limitWarningsOf, meansWarningsOf } from '../sheets/warnings.ts';
import {
  FRESH_MEANS,
  FRESH_SHEET,
  USUAL_CYLINDERS,
  valuesKept,
  type SheetValues,
} from '../sheets/formValues.ts';
import { FRESH_STEP } from '../sheets/planSteps.ts';
import { unitToOpenIn } from '../sheets/bareFigures.ts';
import { changesBetween, sheetInWords } from '../sheets/inWords.ts';
import { gorge, PICTURE } from './gorgeSheet.ts';

describe('the cylinders of a layout', () => {
  it('of a single are one, and its firing needs no order', () => {
    const single = { ...FRESH_SHEET, layout: 'single', assumed: true } as const;
    expect(readForm({ ...single, bankA: '1 2' }).errors).toMatchObject({
      bankA: 'A single has one cylinder.',
    });
    expect(readForm({ ...single, bankA: '1 2' }).errors).not.toHaveProperty('firingOrder');
    for (const [layout, usual] of Object.entries(USUAL_CYLINDERS)) {
      const form = { ...single, ...usual, layout: layout as 'v', bankAngle: '60' };
      const firingOrder = `${usual.bankA} ${usual.bankB}`.trim().replaceAll(' ', '-');
      expect(patternOf({ ...form, firingOrder })?.layout).toBe(layout);
    }
  });
});

describe('the spec sheet form', () => {
  it('reads back what it laid out, whole', () => {
    const { body, errors } = readForm(valuesFrom(gorge));
    expect(errors).toEqual({});
    const { format: _format, formatVersion: _version, maker: _maker, name: _name, ...told } = gorge;
    expect(body).toEqual({ ...told, limits: told.limits.map((limit) => ({ ...limit, allowance: null })) });
    const none = told.limits.map((limit) => ({ ...limit, allowance: { over: 0, why: '' } }));
    expect(readForm(valuesFrom({ ...gorge, limits: none })).body).toEqual({ ...told, limits: none });
    const over = told.limits.map((limit) => ({ ...limit, allowance: { over: 0.02, why: 'a worn guide' } }));
    expect(readForm(valuesFrom({ ...gorge, limits: over })).body).toEqual({ ...told, limits: over });
    const noReason = valuesFrom({ ...gorge, limits: over });
    const bare = Object.fromEntries(told.limits.map(({ role }) => [role, { over: '0.02', why: '' }]));
    expect(Object.keys(readForm({ ...noReason, allowances: bare }).errors)[0]).toMatch(/^allowances\..*why$/);
  });

  it('takes one figure as the maker’s, with the shop’s band beside it and not in it', () => {
    const values = valuesFrom(gorge);
    const limits = { intake: '12 thou (0.30 mm)', exhaust: '0.40', brake: '0.065 in' };
    const { body, errors } = readForm({ ...values, limits });
    expect(errors).toEqual({});
    expect(body?.limits).toMatchObject([
      { figure: 0.3048, min: null, max: null, asWritten: '12 thou (0.30 mm)' },
      { figure: 0.4, min: null, max: null, asWritten: '0.40 mm' },
      { figure: 1.651, asWritten: '0.065 in' },
    ]);
    // and lays it out again as it was typed, whatever bare figures are in then
    const again = valuesFrom({ ...gorge, ...body! });
    expect(readForm({ ...again, unit: 'thou' }).body).toEqual(body);
    const wide = { size: 0.35, upTo: { below: 0.35, above: 0 }, over: { below: 0.01, above: 0.01 } };
    expect(readForm({ ...values, limits }, wide).errors).toEqual({
      'limits.intake': expect.stringMatching(/wider than the figure/),
    });
  });

  it('reads bare figures as the manual prints them, and one laid out again says its unit', () => {
    const inch = readForm({
      ...valuesFrom(gorge),
      unit: 'thou',
      lift: '50',
      tempFrom: '50',
      tempTo: '86 °F',
      means: { ...valuesFrom(gorge).means, torqueNm: '10–11', pitch: '24 tpi' },
      wear: [
        { part: 'stem-guide', of: 'both', place: '', nominal: '1.5', limit: '3', source: '' },
        { part: 'compression', of: 'both', place: '', nominal: '', limit: '90', source: '' },
        { part: 'spring-force', of: 'both', place: '', nominal: '', limit: '60', source: '' },
        { part: 'leak-down', of: 'both', place: '', nominal: '', limit: '15', source: '' },
      ],
    });
    expect(inch.errors).toEqual({});
    expect(inch.body).toMatchObject({
      temperature: { from: 10, to: 30, asTyped: { from: '50 °F', to: '86 °F' } },
      pattern: {
        timing: { lift: 1.27 },
        means: { torqueNm: 13.558, torqueToNm: 14.914, asTyped: { torque: '10–11 lbf·ft', pitch: '24 tpi' } },
      },
      wearLimits: [
        { nominal: 0.0381, limit: 0.0762, asTyped: { first: '1.5 thou', last: '3 thou' } },
        { limit: 6.2053, asTyped: { last: '90 psi' } },
        { limit: 266.8933, asTyped: { last: '60 lbf' } },
        { limit: 15 },
      ],
    });
    // whatever bare figures are in as it is opened again, it says the same
    const again = valuesFrom({ ...gorge, ...inch.body! });
    for (const unit of ['mm', 'thou', 'in'] as const)
      expect(readForm({ ...again, unit }).body, unit).toEqual(inch.body);
    expect(unitToOpenIn(again, 'thou')).toBe('thou');
    expect(unitToOpenIn({ ...again, lift: '1.27' }, 'thou')).toBe('mm');
  });

  it('writes a sheet in the units of who reads it', () => {
    const INCH = { length: 'thou', system: 'inch' } as const;
    const shim = {
      ...valuesFrom(gorge).means,
      kind: 'shim',
      stampedIn: 'in',
      from: '80',
      to: '120',
    } as const;
    const { body } = readForm({ ...valuesFrom(gorge), means: { ...shim, step: '0.5', seatOffset: '0.31' } });
    expect(body?.pattern.means).toMatchObject({ sizes: { from: 2.032, to: 3.048, step: 0.0127 } });
    const sheet = { ...gorge, ...body! };
    expect(readForm(valuesFrom(sheet)).body).toEqual(body);
    const said = new Map(sheetInWords(sheet, INCH).map(({ name, text }) => [name, text]));
    expect(said.get('Set by')).toContain('80.0–120.0 thou by 0.5');
    expect(said.get('Set by')).toContain('seat offset 12.2 thou');
    // what differs too little to be seen in what is read is written as it is kept
    const nearly = { ...sheet, wearLimits: sheet.wearLimits.map((limit) => ({ ...limit, limit: 3.00001 })) };
    const before = { ...sheet, wearLimits: sheet.wearLimits.map((limit) => ({ ...limit, limit: 3 })) };
    for (const { before: was, after } of changesBetween(before, nearly, INCH)) expect(was).not.toBe(after);
  });

  it('keeps what else is printed for a role, and a second source with why it was not taken', () => {
    const second = {
      manual: 'Gorge-line bulletin 4',
      edition: '',
      page: '',
      figures: '0.20',
      whyNot: 'older',
    };
    const values = {
      ...valuesFrom(gorge),
      also: [
        { role: 'exhaust' as const, kind: 'leave' as const, text: '0.15–0.35' },
        { role: 'exhaust' as const, kind: 'other-condition' as const, text: '0.10' },
        { role: 'intake' as const, kind: 'after-run-in' as const, text: '' },
      ],
      second,
    };
    const { body, errors } = readForm(values);
    expect(errors).toEqual({});
    expect(body?.limits.map(({ also }) => also.map(({ kind, asWritten }) => `${kind} ${asWritten}`))).toEqual(
      [[], ['leave 0.15–0.35 mm', 'other-condition 0.10 mm'], []],
    );
    expect(body?.secondSource).toEqual(second);
    expect(readForm(valuesFrom({ ...gorge, ...body! })).body).toEqual(body);
    const wrong = readForm({
      ...values,
      also: [{ ...values.also[0]!, text: 'wide' }],
      second: { ...second, whyNot: '' },
    });
    expect(wrong.errors).toEqual({
      'also.0.text': expect.stringMatching(/not a pair/),
      'second.whyNot': expect.stringMatching(/Why the other/),
    });
  });

  it('asks which of two figures it is, in which unit, and whether two pairs are the right way round', () => {
    const asked = (
      intake: string,
      also: Parameters<typeof limitWarningsOf>[1]['also'] = [],
      unit = 'mm' as 'mm' | 'in',
    ) => limitWarningsOf('intake', { limits: { intake }, also, unit, condition: 'cold' }, null);
    expect(asked('12 thou (0.30 mm)')).toEqual([]);
    expect(asked('12 thou (0.40 mm)')).toMatchObject([{ suggestions: ['12 thou', '0.40 mm'] }]);
    expect(asked('12')).toMatchObject([{ suggestions: expect.arrayContaining(['12 thou']) }]);
    expect(asked('0.30', [], 'in')).toMatchObject([{ suggestions: expect.arrayContaining(['0.30 mm']) }]);
    const leave = (text: string) => [{ role: 'intake' as const, kind: 'leave' as const, text }];
    expect(asked('0.20–0.25', leave('0.15–0.30'))).toEqual([]);
    expect(asked('0.15–0.30', leave('0.20–0.25'))).toMatchObject([
      { field: 'also.0.text', text: expect.stringMatching(/right way round/) },
    ]);
  });

  it('takes what nobody knows as not known, and fills nothing in as if it were printed', () => {
    const leaflet = {
      ...FRESH_SHEET,
      ...{ maker: 'Hadderby', name: 'M1 Minnow', manual: 'Leaflet', layout: 'single' as const, bankA: '1' },
      ...{
        assumed: true,
        limits: { intake: '0.10', exhaust: '0.15' },
        plan: [{ ...FRESH_STEP, afterUsage: '25' }],
      },
    };
    const { body, errors } = readForm(leaflet);
    expect(errors).toEqual({});
    expect(body?.pattern).toMatchObject({
      marks: [],
      means: { kind: 'screw', pitch: null, rockerRatio: null, torqueNm: null },
    });
    expect(
      sheetInWords(body!)
        .map(({ text }) => text)
        .join(),
    ).toMatch(/none: it is put in position.*pitch not known/);
  });

  it('keeps figures in the units they are printed in beside what they come to', () => {
    const values = valuesFrom(gorge);
    const means = { ...values.means, pitch: '24 tpi', torqueNm: '10 to 11 lbf·ft' };
    const { body, errors } = readForm({ ...values, means });
    expect(errors).toEqual({});
    expect(body?.pattern.means).toMatchObject({
      ...{ pitch: 1.0583, torqueNm: 13.558, torqueToNm: 14.914 },
      asTyped: { pitch: '24 tpi', torque: '10 to 11 lbf·ft' },
    });
    const again = valuesFrom({ ...gorge, ...body! });
    expect(again.means).toMatchObject({ pitch: '24 tpi', torqueNm: '10 to 11 lbf·ft' });
    expect(readForm(again).body).toEqual(body);
    expect(readForm({ ...values, means: { ...means, torqueNm: '12–15' } }).body?.pattern.means).toMatchObject(
      {
        ...{ torqueNm: 12, torqueToNm: 15 },
      },
    );
    expect(readForm({ ...values, means: { ...means, pitch: 'M8', torqueNm: 'tight' } }).errors).toEqual({
      'means.pitch': expect.stringMatching(/no pitch/),
      'means.torqueNm': expect.stringMatching(/no torque/),
    });
  });

  it('keeps temperatures and wear limits as they are printed, and measures by what they come to', () => {
    const values = valuesFrom(gorge);
    const wear = [{ ...values.wear[0]!, nominal: '', limit: '4 thou' }, ...values.wear.slice(1)];
    const form = { ...values, tempFrom: '158 °F', tempTo: '200 °F', wear };
    const { body, errors } = readForm(form);
    expect(errors).toEqual({});
    expect(body?.temperature).toMatchObject({ from: 70, asTyped: { from: '158 °F', to: '200 °F' } });
    expect(body?.wearLimits[0]).toMatchObject({ limit: 0.1016, unit: 'mm', asTyped: { last: '4 thou' } });
    expect(readForm(valuesFrom({ ...gorge, ...body! })).body).toEqual(body);
    expect(
      sheetInWords(body!)
        .map(({ text }) => text)
        .join(),
    ).toMatch(/158 °F to 200 °F \(70 to 93.3 °C\).*4 thou, which is 0.1016/);
    expect(readForm({ ...form, tempTo: '20 bar' }).errors).toEqual({
      tempTo: expect.stringMatching(/no unit of this/),
    });
  });

  it('goes on from what an older version kept on the device, which had not every field yet', () => {
    const { also: _also, second: _second, markNames: _names, ...older } = valuesFrom(gorge);
    const { runsAt: _runs, ...means } = older.means;
    const others = older.others.map(({ role, means: { runsAt: _own, ...rest } }) => ({ role, means: rest }));
    const kept = valuesKept(JSON.stringify({ ...older, means, others }));
    expect(kept).toEqual(valuesFrom(gorge));
    expect(readForm(kept).errors).toEqual({});
  });

  it('asks of what holds by its own grip what it turns with, and of a nut what locks it', () => {
    const values = valuesFrom(gorge);
    const grip = { ...values.means, locking: 'self-locking' as const, runsAt: '4 lbf·ft', torqueNm: '20' };
    const { body, errors } = readForm({ ...values, means: grip });
    expect(errors).toEqual({});
    expect(body?.pattern.means).toMatchObject({
      ...{ locking: 'self-locking', torqueNm: null, runsAtNm: 5.423, asTyped: { runsAt: '4 lbf·ft' } },
    });
    expect(readForm(valuesFrom({ ...gorge, ...body! })).body).toEqual(body);
    expect(
      sheetInWords(body!)
        .map(({ text }) => text)
        .join(),
    ).toContain('self-locking, turning with at least 4 lbf·ft');
    const inside = { ...values.means, kind: 'pivot-nut' as const, locking: 'inner-screw' as const };
    const nut = readForm({ ...values, means: inside });
    expect(nut.errors).toEqual({});
    expect(
      sheetInWords(nut.body!)
        .map(({ text }) => text)
        .join(),
    ).toContain('locked by a screw inside it');
    expect(Object.keys(readForm({ ...values, means: { ...inside, kind: 'screw' } }).errors)).toEqual([
      'means.locking',
    ]);
  });

  it('calls marks what stands on them', () => {
    const values = { ...valuesFrom(gorge), markNames: '90: 2-5, flywheel, not the dot beside it\n0: line' };
    const { body, errors } = readForm(values);
    expect(errors).toEqual({});
    expect(body?.pattern.markNames).toEqual([
      { at: 90, words: '2-5', from: 'flywheel', decoys: 'the dot beside it' },
      { at: 0, words: 'line', from: null, decoys: '' },
    ]);
    expect(valuesFrom({ ...gorge, ...body! }).markNames).toBe(values.markNames);
  });

  it('asks where a finger’s gap is taken, and fills nothing in', () => {
    const finger = {
      ...valuesFrom(gorge),
      means: {
        ...{ ...FRESH_MEANS, kind: 'shim' as const, seat: 'under-finger' as const },
        ...{ from: '1.8', to: '3', step: '0.025', diameter: '10' },
      },
    };
    expect(readForm(finger).errors).toMatchObject({
      'means.gapAt': expect.stringMatching(/valve.*cam/),
      'means.fingerRatio': expect.anything(),
    });
    const said = { ...finger, means: { ...finger.means, gapAt: 'cam' as const, fingerRatio: '1.6' } };
    expect(readForm(said).body?.pattern.means).toMatchObject({ rockerRatio: 1.6, gapAt: 'cam' });
  });

  it('says everything wrong at once, each where it stands, and still draws what holds', () => {
    const values = {
      ...valuesFrom(gorge),
      maker: ' ',
      limits: { intake: '0.15 ± 0.4', exhaust: '', brake: 'wide' },
      plan: [FRESH_STEP],
      tempTo: '',
      page: '3',
    };
    const { body, errors } = readForm(values);
    expect(body).toBeNull();
    expect(patternOf(values)?.cylinders).toHaveLength(4);
    expect(errors).toMatchObject({
      maker: 'This cannot stay empty.',
      tempTo: 'From and to, or neither.',
      'limits.intake': expect.stringMatching(/wider than its figure/),
      'limits.exhaust': expect.stringMatching(/does the source say for exhaust.*its book is not here/),
      'limits.brake': expect.stringMatching(/not a pair of limits/),
    });
    // a plan that says nothing is none; a step that says nothing in one that does is a slip
    expect(readForm({ ...valuesFrom(gorge), plan: [FRESH_STEP] }).body?.recheckPlan).toEqual([]);
    const halfPlan = readForm({
      ...valuesFrom(gorge),
      plan: [{ ...FRESH_STEP, afterDays: '30' }, FRESH_STEP],
    });
    expect(halfPlan.errors).toEqual({
      'plan.1.afterUsage': 'A recheck needs running, days, heat cycles or a season.',
    });
  });

  it.each([
    [{ bankA: '1 1 3 4' }, 'bankA', /there twice/],
    [{ bankA: '1 two' }, 'bankA', /not a cylinder/],
    [{ firingOrder: '1-3-4' }, 'firingOrder', /2 never fires/],
    [{ firingSteps: '90 90' }, 'firingSteps', /this has 2/],
    [{ makersStops: '0 1I 1E' }, 'makersStops', /degrees, a colon/],
    [{ makersStops: '0: 1I 9E' }, 'makersStops', /no point 9E/],
    [{ makersStops: '0: 1I\n0°: 1E' }, 'makersStops', /there twice/],
    [{ makersStops: '0: 1I\n180: 1I' }, 'makersStops', /1I is there twice/],
    [{ makersStops: '0: 1I\n' + '900: 1E' }, 'makersStops', /719/],
    [{ makersPairs: '1E 2E' }, 'makersPairs', /fully open, a colon/],
    [{ makersPairs: '1E: 9E' }, 'makersPairs', /no point 9E/],
    [{ makersPairs: '1E: 1E' }, 'makersPairs', /1E is fully open there/],
    [{ makersPairs: '1E: 2E\n3E: 2E' }, 'makersPairs', /2E is there twice/],
    [{ valvesStand: 'one-row' as const, rowA: 'E I I E' }, 'rowA', /4 letters for the 8 valves/],
    [{ valvesStand: 'one-row' as const, rowA: 'E E I I E I I E' }, 'rowA', /Cylinder 1 has 1 I and 1 E/],
    [{ valvesStand: 'one-row' as const, rowA: '1E 1I' }, 'rowA', /A letter a valve/],
    [{ makersNames: '1E' }, 'makersNames', /our name, then the maker’s/],
    [{ makersNames: '1E 12, 1I 12' }, 'makersNames', /1E and 1I are both called 12/],
    [{ makersNames: '1E 12, 1E 13' }, 'makersNames', /1E is named twice/],
    [{ makersNames: '9E 12' }, 'makersNames', /no 9E to name/],
    [{ makersNames: 'A: 1 2 3' }, 'makersNames', /stand in one row/],
    [
      { makersNames: 'A: 1 2 3', valvesStand: 'one-row' as const, rowA: 'EIIEEIIE' },
      'makersNames',
      /8 valves in its row, and 3 names/,
    ],
    [{ makersNames: `1E ${'long'.repeat(4)}` }, 'makersNames', /12/],
    [{ lift: '5' }, 'lift', /3/],
    [{ lift: 'a little' }, 'lift', /not a number/],
    [{ decompressed: 'exhaust' as const, decompressorOpens: '10' }, 'decompressorCloses', /missing/],
    [
      { decompressed: 'exhaust' as const, decompressorOpens: '60', decompressorCloses: '10' },
      'decompressorCloses',
      /lets go after it lifts/,
    ],
    [{ marks: '400' }, 'marks', /under 360/],
    [{ markNames: '2-5' }, 'markNames', /degrees, a colon/],
    [{ markNames: '45: dot' }, 'markNames', /no mark at 45/],
    [{ signs: [{ at: '45', cams: 'up', rotor: '' }] }, 'signs.0.at', /Nothing is stopped at 45/],
    [{ signs: [{ at: '0', cams: '', rotor: '' }] }, 'signs.0.cams', /say what is seen/i],
    [{ pictures: [{ ...PICTURE, at: '45' }] }, 'pictures.0.at', /no mark at 45/],
    [
      { pictures: [{ ...PICTURE, at: '45', of: 'cams' as const }] },
      'pictures.0.at',
      /Nothing is stopped at 45/,
    ],
    [{ pictures: [{ ...PICTURE, says: '' }] }, 'pictures.0.says', /cannot stay empty/],
    [{ pictures: [{ ...PICTURE, at: '' }] }, 'pictures.0.at', /missing/],
    [{ camsOutFirst: 'tension off' }, 'camsOutBy', /what locks it/],
    [{ camsOutAt: '800' }, 'camsOutAt', /719/],
    [{ ivoBtdc: 'x' }, 'ivoBtdc', /not a number/],
    [{ limits: { intake: '12-13', exhaust: '0.2-0.3' } }, 'limits.intake', /5 mm/],
    [
      { others: [{ role: 'exhaust' as const, means: { ...FRESH_MEANS, pitch: '9' } }] },
      'others.0.means.pitch',
      /3/,
    ],
    [{ ivoBtdc: '200' }, 'ivoBtdc', /90/],
    [{ brakes: [{ cylinders: '9', opens: '1', closes: '2' }] }, 'brakes.0.cylinders', /no cylinder 9/],
    [{ layout: 'v' as const, bankB: '5 6', bankAngle: '' }, 'bankAngle', /missing/],
    [
      {
        brakes: [{ cylinders: '1', opens: '0', closes: '700' }],
        limits: { intake: '0.2-0.3', exhaust: '0.2-0.3', brake: '1-1.1' },
      },
      'margin',
      /no place of the crank at which 1B/,
    ],
    [
      {
        wear: [
          {
            part: 'valve-margin' as const,
            of: 'both' as const,
            place: '9I',
            nominal: '1.2',
            limit: '0.6',
            source: '',
          },
        ],
      },
      'wear.0.place',
      /no 9I to limit valve margin/,
    ],
  ])('%o is answered at %s', (change, field, sentence) => {
    const timing = { ivoBtdc: '14', ivcAbdc: '52', evoBbdc: '54', evcAtdc: '12' };
    const { errors } = readForm({ ...FRESH_SHEET, ...timing, firingOrder: '1-3-4-2', ...change });
    expect(errors[field]).toMatch(sentence);
  });

  it('takes a row of valves by its numbers, and the maker’s table by them; cylinders may be letters', () => {
    const timing = { ivoBtdc: '14', ivcAbdc: '52', evoBbdc: '54', evcAtdc: '12' };
    const values = {
      ...{ ...FRESH_SHEET, ...timing, bankA: 'a b', firingOrder: 'A-B' },
      ...{ valvesStand: 'splayed', rowA: 'e i, i e', makersNames: 'A: 1 2 3 4\nB rear' },
      makersPairs: '1: 4\nBE: 2',
      makersStops: '0: 1 2',
    } as SheetValues;
    const { errors } = readForm(values);
    expect(Object.keys(errors).filter((field) => field.startsWith('makers'))).toEqual([]);
    expect(patternOf(values)).toMatchObject({
      valveRow: { splayed: true, A: 'EIIE', B: '' },
      makersNames: { AE: '1', AI: '2', BI: '3', BE: '4', B: 'rear' },
      makersPairs: [
        { open: ['AE'], points: ['BE'] },
        { open: ['BE'], points: ['AI'] },
      ],
      makersStops: [{ angle: 0, points: ['AE', 'AI'] }],
    });
  });

  it('says where each figure is from: a new sheet its source, an older one nobody, what is left at its default us', () => {
    const { body } = readForm({ ...valuesFrom(gorge), origins: FRESH_SHEET.origins, margin: '' });
    expect(body?.pattern.margin).toBe(15);
    expect(body?.origins).toMatchObject({
      margin: { from: 'assumed', page: '' },
      limits: { from: 'source', page: '' },
      timing: { from: 'source', page: '' },
    });
    expect(valuesFrom({ ...gorge, ...body! }).margin).toBe('');
    // a file of the format before says nothing of it
    expect(readForm(valuesFrom(gorge)).body?.origins).toEqual({});
    const kept = JSON.parse(JSON.stringify(FRESH_SHEET)) as Record<string, unknown>;
    delete kept.origins;
    expect(valuesKept(JSON.stringify(kept)).origins.limits).toEqual({ from: '', page: '' });
    const values = valuesFrom(gorge);
    const own = {
      ...values.origins,
      pitch: { from: 'shop' as const, page: '9' },
      limits: { from: 'source' as const, page: '40' },
    };
    const said = readForm({ ...values, origins: own }).body;
    expect(said?.origins).toEqual({
      pitch: { from: 'shop', page: '' },
      limits: { from: 'source', page: '40' },
    });
    expect(
      sheetInWords({ ...gorge, ...said! }).filter(({ name }) => /source|shop|unsaid/i.test(name)),
    ).toEqual(
      expect.arrayContaining([
        { name: 'The source, page 40', text: 'Limits' },
        { name: 'The shop’s', text: 'Thread' },
        expect.objectContaining({ name: 'Origin unsaid', text: expect.stringContaining('Valve timing') }),
      ]),
    );
  });

  it('takes an eccentric, and no thread of one', () => {
    const values = valuesFrom(gorge);
    const means = { ...values.means, end: 'eccentric' as const, pitch: '1' };
    const { body } = readForm({ ...values, means });
    expect(body?.pattern.means).toMatchObject({ end: 'eccentric', pitch: null });
    expect(
      sheetFile.safeParse({
        ...gorge,
        pattern: { ...gorge.pattern, means: { ...gorge.pattern.means, end: 'eccentric' } },
      }).error?.issues[0]?.message,
    ).toMatch(/has no thread/);
  });

  it('takes pieces of which nobody knows the sizes or the diameter', () => {
    const values = valuesFrom(gorge);
    const shim = { ...FRESH_MEANS, kind: 'shim' as const };
    const { body, errors } = readForm({ ...values, means: shim, others: [] });
    expect(errors).toEqual({});
    expect(body?.pattern.means).toMatchObject({ sizes: null, diameter: null });
    expect(readForm(valuesFrom({ ...gorge, ...body! })).body).toEqual(body);
    expect(readForm({ ...values, means: { ...shim, from: '2' } }).errors).toMatchObject({
      'means.to': 'A number is missing here.',
      'means.step': 'A number is missing here.',
    });
    expect(sheetInWords({ ...gorge, ...body! }).find(({ name }) => name === 'Set by')?.text).toMatch(
      /sizes not known, diameter not known/,
    );
  });

  it('takes a fit that is an interference, with either minus', () => {
    const timing = { ivoBtdc: '14', ivcAbdc: '52', evoBbdc: '54', evcAtdc: '12' };
    const wear = (nominal: string, limit: string) => [
      {
        ...{ part: 'journal-clearance' as const, of: 'both' as const, place: '' },
        nominal,
        limit,
        source: '',
      },
    ];
    const read = (nominal: string, limit: string) =>
      readForm({
        ...{ ...FRESH_SHEET, ...timing, firingOrder: '1-3-4-2', wear: wear(nominal, limit) },
        ...{ maker: 'Tarnholt', name: 'S1 Sawyer', manual: 'Tarnholt engine book' },
        plan: [{ ...FRESH_STEP, afterUsage: '20' }],
        limits: { intake: '0.2-0.3', exhaust: '0.2-0.3' },
      });
    for (const nominal of ['-0.03', '−0,03']) {
      const { body, errors } = read(nominal, '-0.01');
      expect(Object.keys(errors).filter((field) => field.startsWith('wear'))).toEqual([]);
      expect(body?.wearLimits[0]).toMatchObject({ nominal: -0.03, limit: -0.01 });
    }
    // what wears grows looser: a limit tighter than new is none
    expect(read('-0.01', '-0.03').errors['wear.0.limit']).toBeTruthy();
  });

  it('asks about slips of limits and of means', () => {
    const values = {
      ...{ limits: { intake: '0.2-0.3', exhaust: '3-4' }, also: [] },
      ...({ unit: 'mm', condition: 'cold' } as const),
    };
    expect(limitWarningsOf('exhaust', values, null)).toMatchObject([
      { field: 'limits.exhaust', suggestions: ['3-4 thou', '0.3–0.4 mm'] },
    ]);
    expect(limitWarningsOf('intake', values, null)).toMatchObject([
      { key: expect.stringMatching(/under a sixth.*0.2-0.3$/) },
    ]);
    expect(limitWarningsOf('intake', { ...values, limits: { intake: '0.2-0.3' } }, null)).toEqual([]);
    expect(meansWarningsOf(null)).toEqual([]);
    expect(meansWarningsOf({ ...gorge.pattern, roleMeans: {} })).toEqual([]);
  });
});

describe('the codec of a sheet', () => {
  it('is the same through form, body and file', () => {
    const sheet = sheetInFile.decode(gorge);
    expect(sheetInFile.decode(z.encode(sheetInFile, sheet))).toEqual(sheet);
    for (const change of [{}, { limits: [], limitsToCome: true }, { system: 'inch' as const }]) {
      const changed = { ...sheet, body: { ...sheet.body, ...change } };
      const typed = sheetCodec(null).decode(valuesOf(changed));
      expect(typed).toMatchObject(changed);
      expect(sheetCodec(null).decode(valuesOf(typed))).toEqual(typed);
    }
  });
});
