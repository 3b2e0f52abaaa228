// The scene's text: coloured, with faults marked, numbers to be dragged, colours to be chosen, words completed.

import * as values from "./values.js";
import { completions, defineMode } from "./mode.js";

export class SceneEditor {
  // Tells: changed(), line(number from 0) when the cursor comes to another one, save().
  constructor(place, words, tell) {
    Object.assign(this, { words, tell, marks: [], swatches: [], line: -1 });
    defineMode(CodeMirror, words);
    this.code = CodeMirror(place, {
      mode: "brick", theme: "brick", lineNumbers: true, indentUnit: 4, inputStyle: "contenteditable", undoDepth: 2000, lineWrapping: false,
      extraKeys: {
        "Ctrl-Space": () => this.complete(), "Ctrl-S": () => tell.save(), "Cmd-S": () => tell.save(),
        Tab: false, "Shift-Tab": false,
        "Alt-Up": () => this.turn(1), "Alt-Down": () => this.turn(-1)
      }
    });
    this.code.getInputField().setAttribute("aria-label", "Text of the scene. Control and space complete a word, alt and up or down change a number.");
    this.code.on("change", () => {
      this.markColorsLater();
      tell.changed();
      this.tellLine(true);
    });
    this.code.on("cursorActivity", () => this.tellLine(false));
    this.code.on("inputRead", (code, change) => { if (/[a-z_]$/.test(change.text[0] ?? "") && !code.state.completionActive) this.complete(true); });
    const box = this.code.getWrapperElement();
    box.addEventListener("mousedown", event => this.beginDrag(event), true);
  }

  get text() { return this.code.getValue(); }
  setText(text, keepsUndo) {
    const cursor = this.code.getCursor();
    this.code.setValue(text);
    if (!keepsUndo) this.code.clearHistory();
    this.markColors();
    this.code.setCursor(cursor);
  }

  tellLine(isChanged) {
    const { line } = this.code.getCursor();
    if (line === this.line && !isChanged) return;
    if (this.line >= 0 && this.line !== line) this.code.removeLineClass(Math.min(this.line, this.code.lastLine()), "background", "here");
    this.line = line;
    this.code.addLineClass(line, "background", "here");
    this.tell.line(line);
  }

  goTo(line, column = 1) {
    this.code.setCursor({ line: line - 1, ch: column - 1 });
    this.code.scrollIntoView(null, 80);
  }
  focus() { this.code.focus(); }

  complete(isTyped) {
    const { line, ch } = this.code.getCursor();
    const { from, list } = completions(this.words, this.code.getLine(line), ch);
    if (isTyped && (ch - from < 2 || list.length === 0 || (list.length === 1 && list[0].length === ch - from))) return;
    this.code.showHint({
      completeSingle: !isTyped,
      hint: () => {
        const now = this.code.getCursor();
        const found = completions(this.words, this.code.getLine(now.line), now.ch);
        return { list: found.list, from: { line: now.line, ch: found.from }, to: now };
      }
    });
  }

  // Faults and remarks of this file: line, column (from 1), length, what, advice.
  mark(faults, remarks) {
    this.code.operation(() => {
      this.marks.forEach(mark => mark.clear());
      this.marks = [];
      const add = (place, className) => {
        if (place.file || place.line < 1 || place.line > this.code.lineCount()) return;
        const text = this.code.getLine(place.line - 1);
        // Columns count characters, and the editor units of UTF-16.
        const unit = column => [...text].slice(0, column - 1).join("").length;
        const ch = unit(place.column);
        const end = place.length ? unit(place.column + place.length) : text.length;
        const title = [place.what, place.advice].filter(Boolean).join(" - ");
        this.marks.push(this.code.markText({ line: place.line - 1, ch }, { line: place.line - 1, ch: Math.max(end, ch + 1) },
          { className, title }));
      };
      faults.forEach(fault => add(fault, "fault"));
      remarks.forEach(remark => add(remark, "remark"));
    });
  }

  // They move with the text, and are looked for anew when nothing has been typed for a moment.
  markColorsLater() {
    clearTimeout(this.colorTimer);
    this.colorTimer = setTimeout(() => { if (!this.isChoosing) this.markColors(); }, 250);
  }

