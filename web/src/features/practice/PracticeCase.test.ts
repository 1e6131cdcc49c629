import { fireEvent, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import { answering, show } from '../../test/answers';
import PracticeCase from './PracticeCase.svelte';

const look = (question: string, words: string, minutes: number, eyes = true) => ({
  question,
  words,
  minutes,
  eyes,
});
const way = [
  {
    title: 'Lead and switch',
    looks: [look('LINK', 'Is the small light lit?', 0.3), look('PLUGS', 'Was a plug loose?', 0.7)],
    causes: [{ fault: 'CABLE_OUT_AT_WALL', title: 'The cable is out at the wall' }],
  },
  { title: 'Device', looks: [look('PING', 'The address answers', 0.05, false)], causes: [] },
  { title: 'All in order', looks: [], causes: [{ fault: 'NOTHING', title: 'Nothing is wrong now' }] },
];
const one = {
  id: 'mopped-floor',
  title: 'After the floor was mopped',
  device: 'payment terminal',
  level: 'FIRST',
  levelWords: 'one cause',
  call: '“It says no.”',
  lately: ['it was moved'],
  way,
};
const line = (more = {}) => ({
  words: 'Was a plug loose?',
  said: 'The plug at the wall was loose',
  truly: '',
  minutes: 0.7,
  nearer: 3,
  better: '',
  ...more,
});
const review = (more = {}) => ({
  right: true,
  truth: ['The cable is out at the wall'],
  remedy: ['Push it in.'],
  call: '',
  next: { id: 'tidy-desk', title: 'The tidy desk', why: '' },
  minutes: 0.7,
  par: 1.3,
  sure: 0.97,
  score: 1,
  looks: [line()],
  best: [line()],
  ...more,
});
const answers = (reviewed = review()) => ({
  'GET /api/practice/mopped-floor': { body: one },
  'POST /api/practice/mopped-floor/looks': {
    body: { looks: [{ question: 'PLUGS', said: 'The plug at the wall was loose' }], minutes: 0.7 },
  },
  'POST /api/practice/mopped-floor/reviews': { status: 201, body: reviewed },
});
const play = vi.fn();
const begin = () => show(PracticeCase, { id: 'mopped-floor', play });

describe('a case of practice', () => {
  it('is looked at for its minutes, named, and reviewed', async () => {
    const sent = answering(answers());
    begin();
    expect(await screen.findByText('“It says no.”')).toBeInTheDocument();
    expect(screen.getByText('On record in the last days: it was moved.')).toBeInTheDocument();
    await fireEvent.keyDown(window, { key: '2' });
    expect(screen.getByRole('button', { name: /^Measure,\s0.05 min/ })).toBeInTheDocument();
    await fireEvent.keyDown(window, { key: '3' });
    expect(screen.getByText('The address answers')).toBeInTheDocument();
    await fireEvent.keyDown(window, { key: '1' });
    await fireEvent.click(screen.getByRole('button', { name: /^Look,\s0.7 min/ }));
    expect(await screen.findAllByText('The plug at the wall was loose.')).toHaveLength(2);
    expect(screen.getByText('0.7')).toBeInTheDocument();
    await fireEvent.change(screen.getByLabelText('What is wrong'), {
      target: { value: 'CABLE_OUT_AT_WALL' },
    });
    await fireEvent.click(screen.getByRole('button', { name: 'That is it' }));
    expect(await screen.findByText('Found: The cable is out at the wall')).toBeInTheDocument();
    expect(screen.getByText(/8 times likelier/)).toBeInTheDocument();
    expect(sent.at(-1)?.body).toEqual({ asked: ['PLUGS'], named: ['CABLE_OUT_AT_WALL'] });
    await fireEvent.click(screen.getByRole('button', { name: 'Next case' }));
    expect(play).toHaveBeenCalledWith('tidy-desk');
  });

  it.each([
    [{ right: false, score: 0, sure: 0.2 }, /^It was something else/, /was 20 % likely/],
    [{ sure: 0.4, score: 0.4 }, /^Found/, /40 % sure: you were lucky/],
    [{ looks: [line({ truly: 'Both plugs of its lead were in' })] }, /^Found/, /Misread: both plugs/],
    [{ looks: [line({ nearer: -2, better: 'Who answers' })] }, /^Found/, /It led away from it/],
  ])('says how it went: %o', async (more, heading, text) => {
    answering(answers(review(more)));
    begin();
    await fireEvent.change(await screen.findByLabelText('What is wrong'), { target: { value: 'NOTHING' } });
    await fireEvent.click(screen.getByRole('button', { name: 'That is it' }));
    expect(await screen.findByText(heading)).toBeInTheDocument();
    expect(screen.getByText(text)).toBeInTheDocument();
  });
});
