import { beforeEach, describe, expect, it, vi } from 'vitest';
import { answering } from '../test/answers';
import { readHere } from './onDevice';
import { readAddress, readMac } from './readers';

vi.mock('./onDevice', () => ({ readHere: vi.fn() }));

const reading = (more = {}) => ({ value: 'x', notes: [], findings: [], slip: null, usable: true, ...more });
const never = new AbortController().signal;

beforeEach(() =>
  vi
    .mocked(readHere)
    .mockReset()
    .mockResolvedValue(reading({ here: true })),
);

describe('a reader', () => {
  it('asks the server, and this device only where there is none', async () => {
    answering({
      'POST /api/address/read': { body: reading() },
      'POST /api/mac/read': { status: 422, body: {} },
    });
    expect(await readAddress('MASK')('x', never)).toEqual(reading());
    await expect(readMac(4, 7)('x', never)).rejects.toMatchObject({ status: 422 });
    expect(readHere).not.toHaveBeenCalled();
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no network')));
    const read = readAddress('ADDRESS', { endpointId: 7, expected: '10.4.1.5' });
    expect(await read('10.4.1.6', never)).toMatchObject({ here: true });
    expect(readHere).toHaveBeenCalledWith(
      'address',
      { text: '10.4.1.6', purpose: 'ADDRESS', expected: '10.4.1.5' },
      7,
    );
    await readMac(4, 7)('00', never);
    expect(readHere).toHaveBeenLastCalledWith('mac', { text: '00' }, 7);
  });
});
