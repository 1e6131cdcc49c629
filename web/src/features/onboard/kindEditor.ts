import { autocompletion, type CompletionContext, type CompletionResult } from '@codemirror/autocomplete';
import { yaml } from '@codemirror/lang-yaml';
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import { lintGutter, setDiagnostics } from '@codemirror/lint';
import { tags } from '@lezer/highlight';
import { EditorView, basicSetup } from 'codemirror';
import schema from '../../../../docs/kind.schema.json';

/** A part of the published schema, as far as it helps somebody who writes. */
interface Part {
  description?: string;
  enum?: string[];
  type?: string;
  properties?: Record<string, Part>;
  additionalProperties?: boolean | Part;
  items?: Part;
  $ref?: string;
}
const ROOT = schema as unknown as Part;
const DEFS = schema.$defs as unknown as Record<string, Part>;
const KEY = /^(\s*)((?:- +)*)([A-Za-z][\w-]*)\s*:/;

const resolved = (part?: Part): Part | undefined =>
  part?.$ref ? DEFS[part.$ref.replace('#/$defs/', '')] : part;

/** The keys that a line stands in, outermost first, by how far it and those above it are indented. */
export function pathAt(lines: string[], line: number, indent: number): string[] {
  const path: string[] = [];
  let within = indent;
  for (let i = line - 1; i >= 0 && within > 0; i--) {
    const m = KEY.exec(lines[i] ?? '');
    if (!m) continue;
    const at = (m[1] ?? '').length + (m[2] ?? '').length;
    // The first key of a list's item stands as far in as the others of that item.
    if (at >= within) {
      if ((m[2] ?? '') && at === within) within = (m[1] ?? '').length + 1;
      continue;
    }
    path.unshift(m[3] ?? '');
    within = (m[2] ?? '') ? (m[1] ?? '').length + 1 : at;
  }
  return path;
}

/** What the schema says of the place that a path leads to. */
export function partAt(path: string[]): Part | undefined {
  let part: Part | undefined = ROOT;
  for (const key of path) {
    const own: Part | undefined = part?.properties?.[key];
    const other: Part | undefined =
      typeof part?.additionalProperties === 'object' ? part.additionalProperties : undefined;
    part = resolved(own ?? other);
    if (part?.items) part = resolved(part.items);
  }
  return part;
}

function complete(context: CompletionContext): CompletionResult | null {
  const line = context.state.doc.lineAt(context.pos);
  const before = line.text.slice(0, context.pos - line.from);
  const lines = context.state.doc.toString().split('\n');
  const value = /^(\s*)((?:- +)*)([A-Za-z][\w-]*):\s+(\S*)$/.exec(before);
  if (value) {
    const indent = (value[1] ?? '').length + (value[2] ?? '').length;
    const part = partAt([...pathAt(lines, line.number - 1, lead(value)), value[3] ?? '']);
    const words = part?.enum ?? (part?.type === 'boolean' ? ['true', 'false'] : []);
    return words.length && indent >= 0
      ? { from: context.pos - (value[4] ?? '').length, options: words.map((label) => ({ label })) }
      : null;
  }
  const key = /^(\s*)((?:- +)*)([A-Za-z][\w-]*)?$/.exec(before);
  if (!key || (!key[3] && !context.explicit)) return null;
  const part = partAt(pathAt(lines, line.number - 1, lead(key)));
  return part?.properties
    ? {
        from: context.pos - (key[3] ?? '').length,
        options: Object.entries(part.properties).map(([label, p]) => ({
          label,
          apply: label + ': ',
          info: p.description,
        })),
      }
    : null;
}

/** The page's own colours, by day and by night. */
const COLOURS = HighlightStyle.define([
  { tag: tags.definition(tags.propertyName), color: 'var(--color-primary)' },
  { tag: tags.string, color: 'var(--color-success)' },
  { tag: [tags.comment, tags.lineComment], color: 'var(--color-secondary)', fontStyle: 'italic' },
]);

/** How far in the owner of a key must be left of: of the first key of a list's item that is its dash. */
const lead = (m: RegExpExecArray) => (m[2] ? (m[1] ?? '').length + 1 : (m[1] ?? '').length);

/** A place where the file is wrong; lines and columns are counted from 1. */
export interface Wrong {
  line: number;
  column: number;
  message: string;
}

/**
 * Puts an editor for the file of a kind into an element, with what the published schema knows. It stands in a shadow root of
 * its own, so that its styles are sheets and not style tags, which the page's policy refuses.
 */
export function kindEditor(host: HTMLElement, label: string, changed: (text: string) => void) {
  const root = host.shadowRoot ?? host.attachShadow({ mode: 'open' });
  const place = document.createElement('div');
  root.replaceChildren(place);
  const view = new EditorView({
    parent: place,
    root,
    extensions: [
      basicSetup,
      syntaxHighlighting(COLOURS),
      yaml(),
      lintGutter(),
      autocompletion({ override: [complete] }),
      EditorView.lineWrapping,
      EditorView.contentAttributes.of({ 'aria-label': label, spellcheck: 'false', tabindex: '0' }),
      EditorView.updateListener.of((u) => u.docChanged && changed(u.state.doc.toString())),
      EditorView.theme({
        '&': { height: '46vh', fontSize: '14px', border: '1px solid currentColor', borderRadius: '4px' },
        '&.cm-focused': { outline: '2px solid currentColor', outlineOffset: '1px' },
        '.cm-scroller': { fontFamily: 'var(--font-mono)', lineHeight: '1.45' },
        '.cm-activeLine, .cm-activeLineGutter': { background: 'var(--color-base-200)' },
        '.cm-cursor': { borderColor: 'currentColor' },
        '.cm-gutters': { background: 'transparent', border: '0' },
        '.cm-lintRange-error': { background: 'none', textDecoration: 'underline wavy currentColor' },
      }),
    ],
  });
  return {
    set(text: string) {
      if (text !== view.state.doc.toString())
        view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: text } });
    },
    wrong(places: Wrong[]) {
      const doc = view.state.doc;
      view.dispatch(
        setDiagnostics(
          view.state,
          places
            .filter((p) => p.line >= 1 && p.line <= doc.lines)
            .map((p) => {
              const line = doc.line(p.line);
              const from = Math.min(line.to, line.from + Math.max(0, p.column - 1));
              return { from, to: line.to, severity: 'error', message: p.message };
            }),
        ),
      );
    },
    goTo(line: number) {
      const at = view.state.doc.line(Math.min(Math.max(1, line), view.state.doc.lines));
      view.dispatch({ selection: { anchor: at.from, head: at.to }, scrollIntoView: true });
      view.focus();
    },
    destroy: () => view.destroy(),
  };
}
