"""Attacks on the server of `coldbrick watch`.

watch_attacks.py TOOL WORK_FOLDER [sanitized]
"""
import contextlib
import gzip
import http.client
import json
import os
import re
import signal
import socket
import subprocess
import sys
import threading
import time
import unittest
from urllib.parse import urlparse

TOOL, FOLDER = sys.argv[1:3]
IS_QUICK = "sanitized" not in sys.argv[3:]
SCENE = "sheet size 20,10 ink navy\nfill circle center 9,5 radius 4 ink gold\n"


class Attacks(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        for name, text in [("quay.brick", SCENE), ("secret.txt", "the key is under the mat")]:
            with open(f"{FOLDER}/{name}", "w", encoding="utf-8") as file:
                file.write(text)
        cls.server = subprocess.Popen([TOOL, "watch", "quay.brick"], cwd=FOLDER, stdout=subprocess.PIPE, text=True)
        cls.address = urlparse(cls.server.stdout.readline().strip())
        cls.token = cls.address.path.strip("/")

    @classmethod
    def tearDownClass(cls):
        begin = time.time()
        cls.server.send_signal(signal.SIGINT)
        code = cls.server.wait(20)
        assert code == 0, code
        assert time.time() - begin < 8, time.time() - begin

    def ask(self, method, path, body=None, **headers):
        connection = http.client.HTTPConnection("127.0.0.1", self.address.port, timeout=20)
        connection.request(method, path, body, {name.replace("_", "-"): value for name, value in headers.items()})
        answer = connection.getresponse()
        content = answer.read()
        connection.close()
        return answer.status, content

    def own(self, path):
        return f"/{self.token}/{path}"

    def draw(self, text, **more):
        return self.ask("POST", self.own("draw"), json.dumps({"file": 0, "text": text, **more}))

    def is_alive(self):
        status, content = self.draw(SCENE)
        self.assertEqual(status, 200)
        self.assertIn(b'"shown":[20,10]', content)

    def test_the_token_is_long_and_needed(self):
        self.assertTrue(re.fullmatch("[0-9a-f]{32}", self.token))
        for path in ["/", "/index.html", "/text?file=0", "//", f"/{self.token[:-1]}/", f"/{self.token[:-1]}0x/text?file=0", f"/{self.token}"]:
            self.assertEqual(self.ask("GET", path)[0], 404, path)
        self.assertEqual(self.ask("GET", self.own(""))[0], 200)

    def test_other_hosts_and_pages_are_refused(self):
        port = self.address.port
        for host in ["evil.example", f"evil.example:{port}", f"127.0.0.1:{port}.evil.example", f"127.0.0.1:{port + 1}", "127.0.0.1", ""]:
            self.assertEqual(self.ask("GET", self.own("text?file=0"), Host=host)[0], 403, host)
        for origin in ["http://evil.example", "null", f"https://127.0.0.1:{port}", f"http://127.0.0.1:{port}.evil.example", f"http://127.0.0.1:{port + 1}"]:
            self.assertEqual(self.ask("POST", self.own("save"), "{}", Origin=origin)[0], 403, origin)
        self.assertEqual(self.ask("GET", self.own("text?file=0"), Sec_Fetch_Site="cross-site")[0], 403)
        self.assertEqual(self.ask("GET", self.own("text?file=0"), Host=f"localhost:{port}", Origin=f"http://localhost:{port}")[0], 200)
        with open(f"{FOLDER}/quay.brick", encoding="utf-8") as file:
            self.assertEqual(file.read(), SCENE)

    def test_only_this_machine_is_listened_to(self):
        with open("/proc/net/tcp", encoding="ascii") as file:
            places = [line.split()[1] for line in file.read().splitlines()[1:] if line.split()[3] == "0A"]  # listening
        own = [place.split(":")[0] for place in places if int(place.split(":")[1], 16) == self.address.port]
        self.assertEqual(own, ["0100007F"])  # 127.0.0.1, the last byte first

    def test_no_other_file_is_told_or_written(self):
        for path in ["../secret.txt", "..%2fsecret.txt", "%2e%2e/secret.txt", "secret.txt", "/etc/passwd", "text?file=1", "text?file=-1",
                     "text?file=99999999999999999999", "picture?file=7", "text?file=0&file=../secret.txt"]:
            status, content = self.ask("GET", self.own(path))
            self.assertNotIn(b"under the mat", content)
            self.assertNotIn(b"root:", content)
            if path.startswith(("text?file=1", "picture")):
                self.assertEqual(status, 404, path)
        for file in [1, -1, "../secret.txt", None, 1e300]:
            status, _ = self.ask("POST", self.own("save"), json.dumps({"file": file, "text": "x", "version": ""}))
            self.assertIn(status, (400, 404, 422), file)
        status, content = self.draw('sheet size 9,9\npaste "/etc/passwd" at 0,0\ninclude "../x.brick"\n')
        self.assertEqual(status, 200)
        self.assertIn(b'"faults"', content)
        status, _ = self.ask("POST", self.own("save"), json.dumps({"file": 0, "text": "x", "version": "0"}))
        self.assertEqual(status, 409)
        with open(f"{FOLDER}/quay.brick", encoding="utf-8") as file:
            self.assertEqual(file.read(), SCENE)

    def test_bodies_that_are_none(self):
        for body in ["", "{", "[]", "null", '{"file":0}', '{"file":0,"text":7}', '{"file":0,"text":"\\ud800"}', "\xff\xfe", "[" * 100000,
                     '{"file":0,"text":"sheet size 9,9","frame":"x"}', '{"file":0,"text":"sheet size 9,9","set":[1]}',
                     '{"file":0,"text":"sheet size 9,9","frame":99999999}', '{"file":0,"text":"sheet size 9,9","set":{"tide":null}}']:
            for path in ["draw", "pixel", "outline", "unseen", "save", "nothing"]:
                status, _ = self.ask("POST", self.own(path), body.encode("latin-1"))
                self.assertIn(status, (200, 400, 404, 422), (path, body[:50]))
        for at in [(-1, 0), (20, 0), (2**31, 0), (1e300, 0), ("a", 0)]:
            body = json.dumps({"file": 0, "text": SCENE, "x": at[0], "y": at[1]})
            self.assertIn(self.ask("POST", self.own("pixel"), body)[0], (400, 422), at)
        self.is_alive()

    def test_large_bodies_are_refused_before_they_come(self):
        connection = socket.create_connection(("127.0.0.1", self.address.port), timeout=10)
        connection.sendall(f"POST {self.own('draw')} HTTP/1.1\r\nHost: 127.0.0.1:{self.address.port}\r\nContent-Length: 104857600\r\n\r\n".encode())
        self.assertIn(b" 413 ", connection.recv(200))
        connection.close()
        for header in ["Transfer-Encoding: chunked", "Content-Length: 99999999999999999999", "Content-Length: -5"]:
            connection = socket.create_connection(("127.0.0.1", self.address.port), timeout=10)
            connection.sendall(f"POST {self.own('draw')} HTTP/1.1\r\nHost: 127.0.0.1:{self.address.port}\r\n{header}\r\n\r\n".encode())
            self.assertRegex(connection.recv(200), rb" 4\d\d ")
            connection.close()
        # All that is sent of 100 MB is thrown away.
        connection = socket.create_connection(("127.0.0.1", self.address.port), timeout=10)
        try:
            connection.sendall(f"POST {self.own('draw')} HTTP/1.1\r\nHost: 127.0.0.1:{self.address.port}\r\nContent-Length: 104857600\r\n\r\n".encode())
            for _ in range(100):
                connection.sendall(b"x" * 1048576)
        except (BrokenPipeError, ConnectionResetError):
            pass
        connection.close()
        with open(f"/proc/{self.server.pid}/status", encoding="utf-8") as file:
            peak = int(re.search(r"VmHWM:\s+(\d+)", file.read()).group(1))
        self.assertLess(peak, 700_000, "kilobytes")
        self.is_alive()

    def test_two_hundred_connections_that_say_nothing(self):
        quiet = [socket.create_connection(("127.0.0.1", self.address.port), timeout=10) for _ in range(200)]
        begin = time.time()
        self.is_alive()
        self.assertLess(time.time() - begin, 15)
        for connection in quiet:
            connection.close()

    def test_two_hundred_questions_at_once(self):
        answers = []

        def one():
            answers.append(self.draw(SCENE)[0])
        threads = [threading.Thread(target=one) for _ in range(200)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(answers, [200] * 200)

    def test_many_listeners_leave_room_for_questions(self):
        listeners = []
        for _ in range(60):
            connection = socket.create_connection(("127.0.0.1", self.address.port), timeout=10)
            connection.sendall(f"GET {self.own('events')} HTTP/1.1\r\nHost: 127.0.0.1:{self.address.port}\r\n\r\n".encode())
            listeners.append(connection)
        time.sleep(0.5)
        self.is_alive()
        told = [connection.recv(20) for connection in listeners]
        self.assertGreater(sum(b" 503 " in one for one in told), 0)
        for connection in listeners:
            connection.close()
        time.sleep(2.5)
        connection = socket.create_connection(("127.0.0.1", self.address.port), timeout=10)
        connection.sendall(f"GET {self.own('events')} HTTP/1.1\r\nHost: 127.0.0.1:{self.address.port}\r\n\r\n".encode())
        self.assertIn(b" 200 ", connection.recv(20))
        connection.close()

    def test_a_scene_that_would_never_end(self):
        begin = time.time()
        status, content = self.draw("sheet size 9,9\nrepeat 1000000000 as i\nlet a = i\nend\n")
        self.assertEqual(status, 200)
        self.assertIn(b'"faults"', content)
        self.assertLess(time.time() - begin, 30)
        status, content = self.draw("sheet size 60000,60000\n")
        self.assertIn(b'"faults"', content)
        self.is_alive()

    def test_requests_that_are_none(self):
        for words in [b"\x00\xff\x00", b"GET", b"GET / HTTP/9.9\r\n\r\n", b"A" * 70000, b"GET /" + b"a" * 20000 + b" HTTP/1.1\r\n\r\n",
                      b"GET / HTTP/1.1\r\n" + b"X: y\r\n" * 5000 + b"\r\n", b"DELETE /x HTTP/1.1\r\nHost: x\r\n\r\n"]:
            connection = socket.create_connection(("127.0.0.1", self.address.port), timeout=10)
            try:
                connection.sendall(words)
                connection.shutdown(socket.SHUT_WR)
                while connection.recv(4096):
                    pass
            except (ConnectionResetError, BrokenPipeError):
                pass
            connection.close()
        self.is_alive()

    def test_wrong_calls(self):
        for words, code in [(["none.brick"], 1), ([], 2), (["."], 1), (["-"], 2), (["quay.brick", "--port", "99999"], 2),
                            (["quay.brick", "--port", str(self.address.port)], 1), (["quay.brick", "--limit", "wishes=3"], 2)]:
            outcome = subprocess.run([TOOL, "watch", *words], cwd=FOLDER, capture_output=True, text=True, timeout=20)
            self.assertEqual(outcome.returncode, code, (words, outcome.stderr))
            self.assertTrue(outcome.stderr)

    def peak(self):
        with open(f"/proc/{self.server.pid}/status", encoding="utf-8") as file:
            return int(re.search(r"VmHWM:\s+(\d+)", file.read()).group(1))

    def test_heads_that_do_not_end(self):
        before = self.peak()
        for line in [b"X-Long: " + b"y" * 65536, b"X: y\r\n" * 10000]:
            connection = socket.create_connection(("127.0.0.1", self.address.port), timeout=10)
            try:
                connection.sendall(b"GET / HTTP/1.1\r\nHost: x\r\n")
                for _ in range(1000):
                    connection.sendall(line)
            except (BrokenPipeError, ConnectionResetError):
                pass
            else:
                self.fail("the server took 60 MB of a head")
            connection.close()
        self.assertLess(self.peak() - before, 30_000, "kilobytes")
        self.is_alive()

    def test_three_hundred_that_say_a_byte_at_a_time(self):
        over = threading.Event()

        def drip():
            while not over.is_set():
                with contextlib.suppress(OSError), socket.create_connection(("127.0.0.1", self.address.port), timeout=2) as connection:
                    for byte in b"GET / HTTP/1.1\r\nHost: 127.0.0.1\r\nX: " + b"y" * 1000:
                        connection.sendall(bytes([byte]))
                        if over.wait(0.5):
                            break
        threads = [threading.Thread(target=drip) for _ in range(300)]
        for thread in threads:
            thread.start()
        try:
            time.sleep(1)
            for _ in range(5):
                begin = time.time()
                self.is_alive()
                self.assertLess(time.time() - begin, 3)
        finally:
            over.set()
            for thread in threads:
                thread.join()

    def test_packed_bodies_and_deep_json(self):
        status, _ = self.ask("POST", self.own("draw"), gzip.compress(b"[" * 1_500_000), Content_Encoding="gzip")
        self.assertEqual(status, 415)
        for depth in (40, 100_000):
            for left, right in ("[]", ('{"a":', "}")):
                body = left * depth + "1" + right * depth
                self.assertIn(self.ask("POST", self.own("draw"), body)[0], (400, 422))
                self.assertIn(self.ask("POST", self.own("draw"), json.dumps({"file": 0, "text": body}))[0], (200,))
        self.is_alive()

    def test_heads_that_mean_two_things(self):
        port = self.address.port
        for head in [f"Host: 127.0.0.1:{port}\r\nHost: evil.example\r\n", f"Host: 127.0.0.1:{port}\r\nContent-Length: 3\r\nContent-Length: 900\r\n",
                     f"Host: 127.0.0.1:{port}\r\n folded: yes\r\n", f"Host : 127.0.0.1:{port}\r\n", f"Host: 127.0.0.1:{port}\r\nno colon\r\n",
                     f"Host: 127.0.0.1:{port}\r\nX: a\0b\r\n"]:
            connection = socket.create_connection(("127.0.0.1", port), timeout=10)
            connection.sendall(f"GET {self.own('')} HTTP/1.1\r\n{head}\r\n".encode())
            self.assertIn(b" 400 ", connection.recv(200), head)
            connection.close()
        # Two requests at once are answered one after the other.
        connection = socket.create_connection(("127.0.0.1", port), timeout=10)
        one = f"GET {self.own('text?file=0')} HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\n\r\n"
        connection.sendall((one + one).encode())
        answers = b""
        while answers.count(b'"version"') < 2:
            more = connection.recv(65536)
            self.assertTrue(more)
            answers += more
        connection.close()

    SLOW = "sheet size 900,900\nrepeat 100000 as i\nfill star center 450,450 radius 440 points 3000 inner_radius 3 smooth ink teal\nend\n"

    def test_a_newer_text_ends_the_older_ones_drawing(self):
        answers = []
        begin = time.time()
        older = threading.Thread(target=lambda: answers.append(self.draw(self.SLOW, page="p")))
        older.start()
        time.sleep(0.5)
        status, content = self.draw(SCENE, page="p")
        older.join()
        self.assertLess(time.time() - begin, 6)
        self.assertIn(b'"shown":[20,10]', content)
        self.assertIn(b'"ended":true', answers[0][1])
        # Another page's is waited for, and its own question ends it.
        older = threading.Thread(target=lambda: answers.append(self.draw(self.SLOW, page="q")))
        older.start()
        time.sleep(0.5)
        self.assertEqual(self.ask("POST", self.own("end"), json.dumps({"file": 0, "page": "q"}))[0], 200)
        older.join()
        self.assertIn(b'"ended":true', answers[1][1])
        self.is_alive()


class Endings(unittest.TestCase):
    """A server of its own each time."""

    def setUp(self):
        self.file = f"{FOLDER}/own.brick"
        for name in os.listdir(FOLDER):
            if name.startswith("own"):
                os.remove(f"{FOLDER}/{name}")
        self.write(SCENE)
        self.server = subprocess.Popen([TOOL, "watch", "own.brick"], cwd=FOLDER, stdout=subprocess.PIPE, text=True)
        self.address = urlparse(self.server.stdout.readline().strip())
        self.token = self.address.path.strip("/")

    def tearDown(self):
        self.server.kill()
        self.server.wait()
        self.server.stdout.close()

    ask = Attacks.ask
    own = Attacks.own

    def write(self, text):
        with open(self.file, "w", encoding="utf-8") as file:
            file.write(text)

    def read(self):
        with open(self.file, encoding="utf-8") as file:
            return file.read()

    def version(self):
        return json.loads(self.ask("GET", self.own("text?file=0"))[1])["version"]

    def save(self, text, version):
        return self.ask("POST", self.own("save"), json.dumps({"file": 0, "text": text, "version": version}))[0]

    def test_ctrl_c_ends_it_whatever_goes_on(self):
        quiet = [socket.create_connection(("127.0.0.1", self.address.port), timeout=10) for _ in range(20)]
        for connection in quiet:
            connection.sendall(b"GET / HT")
        events = socket.create_connection(("127.0.0.1", self.address.port), timeout=10)
        events.sendall(f"GET {self.own('events')} HTTP/1.1\r\nHost: 127.0.0.1:{self.address.port}\r\n\r\n".encode())
        body = socket.create_connection(("127.0.0.1", self.address.port), timeout=10)
        body.sendall(f"POST {self.own('draw')} HTTP/1.1\r\nHost: 127.0.0.1:{self.address.port}\r\nContent-Length: 900\r\n\r\n{{".encode())
        asked = json.dumps({"file": 0, "text": Attacks.SLOW})

        def draw():
            try:
                self.ask("POST", self.own("draw"), asked)
            except (OSError, http.client.HTTPException):
                pass
        threads = [threading.Thread(target=draw) for _ in range(5)]
        for thread in threads:
            thread.start()
        time.sleep(1)
        begin = time.time()
        self.server.send_signal(signal.SIGINT)
        self.assertEqual(self.server.wait(20), 0)
        self.assertLess(time.time() - begin, 1 if IS_QUICK else 5)
        for thread in threads:
            thread.join()
        for connection in [*quiet, events, body]:
            connection.close()

    def test_no_save_of_another_program_is_lost(self):
        lost = 0
        for i in range(60):
            self.write(SCENE)
            version = self.version()
            foreign = f"{SCENE}// foreign {i}\n"

            def other():
                time.sleep(i % 12 * 0.0004)
                if i % 2 == 0:
                    with open(f"{FOLDER}/own.new", "w", encoding="utf-8") as file:
                        file.write(foreign)
                    os.replace(f"{FOLDER}/own.new", self.file)
                else:
                    self.write(foreign)
            thread = threading.Thread(target=other)
            thread.start()
            status = self.save(f"{SCENE}// ours {i}\n", version)
            thread.join()
            self.assertIn(status, (200, 409))
            # Ours may come first, and theirs then takes its place; theirs is never gone.
            lost += self.read() != foreign
        self.assertEqual(lost, 0)
        self.assertEqual([name for name in os.listdir(FOLDER) if name.startswith(".unfinished")], [])

    def test_what_is_no_ordinary_file_is_left_alone(self):
        version = self.version()
        os.remove(self.file)
        self.assertEqual(self.save("x", version), 409)
        self.assertFalse(os.path.exists(self.file))
        with open(f"{FOLDER}/owned.txt", "w", encoding="utf-8") as file:
            file.write(SCENE)
        os.symlink("owned.txt", self.file)
        self.assertEqual(self.save("x", version), 409)
        self.assertEqual(self.ask("GET", self.own("text?file=0"))[0], 404)
        self.assertTrue(os.path.islink(self.file))
        with open(f"{FOLDER}/owned.txt", encoding="utf-8") as file:
            self.assertEqual(file.read(), SCENE)
        os.remove(self.file)
        os.mkfifo(self.file)
        begin = time.time()
        self.assertEqual(self.save("x", version), 409)
        self.assertEqual(self.ask("GET", self.own("text?file=0"))[0], 404)
        self.assertEqual(self.ask("GET", self.own("picture?file=0"))[0], 200)
        self.assertEqual(self.ask("GET", self.own("files"))[0], 200)
        self.assertLess(time.time() - begin, 3)
        os.remove(self.file)
        self.write(SCENE)
        os.chmod(self.file, 0o640)
        self.assertEqual(self.save("sheet size 9,9\n", self.version()), 200)
        self.assertEqual(os.stat(self.file).st_mode & 0o777, 0o640)
        self.assertEqual(self.read(), "sheet size 9,9\n")


if __name__ == "__main__":
    unittest.main(argv=sys.argv[:1], verbosity=2)
