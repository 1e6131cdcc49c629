import { fireEvent, render, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import IntakeReport from './IntakeReport.svelte';

vi.mock('../../router', () => ({
  at: (site: number, station: string, to = '') => `/${site}/${station}/${to}`,
}));

type View = Schemas['IntakeView'];
const report = (part: Partial<View>): View => ({
  preview: true,
  headers: [],
  columns: {},
  unused: [],
  made: [],
  seen: 0,
  known: [],
  leftOut: [],
  problems: [],
  ...part,
});
const copier = {
  line: 2,
  name: 'Copier',
  kind: 'copier',
  kindName: 'Copier with scan to mail',
  address: '10.44.16.40',
  mac: null,
  place: 'Hall',
  reason: 'As the list says.',
};
const shown = (view: View, make = true) => {
  const match = vi.fn();
  const take = vi.fn();
  render(IntakeReport, { siteId: 1, report: view, make, match, take });
  return { match, take };
};

describe('what comes of a list', () => {
  it.each([
    [report({ made: [copier] }), true, 'This makes 1', 'Bring in 1'],
    [report({ made: [copier], seen: 3 }), true, 'This makes 1, and notes 3 that were seen', 'Bring in 1'],
    [report({ seen: 3 }), false, 'This makes nothing new, and notes 3 that were seen', 'Note 3'],
  ])('says it and offers one press (%#)', async (view, make, title, button) => {
    const { take } = shown(view, make);
    expect(screen.getByRole('heading', { name: title })).toBeInTheDocument();
    await fireEvent.click(screen.getByRole('button', { name: button }));
    expect(take).toHaveBeenCalledOnce();
  });

  it('names every line that is wrong, and offers nothing to take', () => {
    shown(
      report({
        problems: [
          { line: 4, column: 'address', message: '10.44.16.40 stands on line 2 already.' },
          { line: 7, column: '', message: 'This lease cannot be read.' },
        ],
      }),
    );
    expect(screen.getByRole('heading', { name: /2 lines are wrong; nothing is taken/ })).toBeInTheDocument();
    expect(screen.getByText('line 4')).toBeInTheDocument();
    expect(screen.getByText('10.44.16.40 stands on line 2 already.')).toBeInTheDocument();
    expect(screen.queryByRole('button')).toBeNull();
  });

  it('lets a column mean something else', async () => {
    const { match } = shown(report({ headers: ['Device', 'IP', ''], columns: { NAME: 0, ADDRESS: 1 } }));
    expect(screen.getByLabelText(/Device/)).toHaveValue('NAME');
    expect(screen.getByLabelText(/IP/)).toHaveValue('ADDRESS');
    await fireEvent.change(screen.getByLabelText(/column 3/), { target: { value: 'PLACE' } });
    expect(match).toHaveBeenCalledWith('PLACE', 2);
  });

  it('says in the order of the lines why the rest is left out', () => {
    shown(
      report({
        known: [{ line: 9, column: 'mac', message: 'Till 1 is on record with this MAC.' }],
        leftOut: [{ line: 3, column: '', message: 'It did not answer when the list was made.' }],
      }),
    );
    const lines = screen.getAllByText(/^line \d+$/).map((e) => e.textContent);
    expect(lines).toEqual(['line 3', 'line 9']);
    expect(screen.getByText('Nothing in it is new.')).toBeInTheDocument();
  });

  it('says what was brought in, and where to go on', () => {
    shown(report({ preview: false, made: [copier], seen: 1 }));
    expect(screen.getByRole('heading', { name: /1 brought in, 1 seen/ })).toBeInTheDocument();
    expect(screen.getByRole('link', { name: 'See what is to mend' })).toHaveAttribute('href', '/1/plan/mend');
  });
});
