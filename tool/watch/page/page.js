// The page: a scene's text and its picture, or a picture alone, kept up to date.

import * as server from "./server.js";
import { SceneEditor } from "./editor.js";
import { PictureView } from "./picture.js";
import { Dials, Frames, showProblems, showStory } from "./panels.js";

const element = id => document.getElementById(id);
const words = await server.words();
const files = await server.files();

const state = { file: 0, version: "", saved: "", set: {}, question: null, isDrawing: false, isWanted: false, story: null };
let waiting = [];

const shortName = file => files[file].name.split("/").pop();
const isScene = () => files[state.file].kind === "scene";
const hex = ([red, green, blue, alpha]) =>
  "#" + [red, green, blue, ...(alpha < 255 ? [alpha] : [])].map(value => value.toString(16).padStart(2, "0")).join("");

// The name of CSS Color 4 of a colour, or of the nearest.
function nameOf([red, green, blue]) {
  let best = ["", Infinity];
  for (const [name, color] of Object.entries(words.colors)) {
    const away = [red, green, blue].reduce((sum, value, i) => sum + (value - parseInt(color.slice(1 + 2 * i, 3 + 2 * i), 16)) ** 2, 0);
    if (away < best[1]) best = [name, away];
  }
  return (best[1] > 0 ? "near " : "") + best[0];
}

async function copy(text) {
  try {
    await navigator.clipboard.writeText(text);
    say(`copied ${text}`);
  } catch {
    say(`this browser does not let the page copy ${text}`);
  }
}

function say(text) { element("spoken").textContent = text; tellState(text); }
let stateTimer = 0;
function tellState(text) {
  element("state").textContent = text;
  clearTimeout(stateTimer);
  stateTimer = setTimeout(() => { element("state").textContent = state.drawn ?? ""; }, 2500);
}

function copyButton(text, label) {
  const made = document.createElement("button");
  made.type = "button";
  made.textContent = text;
  made.title = `Copy ${label}`;
  made.addEventListener("click", () => copy(text));
  return made;
}

function showReadout(pixel) {
  if (!pixel) return;
  const channels = view.color(pixel);
  const color = hex(channels);
  element("place").replaceChildren(copyButton(pixel.join(","), "the place"));
  element("chip").style.cssText = `visibility: visible; background: ${color}`;
  element("color").replaceChildren(copyButton(color, "the colour"),
    ` ${channels.slice(0, channels[3] < 255 ? 4 : 3).join(" ")}  ${channels[3] === 0 ? "transparent" : nameOf(channels)}`);
  element("picture").dataset.pixel = `${pixel.join(",")} ${color}`;
  if (document.activeElement === element("picture")) {
    element("spoken").textContent = `${pixel.join(", ")} ${channels[3] === 0 ? "transparent" : nameOf(channels)}`;
  }
}

function showMeasure(measure) {
  if (!measure) return element("length").replaceChildren();
  const { from, to } = measure;
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const angle = (Math.atan2(dy, dx) * 180 / Math.PI + 360) % 360;
  element("length").replaceChildren(
    copyButton(`from ${from.join(",")} to ${to.join(",")}`, "both ends"),
    copyButton(`size ${Math.abs(dx) + 1},${Math.abs(dy) + 1}`, "the size"),
    ` distance ${Math.hypot(dx, dy).toFixed(2)} angle ${angle.toFixed(1)}`);
}

const view = new PictureView(element("picture"), {
  hover: showReadout,
  measured: showMeasure,
  pick: async pixel => {
    showReadout(pixel);
    if (!isScene() || !state.question) return;
    try {
      const story = await server.pixel(state.question, ...pixel);
      showStory(story, goTo);
      const top = [...story.steps].reverse().find(step => step.changes) ?? story.steps.at(-1);
      if (top && !top.file) goTo(top.line, top.column, false);
      say(top ? `painted by ${top.statement} in ${top.file ? top.file + ", " : ""}line ${top.line}` : "nothing but the ground");
    } catch (error) {
      say(error.message);
    }
  },
  move: (point, pixel) => editor.movePoint(point, pixel),
  moved: () => editor.endMove(),
  zoomed: zoom => { element("zoom").textContent = zoom >= 1 ? `${zoom}:1` : `1:${Number((1 / zoom).toFixed(1))}`; },
  key: (key, pixel) => {
    if (key === "g") element("grid").click();
    else if (key === "m") {
      if (!view.isMeasuring) element("measure").click();
      view.setMeasure({ from: pixel, to: pixel });
    } else if (key === "c") copy(pixel.join(","));
    else if (key === "k") copy(hex(view.color(pixel)));
    else if (key === "escape") view.setMeasure(null);
    else return false;
    return true;
  }
});

