import { describe, expect, it } from 'vitest';
import { asked, nobodyYet, typed } from './visitForm';

const f = (more: object) => ({ ...typed(), name: 'Second shop', begins: '25 Nov 2031, 06:00', ...more });

describe('what is sent of a visit', () => {
  it.each([
    ['', undefined],
    [' 25 ', 25],
    ['2,5', 2.5],
    ['x', -1],
    ['1o', -1],
  ])('never loses what was typed as a number: “%s”', (text, sent) => {
    const body = asked(f({ travel: text, outlets: text, megabits: text }), [], [], [], [], []);
    expect([body.travel, body.bench?.outlets, body.megabits]).toEqual([sent, sent, sent]);
  });

  it('leaves out what was not said, and takes apart what somebody may also do', () => {
    const body = asked(
      f({}),
      [{ ...nobodyYet(), name: 'Imke', skills: 'qualified electrician, , licensed fitter' }],
      [],
      [],
      [{ title: 'Swap it', place: '', minutes: '', skill: '' }],
      [[4, { bench: true, first: false }]],
    );
    expect(body.people).toEqual([{ name: 'Imke', skills: ['qualified electrician', 'licensed fitter'] }]);
    expect(body.due).toBeUndefined();
    expect(body.tasks?.[0]?.minutes).toBe(0);
    expect(body.units).toEqual([{ endpointId: 4, bench: true, first: false }]);
  });
});
