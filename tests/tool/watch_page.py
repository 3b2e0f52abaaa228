"""The page of `coldbrick watch` in a real browser: what it shows, against what the tool's other commands say.

watch_page.py TOOL WORK_FOLDER
"""
import os
import re
import signal
import subprocess
import sys
import time
import unittest

sys.path.insert(0, os.path.dirname(os.path.abspath(__file__)))
from browser import Browser  # noqa: E402

TOOL, FOLDER = sys.argv[1:3]

SCENE = """sheet size 120,80 ink #0b2239
dial tide = 3 from 0 to 9 step 1
fill box at 0,60-tide size 120,30 ink teal
fill circle center 40,30 radius 14 ink #e8b23a
fill box at 34,24 size 12,12 ink coral opacity 50%
stroke line from 70,10 to 110,50 width 3 ink white
"""
FILM = """sheet size 60,40 ink navy
frames 5 rate 10
fill box at frame*10,10 size 10,10 ink gold
"""


def write(name, text):
    with open(f"{FOLDER}/{name}", "w", encoding="utf-8") as file:
        file.write(text)


def read(name):
    with open(f"{FOLDER}/{name}", encoding="utf-8") as file:
        return file.read()


def tool(*arguments):
    return subprocess.run([TOOL, *arguments], cwd=FOLDER, capture_output=True, text=True, check=True).stdout


