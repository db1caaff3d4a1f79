// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import type { LockFeel } from '@zero-lash/contract/setting';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { checkKey } from '@zero-lash/core/builds';
import type { Means } from '@zero-lash/core/sheets';
import { limitedPoints } from '@zero-lash/core/measuring';
import { describe, expect, it } from 'vitest';
import { store } from '../app/store.ts';
import { buildsApi } from '../builds/endpoints.ts';
import type { BuildView } from '../builds/buildView.ts';
import { draftKey } from '../app/drafts.ts';
import { lockedAgain } from '../measuring/locking.ts';
import { AimChoice } from '../setting/AimChoice.tsx';
import { BeforeSetting } from '../setting/BeforeSetting.tsx';
import { AimedOutside } from '../setting/AimedOutside.tsx';
import { SettingForm } from '../setting/SettingForm.tsx';
import { drawerApi } from '../pieces/endpoints.ts';
import { instrumentsApi } from '../instruments/endpoints.ts';
import { atTheBench, build, put, reading, round, SCREW, show, signIn } from './shownBench.tsx';

atTheBench();

const NUT: Means = { ...{ kind: 'pivot-nut', pitch: 1, rockerRatio: 1.5 } } as Means;
const ON_BUCKET = {
  ...{ kind: 'shim', seat: 'on-bucket', sizes: { from: 2, to: 3, step: 0.05 }, diameter: 29 },
  ...{ marking: '', seatOffset: null, stampedIn: 'mm' },
} as Means;

const form = (
  view: BuildView,
  gap: readonly [number, number] = [0.1, 0.12],
  change: Partial<ReturnType<typeof reading>> = {},
) => (
  <SettingForm
    build={view}
    point={limitedPoints(view.sheet).find(({ key }) => key === '1I')!}
    reading={{ ...reading('1I', ...gap, 'tight'), ...change }}
    stale={false}
    target={0.25}
    onNext={() => undefined}
  />
);
const feels = (locks: LockFeel[]) =>
  store.dispatch(
    drawerApi.util.upsertQueryData('feel', undefined, {
      ...{ count: 0, sd: null, bias: null, guard: 0.004, locks },
    }),
  );
const owns = (blades: readonly number[]) =>
  store.dispatch(
    instrumentsApi.util.upsertQueryData('tools', undefined, {
      benches: [{ id: 'h', name: 'Bench 1', bladeSetId: 'z', maxStack: 1, version: 1 }],
      instruments: [
        {
          ...{ id: 'z', kind: 'blade-set', name: 'Set', unit: 'mm', blades, missing: [], worn: [] },
          ...{ measured: [], uncertainty: 0.01, active: true, overdue: false },
        },
      ],
    } as never),
  );

const LOCKED = {
  ...{ means: 'screw' as const, adjuster: 'screw 1 lock-nut 1.000', pitch: 1, locking: 'lock-nut' as const },
};

