// What stands around the picture: faults, the story of a pixel, dials, frames.

const element = id => document.getElementById(id);

function button(text, className, act) {
  const made = document.createElement("button");
  made.type = "button";
  made.className = className;
  made.textContent = text;
  made.addEventListener("click", act);
  return made;
}

// Entries of faults and remarks; one that is pressed goes to its place.
export function showProblems(faults, remarks, goTo) {
  const list = element("problems").querySelector("ul");
  const entry = (problem, className) => {
    const item = document.createElement("li");
    const where = problem.line > 0 ? `${problem.file ? problem.file + ", " : ""}line ${problem.line}: ` : "";
    const made = button(where + problem.what, className, () => { if (!problem.file && problem.line > 0) goTo(problem.line, problem.column); });
    for (const more of [problem.way, problem.advice].filter(Boolean)) {
      const small = document.createElement("small");
      small.textContent = more;
      made.append(small);
    }
    item.append(made);
    return item;
  };
  list.replaceChildren(...faults.map(fault => entry(fault, "fault-entry")), ...remarks.map(remark => entry(remark, "remark-entry")));
}

// What painted a pixel: the last first, as it lies on top.
export function showStory(story, goTo) {
  const box = element("story");
  box.hidden = !story;
  if (!story) return;
  const title = document.createElement("h2");
  title.textContent = `${story.x},${story.y} is ${story.color}`;
  const list = document.createElement("ol");
  const entry = (text, color, act) => {
    const item = document.createElement("li");
    const made = button("", "step", act);
    const chip = document.createElement("i");
    chip.style.background = color;
    made.append(chip, text);
    item.append(made);
    return item;
  };
  for (const step of [...story.steps].reverse()) {
    const cover = step.coverage < 1 ? `, ${Math.round(step.coverage * 100)} % of it` : "";
    const effect = step.changes ? step.after : "changes nothing";
    const where = `${step.file ? step.file + " " : ""}line ${step.line}`;
    list.append(entry(`${where}  ${step.statement}: ${effect}${cover}`, step.ink, () => { if (!step.file) goTo(step.line, step.column); }));
  }
  const ground = entry(`the ground: ${story.ground}`, story.ground, () => {});
  ground.querySelector("button").disabled = true;
  list.append(ground);
  box.replaceChildren(title, list);
}

const rounded = number => String(Math.round(number * 1e6) / 1e6);

// A slider for each dial; calls set(name, value).
export class Dials {
  constructor(set) {
    this.set = set;
    this.known = "";
  }

  show(dials) {
    const box = element("dials");
    const key = JSON.stringify(dials.map(({ name, from, to, step }) => [name, from, to, step]));
    box.hidden = dials.length === 0;
    if (key === this.known) return;
    this.known = key;
    box.replaceChildren(...dials.map(dial => this.slider(dial)));
  }

  slider(dial) {
    const row = document.createElement("div");
    row.className = "dial";
    const label = document.createElement("label");
    const slider = document.createElement("input");
    const value = document.createElement("output");
    slider.type = "range";
    slider.id = `dial-${dial.name}`;
    label.htmlFor = slider.id;
    label.textContent = dial.name;
    slider.min = dial.from;
    slider.max = dial.to;
    slider.step = dial.step > 0 ? dial.step : "any";
    slider.value = dial.value;
    value.textContent = rounded(dial.value);
    slider.addEventListener("input", () => {
      value.textContent = rounded(Number(slider.value));
      this.set(dial.name, Number(slider.value));
    });
    row.append(label, slider, value);
    return row;
  }
}

// Plays frames; calls draw(number), which is over when it is shown.
export class Frames {
  constructor(draw) {
    Object.assign(this, { draw, count: 1, rate: 0, number: 0, isPlaying: false });
    element("play").addEventListener("click", () => this.play(!this.isPlaying));
    element("step").addEventListener("click", () => this.go(this.number + 1));
    element("step-back").addEventListener("click", () => this.go(this.number - 1));
    element("frame").addEventListener("input", event => this.go(Number(event.target.value)));
  }

  show({ count, rate, time }) {
    Object.assign(this, { count, rate, time });
    element("frames").hidden = count < 2;
    element("frame").max = count - 1;
    if (count < 2) this.play(false);
    if (this.number >= count) this.number = 0;
    this.tellNumber();
  }

  tellNumber() {
    element("frame").value = this.number;
    element("frame-number").textContent = `${this.number} of ${this.count}`;
  }

  go(number) {
    this.play(false);
    this.number = (number + this.count) % this.count;
    this.tellNumber();
    return this.draw();
  }

  async play(on) {
    if (on === this.isPlaying) return;
    this.isPlaying = on;
    const press = element("play");
    press.setAttribute("aria-pressed", on);
    press.textContent = on ? "Pause" : "Play";
    while (this.isPlaying) {
      const begin = performance.now();
      this.number = (this.number + 1) % this.count;
      this.tellNumber();
      await this.draw();
      const left = (this.time > 0 ? this.time : this.rate > 0 ? 1 / this.rate : 0.1) * 1000 - (performance.now() - begin);
      await new Promise(done => setTimeout(done, Math.max(0, left)));
    }
  }
}
