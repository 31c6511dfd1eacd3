import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { useNotices } from './notices';

beforeEach(() => {
  vi.useFakeTimers();
  setActivePinia(createPinia());
});
afterEach(() => vi.useRealTimers());
const texts = () => useNotices().list.map((n) => n.text);

it('what only tells goes by itself, a long sentence later than a short one, and not while it is pointed at', () => {
  const notices = useNotices();
  notices.say('Done.');
  notices.say('A sentence of some length that takes its time to read to the end of it.');
  vi.advanceTimersByTime(3500);
  expect(texts()).toHaveLength(1);
  notices.hold(true);
  vi.advanceTimersByTime(60_000);
  expect(texts()).toHaveLength(1);
  notices.hold(false);
  vi.advanceTimersByTime(10_000);
  expect(texts()).toEqual([]);
});

it('what went wrong, or offers something, stays until it is over: something else was done, after it could be read', () => {
  const notices = useNotices();
  notices.say('That cannot be.', { kind: 'error' });
  notices.say('It would be cut.', { action: { label: 'Cut it', run: () => undefined } });
  vi.advanceTimersByTime(3_600_000);
  expect(texts()).toEqual(['That cannot be.', 'It would be cut.']);
  notices.say('Just now.', { kind: 'error' });
  notices.workedOn();
  expect(texts()).toEqual(['Just now.']);
  vi.advanceTimersByTime(5000);
  notices.workedOn();
  expect(texts()).toEqual([]);
});

it('the same sentence stands once; what must stay is not pushed out by others', () => {
  const notices = useNotices();
  notices.say('Not saved.', { stays: true, kind: 'error' });
  for (let i = 0; i < 6; i++) notices.say(`Refusal ${i % 5}`, { kind: 'error' });
  notices.workedOn();
  expect(texts()).toEqual(['Not saved.', 'Refusal 3', 'Refusal 4', 'Refusal 0']);
});