describe('turning a screw', () => {
  it('of what holds by its own grip has nothing to lock, and says when it is renewed', () => {
    show(form(build({}, { ...SCREW, locking: 'self-locking', runsAtNm: 5 } as Means)));
    expect(
      screen.getByText(/one that turns with less than 5 N·m, or by the fingers alone is renewed/),
    ).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Turned as said' })).toBeTruthy();
    expect(screen.queryByRole('button', { name: /locked/ })).toBeNull();
  });

  it('of no known pitch is done by the blade: which way is said, and no angle', () => {
    show(form(build({}, { ...SCREW, pitch: null } as Means)));
    expect(screen.getByText('Loosen, and set it by the blade')).toBeTruthy();
    expect(screen.getByText(/of no known pitch, so no angle is given/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: /as said/ })).toBeNull();
    expect(screen.getByRole('button', { name: 'Turned by the blade, and locked' })).toBeTruthy();
  });

  it('is drawn as it is seen, with the blades to set it between', async () => {
    await signIn('bench');
    await owns([0.2, 0.25, 0.28, 0.3]);
    await feels([]);
    show(form(build({}, SCREW)));
    const dial = screen.getByRole('img', { name: /^loosen/ });
    expect(dial.getAttribute('aria-label')).toBe('loosen 50°, anticlockwise');
    expect(screen.getByText('Anticlockwise, looking at its head.')).toBeTruthy();
    const said = screen.getByText(/set it with/).textContent;
    expect(said).toBe('set it with 0.25 mm; 0.28 mm must not go');
    cleanup();
    show(form(build({}, NUT), [0.4, 0.42]));
    expect(screen.getByRole('img', { name: /^tighten/ }).querySelectorAll('polygon')).toHaveLength(2);
    expect(screen.getByText('Clockwise, looking at its head.')).toBeTruthy();
  });

  it('sets off what this person’s locking does, once six pairs say so, and says from how many', async () => {
    await signIn('bench');
    await owns([0.2, 0.22, 0.25, 0.28]);
    await feels([{ ...LOCKED, count: 3, mean: 0.03, sd: 0.01, use: 0 }]);
    show(form(build({}, SCREW)));
    expect(
      screen.getByText(/When you lock it, it opens by 0.030?\smm ± 0.010?\smm, from 3 pairs/),
    ).toBeTruthy();
    expect(screen.getByRole('img', { name: /^loosen 50°/ })).toBeTruthy();
    cleanup();
    // on another thread it was learned of another adjuster, and says nothing here
    const learned = { count: 8, mean: 0.03, sd: 0.01, use: 0.03 };
    await feels([{ ...LOCKED, adjuster: 'screw 0.75 lock-nut 1.000', pitch: 0.75, ...learned }]);
    show(form(build({}, SCREW), [0.1, 0.12], { beforeLock: true }));
    expect(screen.queryByText(/When you lock/)).toBeNull();
    cleanup();
    await feels([{ ...LOCKED, ...learned }]);
    // of a gap read with its nut tight the shift is in the reading already
    show(form(build({}, SCREW)));
    expect(screen.getByRole('img', { name: /^loosen 50°/ })).toBeTruthy();
    cleanup();
    // with it loose 0.03 mm of a pitch of 1 mm are 10.8° less
    show(form(build({}, SCREW), [0.1, 0.12], { beforeLock: true }));
    expect(screen.getByRole('img', { name: /^loosen 40°/ })).toBeTruthy();
    expect(screen.getByText(/Before locking: set it with/).textContent).toContain('0.22 mm; 0.25');
  });

  it('turned and not locked yet, the next reading is the one before locking', async () => {
    await signIn('bench');
    await feels([]);
    const view = build({ rounds: [round({ id: 'r9', kind: 'as-set' })] }, SCREW);
    show(form(view));
    fireEvent.click(screen.getByRole('button', { name: 'Turned, not locked yet' }));
    expect(put()).toMatchObject([{ kind: 'setting', body: { kind: 'turned', degrees: 50 } }]);
    expect(store.getState().locking).toBe(draftKey('r9', '1I'));
    store.dispatch(lockedAgain());
  });
});

describe('a tool that holds the valve down', () => {
  it('is ticked in and out at a point whose shim lies on its bucket, with its caution while it is in', async () => {
    await signIn('bench');
    show(form(build({}, SCREW)));
    expect(screen.queryByRole('checkbox', { name: /Tool in/ })).toBeNull();
    cleanup();
    const view = build({}, ON_BUCKET);
    show(form(view));
    expect(screen.queryByText(/the piston meets the valve/)).toBeNull();
    fireEvent.click(screen.getByRole('checkbox', { name: /Tool in at 1I/ }));
    expect(put()).toMatchObject([
      { kind: 'tick', body: { stage: 'set', check: checkKey('tool', '1I'), done: true } },
    ]);
    cleanup();
    const ticks = [
      { stage: 'set' as const, check: checkKey('tool', '1I'), done: true, by: 'Osk Velland', at: '' },
    ];
    show(form({ ...view, ticks }));
    expect(screen.getByText(/the piston meets the valve/)).toBeTruthy();
  });
});

