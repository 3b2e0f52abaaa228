"""Areas of pixels, in fractions: what the tool draws with smooth edges is within 0.55 of 1/255 of them, half of which is
rounding (corners less than 1/4096 of a pixel from the one before are left out of paths).

exact_areas.py TOOL FOLDER. Random contours with crossings, overlaps, spikes, edges on each other, corners on the grid of
pixels and 1/16384 of a pixel beside it, edges of no length.
"""
import random
import subprocess
import sys
from fractions import Fraction

tool, folder = sys.argv[1:3]
WIDTH, HEIGHT = 14, 9
FINE = 16384


def contours(dice):
    """Rings of corners, in units of 1/16384 pixel; a pixel's centre is at whole numbers of pixels."""
    step = dice.choice([1, FINE // 4, FINE // 2, FINE])
    number = lambda most: dice.randrange(-2 * FINE, (most + 2) * FINE) // step * step
    rings = []
    for _ in range(dice.choice([1, 1, 2, 3])):
        ring = [(number(WIDTH), number(HEIGHT)) for _ in range(dice.randrange(3, 8))]
        if dice.random() < 0.4:  # a spike there and back
            ring += [ring[-1], ring[0], ring[-1]]
        if dice.random() < 0.4:  # all but the same once more, or the other way round
            near = [(x + dice.choice([-1, 0, 0, 1]), y + dice.choice([-1, 0, 0, 1])) for x, y in ring]
            rings.append(near if dice.random() < 0.5 else near[::-1])
        if dice.random() < 0.3:
            ring.insert(1, ring[0])
        rings.append(ring)
    return rings


def edges_of(rings):
    """Edges from top to bottom, with their direction, in pixels from the sheet's corner."""
    half = Fraction(1, 2)
    place = lambda at: (Fraction(at[0], FINE) + half, Fraction(at[1], FINE) + half)
    for ring in rings:
        for first, second in zip(ring, ring[1:] + ring[:1]):
            (x0, y0), (x1, y1) = place(first), place(second)
            if y0 < y1:
                yield x0, y0, x1, y1, 1
            elif y0 > y1:
                yield x1, y1, x0, y0, -1


def x_at(edge, y):
    x0, y0, x1, y1, _ = edge
    return x0 + (x1 - x0) * (y - y0) / (y1 - y0)


def heights_of(edges):
    """All heights between which edges neither begin, end, cross nor go over the side of a pixel."""
    heights = {Fraction(y) for y in range(HEIGHT + 1)}
    for number, edge in enumerate(edges):
        x0, y0, x1, y1, _ = edge
        heights |= {y0, y1}
        if x0 != x1:
            heights |= {y0 + (x - x0) * (y1 - y0) / (x1 - x0) for x in range(WIDTH + 1) if min(x0, x1) < x < max(x0, x1)}
        for other in edges[:number]:
            top, bottom = max(y0, other[1]), min(y1, other[3])
            if top >= bottom:
                continue
            above, below = x_at(edge, top) - x_at(other, top), x_at(edge, bottom) - x_at(other, bottom)
            if above * below < 0:
                heights.add(top + (bottom - top) * above / (above - below))
    return sorted(y for y in heights if 0 <= y <= HEIGHT)


def areas_of(rings, rule):
    edges = list(edges_of(rings))
    areas = [[Fraction(0)] * WIDTH for _ in range(HEIGHT)]
    heights = heights_of(edges)
    for top, bottom in zip(heights, heights[1:]):
        middle = (top + bottom) / 2
        row = areas[int(middle)]
        lines = sorted((x_at(edge, middle), edge[4]) for edge in edges if edge[1] <= top and edge[3] >= bottom)
        winding = 0
        for (left, direction), (right, _) in zip(lines, lines[1:]):
            winding += direction
            if not (winding % 2 if rule == "even_odd" else winding):
                continue
            # As no line goes over the side of a pixel here, what lies between two of them is as wide in each pixel as
            # in the middle, on average.
            for column in range(max(0, int(left)), min(WIDTH, int(right) + 1)):
                covered = min(right, column + 1) - max(left, column)
                if covered > 0:
                    row[column] += covered * (bottom - top)
    return areas


def drawn(rings, rule):
    numbers = lambda ring: " ".join(f"{x / FINE:.15g},{y / FINE:.15g}" for x, y in ring)
    steps = " ".join(f"M {numbers(ring)} Z" for ring in rings)
    scene = f"{folder}/area.brick"
    with open(scene, "w") as file:
        file.write(f"sheet size {WIDTH},{HEIGHT} ink black\n"
                   f'fill path data "{steps}" rule {rule} edges shared smooth ink white\n')
    subprocess.run([tool, "render", scene, "-o", f"{folder}/area.pgm"], check=True, capture_output=True)
    with open(f"{folder}/area.pgm", "rb") as file:
        pixels = file.read()[-WIDTH * HEIGHT:]
    return [pixels[y * WIDTH:(y + 1) * WIDTH] for y in range(HEIGHT)]


worst = Fraction(0)
for seed in range(80):
    dice = random.Random(seed)
    rings = contours(dice)
    rule = dice.choice(["even_odd", "nonzero"])
    exact = areas_of(rings, rule)
    pixels = drawn(rings, rule)
    for y in range(HEIGHT):
        for x in range(WIDTH):
            off = abs(exact[y][x] * 255 - pixels[y][x])
            worst = max(worst, off)
            if off > Fraction(55, 100):
                sys.exit(f"seed {seed}, {rule}, pixel {x},{y}: {pixels[y][x]} instead of {float(exact[y][x] * 255)}\n"
                         f"{rings}")
print(f"{80 * WIDTH * HEIGHT} pixels are within {float(worst):.6f} of 255ths")
