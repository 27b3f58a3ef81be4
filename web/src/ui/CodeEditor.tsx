import { defaultKeymap, history, historyKeymap, indentWithTab } from "@codemirror/commands";
import { EditorState } from "@codemirror/state";
import { drawSelection, EditorView, highlightActiveLine, keymap, lineNumbers } from "@codemirror/view";
import { useEffect, useRef } from "react";
import { OWN_STYLES } from "./ownStyles";

type CodeEditorProps = {
  label: string;
  /** What stands in it at first; a file that is another is another editor, with a key of its own. */
  text: string;
  onText: (text: string) => void;
};

/** The pigments of the page, in both themes. */
const LOOK = EditorView.theme({
  "&": { maxHeight: "46vh", backgroundColor: "var(--paper)", color: "var(--ink)", fontSize: "0.9rem" },
  "&.cm-focused": { outline: "2px solid var(--heather)", outlineOffset: "1px" },
  ".cm-scroller": { fontFamily: "var(--font-mono, monospace)", lineHeight: "1.45" },
  ".cm-content": { caretColor: "var(--ink)" },
  ".cm-cursor": { borderLeftColor: "var(--ink)" },
  ".cm-gutters": { backgroundColor: "var(--vellum)", color: "var(--ink-soft)", borderRight: "1px solid var(--rule)" },
  ".cm-activeLine, .cm-activeLineGutter": { backgroundColor: "var(--heather-wash)" },
  "&.cm-focused > .cm-scroller > .cm-selectionLayer .cm-selectionBackground, .cm-selectionBackground": {
    backgroundColor: "var(--lichen-wash)",
  },
});

/** Code that somebody changes: numbered lines, undo, indenting by Tab; Escape and then Tab leave it. */
export function CodeEditor({ label, text, onText }: CodeEditorProps) {
  const place = useRef<HTMLDivElement>(null);
  const first = useRef({ text, label });
  const latest = useRef(onText);
  useEffect(() => {
    latest.current = onText;
  });
  useEffect(() => {
    const parent = place.current;
    if (!parent) {
      return;
    }
    const view = new EditorView({
      parent,
      state: EditorState.create({
        doc: first.current.text,
        extensions: [
          lineNumbers(),
          history(),
          drawSelection(),
          highlightActiveLine(),
          keymap.of([...defaultKeymap, ...historyKeymap, indentWithTab]),
          LOOK,
          EditorView.cspNonce.of(OWN_STYLES),
          EditorView.contentAttributes.of({ "aria-label": first.current.label, spellcheck: "false" }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) {
              latest.current(update.state.doc.toString());
            }
          }),
        ],
      }),
    });
    return () => view.destroy();
  }, []);
  return <div ref={place} className="overflow-hidden rounded-leaf border border-edge" />;
}
