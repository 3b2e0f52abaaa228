// How the editor colours a scene: by the tables that the parser reads.

export function defineMode(CodeMirror, words) {
  const verbs = new Set(words.verbs.map(verb => verb.name));
  const shapes = new Set([...words.shapes.map(shape => shape.name), "linear", "radial", "conic"]);
  const keywords = new Set(words.keywords);
  const functions = new Set(words.functions.map(entry => entry.name));
  const indenting = new Set(words.verbs.filter(verb => verb.has_end).map(verb => verb.name));
  const joiners = new Set(words.joiners);

  function word(text, state, begins) {
    if (begins && verbs.has(text)) {
      state.verb = text;
      return "verb";
    }
    if (state.second && shapes.has(text)) return "shape";
    if (keywords.has(text)) return "keyword";
    if (functions.has(text)) return "builtin";
    if (words.colors[text]) return "atom";
    return joiners.has(text) ? "verb" : "variable";
  }

  CodeMirror.defineMode("brick", config => ({
    startState: () => ({ first: true, second: false, goesOn: false, depth: 0, verb: "" }),
    token(stream, state) {
      if (stream.sol() && !state.goesOn) Object.assign(state, { first: true, second: false, verb: "" });
      if (stream.sol()) state.goesOn = /\\\s*$/.test(stream.string.replace(/\/\/.*/, ""));
      if (stream.eatSpace()) return null;
      if (stream.match("//")) {
        stream.skipToEnd();
        return "comment";
      }
      const begins = state.first;
      if (stream.match(/^"[^"]*"?/)) {
        state.first = state.second = false;
        return "string";
      }
      if (stream.match(/^#[0-9a-fA-F]+/)) return "atom";
      if (stream.match(/^\d+(\.\d+)?(turn|rad|deg|%)?/)) return "number";
      const name = stream.match(/^[A-Za-z_]\w*/);
      if (!name) {
        stream.next();
        return null;
      }
      const style = word(name[0], state, begins);
      if (begins && indenting.has(name[0])) ++state.depth;
      if (begins && name[0] === "end") state.depth = Math.max(0, state.depth - 1);
      state.second = begins && style === "verb";
      state.first = false;
      return style;
    },
    indent: (state, after) => Math.max(0, state.depth - (/^(end|otherwise)\b/.test(after) ? 1 : 0)) * config.indentUnit,
    electricInput: /^\s*(end|otherwise)$/,
    lineComment: "//"
  }));
}

// What may stand at the cursor, for completion.
export function completions(words, line, column) {
  const before = line.slice(0, column);
  const typed = /[A-Za-z_]*$/.exec(before)[0];
  const said = before.slice(0, before.length - typed.length).trim().split(/\s+/).filter(Boolean);
  const from = column - typed.length;
  const pick = list => list.filter(name => name.startsWith(typed));
  if (said.length === 0) return { from, list: pick(words.verbs.map(verb => verb.name)) };
  const own = words.statements[said[0]];
  const shapes = Object.keys(words.statements).filter(name => name.startsWith(said[0] + " ")).map(name => name.split(" ")[1]);
  if (said.length === 1 && !own && shapes.length > 0) return { from, list: pick(shapes) };
  const last = said[said.length - 1];
  if (["ink", "ground", "without", "stops"].includes(last) || /[(,]$/.test(before.slice(0, from))) {
    return { from, list: pick([...Object.keys(words.colors), ...words.functions.map(entry => entry.name)]) };
  }
  const keywords = own ?? words.statements[`${said[0]} ${said[1]}`] ?? words.keywords;
  return { from, list: pick(keywords.filter(name => name === "part" || !said.includes(name))) };
}
