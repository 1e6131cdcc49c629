import { render, screen } from '@testing-library/svelte';
import { expect, test, vi } from 'vitest';
import Scanner from './Scanner.svelte';

const start = vi.hoisted(() => vi.fn());
vi.mock('@zxing/browser', () => ({
  BrowserMultiFormatReader: class {
    decodeFromConstraints = start;
  },
}));

test.each([
  ['NotAllowedError', /does not let the camera in. Allow it beside the address/],
  ['NotFoundError', /no camera here. Type the code/],
  ['NotReadableError', /Another program may hold it/],
])('a camera that fails with %s is said, with the way out', async (name, words) => {
  start.mockRejectedValueOnce(new DOMException('no', name));
  render(Scanner, { seen: vi.fn(), shut: vi.fn() });
  expect(await screen.findByText(words)).toBeInTheDocument();
});

test('a code is told once, and the camera goes off with the page, also when it starts late', async () => {
  const seen = vi.fn();
  const stop = vi.fn();
  let started: (controls: { stop: () => void }) => void = () => {};
  start.mockImplementationOnce((_1, _2, told: (r: { getText: () => string }) => void) => {
    told({ getText: () => 'PGB-T1-G7' });
    told({ getText: () => 'PGB-T1-G7' });
    return new Promise((done) => (started = done));
  });
  const { unmount } = render(Scanner, { seen, shut: vi.fn() });
  await vi.waitFor(() => expect(seen).toHaveBeenCalledExactlyOnceWith('PGB-T1-G7'));
  unmount();
  started({ stop });
  await vi.waitFor(() => expect(stop).toHaveBeenCalled());
});