class Page(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        write("quay.brick", SCENE)
        write("film.brick", FILM)
        write("plan.brick", SCENE)
        tool("render", "plan.brick", "-o", "plan.png", "--quiet")
        cls.server = subprocess.Popen([TOOL, "watch", "quay.brick", "film.brick", "plan.png"], cwd=FOLDER, stdout=subprocess.PIPE, text=True)
        cls.address = cls.server.stdout.readline().strip()
        cls.browser = Browser().__enter__()

    @classmethod
    def tearDownClass(cls):
        cls.browser.__exit__()
        cls.server.send_signal(signal.SIGTERM)
        assert cls.server.wait(10) == 0

    def setUp(self):
        write("quay.brick", SCENE)
        self.browser.resize(1280, 900)
        # What has not been saved is left.
        self.browser.run("addEventListener('beforeunload', event => event.stopImmediatePropagation(), true)")
        self.browser.open(self.address)
        self.browser.wait("document.body.dataset.ready === 'yes'")
        self.browser.wait("document.body.dataset.drawn >= 1")

    def tearDown(self):
        # A file that has been changed by both is a conflict, and the browser says so.
        known = ["beforeunload", "/save - Failed to load resource: the server responded with a status of 409"]
        self.assertEqual([one for one in self.browser.complaints() if not any(words in one for words in known)], [])

    # The editor's text, and changes of it as typing makes them.
    def text(self):
        return self.browser.run("return document.querySelector('.CodeMirror').CodeMirror.getValue()")

    def replace(self, old, new):
        drawn = self.drawn()
        self.browser.run("""const code = document.querySelector('.CodeMirror').CodeMirror;
            const from = code.getValue().indexOf(arguments[0]);
            code.replaceRange(arguments[1], code.posFromIndex(from), code.posFromIndex(from + arguments[0].length));""", old, new)
        return drawn

    def drawn(self):
        return int(self.browser.run("return document.body.dataset.drawn"))

    def wait_drawn(self, before):
        self.browser.wait("Number(document.body.dataset.drawn) > arguments[0]", before)
        self.browser.run("return new Promise(done => requestAnimationFrame(() => requestAnimationFrame(() => done(1))))")

    # Where the middle of a picture's pixel is in the window, as the page has painted it.
    def place(self, x, y):
        self.browser.run("return new Promise(done => requestAnimationFrame(() => requestAnimationFrame(() => done(1))))")
        left, top, _, _ = self.browser.box("#picture")
        a, b = map(float, self.browser.run("return document.getElementById('picture').dataset.origin").split(","))
        return left + a + (x + 0.5) * self.zoom(), top + b + (y + 0.5) * self.zoom()

    def zoom(self):
        more, less = self.browser.run("return document.getElementById('zoom').textContent").split(":")
        return float(more) / float(less)

    def readout(self):
        at, color = self.browser.run("return document.getElementById('picture').dataset.pixel").split()
        return tuple(map(int, at.split(","))), color

    def test_hover_says_what_pick_says(self):
        tool("render", "quay.brick", "-o", "quay.png", "--quiet")
        self.assertGreaterEqual(self.zoom(), 3)
        self.assertEqual(self.zoom() % 1, 0)
        base = self.place(0, 0)
        zoom = self.zoom()
        for x, y in [(0, 0), (40, 30), (34, 24), (52, 31), (119, 79), (90, 30), (3, 58)]:
            self.browser.mouse(("move", base[0] + x * zoom, base[1] + y * zoom))
            expected = tool("pick", "quay.png", f"{x},{y}").split()
            self.assertEqual(self.readout(), ((x, y), expected[1]))

    def test_clicks_go_to_the_statement_and_list_those_below(self):
        x, y = self.place(40, 30)
        self.browser.mouse(("move", x, y), "down", "up")
        self.browser.wait("!document.getElementById('story').hidden")
        lines = self.browser.run("return [...document.querySelectorAll('#story button')].map(one => one.textContent)")
        told = [re.search(r":(\d+):\d+ +(\w+ \w+)", line).groups() for line in tool("explain", "quay.brick", "40,30").splitlines()[2:]]
        self.assertEqual([re.search(r"line (\d+)  (\w+ \w+)", line).groups() for line in lines[:-1]], told[::-1])
        self.assertEqual(self.browser.run("return document.querySelector('.CodeMirror').CodeMirror.getCursor().line"), 4)
        self.browser.click("#story li:nth-child(2) button")
        self.assertEqual(self.browser.run("return document.querySelector('.CodeMirror').CodeMirror.getCursor().line"), 3)

    def test_editing_draws_and_faults_keep_the_picture(self):
        x, y = self.place(40, 30)
        self.wait_drawn(self.replace("coral", "lime"))
        self.browser.mouse(("move", x + 1, y))
        self.browser.mouse(("move", x, y))
        mixed = self.readout()[1]
        write("quay.brick", SCENE.replace("coral", "lime"))
        self.assertEqual(tool("explain", "quay.brick", "40,30").split()[2], mixed)
        self.replace("circle", "circel")
        self.browser.wait("document.querySelector('#problems .fault-entry')")
        problem = self.browser.run("return document.querySelector('#problems .fault-entry').textContent")
        self.assertIn("line 4: unknown shape 'circel'", problem)
        self.assertIn("did you mean 'circle'?", problem)
        self.assertEqual(self.browser.run("return document.querySelector('.CodeMirror .fault').textContent"), "circel")
        self.browser.mouse(("move", x + 1, y))
        self.browser.mouse(("move", x, y))
        self.assertEqual(self.readout()[1], mixed)

    def test_a_number_is_dragged(self):
        box = self.browser.run("""const found = [...document.querySelectorAll('.CodeMirror .cm-number')].find(one => one.textContent === '14');
            const b = found.getBoundingClientRect(); return [b.x + b.width / 2, b.y + b.height / 2];""")
        drawn = self.drawn()
        self.browser.mouse(("move", *box), "down", ("move", box[0] + 10, box[1]), ("move", box[0] + 24, box[1]), "up")
        self.wait_drawn(drawn)
        self.assertIn("radius 20 ", self.text())
        self.browser.run("document.querySelector('.CodeMirror').CodeMirror.undo()")
        self.assertEqual(self.text(), SCENE)
        self.assertEqual(read("quay.brick"), SCENE)

    def test_a_number_is_turned_by_keys(self):
        self.browser.run("const code = document.querySelector('.CodeMirror').CodeMirror; code.focus(); code.setCursor({line: 3, ch: 34});")
        self.browser.keys(["ALT+UP", "ALT+UP"])
        self.assertIn("radius 16 ", self.text())

    def test_a_color_is_chosen(self):
        drawn = self.drawn()
        self.browser.run("""const field = [...document.querySelectorAll('.swatch')].find(one => one.getAttribute('aria-label').includes('#e8b23a'));
            field.value = '#123456'; field.dispatchEvent(new Event('input')); field.dispatchEvent(new Event('change'));""")
        self.wait_drawn(drawn)
        self.assertIn("radius 14 ink #123456", self.text())
        self.browser.run("document.querySelector('.CodeMirror').CodeMirror.undo()")
        self.assertEqual(self.text(), SCENE)

    def test_a_point_is_dragged_in_the_picture(self):
        self.browser.run("document.querySelector('.CodeMirror').CodeMirror.setCursor({line: 3, ch: 2})")
        time.sleep(0.3)
        x, y = self.place(40, 30)
        zoom = self.zoom()
        drawn = self.drawn()
        self.browser.mouse(("move", x, y), "down", ("move", x + 5 * zoom, y), ("move", x + 10 * zoom, y - 4 * zoom), "up")
        self.wait_drawn(drawn)
        self.assertIn("center 50,26 radius 14", self.text())
        self.browser.run("document.querySelector('.CodeMirror').CodeMirror.undo()")
        self.assertEqual(self.text(), SCENE)

    def test_a_slider_is_a_dial(self):
        base = self.place(2, 52)
        self.browser.mouse(("move", *base))
        before = self.readout()[1]
        drawn = self.drawn()
        self.browser.run("const dial = document.getElementById('dial-tide'); dial.value = 9; dial.dispatchEvent(new Event('input'));")
        self.wait_drawn(drawn)
        self.browser.mouse(("move", base[0] + 1, base[1]))
        self.browser.mouse(("move", *base))
        self.assertEqual((before, self.readout()[1]), ("#0b2239", "#008080"))
        self.assertEqual(self.text(), SCENE)

    def test_frames_step_and_play(self):
        drawn = self.drawn()
        self.browser.click("[data-file='1']")
        self.wait_drawn(drawn)
        base = self.place(25, 15)
        drawn = self.drawn()
        self.browser.click("#step")
        self.browser.click("#step")
        self.browser.wait("document.getElementById('frame-number').textContent.startsWith('2 ')")
        self.wait_drawn(drawn)
        self.browser.mouse(("move", *base))
        self.assertEqual(self.readout(), ((25, 15), "#ffd700"))
        drawn = self.drawn()
        self.browser.click("#play")
        self.browser.wait("Number(document.body.dataset.drawn) > arguments[0]", drawn + 6)
        self.browser.click("#play")
        self.browser.wait("document.getElementById('play').textContent === 'Play'")

    def test_saving_and_what_others_write(self):
        self.wait_drawn(self.replace("coral", "lime"))
        self.assertEqual(read("quay.brick"), SCENE)
        self.browser.click("#save")
        self.browser.wait("document.getElementById('save').textContent === 'Saved'")
        changed = SCENE.replace("coral", "lime")
        self.assertEqual(read("quay.brick"), changed)
        # Somebody else writes it: it is taken.
        begin = time.time()
        write("quay.brick", changed.replace("lime", "red"))
        self.browser.wait("document.querySelector('.CodeMirror').CodeMirror.getValue().includes(' red ')")
        self.assertLess(time.time() - begin, 2)
        # Both do: neither is lost.
        self.replace("white", "gold")
        write("quay.brick", changed.replace("lime", "blue"))
        self.browser.wait("!document.getElementById('notice').hidden")
        self.assertIn("ink gold", self.text())
        self.browser.click("#save")
        time.sleep(0.3)
        self.assertIn("blue", read("quay.brick"))
        self.browser.wait("document.querySelectorAll('#notice button').length === 2")
        self.browser.click("#notice button:nth-of-type(2)")
        self.browser.click("#save")
        self.browser.wait("document.getElementById('save').textContent === 'Saved'")
        self.assertIn("ink gold", read("quay.brick"))

    def test_a_picture_follows_its_file(self):
        drawn = self.drawn()
        self.browser.click("[data-file='2']")
        self.wait_drawn(drawn)
        self.assertFalse(self.browser.run("return document.getElementById('text-side').checkVisibility()"))
        base = self.place(40, 30)
        self.browser.mouse(("move", *base))
        before = self.readout()[1]
        write("plan.brick", SCENE.replace("coral", "black"))
        drawn = self.drawn()
        tool("render", "plan.brick", "-o", "plan.png", "--quiet")
        self.wait_drawn(drawn)
        self.browser.mouse(("move", base[0] + 1, base[1]))
        self.browser.mouse(("move", *base))
        self.assertNotEqual(self.readout()[1], before)
        self.assertEqual(self.readout()[1], tool("pick", "plan.png", "40,30").split()[1])
        # Half a file: the last good picture stays.
        with open(f"{FOLDER}/plan.png", "rb") as file:
            whole = file.read()
        with open(f"{FOLDER}/plan.png", "wb") as file:
            file.write(whole[:200])
        self.browser.wait("document.querySelector('#state').textContent.includes('last good one')")
        with open(f"{FOLDER}/plan.png", "wb") as file:
            file.write(whole)
        self.browser.wait("!document.querySelector('#state').textContent.includes('last good one')")

    def test_zoom_by_whole_multiples(self):
        left, top, width, height = self.browser.box("#picture")
        middle = left + width / 2, top + height / 2
        self.browser.mouse(("move", *middle))
        at = self.readout()[0]
        for by in [-120] * 4:
            self.browser.wheel(*middle, by)
        time.sleep(0.2)
        zoom = self.zoom()
        self.assertGreaterEqual(zoom, 8)
        self.assertEqual(zoom % 1, 0)
        self.browser.mouse(("move", middle[0] + 1, middle[1]))
        self.browser.mouse(("move", *middle))
        self.assertEqual(self.readout()[0], at)  # what was there stays there
        self.browser.click("#zoom-one")
        self.assertEqual(self.zoom(), 1)
        # Every pixel of the picture is a pixel of the window.
        self.browser.click("#zoom-fit")
        self.assertEqual(self.zoom() % 1, 0)

    def test_two_fingers_zoom(self):
        left, top, width, height = self.browser.box("#picture")
        before = self.zoom()
        self.browser.pinch(left + width / 2, top + height / 2, 60, 180)
        self.browser.wait("document.getElementById('zoom').textContent !== arguments[0]", f"{before:.0f}:1")
        self.assertGreater(self.zoom(), 2 * before)
        self.assertEqual(self.zoom() % 1, 0)
        self.browser.pinch(left + width / 2, top + height / 2, 180, 60)
        self.browser.wait("Number(document.getElementById('zoom').textContent.split(':')[0]) < arguments[0]", 2 * before)

    def test_colors_and_places_are_copied(self):
        self.browser.run("navigator.clipboard.writeText = text => { window.copied = text; return Promise.resolve(); }")
        x, y = self.place(40, 30)
        self.browser.mouse(("move", x, y))
        self.browser.click("#place button")
        self.assertEqual(self.browser.run("return window.copied"), "40,30")
        self.browser.click("#color button")
        self.assertEqual(self.browser.run("return window.copied"), self.readout()[1])
        self.browser.run("document.getElementById('picture').focus()")
        self.browser.keys(["RIGHT", "RIGHT", "c"])  # from the middle, to the next
        self.assertEqual(self.browser.run("return window.copied"), "61,40")

    def test_measuring(self):
        a, b = self.place(10, 20), self.place(40, 60)
        self.browser.click("#measure")
        self.browser.mouse(("move", *a), "down", ("move", a[0] + 5, a[1] + 5), ("move", *b), "up")
        told = self.browser.run("return document.getElementById('length').textContent")
        self.assertIn("from 10,20 to 40,60", told)
        self.assertIn("size 31,41", told)
        self.assertIn("distance 50.00 angle 53.1", told)

    def test_by_keys_alone(self):
        self.browser.run("document.activeElement.blur()")
        names = []
        for _ in range(40):
            self.browser.keys(["TAB"])
            names.append(self.browser.run("const e = document.activeElement; return e.id || e.dataset.file || e.className || e.tagName"))
            if names[-1] == "picture":
                break
        self.assertEqual(names[-1], "picture", names)
        self.assertIn("zoom-in", names)
        self.browser.keys(["RIGHT"])
        self.assertEqual(self.readout()[0], (60, 40))
        self.browser.keys(["LEFT"] + ["SHIFT+LEFT"] * 2 + ["SHIFT+UP", "RIGHT"])
        self.assertEqual(self.readout()[0], (40, 30))
        self.browser.keys(["ENTER"])
        self.browser.wait("!document.getElementById('story').hidden")
        self.browser.keys(["m"] + ["RIGHT"] * 3)
        self.assertIn("from 40,30 to 43,30", self.browser.run("return document.getElementById('length').textContent"))
        zoom = self.zoom()
        self.browser.keys(["+"])
        self.assertGreater(self.zoom(), zoom)
        # Everything that can be pressed has a name.
        nameless = self.browser.run("""return [...document.querySelectorAll('button, input, canvas, [contenteditable=true]')].filter(one =>
            one.checkVisibility() && !one.textContent.trim() && !one.getAttribute('aria-label') && !one.labels?.length).map(one => one.outerHTML)""")
        self.assertEqual(nameless, [])

    def test_words_are_completed(self):
        self.browser.run("const code = document.querySelector('.CodeMirror').CodeMirror; code.focus(); code.setCursor({line: 6, ch: 0});")
        self.browser.keys("str")
        self.browser.wait("document.querySelector('.CodeMirror-hints')")
        self.browser.keys(["ENTER"])
        self.browser.keys(" circle cen")
        self.browser.wait("document.querySelector('.CodeMirror-hints')")
        self.assertEqual(self.browser.run("return document.querySelector('.CodeMirror-hint').textContent"), "center")
        self.browser.keys(["ENTER"])
        self.assertIn("stroke circle center", self.text())

    def test_a_narrow_window(self):
        self.browser.resize(500, 900)
        time.sleep(0.3)
        view, editor = self.browser.box("#view"), self.browser.box("#editor")
        self.assertLess(view[1] + view[3], editor[1] + 1)
        self.assertGreater(view[3], 150)
        self.assertGreater(editor[3], 100)
        self.assertFalse(self.browser.run("return document.documentElement.scrollWidth > innerWidth"))

    def test_what_does_not_show_is_told(self):
        self.wait_drawn(self.replace("stroke line", "fill box at 200,9 size 4,4 ink red\nstroke line"))
        self.browser.wait("document.querySelector('#problems .remark-entry')")
        told = self.browser.run("return document.querySelector('#problems .remark-entry').textContent")
        self.assertIn("line 6: nothing of this fill box shows: it lies at 200,9 to 203,12, 81 pixels right of the sheet", told)

    def test_large_pictures_show_a_small_version_first(self):
        self.wait_drawn(self.replace("120,80", "2400,1800"))
        time.sleep(0.5)
        base = self.browser.box("#picture")
        self.browser.mouse(("move", base[0] + base[2] / 2, base[1] + base[3] / 2))
        (x, y), color = self.readout()
        self.assertGreater(x, 1000)
        self.assertEqual(color, "#0b2239")


if __name__ == "__main__":
    unittest.main(argv=sys.argv[:1], verbosity=2)