describe('aiming at figures of one’s own', () => {
  const aimed = async (role: 'bench' | 'lead') => {
    await signIn(role);
    const view = build({}, SCREW);
    await store.dispatch(
      buildsApi.util.upsertQueryData('revision', 's', view.sheet as unknown as SheetRevision),
    );
    show(<AimChoice build={view} />);
    fireEvent.change(screen.getByLabelText('Aim at'), { target: { value: 'own' } });
    return (label: RegExp, value: string) =>
      fireEvent.change(screen.getByLabelText(label), { target: { value } });
  };
  const button = () => screen.getByRole('button', { name: 'Aim at these' });

  it('asks for every figure, and outside the band for a reason and a lead', async () => {
    const type = await aimed('lead');
    fireEvent.click(button());
    expect(screen.getAllByText(/A gap such as/)).toHaveLength(2);
    type(/^intake/, '0.25');
    type(/^exhaust/, '0.05');
    expect(screen.getByText(/Outside the maker’s band: exhaust/)).toBeTruthy();
    fireEvent.click(button());
    expect(screen.getByText('Say why it is aimed outside the band.')).toBeTruthy();
  });

  it('outside the band is a lead’s alone', async () => {
    const type = await aimed('bench');
    type(/^intake/, '0.25');
    type(/^exhaust/, '0.35');
    expect(button()).toHaveProperty('disabled', false);
    type(/^exhaust/, '0.05');
    expect(button()).toHaveProperty('disabled', true);
    expect(screen.getByText(/Only a lead may aim there/)).toBeTruthy();
  });

  it('is said on every page of the build, with who stands for it', () => {
    const view = build({
      ownAims: { figures: [{ role: 'exhaust', target: 0.05 }], reason: 'ice race', by: 'Ilse Marrand' },
    });
    show(<AimedOutside build={view} />);
    expect(document.body.textContent).not.toContain('outside');
    cleanup();
    const limits = view.sheet.limits.map((row) => ({ ...row, aimedOutside: row.role === 'exhaust' }));
    show(<AimedOutside build={{ ...view, sheet: { ...view.sheet, limits } }} />);
    expect(document.body.textContent).toMatch(
      /Aimed outside the maker’s band: exhaust 0\.05\smm, because: ice race. Ilse Marrand stands for it/,
    );
  });
});

describe('before a point is set', () => {
  const shown = (view: BuildView, key: string) => {
    cleanup();
    return show(
      <BeforeSetting build={view} point={limitedPoints(view.sheet).find((point) => point.key === key)!} />,
    ).container.textContent;
  };

  it('the bridge of its rocker is balanced, as a step of its own', async () => {
    await signIn('bench');
    const view = build({}, SCREW);
    expect(shown(view, '1E')).toBe('');
    const bridged = {
      ...view,
      sheet: {
        ...view.sheet,
        pattern: {
          ...view.sheet.pattern,
          bridges: { intake: false, exhaust: true },
          bridgeKind: 'guided' as const,
        },
      },
    };
    expect(shown(bridged, '1I')).toBe('');
    expect(shown(bridged, '1E')).toContain('Bridge of 1E balanced first');
    fireEvent.click(screen.getByRole('checkbox'));
    expect(put()).toMatchObject([{ body: { stage: 'set', check: 'bridge 1E', done: true } }]);
  });

  it('the closing side of a valve that is drawn shut comes first, and both sides are summed', () => {
    const view = build({}, SCREW);
    const plain = {
      figure: null,
      also: [],
      asFound: null,
      allowOver: 0,
      aimedOutside: false,
      whenHot: null,
      asWritten: '',
    };
    const limits = [
      ...view.sheet.limits,
      { ...plain, role: 'intake-closing' as const, min: 0, max: 0.05 },
      { ...plain, role: 'exhaust-closing' as const, min: 0.02, max: 0.06 },
    ];
    const sheet = { ...view.sheet, limits, pattern: { ...view.sheet.pattern, closingSide: true } };
    const with_ = (readings: Parameters<typeof reading>[], settings: BuildView['settings'] = []) => ({
      ...{ ...view, sheet, settings },
      rounds: [round({ readings: readings.map((each) => reading(...each)) })],
    });
    const opening = ['1I', 0.24, 0.25, 'in-spec'] as const;
    expect(shown(with_([[...opening]]), '1I')).toContain('The closing side, 1I-c, is set and measured first');
    const both = with_([[...opening], ['1I-c', 0.02, 0.03, 'in-spec']]);
    expect(shown(both, '1I')).toMatch(/1I-c: 0.02–0.03.*both sides together 0.26–0.28.*of 0.21–0.34/);
    expect(shown(both, '1I-c')).toContain('lets no blade in');
    expect(shown(both, '1E-c')).not.toContain('no blade in');
    const changed = with_(
      [[...opening], ['1I-c', 0.02, 0.03, 'in-spec']],
      [
        {
          ...{ id: 's', point: '1I-c', kind: 'turned', degrees: 10, installed: null, fitted: null, mark: '' },
          ...{
            note: '',
            from: 'unsaid',
            to: 'unsaid',
            giver: null,
            cause: 'chosen',
            by: '',
            at: '2031-01-02T10:00:00Z',
          },
          superseded: false,
        },
      ],
    );
    expect(shown(changed, '1I')).toContain('not known on both sides since it was changed');
  });
});
