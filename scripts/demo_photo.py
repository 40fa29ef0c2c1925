"""Draws a made-up photo of a sample for tracing: the two-ear flange on a bench beside two steel rules.

Usage: demo_photo.py DEMO_FOLDER. Five pixels to the millimetre; the flange's middle at pixel 450, 280.
"""

import math
import sys
from pathlib import Path

from PIL import Image, ImageDraw, ImageFilter, ImageFont

FINE, SCALE = 3, 5
WIDTH, HEIGHT = 900, 600
MIDDLE = (450, 280)


def flange(body, ear, half):
    lean = math.acos((body - ear) / half)
    points = []
    for axis in (0, math.pi):
        for step in range(49):
            a = axis - lean + 2 * lean * step / 48
            points.append((half * math.cos(axis) + ear * math.cos(a), ear * math.sin(a)))
        for step in range(25):
            a = axis + lean + (math.pi - 2 * lean) * step / 24
            points.append((body * math.cos(a), body * math.sin(a)))
    return points


def main():
    image = Image.new("RGB", (WIDTH * FINE, HEIGHT * FINE), (128, 112, 92))
    pen = ImageDraw.Draw(image)
    # Boards of the bench, with their grain.
    for board in range(5):
        top = board * HEIGHT * FINE // 5
        shade = (board * 37) % 14
        pen.rectangle((0, top, WIDTH * FINE, top + HEIGHT * FINE // 5), fill=(122 + shade, 106 + shade, 86 + shade))
        for grain in range(9):
            y = top + 14 + grain * 38 + 9 * math.sin(board + grain)
            line = [(x, y + 5 * math.sin(x / 260 + grain * 1.7 + board)) for x in range(0, WIDTH * FINE, 24)]
            pen.line(line, fill=(108 + shade, 93 + shade, 75 + shade), width=3)
        pen.line((0, top, WIDTH * FINE, top), fill=(84, 72, 58), width=5)

    def at(x, y):
        return ((MIDDLE[0] + x * SCALE) * FINE, (MIDDLE[1] - y * SCALE) * FINE)

    outline = [at(x, y) for x, y in flange(38, 16, 55)]
    shadow = Image.new("L", image.size, 0)
    ImageDraw.Draw(shadow).polygon([(x + 10, y + 12) for x, y in outline], fill=130)
    image.paste((40, 34, 28), mask=shadow.filter(ImageFilter.GaussianBlur(7)))
    pen = ImageDraw.Draw(image)
    pen.polygon(outline, fill=(168, 173, 178))
    for step in range(60):
        # Mill scale: faint streaks along the plate.
        y = -36 + step * 1.2
        reach = 62 - abs(y) * 0.9
        if reach > 4:
            pen.line((*at(-reach, y), *at(reach, y + 0.2)), fill=(162 + step % 5 * 3, 168 + step % 5 * 3, 174 + step % 5 * 2), width=2)
    for x, radius in ((0, 24), (-55, 5.5), (55, 5.5)):
        (left, top), (right, low) = at(x - radius, radius), at(x + radius, -radius)
        pen.ellipse((left, top, right, low), fill=(112, 97, 79), outline=(92, 96, 102), width=3)

    font = ImageFont.load_default(size=13 * FINE)
    # A rule below, 150 mm, and one at the right, 90 mm.
    pen.rectangle((60 * FINE, 508 * FINE, 840 * FINE, 566 * FINE), fill=(196, 199, 202), outline=(120, 122, 126), width=3)
    for tick in range(151):
        x = (75 + tick * SCALE) * FINE
        long = 26 if tick % 10 == 0 else 19 if tick % 5 == 0 else 12
        pen.line((x, 508 * FINE, x, (508 + long) * FINE), fill=(30, 30, 32), width=3)
        if tick % 10 == 0:
            pen.text((x, 546 * FINE), str(tick), font=font, fill=(30, 30, 32), anchor="mm")
    pen.rectangle((842 * FINE, 10 * FINE, 894 * FINE, 500 * FINE), fill=(196, 199, 202), outline=(120, 122, 126), width=3)
    for tick in range(91):
        y = (480 - tick * SCALE) * FINE
        long = 26 if tick % 10 == 0 else 19 if tick % 5 == 0 else 12
        pen.line((842 * FINE, y, (842 + long) * FINE, y), fill=(30, 30, 32), width=3)
        if tick % 10 == 0:
            pen.text((882 * FINE, y), str(tick), font=font, fill=(30, 30, 32), anchor="mm")
    image = image.resize((WIDTH, HEIGHT), Image.LANCZOS).filter(ImageFilter.GaussianBlur(0.6))
    image.quantize(96).save(Path(sys.argv[1]) / "05-ear-flange.photo.png", optimize=True)


if __name__ == "__main__":
    main()
