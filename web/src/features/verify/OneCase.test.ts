import { focusManager } from '@tanstack/svelte-query';
import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { describe, expect, it } from 'vitest';
import { answering, show } from '../../test/answers';
import Mended from './Mended.svelte';
import OneCase from './OneCase.svelte';
import WayLine from './WayLine.svelte';

const path = '/api/sites/3/case';
const members = [
  { endpointId: 1, word: 'SILENT' as const },
  { endpointId: 2, word: 'SILENT' as const },
];
const view = (more = {}) => ({
  oneCase: true,
  suspects: [
    {
      title: 'The switch is dead',
      probability: 0.87,
      says: 'Till 1 and Till 2 fail together: all hang on Shop switch.',
      remedy: ['Look at its power light.'],
      call: '',
    },
  ],
  apart: 0.1,
  next: {
    question: 'OTHERS_HERE',
    words: 'Do the other devices beside it work?',
    at: 'Till 1',
    minutes: 0.7,
    outcomes: [
      { outcome: 'YES', words: 'Yes' },
      { outcome: 'NONE_ON_SWITCH', words: 'None on this switch' },
    ],
    endpointIds: [1, 2],
    checkRunIds: [7, 8],
  },
  found: false,
  ...more,
});

describe('several at once', () => {
  it('are one case: says on what they hang, asks once, and keeps the answer with the runs that were weighed', async () => {
    const sent = answering({
      [`POST ${path}`]: { body: view() },
      [`PUT ${path}/answers`]: { status: 204 },
      [`DELETE ${path}/answers/OTHERS_HERE`]: { status: 204 },
    });
    const calls = (method: string) => sent.filter((s) => s.call.startsWith(method));
    show(OneCase, { siteId: 3, members, mayWork: true });
    expect(await screen.findByText(/all hang on Shop switch/)).toBeInTheDocument();
    expect(screen.getByText('87%')).toBeInTheDocument();
    expect(screen.getByText('Each has a fault of its own')).toBeInTheDocument();
    expect(screen.getByText('Look at its power light.')).toBeInTheDocument();
    await fireEvent.click(screen.getByText('None on this switch'));
    const seen = { question: 'OTHERS_HERE', outcome: 'NONE_ON_SWITCH' };
    await waitFor(() =>
      expect(calls('POST').at(-1)?.body).toEqual({ members, answers: [{ ...seen, endpointIds: [1, 2] }] }),
    );
    expect(calls('PUT').map((s) => s.body)).toEqual([{ ...seen, checkRunIds: [7, 8] }]);
    // Whatever makes it weigh anew, what was seen is said once.
    const weighed = calls('POST').length;
    focusManager.setFocused(false);
    focusManager.setFocused(true);
    await waitFor(() => expect(calls('POST').length).toBeGreaterThan(weighed));
    expect(calls('PUT')).toHaveLength(1);
    await fireEvent.click(screen.getByText('Take the last answer back'));
    await waitFor(() => expect(screen.queryByText('Take the last answer back')).toBeNull());
    expect(calls('DELETE')).toHaveLength(1);
  });

  it('says when what was seen could not be kept, and does not count it', async () => {
    const sent = answering({
      [`POST ${path}`]: { body: view() },
      [`PUT ${path}/answers`]: { status: 409, body: { detail: 'Somebody is at it.' } },
    });
    show(OneCase, { siteId: 3, members, mayWork: true });
    await fireEvent.click(await screen.findByText('None on this switch'));
    expect(await screen.findByText('Somebody is at it.')).toBeInTheDocument();
    expect(screen.queryByText('Take the last answer back')).toBeNull();
    expect(sent.filter((s) => s.call.startsWith('POST')).at(-1)?.body).toEqual({ members, answers: [] });
  });

  it.each([
    ['not one case', { oneCase: false }, 'Search each by itself.'],
    ['nothing shared', { oneCase: false, suspects: [] }, 'Search each by itself.'],
  ])('says so when it is %s', async (_, more, words) => {
    answering({ [`POST ${path}`]: { body: view(more) } });
    show(OneCase, { siteId: 3, members, mayWork: true, hint: words });
    expect(await screen.findByText(words)).toBeInTheDocument();
    expect(screen.queryByText('The switch is dead')).toBeNull();
  });
});

describe('the way', () => {
  it('tells in words what is good, what may break, what must, and where to look', () => {
    show(WayLine, {
      way: [
        { title: 'This machine', share: 0, state: 'GOOD', next: false },
        { title: 'Switch and lead', share: 0.93, state: 'BREAK', next: true },
        { title: 'The device', share: 0.07, state: 'OPEN', next: false },
        { title: 'Its partner', share: 0, state: 'UNSEEN', next: false },
      ],
    });
    const says = [...document.querySelectorAll('li')].map((l) => l.textContent?.replace(/\s+/g, ' ').trim());
    expect(says).toEqual([
      'This machine good',
      'Switch and lead breaks look here',
      'The device 7%',
      'Its partner not seen',
    ]);
  });
});

describe('what was learned', () => {
  const mended = [
    { checkRunId: 9, title: 'It hangs', endpoint: 'Till 1', at: '2026-11-02T10:00:00Z', by: 'Mara' },
  ];
  it('is listed, and taken back with a click', async () => {
    const sent = answering({ 'DELETE /api/sites/3/mended/9': { status: 204 } });
    show(Mended, { siteId: 3, endpointId: 1, mended, learns: true });
    expect(screen.getByText(/Learned from 1 faults/)).toBeInTheDocument();
    await fireEvent.click(screen.getByRole('button', { name: 'Take back: Till 1, It hangs' }));
    await waitFor(() => expect(sent.some((s) => s.call.startsWith('DELETE'))).toBe(true));
  });
});
