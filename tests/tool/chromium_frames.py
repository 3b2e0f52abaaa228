"""Moving pictures by the tool, played by a browser: each frame's pixels and times.

chromium_frames.py CHROMIUM TOOL WORK_FOLDER

A page takes the frames out of each file with the browser's own decoders (WebCodecs, ImageDecoder) and prints them; they must be those
of the scene, drawn frame by frame as PPM, pixel for pixel, and shown for as long as the scene says.
"""
import base64
import http.server
import json
import queue
import subprocess
import sys
import threading

chromium, tool, folder = sys.argv[1:]
COUNT, RATE = 12, 10
# Each frame has its own time.
SCENE = f"""sheet size 40,30 ink #0b2239
frames {COUNT} rate {RATE} loops 3 time 0.05+frame*0.01
fill circle center 6+frame*2,12 radius 6 smooth ink gold
fill box at 2,20 size frame+1,4 ink coral
"""
with open(f"{folder}/tide.brick", "w", encoding="utf-8") as file:
    file.write(SCENE)


def draw(name):
    subprocess.run([tool, "render", "tide.brick", "-o", name, "--quiet"], cwd=folder, check=True)


def expected_frames():
    frames = []
    for number in range(COUNT):
        name = f"frame-{number}.ppm"
        subprocess.run([tool, "render", "tide.brick", "--frame", str(number), "-o", name, "--quiet"], cwd=folder, check=True)
        with open(f"{folder}/{name}", "rb") as file:
            data = file.read()
        frames.append(data[-40 * 30 * 3:])
    return frames


PAGE = """<body><script>
const files = FILES;
async function take(file) {
    const bytes = Uint8Array.from(atob(file.bytes), c => c.charCodeAt(0));
    const decoder = new ImageDecoder({data: bytes, type: file.type, colorSpaceConversion: 'none', premultiplyAlpha: 'none'});
    await decoder.completed;
    await decoder.tracks.ready;
    const track = decoder.tracks.selectedTrack;
    const frames = [];
    for (let i = 0; i < track.frameCount; ++i) {
        const {image} = await decoder.decode({frameIndex: i});
        const canvas = new OffscreenCanvas(image.displayWidth, image.displayHeight);
        const context = canvas.getContext('2d', {colorSpace: 'srgb'});
        context.drawImage(image, 0, 0);
        const pixels = context.getImageData(0, 0, image.displayWidth, image.displayHeight).data;
        let text = '';
        for (const byte of pixels) text += String.fromCharCode(byte);
        frames.push({pixels: btoa(text), duration: image.duration});
        image.close();
    }
    return {frames, loops: track.repetitionCount};
}
(async () => {
    const result = {};
    try { for (const file of files) result[file.name] = await take(file); }
    catch (error) { result.error = String(error); }
    await fetch('/result', {method: 'POST', body: JSON.stringify(result)});
})();
</script></body>"""

names = {"tide.png": "image/png", "tide.gif": "image/gif", "tide.webp": "image/webp"}
files = []
for name, kind in names.items():
    draw(name)
    with open(f"{folder}/{name}", "rb") as file:
        files.append({"name": name, "type": kind, "bytes": base64.b64encode(file.read()).decode()})
page = PAGE.replace("FILES", json.dumps(files)).encode()
results = queue.Queue()


class Handler(http.server.BaseHTTPRequestHandler):
    """Gives the page, and takes what it finds."""

    def do_GET(self):
        self.send_response(200)
        self.send_header("Content-Type", "text/html")
        self.end_headers()
        self.wfile.write(page)

    def do_POST(self):
        results.put(self.rfile.read(int(self.headers["Content-Length"])))
        self.send_response(204)
        self.end_headers()

    def log_message(self, *_):
        """Says nothing."""


server = http.server.ThreadingHTTPServer(("127.0.0.1", 0), Handler)
threading.Thread(target=server.serve_forever, daemon=True).start()
browser = subprocess.Popen(
    [chromium, "--headless", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
     "--disable-component-update", "--disable-sync", f"--user-data-dir={folder}/profile", f"http://127.0.0.1:{server.server_port}/"],
    stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
try:
    result = json.loads(results.get(timeout=60))
except queue.Empty:
    sys.exit("the browser gives nothing in a minute")
finally:
    browser.kill()
    browser.wait()
if "error" in result:
    sys.exit(result["error"])

wanted = expected_frames()
faults = []
for name in names:
    frames = result[name]["frames"]
    if len(frames) != COUNT:
        faults.append(f"{name}: {len(frames)} frames, {COUNT} wanted")
        continue
    # Played three times is once, and two times more.
    if result[name]["loops"] != 2:
        faults.append(f"{name}: repeated {result[name]['loops']} times, 2 wanted")
    for number, frame in enumerate(frames):
        rgba = base64.b64decode(frame["pixels"])
        rgb = bytes(b for i, b in enumerate(rgba) if i % 4 != 3)
        if rgb != wanted[number]:
            differing = sum(rgb[i:i + 3] != wanted[number][i:i + 3] for i in range(0, len(rgb), 3))
            faults.append(f"{name}, frame {number}: {differing} pixels differ")
        micros = 50_000 + 10_000 * number
        if abs(frame["duration"] - micros) > 1000:
            faults.append(f"{name}, frame {number}: {frame['duration']} µs, {micros} wanted")
if faults:
    sys.exit("\n".join(faults))
print(f"{len(names)} files of {COUNT} frames, pixel for pixel")