function goTo(line, column, takesFocus = true) {
  editor.goTo(line, column);
  if (takesFocus) editor.focus();
}

let outlineNumber = 0;
async function showStatement(line) {
  view.setPoints(isScene() && state.isGood ? editor.points() : []);
  const number = ++outlineNumber;
  if (!isScene() || !state.question || !state.isGood) return;
  try {
    const { spans } = await server.outline(state.question, line + 1);
    if (number === outlineNumber) view.setOutline(spans);
  } catch {
    view.setOutline(null);
  }
}

const editor = new SceneEditor(element("editor"), words, {
  changed: () => {
    tellSaved();
    draw();
  },
  line: line => { if (!state.isDrawing && !state.isWanted) showStatement(line); },
  save
});
const dials = new Dials((name, value) => {
  state.set[name] = value;
  draw();
});
const frames = new Frames(draw);

function tellSaved() {
  const isSaved = editor.text === state.saved;
  element("save").disabled = isSaved || !isScene();
  element("save").textContent = isSaved ? "Saved" : "Save";
  document.title = `${isSaved ? "" : "* "}${shortName(state.file)} - Cold Brick`;
}

// Draws the text as it is now; while it does, the latest change waits. Over when what was asked for is shown.
function draw() {
  const over = new Promise(done => waiting.push(done));
  state.isWanted = true;
  if (state.isDrawing) endSlowDrawing();
  else drawWaiting();
  return over;
}

// A drawing that has taken long is not waited for when there is a newer text. Quick ones come to their end, so that
// something is seen while a number is dragged.
function endSlowDrawing() {
  const patience = 300;
  const drawn = state.begun;
  setTimeout(() => {
    if (state.isDrawing && state.isWanted && state.begun === drawn) server.endDrawing().catch(() => {});
  }, Math.max(0, drawn + patience - performance.now()));
}

async function drawWaiting() {
  state.isDrawing = true;
  while (state.isWanted) {
    state.isWanted = false;
    const done = waiting;
    waiting = [];
    const begin = performance.now();
    state.begun = begin;
    const file = state.file;
    const question = { file, text: editor.text, set: state.set, frame: frames.number };
    try {
      const answer = isScene() ? await server.draw(question) : await server.read(file);
      if (file === state.file && !answer.ended) await show(answer, question, begin);
    } catch (error) {
      notice(`The server does not answer: ${error.message}`);
    }
    done.forEach(tell => tell());
  }
  state.isDrawing = false;
  if (isScene()) showStatement(editor.line);
  laterUnseen();
}

async function show(answer, question, begin) {
  const { faults = [], remarks = [] } = answer;
  state.isGood = faults.length === 0;
  if (isScene()) editor.mark(faults, remarks);
  state.remarks = remarks;
  showProblems(faults, remarks, goTo);
  if (!state.isGood) {
    view.setOutline(null);
    state.drawn = `${faults.length} fault${faults.length > 1 ? "s" : ""}; the picture is the last good one`;
    element("state").textContent = state.drawn;
    return;
  }
  state.question = question;
  view.show(answer.pixels, answer.shown, answer.size);
  if (isScene()) {
    dials.show(answer.dials);
    frames.show(answer.frames);
  }
  const taken = performance.now() - begin;
  state.drawn = `${answer.size.join(" x ")}, ${taken.toFixed(0)} ms`;
  element("state").textContent = state.drawn;
  document.body.dataset.drawn = String(Number(document.body.dataset.drawn ?? 0) + 1);
  document.body.dataset.milliseconds = taken.toFixed(1);
  document.body.dataset.server = answer.milliseconds;
  if (answer.whole && !state.isWanted) {
    const whole = await server.whole(answer.whole);
    if (whole && state.question === question) view.show(whole, answer.size, answer.size);
  }
}

