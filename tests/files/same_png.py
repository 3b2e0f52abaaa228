"""Says by its exit code whether a PNG file of up to 8 bits has the pixels of a PAM file of RGBA: a reader on its own."""
import struct
import sys
import zlib


def png_pixels(file):
    assert file[:8] == b"\x89PNG\r\n\x1a\n"
    at, pixels, palette, alphas = 8, b"", b"", b""
    while at < len(file):
        length, kind = struct.unpack(">I4s", file[at : at + 8])
        content = file[at + 8 : at + 8 + length]
        assert struct.unpack(">I", file[at + 8 + length : at + 12 + length])[0] == zlib.crc32(kind + content)
        if kind == b"IHDR":
            width, height, bits, color, _, _, interlace = struct.unpack(">IIBBBBB", content)
        elif kind == b"PLTE":
            palette = content
        elif kind == b"tRNS":
            alphas = content
        elif kind == b"IDAT":
            pixels += content
        at += 12 + length
    assert interlace == 0
    channels = {0: 1, 2: 3, 3: 1, 4: 2, 6: 4}[color]
    rows = unfiltered(zlib.decompress(pixels), height, (width * channels * bits + 7) // 8, max(1, channels * bits // 8))
    most = (1 << bits) - 1
    out = bytearray()
    for row in rows:
        values = [(row[i * bits // 8] >> (8 - bits - i * bits % 8)) & most for i in range(width * channels)]
        for x in range(width):
            v = values[x * channels : (x + 1) * channels]
            if color == 3:
                out += palette[3 * v[0] : 3 * v[0] + 3] + (alphas[v[0] : v[0] + 1] or b"\xff")
            elif color in (0, 4):
                out += bytes([v[0] * 255 // most] * 3 + [v[1] if color == 4 else 255])
            else:
                out += bytes(v[:3] + [v[3] if color == 6 else 255])
    return width, height, bytes(out)


def unfiltered(data, height, count, step):
    above, at = bytearray(count), 0
    for _ in range(height):
        kind, row = data[at], bytearray(data[at + 1 : at + 1 + count])
        at += 1 + count
        for i in range(count):
            left = row[i - step] if i >= step else 0
            corner = above[i - step] if i >= step else 0
            guess = left + above[i] - corner
            near = min((left, above[i], corner), key=lambda v: abs(guess - v))
            row[i] = (row[i] + (0, left, above[i], (left + above[i]) // 2, near)[kind]) & 255
        yield row
        above = row


png = png_pixels(open(sys.argv[1], "rb").read())
head, body = open(sys.argv[2], "rb").read().split(b"ENDHDR\n", 1)
fields = dict(line.split(b" ", 1) for line in head.splitlines()[1:])
sys.exit(0 if png == (int(fields[b"WIDTH"]), int(fields[b"HEIGHT"]), body) else 1)
