import { fireEvent, screen, waitFor } from '@testing-library/svelte';
import { beforeEach, describe, expect, it } from 'vitest';
import { answering, show } from '../../test/answers';
import { EditorView } from 'codemirror';
import KindDesk from './KindDesk.svelte';
// The desk fetches its editor late; here it lies ready, so that no wait depends on how fast a module is read.
import './kindEditor';

const RECIPE = {
  body: {
    before: ['Serial: on its back'],
    steps: [
      {
        title: 'Switch it on',
        when: '',
        hint: ['Hold the key.'],
        caution: '',
        after: [],
        takes: 'Usually 4 min.',
        gate: 'It shows its name.',
        recovery: '',
        waysOut: [],
      },
    ],
    menu: ['IP: from the plan'],
    lights: [],
  },
};
const KINDS = {
  body: [
    { id: 'clock', name: 'Time clock', version: 2, shipped: true },
    { id: 'badge', name: 'Badge printer', version: 4, shipped: false },
  ],
};
/** The editor stands in a shadow root of its own. */
const editor = async () =>
  waitFor(() => {
    const content = document
      .querySelector('[data-editor]')
      ?.shadowRoot?.querySelector<HTMLElement>('[aria-label="The kind as YAML"]');
    const view = content && EditorView.findFromDOM(content);
    if (!view) throw new Error('no editor yet');
    return view;
  });
const write = async (text: string) => {
  const view = await editor();
  view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: text } });
};

beforeEach(() => {
  sessionStorage.clear();
  // What the editor asks of a browser and the simulated one has not.
  document.execCommand = () => false;
  Range.prototype.getClientRects = () => [] as unknown as DOMRectList;
});

describe('kinds as files', () => {
  it('names the line that is wrong and goes there; only a file that holds is kept', async () => {
    const sent = answering({
      'GET /api/kinds': KINDS,
      'GET /api/kinds/clock/recipe': RECIPE,
      'POST /api/kinds/check': {
        body: { findings: [{ line: 2, column: 1, message: 'Nothing asks for “roof”.' }], steps: [] },
      },
    });
    show(KindDesk, { lead: true });
    await fireEvent.click(await screen.findByRole('button', { name: 'Write one' }));
    await write('id: x\nwhen: roof\nname: y');
    await fireEvent.click(await screen.findByRole('button', { name: 'Line 2' }));
    const { state } = await editor();
    expect(state.sliceDoc(state.selection.main.from, state.selection.main.to)).toBe('when: roof');
    expect(screen.getByRole('button', { name: 'Keep this version' })).toBeDisabled();
    expect(sent.some((s) => s.call === 'POST /api/kinds')).toBe(false);
  });

  it('keeps a file that holds, and says so; what was refused stays in the field', async () => {
    const holds = { body: { findings: [], steps: ['Read the label', 'Confirm that it works'] } };
    answering({
      'GET /api/kinds': KINDS,
      'GET /api/kinds/clock/recipe': RECIPE,
      'POST /api/kinds/check': holds,
      'POST /api/kinds': {
        status: 409,
        body: { code: 'version-taken', detail: 'Somebody kept it just now.' },
      },
    });
    show(KindDesk, { lead: true });
    await fireEvent.click(await screen.findByRole('button', { name: 'Write one' }));
    await write('id: badge');
    await screen.findByText('Confirm that it works');
    await fireEvent.click(screen.getByRole('button', { name: 'Keep this version' }));
    await screen.findByText('Somebody kept it just now.');
    expect((await editor()).state.doc.toString()).toBe('id: badge');
    answering({
      'GET /api/kinds': KINDS,
      'GET /api/kinds/clock/recipe': RECIPE,
      'POST /api/kinds/check': holds,
      'POST /api/kinds': { status: 201, body: KINDS.body[1] },
    });
    await fireEvent.click(screen.getByRole('button', { name: 'Keep this version' }));
    await waitFor(() => expect(screen.getByText(/Badge printer, version 4, is kept/)).toBeInTheDocument());
  });

  it('lets others read a kind as a recipe, take the files and change none', async () => {
    answering({ 'GET /api/kinds': KINDS, 'GET /api/kinds/clock/recipe': RECIPE });
    show(KindDesk, { lead: false });
    expect(await screen.findByText('It shows its name.')).toBeInTheDocument();
    expect(screen.getByText('IP: from the plan')).toBeInTheDocument();
    expect(screen.getAllByRole('link', { name: 'File' })).toHaveLength(2);
    expect(screen.queryByRole('textbox')).toBeNull();
    expect(screen.queryByRole('button', { name: /Write|Copy|Change|Keep/ })).toBeNull();
  });
});
