// Numbers, points and colours in the text of a scene.

// The parts of a line that are no comment and no text in quotes: [from, to] each.
function codeParts(line) {
  const parts = [];
  let begin = 0;
  for (let i = 0; i < line.length; ++i) {
    if (line[i] === '"') {
      parts.push([begin, i]);
      const end = line.indexOf('"', i + 1);
      i = end < 0 ? line.length : end;
      begin = i + 1;
    } else if (line.startsWith("//", i)) {
      parts.push([begin, i]);
      return parts;
    }
  }
  parts.push([begin, line.length]);
  return parts;
}

function matches(line, expression) {
  const found = [];
  for (const [from, to] of codeParts(line)) {
    for (const match of line.slice(from, to).matchAll(expression)) {
      found.push({ from: from + match.index, to: from + match.index + match[0].length, text: match[0], groups: match });
    }
  }
  return found;
}

// Numbers that stand for themselves, with the sign that belongs to them.
export function numbers(line) {
  return matches(line, /(?<![\w.#)])(?:(?<=[\s,(=])-)?\d+(?:\.\d+)?(?![\w.]*[A-Za-z_#])|(?<![\w.#])\d+(?:\.\d+)?(?=turn|rad|deg|%)/g)
    .filter(number => !inColor(line, number.from));
}

function inColor(line, column) {
  return /#[0-9a-fA-F]*$/.test(line.slice(0, column));
}

export function numberAt(line, column) {
  return numbers(line).find(number => number.from <= column && column < number.to);
}

// As many decimals as it had, moved by so many steps of its last digit.
export function moved(text, steps) {
  const decimals = (text.split(".")[1] ?? "").length;
  return (Number(text) + steps * 10 ** -decimals).toFixed(decimals);
}

// Points that are two numbers behind a keyword, or one of a list of them.
export function points(line) {
  const found = [];
  let keyword = "";
  for (const word of matches(line, /[^\s]+/g)) {
    const pair = /^(-?\d+(?:\.\d+)?),(-?\d+(?:\.\d+)?)$/.exec(word.text);
    if (!pair) {
      keyword = /^[a-z_]+$/.test(word.text) ? word.text : "";
      continue;
    }
    if (!["at", "from", "to", "center", "through"].includes(keyword)) continue;
    found.push({ keyword, from: word.from, to: word.to, x: Number(pair[1]), y: Number(pair[2]) });
  }
  return found;
}

const hex = /#(?:[0-9a-fA-F]{8}|[0-9a-fA-F]{6}|[0-9a-fA-F]{3,4})(?![0-9a-zA-Z_])/g;

// Colours: hexadecimal ones and names, with their six digits.
export function colors(line, names) {
  const found = matches(line, hex).map(color => {
    const digits = color.text.slice(1);
    const short = digits.length < 6;
    const rgb = short ? [...digits.slice(0, 3)].map(digit => digit + digit).join("") : digits.slice(0, 6);
    const alpha = short ? (digits[3] ?? "").repeat(2) : digits.slice(6);
    return { ...color, rgb: "#" + rgb.toLowerCase(), alpha };
  });
  // A name counts where an ink, a colour or a value stands, and not where a statement begins.
  for (const word of matches(line, /(?<=[\s,(])[a-z]+(?![\w(=])/g)) {
    if (names[word.text] && word.from > 0) found.push({ ...word, rgb: names[word.text], alpha: "" });
  }
  return found.sort((a, b) => a.from - b.from);
}

// Whether coordinates of a line are those of the sheet: not inside a shape of one's own, or something that moves.
export function isUnmoved(lines, number, verbs) {
  const known = new Map(verbs.map(verb => [verb.name, verb]));
  const open = [];
  for (let i = 0; i < number; ++i) {
    const verb = /^\s*([a-z]+)/.exec(lines[i])?.[1] ?? "";
    if (known.get(verb)?.has_end) open.push(verb);
    if (verb === "end") open.pop();
  }
  return !open.some(verb => known.get(verb).moves);
}
