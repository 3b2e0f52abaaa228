// What the page asks the server.

async function json(response) {
  const answer = await response.json();
  if (!response.ok) throw Object.assign(new Error(answer.error), { status: response.status });
  return answer;
}

// One page of perhaps several that are open.
const page = Math.random().toString(36).slice(2);

const post = (what, body) => fetch(what, { method: "POST", body: JSON.stringify({ page, ...body }) });

// A line of JSON, and the pixels behind it.
async function picture(response) {
  const bytes = new Uint8Array(await response.arrayBuffer());
  const end = bytes.indexOf(10);
  const answer = JSON.parse(new TextDecoder().decode(bytes.subarray(0, end)));
  if (!response.ok) throw new Error(answer.error);
  if (answer.shown) answer.pixels = new Uint8ClampedArray(bytes.buffer, end + 1);
  return answer;
}

export const words = async () => json(await fetch("words"));
export const files = async () => json(await fetch("files"));
export const text = async file => json(await fetch(`text?file=${file}`));
export const read = async file => picture(await fetch(`picture?file=${file}`));
export const draw = async question => picture(await post("draw", question));
// Ends the drawing that this page waits for; it is answered as "ended".
export const endDrawing = async () => json(await post("end", { file: 0 }));
export const pixel = async (question, x, y) => json(await post("pixel", { ...question, x, y }));
export const outline = async (question, line) => json(await post("outline", { ...question, line }));
export const unseen = async question => json(await post("unseen", question));
export const save = async (file, text, version) => json(await post("save", { file, text, version }));

// The whole pixels of a large picture; nothing if another one has been drawn meanwhile.
export async function whole(number) {
  const response = await fetch(`whole?number=${number}`);
  return response.ok ? new Uint8ClampedArray(await response.arrayBuffer()) : null;
}

// Calls changed(file) for each file that changes, from now on.
export function follow(changed) {
  let known = null;
  const events = new EventSource("events");
  events.onmessage = event => {
    const now = JSON.parse(event.data);
    const before = known ?? now;
    known = now;
    now.forEach((count, file) => { if (count !== before[file]) changed(file); });
  };
  return events;
}
