import { fireEvent, screen } from '@testing-library/svelte';
import { describe, expect, it } from 'vitest';
import { answering, show } from '../../test/answers';
import Causes from './Causes.svelte';

const suspect = (title: string, probability: number, more = {}) => ({
  faults: [title],
  title,
  probability,
  group: 0,
  explains: [],
  contradicts: [],
  remedy: ['Push the plug in.'],
  call: '',
  ...more,
});
const view = (more = {}) => ({
  suspects: [
    suspect('It has no power', 0.61, { explains: ['It answers an echo'] }),
    suspect('The port is off', 0.3, { group: 1, contradicts: ['It is on'] }),
    suspect('Nobody thinks of it', 0.004, { group: 2 }),
  ],
  noneOfThese: 0.04,
  others: 0.02,
  contradictory: false,
  doubtful: [],
  next: {
    question: 'LINK',
    words: 'Is the light lit?',
    minutes: 0.3,
    gain: 1,
    signals: ['Network light green, steady: linked'],
    outcomes: [
      { outcome: 'LIT', words: 'Lit' },
      { outcome: 'DARK', words: 'Dark' },
    ],
  },
  found: false,
  stop: '',
  seen: [],
  way: [{ title: 'The device', share: 0.6, state: 'OPEN', next: true }],
  lately: ['it was moved'],
  learns: false,
  mended: [],
  ...more,
});
const path = '/api/endpoints/7/diagnosis';
const given = (first: unknown, after: unknown = first, mayWork = true) => {
  const sent = answering({ [`GET ${path}`]: { body: first }, [`PUT ${path}/answers`]: { body: after } });
  show(Causes, { siteId: 3, endpointId: 7, mayWork });
  return sent;
};

describe('what it can be', () => {
  it('names the causes with what each explains and what speaks against it', async () => {
    given(view());
    expect(await screen.findByText('61%')).toBeInTheDocument();
    expect(screen.getByText('30%')).toBeInTheDocument();
    expect(screen.queryByText('Nobody thinks of it')).toBeNull();
    expect(screen.getByText('None of these')).toBeInTheDocument();
    expect(screen.getByText('4%')).toBeInTheDocument();
    expect(screen.getByText('It fits: it answers an echo.')).toBeInTheDocument();
    expect(screen.getByText('It does not fit: it is on.')).toBeInTheDocument();
    expect(screen.getByText('Network light green, steady: linked')).toBeInTheDocument();
  });

  it.each([
    ['a press', async () => fireEvent.click(screen.getByRole('button', { name: 'Dark 2' })), 'DARK'],
    ['a figure', async () => fireEvent.keyDown(document.body, { key: '2' }), 'DARK'],
    ['not knowing', async () => fireEvent.click(screen.getByText('Cannot tell')), 'CANNOT_BE_TOLD'],
  ])('takes an answer by %s, and is worked out again', async (_, act, outcome) => {
    const sent = given(
      view(),
      view({ found: true, next: null, suspects: [suspect('It has no power', 0.97)] }),
    );
    await screen.findByText('Is the light lit?');
    await act();
    expect(await screen.findByText('What it is')).toBeInTheDocument();
    expect(screen.getByText('Push the plug in.')).toBeInTheDocument();
    expect(sent.find((s) => s.call.startsWith('PUT'))?.body).toEqual({
      question: 'LINK',
      outcome,
      evidence: 'SEEN',
    });
  });

  it('says that answers contradict one another, and when to stop and call', async () => {
    given(
      view({
        contradictory: true,
        doubtful: ['Is it on?'],
        next: null,
        stop: 'Stop here and call the provider.',
      }),
    );
    expect(await screen.findByText(/does not go together/)).toHaveTextContent('Look once more: is it on?');
    expect(screen.getByText('Stop here and call the provider.')).toBeInTheDocument();
  });

  it('says how it was reached, and learns what it was only from a person', async () => {
    const sent = answering({
      [`GET ${path}`]: {
        body: view({
          seen: [
            { question: 'PING', said: 'It does not answer an echo', by: 'a', eyes: false },
            { question: 'POWER', said: 'It is on', by: 'Ida', eyes: true },
          ],
        }),
      },
      [`POST ${path}/mended`]: { status: 204 },
    });
    show(Causes, { siteId: 3, endpointId: 7, mayWork: true });
    expect(await screen.findByText('It does not answer an echo, measured.')).toBeInTheDocument();
    expect(screen.getByText('It is on, says Ida.')).toBeInTheDocument();
    await fireEvent.click(screen.getByRole('button', { name: 'It was: The port is off' }));
    expect(await screen.findByText(/Noted: The port is off/)).toBeInTheDocument();
    expect(sent.at(-1)?.body).toEqual({ fault: 'The port is off' });
  });

  it('lets the office see the causes, and asks it nothing', async () => {
    given(view(), view(), false);
    await screen.findByText('It has no power');
    expect(screen.queryByRole('button')).toBeNull();
  });
});