  // A field in front of each colour.
  markColors() {
    this.code.operation(() => {
      this.swatches.forEach(swatch => swatch.clear());
      this.swatches = [];
      const most = 400;
      this.code.eachLine(handle => {
        if (this.swatches.length > most) return;
        const line = this.code.getLineNumber(handle);
        for (const color of values.colors(handle.text, this.words.colors)) {
          const field = document.createElement("input");
          field.type = "color";
          field.className = "swatch";
          field.value = color.rgb;
          field.tabIndex = -1;
          field.setAttribute("aria-label", `Colour ${color.text} in line ${line + 1}`);
          const mark = this.code.setBookmark({ line, ch: color.from }, { widget: field, handleMouseEvents: false });
          let said = color.text;
          let history = null;
          field.addEventListener("input", () => {
            const at = mark.find();
            if (!at) return;
            history ??= this.beginChange();
            const text = field.value + color.alpha;
            this.isChoosing = true;
            this.code.replaceRange(text, at, { line: at.line, ch: at.ch + said.length });
            said = text;
          });
          field.addEventListener("change", () => {
            this.isChoosing = false;
            const at = mark.find();
            if (at && history) this.endChange(history, at, color.text, said);
            this.markColors();
          });
          this.swatches.push(mark);
        }
      });
    });
  }

  // A change that goes on and on, such as a drag, becomes one that can be undone: begun before it, ended with the place
  // and text that were replaced and what stands there now.
  beginChange() { return this.code.getHistory(); }
  endChange(history, from, before, after) {
    if (before === after) return;
    this.code.operation(() => {
      const end = text => ({ line: from.line, ch: from.ch + text.length });
      this.code.replaceRange(before, from, end(after));
      this.code.setHistory(history);
      this.code.replaceRange(after, from, end(before), "drag");
    });
  }

  // Sideways, over a number: it changes by one of its last digit every few pixels.
  beginDrag(event) {
    if (event.button !== 0 || event.shiftKey || event.ctrlKey || event.metaKey || !event.target.closest?.(".cm-number")) return;
    const at = this.code.coordsChar({ left: event.clientX, top: event.clientY });
    const number = values.numberAt(this.code.getLine(at.line), at.ch);
    if (!number) return;
    const begin = event.clientX;
    const history = this.beginChange();
    let length = number.to - number.from;
    let said = number.text;
    const move = to => {
      const steps = Math.round((to.clientX - begin) / 4);
      const text = values.moved(number.text, steps);
      if (Math.abs(to.clientX - begin) < 4 && said === number.text) return;
      to.preventDefault();
      getSelection().removeAllRanges();
      if (text === said) return;
      this.code.replaceRange(text, { line: at.line, ch: number.from }, { line: at.line, ch: number.from + length });
      length = text.length;
      said = text;
    };
    const end = () => {
      document.removeEventListener("mousemove", move, true);
      document.removeEventListener("mouseup", end, true);
      this.endChange(history, { line: at.line, ch: number.from }, number.text, said);
      if (said !== number.text) this.code.setCursor({ line: at.line, ch: number.from + length });
    };
    document.addEventListener("mousemove", move, true);
    document.addEventListener("mouseup", end, true);
  }

  // The same by keys.
  turn(steps) {
    const { line, ch } = this.code.getCursor();
    const text = this.code.getLine(line);
    const number = values.numberAt(text, ch) ?? values.numberAt(text, ch - 1);
    if (!number) return;
    const to = values.moved(number.text, steps);
    this.code.replaceRange(to, { line, ch: number.from }, { line, ch: number.to }, "+turn");
    this.code.setCursor({ line, ch: number.from + Math.min(ch - number.from, to.length) });
  }

  // The points of the statement under the cursor that can be moved in the picture.
  points() {
    const lines = this.text.split("\n");
    if (!values.isUnmoved(lines, this.line, this.words.verbs)) return [];
    return values.points(lines[this.line] ?? "").map(point => ({ ...point, line: this.line }));
  }

  movePoint(point, [x, y]) {
    const now = this.points().find(one => one.line === point.line && one.from === point.from);
    if (!now) return;
    const text = `${x},${y}`;
    this.held ??= { history: this.beginChange(), from: { line: now.line, ch: now.from }, before: this.code.getLine(now.line).slice(now.from, now.to) };
    this.held.after = text;
    if (this.code.getLine(now.line).slice(now.from, now.to) === text) return;
    this.code.replaceRange(text, { line: now.line, ch: now.from }, { line: now.line, ch: now.to });
  }
  endMove() {
    if (this.held) this.endChange(this.held.history, this.held.from, this.held.before, this.held.after);
    this.held = null;
  }
}
