import { describe, expect, it } from 'vitest';
import { placeOf } from './place';

describe('the address in the browser', () => {
  it.each([
    ['', '', { station: 'plan', endpoint: 0 }],
    ['plan', '17', { station: 'plan', endpoint: 17 }],
    ['plan', 'new', { station: 'plan', isNew: true }],
    ['plan', 'sweep', { station: 'plan', endpoint: 0 }],
    ['register', 'clean-up', { station: 'register', view: 'clean-up' }],
    ['register', 'new', { station: 'register', endpoint: 0 }],
    ['onboard', 'night', { station: 'onboard', view: 'night' }],
    ['confirm', 'sweep', { station: 'confirm', view: 'sweep' }],
    ['confirm', '1e', { station: 'confirm', endpoint: 0 }],
    ['handover', 'packs', { station: 'handover', view: 'packs' }],
    ['handover', '17', { station: 'handover', endpoint: 17 }],
    ['nowhere', 'mend', { station: 'plan', endpoint: 0 }],
  ])('%s/%s leads to one place', (station, word, place) => {
    expect(placeOf(station, word)).toEqual(place);
  });
});
