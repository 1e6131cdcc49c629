import { fireEvent, screen } from '@testing-library/svelte';
import { describe, expect, it } from 'vitest';
import { answering, show } from '../../test/answers';
import GateInputs from './GateInputs.svelte';

const input = (field: string, form: string, more = {}) => ({
  field,
  label: field.toUpperCase(),
  form,
  picks: [],
  needed: true,
  ...more,
});
const given = (inputs: unknown[], findings: unknown[] = []) => {
  const evidence: Record<string, string> = $state({});
  show(GateInputs, { inputs, evidence, findings });
  return evidence;
};

describe('what a gate asks for', () => {
  it.each([
    ['TICK', 'checkbox'],
    ['WORDS', 'textbox'],
    ['CODE', 'textbox'],
    ['NUMBER', 'textbox'],
    ['MOMENT', 'textbox'],
    ['FIGURES', 'textbox'],
  ])('shows %s as a %s of its own name', (form, role) => {
    answering({});
    given([input('seal', form)]);
    expect(screen.getByRole(role, { name: 'SEAL' })).toBeInTheDocument();
  });

  it('keeps what is ticked, picked and keyed in', async () => {
    const evidence = given([
      input('kit', 'TICK'),
      input('colour', 'PICK', {
        picks: [
          { value: 'red', label: 'Red' },
          { value: 'off', label: 'Off' },
        ],
      }),
      input('read', 'CODE'),
    ]);
    await fireEvent.click(screen.getByLabelText('KIT'));
    await fireEvent.click(screen.getByLabelText('Off'));
    await fireEvent.input(screen.getByLabelText('READ'), { target: { value: '551801 551802' } });
    expect(evidence).toEqual({ kit: 'true', colour: 'off', read: '551801 551802' });
  });

  it('shows the site’s own time beside the field for what the device shows', () => {
    given([input('shown', 'MOMENT')]);
    expect(screen.getByRole('timer')).toHaveTextContent(/^\d+ \w{3} \d{4} \d\d:\d\d:\d\d$/);
  });

  it('asks for a day in the past only once something is wrong, and marks the field that is', async () => {
    given([input('shown', 'MOMENT'), input('lastRight', 'DAY', { needed: false })]);
    expect(screen.queryByLabelText('LASTRIGHT')).toBeNull();
    document.body.replaceChildren();
    given(
      [input('shown', 'MOMENT'), input('lastRight', 'DAY', { needed: false })],
      [{ field: 'shown', message: '2 h behind', remedy: '' }],
    );
    expect(screen.getByLabelText('LASTRIGHT')).toBeInTheDocument();
    expect(screen.getByLabelText('SHOWN')).toHaveAccessibleDescription('2 h behind');
  });
});