// What does not show is looked for when nothing has happened for a while.
let unseenTimer = 0;
function laterUnseen() {
  clearTimeout(unseenTimer);
  if (!isScene() || !state.isGood || frames.isPlaying) return;
  unseenTimer = setTimeout(async () => {
    const question = state.question;
    try {
      const { unseen } = await server.unseen(question);
      if (question !== state.question || !state.isGood) return;
      editor.mark([], [...state.remarks, ...unseen]);
      showProblems([], [...state.remarks, ...unseen], goTo);
    } catch { /* it has been changed meanwhile */ }
  }, 500);
}

async function save() {
  if (!isScene()) return;
  const text = editor.text;
  try {
    const { version } = await server.save(state.file, text, state.version);
    Object.assign(state, { version, saved: text });
    notice("");
    tellState("saved");
  } catch (error) {
    if (error.status !== 409) return notice(`Not saved: ${error.message}`);
    const { text: theirs, version } = await server.text(state.file);
    askWhose(theirs, version, "The file has been changed meanwhile.");
  }
  tellSaved();
}

function notice(text, ...acts) {
  const box = element("notice");
  box.hidden = text === "";
  box.replaceChildren(text, ...acts.map(([label, act]) => {
    const made = document.createElement("button");
    made.type = "button";
    made.textContent = label;
    made.addEventListener("click", () => {
      notice("");
      act();
    });
    return made;
  }));
}

function askWhose(theirs, version, what) {
  notice(what,
    ["Take the file's text", () => take(theirs, version, true)],
    ["Keep mine", () => { state.version = version; state.saved = theirs; tellSaved(); }]);
}

function take(text, version, keepsUndo) {
  Object.assign(state, { version, saved: text });
  editor.setText(text, keepsUndo);
  tellSaved();
  return draw();
}

async function open(file) {
  frames.play(false);
  Object.assign(state, { file, set: {}, question: null, isGood: false });
  frames.number = 0;
  view.size = null;
  view.isFitted = true;
  dials.known = "";
  element("dials").hidden = element("frames").hidden = true;
  showStory(null);
  showProblems([], [], goTo);
  view.setPoints([]);
  view.setOutline(null);
  document.querySelector("main").classList.toggle("picture-only", !isScene());
  for (const entry of element("files").children) entry.setAttribute("aria-current", Number(entry.dataset.file) === file);
  if (!isScene()) {
    document.title = `${shortName(file)} - Cold Brick`;
    element("save").disabled = true;
    return draw();
  }
  const { text, version } = await server.text(file);
  await take(text, version, false);
}

async function changed(file) {
  if (file !== state.file) return;
  if (!isScene()) return draw();
  const { text, version } = await server.text(file).catch(() => ({}));
  if (text === undefined || version === state.version) return draw();
  const isOwn = editor.text !== state.saved;
  return isOwn ? askWhose(text, version, "The file has been changed, and so has the text here.") : take(text, version, true);
}

element("files").replaceChildren(...files.map(({ name }, file) => {
  const made = document.createElement("button");
  made.type = "button";
  made.dataset.file = file;
  made.textContent = name.split("/").pop();
  made.title = name;
  made.addEventListener("click", () => {
    if (isScene() && editor.text !== state.saved) {
      return notice("The text here has not been saved.", ["Save it", async () => { await save(); open(file); }],
        ["Leave it", () => open(file)]);
    }
    open(file);
  });
  return made;
}));
element("save").addEventListener("click", save);
element("zoom-in").addEventListener("click", () => view.zoomBy(1));
element("zoom-out").addEventListener("click", () => view.zoomBy(-1));
element("zoom-fit").addEventListener("click", () => view.fit());
element("zoom-one").addEventListener("click", () => view.zoomTo(1));
element("grid").addEventListener("click", event => {
  view.hasGrid = !view.hasGrid;
  event.currentTarget.setAttribute("aria-pressed", view.hasGrid);
  view.paint();
});
element("measure").addEventListener("click", event => {
  view.setMeasuring(!view.isMeasuring);
  event.currentTarget.setAttribute("aria-pressed", view.isMeasuring);
});
addEventListener("beforeunload", event => { if (isScene() && editor.text !== state.saved) event.preventDefault(); });
addEventListener("keydown", event => {
  if ((event.ctrlKey || event.metaKey) && event.key === "s") {
    event.preventDefault();
    save();
  }
});
await open(0);
server.follow(changed);
document.body.dataset.ready = "yes";
