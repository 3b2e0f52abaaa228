"""Chromium, driven by ChromeDriver over the protocol of W3C WebDriver (https://www.w3.org/TR/webdriver2/)."""

import base64
import json
import shutil
import subprocess
import tempfile
import time
import urllib.error
import urllib.request

ELEMENT = "element-6066-11e4-a52e-4f735466cecf"  # the name of an element's number in the standard, section 6.2


class Browser:
    """A window of a headless Chromium; to be used with `with`."""

    def __init__(self, width=1280, height=800, scheme="light"):
        self.size = (width, height)
        self.scheme = scheme

    def __enter__(self):
        self.folder = tempfile.mkdtemp(prefix="coldbrick-browser-")
        self.driver = subprocess.Popen(["chromedriver", "--port=0"], stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True)
        for line in self.driver.stdout:
            if "started successfully on port" in line:
                self.root = "http://127.0.0.1:" + line.rstrip(".\n ").split()[-1]
                break
        arguments = ["--headless=new", "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
                     "--disable-component-update", "--disable-sync", "--disable-dev-shm-usage", "--force-color-profile=srgb",
                     f"--window-size={self.size[0]},{self.size[1]}", f"--user-data-dir={self.folder}"]
        if self.scheme == "dark":
            arguments.append("--blink-settings=preferredColorScheme=0")
        wanted = {"alwaysMatch": {"browserName": "chrome", "goog:chromeOptions": {"args": arguments}, "goog:loggingPrefs": {"browser": "ALL"}}}
        self.session = self.root + "/session/" + self.ask("POST", "/session", {"capabilities": wanted}, self.root)["sessionId"]
        return self

    def __exit__(self, *_):
        try:
            self.ask("DELETE", "")
        except Exception:
            pass
        self.driver.terminate()
        self.driver.wait()
        shutil.rmtree(self.folder, ignore_errors=True)

    def ask(self, method, path, body=None, root=None):
        request = urllib.request.Request((root or self.session) + path, method=method,
                                         data=None if body is None else json.dumps(body).encode(),
                                         headers={"Content-Type": "application/json"})
        try:
            with urllib.request.urlopen(request, timeout=60) as answer:
                return json.loads(answer.read())["value"]
        except urllib.error.HTTPError as error:
            raise RuntimeError(error.read().decode()[:600]) from None

    def open(self, address):
        self.ask("POST", "/url", {"url": address})

    def resize(self, width, height):
        self.ask("POST", "/window/rect", {"width": width, "height": height})

    def run(self, script, *arguments):
        """What a script returns; of one that gives a promise, what that becomes."""
        return self.ask("POST", "/execute/sync", {"script": script, "args": list(arguments)})

    def wait(self, script, *arguments, seconds=40):
        """Waits until a script's expression is true, and returns it."""
        end = time.time() + seconds
        while time.time() < end:
            value = self.run("return " + script, *arguments)
            if value:
                return value
            time.sleep(0.02)
        raise AssertionError(f"never true: {script} {arguments}")

    def element(self, selector):
        found = self.ask("POST", "/element", {"using": "css selector", "value": selector})
        return found[ELEMENT]

    def click(self, selector):
        self.ask("POST", f"/element/{self.element(selector)}/click", {})

    def keys(self, text):
        """Types into what has the focus; "CTRL+x" holds a key down."""
        names = {"CTRL": "\ue009", "SHIFT": "\ue008", "ALT": "\ue00a", "TAB": "\ue004", "ENTER": "\ue007", "LEFT": "\ue012", "UP": "\ue013",
                 "RIGHT": "\ue014", "DOWN": "\ue015", "END": "\ue010", "HOME": "\ue011", "BACK": "\ue003", "ESC": "\ue00c", "SPACE": " "}
        actions = []
        for stroke in text if isinstance(text, list) else list(text):
            *held, last = stroke.split("+") if len(stroke) > 1 else [stroke]
            all_keys = [names.get(key, key) for key in held] + [names.get(last, last)]
            actions += [{"type": "keyDown", "value": key} for key in all_keys]
            actions += [{"type": "keyUp", "value": key} for key in reversed(all_keys)]
        self.ask("POST", "/actions", {"actions": [{"type": "key", "id": "keyboard", "actions": actions}]})

    def mouse(self, *steps, key=None):
        """Steps: ("move", x, y), "down", "up". With a key held down, if there is one."""
        moves = []
        for step in steps:
            if step == "down":
                moves.append({"type": "pointerDown", "button": 0})
            elif step == "up":
                moves.append({"type": "pointerUp", "button": 0})
            else:
                moves.append({"type": "pointerMove", "x": round(step[1]), "y": round(step[2]), "duration": 10})
        sources = [{"type": "pointer", "id": "mouse", "parameters": {"pointerType": "mouse"}, "actions": moves}]
        if key:
            held = [{"type": "keyDown", "value": key}] + [{"type": "pause"}] * (len(moves) - 1) + [{"type": "keyUp", "value": key}]
            sources.append({"type": "key", "id": "keyboard", "actions": held})
        self.ask("POST", "/actions", {"actions": sources})

    def pinch(self, x, y, apart, to):
        """Two fingers beside a place, so far from it, that move so far from it."""
        def finger(name, side):
            moves = [{"type": "pointerMove", "x": round(x + side * apart), "y": round(y)}, {"type": "pointerDown", "button": 0},
                     {"type": "pointerMove", "x": round(x + side * (apart + to) / 2), "y": round(y), "duration": 60},
                     {"type": "pointerMove", "x": round(x + side * to), "y": round(y), "duration": 60}, {"type": "pointerUp", "button": 0}]
            return {"type": "pointer", "id": name, "parameters": {"pointerType": "touch"}, "actions": moves}
        self.ask("POST", "/actions", {"actions": [finger("thumb", -1), finger("finger", 1)]})

    def wheel(self, x, y, by):
        self.ask("POST", "/actions", {"actions": [{"type": "wheel", "id": "wheel", "actions": [
            {"type": "scroll", "x": round(x), "y": round(y), "deltaX": 0, "deltaY": by}]}]})

    def box(self, selector):
        return self.run("const b = document.querySelector(arguments[0]).getBoundingClientRect(); return [b.x, b.y, b.width, b.height];", selector)

    def screenshot(self, path):
        with open(path, "wb") as file:
            file.write(base64.b64decode(self.ask("GET", "/screenshot")))

    def complaints(self):
        """What the page's console has of errors."""
        return [entry["message"] for entry in self.ask("POST", "/se/log", {"type": "browser"}) if entry["level"] == "SEVERE"]
