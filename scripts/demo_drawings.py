"""Draws the demo's made-up drawings: each call-out of a demo piece as a dimension on simple views.

Usage: demo_drawings.py DEMO_FOLDER. Writes NAME.png beside NAME.json and sets each call-out's balloon place in the
document to where its dimension stands.
"""

import json
import math
import sys
from pathlib import Path

from PIL import Image, ImageDraw, ImageFont

INK, THIN, PAPER = (28, 33, 46), (110, 118, 140), (255, 253, 247)
WIDTH, HEIGHT = 880, 940


class Sheet:
    """A page in pixels with the few strokes that a drawing needs."""

    def __init__(self, title, notes):
        self.image = Image.new("RGB", (WIDTH, HEIGHT), PAPER)
        self.pen = ImageDraw.Draw(self.image)
        self.font = ImageFont.load_default(size=30)
        self.small = ImageFont.load_default(size=24)
        self.places = {}
        self.pen.rectangle((14, 14, WIDTH - 14, HEIGHT - 14), outline=INK, width=2)
        self.pen.line((14, HEIGHT - 62, WIDTH - 14, HEIGHT - 62), fill=INK, width=2)
        self.pen.text((30, HEIGHT - 50), title, font=self.font, fill=INK)
        self.pen.text((WIDTH - 30, HEIGHT - 48), notes, font=self.small, fill=INK, anchor="ra")

    def poly(self, points, width=3):
        self.pen.line([*points, points[0]], fill=INK, width=width, joint="curve")

    def path(self, points, width=3):
        self.pen.line(points, fill=INK, width=width, joint="curve")

    def circle(self, x, y, r):
        self.pen.ellipse((x - r, y - r, x + r, y + r), outline=INK, width=3)
        self.pen.line((x - r - 7, y, x + r + 7, y), fill=THIN)
        self.pen.line((x, y - r - 7, x, y + r + 7), fill=THIN)

    def arrow(self, tip, toward):
        angle = math.atan2(toward[1] - tip[1], toward[0] - tip[0])
        for side in (0.32, -0.32):
            end = (tip[0] + 13 * math.cos(angle + side), tip[1] + 13 * math.sin(angle + side))
            self.pen.line((*tip, *end), fill=INK, width=2)

    def write(self, x, y, text):
        box = self.pen.textbbox((x, y), text, font=self.font, anchor="mm")
        self.pen.rectangle((box[0] - 4, box[1] - 2, box[2] + 4, box[3] + 2), fill=PAPER)
        self.pen.text((x, y), text, font=self.font, fill=INK, anchor="mm")

    def balloon(self, name, x, y):
        self.places[name] = {"x": round(x / WIDTH, 3), "y": round(y / HEIGHT, 3)}

    def across(self, name, x0, x1, y, text, from_y):
        """A horizontal dimension from x0 to x1 at height y, with witness lines from from_y."""
        for x in (x0, x1):
            self.pen.line((x, from_y, x, y + (6 if y > from_y else -6)), fill=THIN)
        self.pen.line((x0, y, x1, y), fill=INK, width=2)
        self.arrow((x0, y), (x1, y))
        self.arrow((x1, y), (x0, y))
        # A balloon is some 70 pixels wide at this scale: the number stands clear of it.
        middle = (x0 + x1) / 2
        self.write(middle + 30, y, text)
        self.balloon(name, middle - 18 - len(text) * 7, y)

    def upright(self, name, y0, y1, x, text, from_x):
        """A vertical dimension from y0 to y1 at x, with witness lines from from_x."""
        for y in (y0, y1):
            self.pen.line((from_x, y, x + (6 if x > from_x else -6), y), fill=THIN)
        self.pen.line((x, y0, x, y1), fill=INK, width=2)
        self.arrow((x, y0), (x, y1))
        self.arrow((x, y1), (x, y0))
        self.write(x, (y0 + y1) / 2 + 34, text)
        self.balloon(name, x, (y0 + y1) / 2 - 22)

    def leader(self, name, tip, end, text):
        self.pen.line((*tip, *end), fill=INK, width=2)
        self.arrow(tip, end)
        side = 1 if end[0] >= tip[0] else -1
        self.write(end[0] + side * (len(text) * 8 + 44), end[1], text)
        self.balloon(name, *end)


def winch_bracket():
    s = Sheet("WB-02  Winch bracket  2 off", "S275 3 mm, R3, ISO 2768-1 m")
    k = 3.2
    left, top = 240, 140
    w, h = 120 * k, 60 * k
    right, bottom = left + w, top + h
    s.poly([(left, top), (right, top), (right, bottom), (left, bottom)])
    s.path([(left, bottom - 3 * k), (right, bottom - 3 * k)])
    mid = (left + right) / 2
    hole = bottom - 36 * k
    s.circle(mid, hole, 11 * k)
    for x in (-35, 35):
        s.circle(mid + x * k, hole, 5.5 * k)
    s.across("B", left, right, 80, "120", top)
    s.upright("A", top, bottom, 740, "60 \u00b10.5", right)
    s.upright("F", hole, bottom, 150, "36 \u00b10.3", mid - 12 * k)
    s.across("D", mid - 35 * k, mid + 35 * k, bottom + 60, "70 \u00b10.2", hole)
    s.leader("E", (mid + 8 * k, hole - 8 * k), (mid + 190, 112), "dia 22 +0.2")
    top = 500
    bottom = top + 80 * k
    s.poly([(left, top), (right, top), (right, bottom), (left, bottom)])
    s.path([(left, top + 3 * k), (right, top + 3 * k)])
    foot = bottom - 22 * k
    for x in (-40, 40):
        s.circle(mid + x * k, foot, 4.5 * k)
    s.upright("C", top, bottom, 740, "80 \u00b10.5", right)
    s.upright("J", foot, bottom, 150, "22 \u00b10.3", left)
    s.across("H", mid - 40 * k, mid + 40 * k, bottom + 62, "80 \u00b10.2", foot)
    s.leader("G", (mid - 37 * k, foot - 4 * k), (mid - 50, foot - 90), "2x dia 9")
    return s


