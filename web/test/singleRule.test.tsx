// @vitest-environment happy-dom
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { SingleRuleForm } from '../people/SingleRuleForm.tsx';
import { show, signIn } from './shownBench.tsx';

const RULE = { size: 0.25, upTo: { below: 0.01, above: 0.03 }, over: { below: 0.03, above: 0.05 } };
const type = (label: RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

beforeEach(() => signIn('lead'));
afterEach(cleanup);

describe('the shop’s band round one figure', () => {
  it('begins with the usual one, and is sent whole', () => {
    const sent = vi.fn(() => Promise.resolve({}));
    show(<SingleRuleForm rule={null} onSend={sent} />);
    expect(screen.getByText(/The usual band: 0\.02\smm either side/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Use the usual band' })).toBeNull();
    type(/^Small: minus/, '0.01');
    type(/^Small: plus/, '0.03');
    type(/^Larger: minus/, '0,03');
    type(/^Larger: plus/, '2 thou');
    fireEvent.click(screen.getByRole('button', { name: 'Save this band' }));
    expect(sent).toHaveBeenCalledExactlyOnceWith({ ...RULE, over: { below: 0.03, above: 0.0508 } });
  });

  it('is not sent where a figure is none, or would be another limit; and is given up at a word', () => {
    const sent = vi.fn(() => Promise.resolve({}));
    show(<SingleRuleForm rule={RULE} onSend={sent} />);
    type(/^Small: minus/, '0.3');
    type(/^Larger: plus/, 'wide');
    fireEvent.click(screen.getByRole('button', { name: 'Save this band' }));
    expect(sent).not.toHaveBeenCalled();
    expect(screen.getByText('From 0 to 0.10 mm.')).toBeTruthy();
    expect(screen.getByText('From 0 to 0.20 mm.')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Use the usual band' }));
    expect(sent).toHaveBeenCalledExactlyOnceWith(null);
  });
});