def tool_tray():
    s = Sheet("TT-01  Tool tray  1 off", "DX51D 2 mm, R2, ISO 2768-1 m")
    k = 1.7
    left, top = 180, 130
    right, bottom = left + 320 * k, top + 180 * k
    s.poly([(left, top), (right, top), (right, bottom), (left, bottom)])
    s.poly([(left + 2 * k, top + 2 * k), (right - 2 * k, top + 2 * k), (right - 2 * k, bottom - 2 * k), (left + 2 * k, bottom - 2 * k)], 1)
    cx, cy = (left + right) / 2, (top + bottom) / 2
    for row in range(-2, 3):
        for column in range(-4, 5):
            s.circle(cx + column * 25 * k, cy + row * 25 * k, 4 * k)
    s.across("A", left, right, 72, "320 \u00b10.5", top)
    s.upright("B", top, bottom, 800, "180 \u00b10.5", right)
    s.upright("G", top + 2 * k, bottom - 2 * k, 110, "176 \u00b10.5", left)
    s.across("E", cx + 50 * k, cx + 75 * k, bottom + 46, "25 \u00b10.2", cy + 50 * k)
    s.leader("D", (cx - 100 * k + 5, cy + 50 * k + 5), (250, bottom + 62), "dia 8")
    s.leader("F", (cx - 75 * k, cy + 50 * k + 7), (390, bottom + 62), "45x")
    s.leader("J", (left + 8 * k, bottom - 4), (215, bottom + 124), "8 notch")
    top = 650
    bottom = top + 40 * k
    s.poly([(left, top), (right, top), (right, bottom), (left, bottom)])
    slot = top + 16 * k
    s.path([(cx - 39 * k, slot - 6 * k), (cx + 39 * k, slot - 6 * k)])
    s.path([(cx - 39 * k, slot + 6 * k), (cx + 39 * k, slot + 6 * k)])
    s.pen.arc((cx - 45 * k, slot - 6 * k, cx - 33 * k, slot + 6 * k), 90, 270, fill=INK, width=3)
    s.pen.arc((cx + 33 * k, slot - 6 * k, cx + 45 * k, slot + 6 * k), 270, 90, fill=INK, width=3)
    s.upright("C", top, bottom, 800, "40 \u00b10.5", right)
    s.across("H", cx - 45 * k, cx + 45 * k, bottom + 60, "90 x 12", slot)
    s.leader("K", (left + 3, bottom - 3), (130, bottom + 70), "90\u00b0")
    return s


def stop_bracket():
    s = Sheet("SB-05  Keel stop bracket  4 off", "S355 4 mm, R6, ISO 2768-1 m")
    k = 3.4
    x0, y0 = 210, 560
    bend = (x0 + 76.2 * k, y0)
    top = (bend[0] + 55 * k * math.cos(math.radians(60)), bend[1] - 55 * k * math.sin(math.radians(60)))
    end = (top[0], top[1] - 38 * k)
    outer = [(x0, y0), bend, top, end]
    t = 4 * k
    inner = [(end[0] - t, end[1]), (top[0] - t, top[1] + t * 0.27), (bend[0] - t * 0.58, y0 - t), (x0, y0 - t)]
    s.poly([*outer, *inner])
    s.across("A", x0, bend[0], y0 + 40, "3 in \u00b10.5", y0)
    s.upright("F", end[1], y0, 110, "85.6 \u00b10.5", x0)
    s.upright("D", end[1], top[1], top[0] + 110, "38 \u00b10.5", top[0])
    mid = ((bend[0] + top[0]) / 2, (bend[1] + top[1]) / 2)
    s.leader("C", mid, (mid[0] + 110, mid[1] + 30), "55")
    s.leader("E", (bend[0] + 20, bend[1] - 16), (bend[0] + 150, bend[1] + 40), "60\u00b0")
    left, top_y = 200, 716
    s.poly([(left, top_y), (left + 90 * k, top_y), (left + 90 * k, top_y + 130), (left, top_y + 130)])
    mid_x = left + 45 * k
    for x in (-25, 25):
        s.circle(mid_x + x * k, top_y + 62, 6.75 * k)
    s.across("B", left, left + 90 * k, top_y - 32, "90", top_y)
    s.leader("G", (mid_x + 25 * k + 16, top_y + 78), (left + 90 * k + 70, top_y + 110), "2x dia 13.5")
    s.upright("H", top_y, top_y + 62, left + 90 * k + 190, "18 \u00b10.3", mid_x + 25 * k)
    return s


def main():
    folder = Path(sys.argv[1])
    for name, draw in {"01-winch-bracket": winch_bracket, "02-tool-tray": tool_tray, "03-stop-bracket": stop_bracket}.items():
        sheet = draw()
        sheet.image.save(folder / f"{name}.png", optimize=True)
        path = folder / f"{name}.json"
        piece = json.loads(path.read_text())
        names = {callout["name"] for callout in piece["callouts"]}
        if names != set(sheet.places):
            raise SystemExit(f"{name}: drawing has {sorted(sheet.places)}, piece has {sorted(names)}")
        for callout in piece["callouts"]:
            callout["place"] = sheet.places[callout["name"]]
        path.write_text(json.dumps(piece, indent=2, ensure_ascii=False) + "\n")


if __name__ == "__main__":
    main()
