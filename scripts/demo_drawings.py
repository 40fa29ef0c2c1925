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
    ribs = [left + 30 * k, right - 30 * k]
    for x in ribs:
        s.path([(x - 8 * k, bottom - 18 * k), (x + 8 * k, bottom - 18 * k)])
        for side in (-1, 1):
            s.path([(x + side * 8 * k, bottom - 18 * k), (x + side * 9.4 * k, bottom - 6 * k)])
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
    for x in ribs:
        s.path([(x - 8 * k, top + 18 * k), (x + 8 * k, top + 18 * k)])
        for side in (-1, 1):
            s.path([(x + side * 8 * k, top + 18 * k), (x + side * 9.4 * k, top + 6 * k)])
    s.write(mid, bottom - 9 * k, "2 ribs 16 wide, 18 x 18")
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

def rounded(s, left, top, right, bottom, r):
    s.pen.rounded_rectangle((left, top, right, bottom), radius=r, outline=INK, width=3)


def axle_plate():
    s = Sheet("AP-04  Axle plate  2 off", "S275 15 mm, ISO 2768-1 m")
    k = 3.3
    left, top = 180, 220
    right, bottom = left + 160 * k, top + 120 * k
    cx, cy = (left + right) / 2, (top + bottom) / 2
    rounded(s, left, top, right, bottom, 12 * k)
    s.circle(cx, cy, 26 * k)
    s.pen.ellipse((cx - 50 * k, cy - 50 * k, cx + 50 * k, cy + 50 * k), outline=THIN)
    d = 50 * k * math.cos(math.radians(45))
    for x in (-d, d):
        for y in (-d, d):
            s.circle(cx + x, cy + y, 6.75 * k)
    for x in (-60, 60):
        s.circle(cx + x * k, cy, 3.4 * k)
    s.across("A", left, right, 110, "160", top)
    s.upright("B", top, bottom, 800, "120", right)
    s.across("H", cx - 60 * k, cx + 60 * k, bottom + 60, "120 \u00b10.3", cy)
    s.leader("C", (cx + 18 * k, cy - 18 * k), (cx + 60, 160), "dia 52 \u00b10.2")
    s.leader("D", (cx - 30 * k, cy - 40 * k), (220, 160), "dia 100")
    s.leader("E", (cx - d - 10, cy + d + 18), (250, bottom + 130), "dia 13.5")
    s.leader("F", (cx + d, cy + d + 24), (480, bottom + 130), "4x")
    s.leader("G", (right - 10, bottom - 10), (right + 50, bottom + 60), "R12")
    s.leader("J", (cx + 60 * k, cy + 12), (600, bottom + 190), "2x M8, 9 deep, below")
    return s


def ear_flange():
    s = Sheet("PF-05  Rudder pipe flange  2 off", "S275 10 mm, ISO 2768-1 m")
    k = 4.2
    cx, cy = 430, 430
    body, ear, half = 38, 16, 55
    lean = math.acos((body - ear) / half)
    points = []
    for axis in (0, math.pi):
        for step in range(25):
            a = axis - lean + 2 * lean * step / 24
            points.append((half * math.cos(axis) + ear * math.cos(a), ear * math.sin(a)))
        for step in range(13):
            a = axis + lean + (math.pi - 2 * lean) * step / 12
            points.append((body * math.cos(a), body * math.sin(a)))
    s.poly([(cx + x * k, cy - y * k) for x, y in points])
    s.circle(cx, cy, 24 * k)
    for x in (-half, half):
        s.circle(cx + x * k, cy, 5.5 * k)
    s.across("C", cx - half * k, cx + half * k, 190, "110 \u00b10.3", cy)
    s.across("F", cx - (half + ear) * k, cx + (half + ear) * k, 700, "142", cy)
    s.leader("A", (cx - 10 * k, cy + 36.5 * k), (260, 630), "R38")
    s.leader("B", (cx + (half + 12) * k, cy + 10 * k), (720, 600), "R16")
    s.leader("D", (cx + 17 * k, cy - 17 * k), (cx + 130, 250), "dia 48 \u00b10.2")
    s.leader("E", (cx - half * k - 8, cy - 20), (240, 270), "2x dia 11")
    return s


def gusset():
    s = Sheet("GS-06  Drawbar gusset  8 off", "S275 8 mm, ISO 2768-1 m")
    k = 3.6
    x0, y0 = 250, 760
    clip = 25 / math.sqrt(2)
    shape = [(clip, 0), (120, 0), (120, 12), (12, 160), (0, 160), (0, clip)]
    s.poly([(x0 + x * k, y0 - y * k) for x, y in shape])
    s.across("A", x0, x0 + 120 * k, y0 + 60, "120", y0)
    s.upright("B", y0 - 160 * k, y0, x0 - 90, "160", x0)
    s.leader("C", (x0 + 9 * k, y0 - 9 * k), (x0 + 110, y0 - 110), "25")
    s.upright("D", y0 - 12 * k, y0, x0 + 120 * k + 80, "12", x0 + 120 * k)
    s.across("E", x0, x0 + 12 * k, y0 - 160 * k - 50, "12", y0 - 160 * k)
    return s


def padeye():
    s = Sheet("PE-07  Padeye  4 off", "S355 20 mm, ISO 2768-1 m")
    k = 3.8
    x0, y0 = 180, 740
    b, h, r = 140, 80, 42
    reach = math.hypot(b / 2, h)
    way = math.atan2(h, -b / 2) - math.asin(r / reach)
    length = math.sqrt(reach * reach - r * r)
    tx, ty = b + length * math.cos(way), length * math.sin(way)
    start = math.atan2(ty - h, tx - b / 2)
    crown = [(b / 2 + r * math.cos(a), h + r * math.sin(a)) for a in (start + (math.pi - 2 * start) * i / 30 for i in range(31))]
    s.poly([(x0 + x * k, y0 - y * k) for x, y in [(0, 0), (b, 0), *crown]])
    s.circle(x0 + b / 2 * k, y0 - h * k, 17 * k)
    s.across("A", x0, x0 + b * k, y0 + 60, "140", y0)
    s.upright("B", y0 - h * k, y0, x0 - 70, "80 \u00b10.5", x0 + b / 2 * k)
    s.upright("E", y0 - (h + r) * k, y0, x0 + b * k + 70, "122", x0 + b / 2 * k)
    s.leader("C", (x0 + b / 2 * k - 30 * k, y0 - (h + 29) * k), (x0 + 40, y0 - (h + r) * k - 30), "R42")
    s.leader("D", (x0 + b / 2 * k + 12 * k, y0 - (h - 12) * k), (x0 + b / 2 * k + 190, y0 - 40 * k), "dia 34 \u00b10.2")
    return s


def tray_floor():
    s = Sheet("TF-08  Tray floor  1 off", "1.4301 2 mm, ISO 2768-1 m")
    k = 2.0
    left, top = 130, 230
    right, bottom = left + 312 * k, top + 172 * k
    rounded(s, left, top, right, bottom, 10 * k)
    for x in (9, 303):
        for y in (9, 163):
            s.circle(left + x * k, top + y * k, 2.4 * k)
    cx, cy = (left + right) / 2, (top + bottom) / 2
    for row in range(-8, 9):
        for column in range(-14, 15):
            x, y = cx + (column + (row % 2) / 2) * 10 * k, cy + row * 10 * k * math.sqrt(3) / 2
            if abs(x - cx) < 139.5 * k and abs(y - cy) < 69.5 * k:
                s.pen.ellipse((x - 3 * k, y - 3 * k, x + 3 * k, y + 3 * k), outline=INK, width=1)
    s.across("A", left, right, 130, "312", top)
    s.upright("B", top, bottom, 820, "172", right)
    s.leader("C", (cx - 90 * k, cy + 69 * k), (300, bottom + 90), "dia 6")
    s.leader("D", (cx, cy + 69 * k), (470, bottom + 120), "10, staggered 60\u00b0")
    s.leader("E", (right - 6, bottom - 6), (right - 10, bottom + 60), "R10")
    s.leader("F", (left + 9 * k, bottom - 9 * k), (170, bottom + 170), "4x dia 4.8, csk 8")
    return s



def mudguard():
    s = Sheet("MG-09  Mudguard  2 off and 2 port", "DX51D 1.5 mm, ISO 2768-1 m")
    k = 0.98
    cx, cy, inner, outer = 430, 480, 330 * k, 338 * k
    start, sweep = math.radians(-90 - 65), math.radians(130)

    def on(share, r):
        angle = start + sweep * share
        return (cx + r * math.cos(angle), cy + r * math.sin(angle))

    for r in (inner, outer):
        s.path([on(step / 40, r) for step in range(41)])
    left, right = on(0, outer), on(1, outer)
    way = (-math.sin(start), math.cos(start))
    lead = (left[0] - way[0] * 90 * k, left[1] - way[1] * 90 * k)
    s.path([left, lead, (lead[0] + 7, lead[1] - 4), on(0, inner)])
    out = (-math.sin(start + sweep), math.cos(start + sweep))
    tail = (right[0] + out[0] * 40 * k, right[1] + out[1] * 40 * k)
    s.path([right, tail, (tail[0] - 7, tail[1] - 4), on(1, inner)])
    s.leader("A", on(0.62, inner), (cx + 40, cy - 60), "R330 \u00b13 inside")
    s.leader("B", on(0.3, inner), (cx - 60, cy - 190), "130 \u00b11 deg")
    s.leader("D", ((left[0] + lead[0]) / 2, (left[1] + lead[1]) / 2), (200, cy + 60), "90 \u00b11 lead")
    top = 640
    s.poly([(200, top), (700, top), (700, top + 190 * k), (200, top + 190 * k)])
    s.path([(290, top), (290, top + 190 * k)], 1)
    for y in (25, 145):
        s.circle(235, top + y * k, 6)
    s.upright("C", top, top + 190 * k, 790, "190 \u00b11", 700)
    s.upright("E", top + 25 * k, top + 145 * k, 110, "120 \u00b10.3", 235)
    s.leader("F", (240, top + 25 * k + 4), (420, top + 60), "2x dia 9")
    return s


def drawbar_channel():
    s = Sheet("DC-10  Lipped drawbar channel  1 off", "S275 3 mm, R3, ISO 2768-1 m")
    k = 4.2
    left, top = 230, 150
    right, bottom = left + 80 * k, top + 45 * k
    t = 3 * k
    outer = [(left + 20 * k, top), (left, top), (left, bottom), (right, bottom), (right, top), (right - 20 * k, top)]
    inner = [(right - 20 * k, top + t), (right - t, top + t), (right - t, bottom - t), (left + t, bottom - t), (left + t, top + t), (left + 20 * k, top + t)]
    s.poly([*outer, *inner])
    s.across("A", left, right, bottom + 70, "80 \u00b10.5", bottom)
    s.upright("B", top, bottom, right + 120, "45 \u00b10.5", right)
    s.across("C", left, left + 20 * k, top - 60, "20 \u00b10.5", top)
    s.across("E", left + 20 * k, right - 20 * k, top + 60, "40 \u00b11", top)
    top = 560
    s.poly([(120, top), (760, top), (760, top + 110), (120, top + 110)])
    s.circle(190, top + 54, 12)
    for x in (310, 440, 570):
        s.pen.rounded_rectangle((x - 24, top + 48, x + 24, top + 64), radius=8, outline=THIN, width=2)
    s.across("D", 120, 760, top + 190, "1200 \u00b11", top + 110)
    s.across("G", 120, 190, top - 60, "60 \u00b10.3", top + 40)
    s.leader("F", (200, top + 62), (330, top + 150), "dia 16.5 through both")
    return s


def trolley_frame():
    s = Sheet("LT-01  Trolley frame  1 off", "S275, SHS 60x60x4, ISO 13920 B")
    # From above: hitch at the left, front cross at x0, rails to the right.
    scale, left, middle = 0.19, 250, 300
    x = lambda mm: left + mm * scale
    y = lambda mm: middle - mm * scale
    half = 30 * scale
    def bar(ax, ay, bx, by):
        if ay == by:
            s.poly([(x(ax), y(ay) - half), (x(bx), y(by) - half), (x(bx), y(by) + half), (x(ax), y(ay) + half)])
        else:
            s.poly([(x(ax) - half, y(ay)), (x(bx) - half, y(by)), (x(bx) + half, y(by)), (x(ax) + half, y(ay))])
    for side in (500, -500):
        bar(-30, side, 2430, side)
    for at in (0, 1440, 2400):
        bar(at, -470, at, 470)
    bar(-900, 0, 1500, 0)
    for side in (1, -1):
        s.path([(x(-405), y(30 * side)), (x(0), y(360 * side))])
        for at in (480, 2040):
            s.poly([(x(at) - half, y(500 * side) - half), (x(at) + half, y(500 * side) - half), (x(at) + half, y(500 * side) + half), (x(at) - half, y(500 * side) + half)])
    s.across("L", x(0), x(2400), 100, "2400", y(530))
    s.across("D", x(-900), x(0), 100, "900", y(530))
    s.across("A", x(0), x(1440), 480, "1440", y(-530))
    s.across("F", x(-30), x(2430), 540, "rails 2460", y(-530))
    s.upright("W", y(500), y(-500), 745, "1000", x(2430))
    s.upright("B", y(530), y(-530), 825, "1060", x(2430))
    s.upright("C", y(470), y(-470), 640, "940 clear", 640)
    s.leader("E", (x(1900), y(300)), (x(1500), y(-330)), "diagonals alike")
    # From the front: rails, posts, the cradle between them.
    base, mid = 820, 430
    h = lambda mm: base - mm * 0.42
    w = lambda mm: mid + mm * 0.42
    for side in (-1, 1):
        cx = w(500 * side)
        s.poly([(cx - 13, h(30)), (cx + 13, h(30)), (cx + 13, h(-30)), (cx - 13, h(-30))])
        s.poly([(cx - 13, h(420)), (cx + 13, h(420)), (cx + 13, h(30)), (cx - 13, h(30))])
    s.path([(w(-470), h(342)), (w(-300), h(240)), (w(-200), h(212)), (w(200), h(212)), (w(300), h(240)), (w(470), h(342))], 6)
    s.upright("H", h(420), h(0), 740, "420", w(515))
    s.upright("K", h(420), h(210), 110, "210", w(-515))
    return s


def filter_box():
    s = Sheet("FB-01  Filter box  1 off", "1.4301 1.5 mm, R2, ISO 2768-1 m")
    k = 1.75
    left, top = 170, 150
    right, bottom = left + 300 * k, top + 220 * k
    s.poly([(left, top), (right, top), (right, bottom), (left, bottom)])
    rim = 18 * k
    s.poly([(left + rim, top + rim), (right - rim, top + rim), (right - rim, bottom - rim), (left + rim, bottom - rim)], 2)
    for a, b in (((left, top), (left + rim, top + rim)), ((right, top), (right - rim, top + rim)), ((right, bottom), (right - rim, bottom - rim)), ((left, bottom), (left + rim, bottom - rim))):
        s.path([a, b], 2)
    cx, cy = (left + right) / 2, (top + bottom) / 2
    s.circle(cx, cy, 62.5 * k)
    for x in (-100, 100):
        s.circle(cx + x * k, top + 40 * k, 7 * k)
        s.path([(cx + (x - 3.5) * k, top + 34 * k), (cx + (x - 3.5) * k, top + 24 * k)], 2)
        s.path([(cx + (x + 3.5) * k, top + 34 * k), (cx + (x + 3.5) * k, top + 24 * k)], 2)
    s.across("A", left, right, 84, "300 \u00b10.5", top)
    s.upright("B", top, bottom, 810, "220 \u00b10.5", right)
    s.across("F", cx - 100 * k, cx + 100 * k, top + 78 * k, "200 \u00b10.3", top + 42 * k)
    s.leader("G", (cx + 44 * k, cy + 44 * k), (cx + 90 * k, cy + 84 * k), "dia 125")
    s.across("J", left + rim, right - rim, bottom + 46, "A - 2D", bottom - rim)
    s.leader("D", (left + rim - 2, top + 90 * k), (left + 70, top + 120 * k), "18")
    s.leader("E", (left + 3, bottom - 3), (120, bottom + 66), "0.6")
    s.leader("H", (left + rim / 2, bottom - 60), (128, bottom - 110), "16x")
    top = 690
    s.poly([(left, top), (right, top), (right, top + 70 * k), (left, top + 70 * k)])
    s.upright("C", top, top + 70 * k, 810, "70 \u00b10.5", right)
    # A side wall as it is seen from within, at half the scale: two louvres of 120 x 12 x 4 that open toward the back.
    h, left, top = 0.75, 60, 625
    s.poly([(left, top), (left + 70 * h, top), (left + 70 * h, top + 220 * h), (left, top + 220 * h)])
    for deep in (20, 44):
        x, y = left + (deep - 6) * h, top + 50 * h
        s.poly([(x, y), (x + 12 * h, y), (x + 12 * h, y + 120 * h), (x, y + 120 * h)], 2)
    s.across("K", left + 20 * h, left + 44 * h, top + 220 * h + 26, "24", top + 170 * h)
    return s


def tapered_hood():
    s = Sheet("TH-01  Tapered hood  1 off", "1.4301 1.5 mm, R2, four sheets, gap 0.2")
    k, left, base = 0.6, 240, 400
    x = lambda mm: left + (mm + 320) * k
    z = lambda mm: base - mm * k
    # From the front: the rim's front edge at its foot, its rear edge thin.
    s.poly([(x(-320), z(0)), (x(320), z(0)), (x(200), z(360)), (x(-20), z(360))])
    s.path([(x(-345), z(-3.5)), (x(345), z(-3.5))], 4)
    rear = 42.16 / 360
    s.path([(x(-320 + 300 * rear), z(42)), (x(320 - 120 * rear), z(42))], 1)
    s.across("A", x(-320), x(320), base + 62, "640", z(0))
    s.across("C", x(-20), x(200), z(360) - 44, "220", z(360))
    s.across("E", x(0), x(90), z(250), "90", z(250) - 20)
    s.upright("D", z(360), z(0), 760, "360", x(330))
    s.upright("N", z(360), z(-3.5), 110, "(365)", x(-350))
    # From the right: front and rear upright, the rim rising to the back.
    top, foot, near, far = 580, 796, 120, 300
    s.poly([(near, foot), (far, foot - 25), (far, top), (near, top)])
    s.path([(near - 15, foot + 2), (far + 15, foot - 27)], 4)
    s.across("B", near, far, top - 40, "300", top)
    s.across("M", near - 15, far + 15, foot + 46, "(349.7)", foot)
    s.leader("F", (near + 70, foot - 12), (far + 40, foot - 110), "8 deg")
    s.leader("G", (far + 12, foot - 27), (far + 62, foot + 20), "25")
    # A stretch of a flange from above.
    s.path([(520, 620), (840, 620)])
    s.path([(520, 720), (840, 720)])
    for at in (580, 680, 780):
        s.circle(at, 668, 13)
    s.upright("K", 620, 668, 500, "12", 560)
    s.leader("J", (690, 658), (700, 560), "dia 6.5")
    s.leader("H", (630, 668), (600, 758), "8 / 4 spaces")
    return s


def square_to_round():
    s = Sheet("SR-01  Square to round  1 off", "1.4301 1 mm, R1, ISO 2768-1 m")
    k, left, top = 1.3, 260, 150
    right, bottom = left + 222 * k, top + 302 * k
    s.poly([(left, top), (right, top), (right, bottom), (left, bottom)])
    cx, cy = (left + right) / 2, (top + bottom) / 2 - 20 * k
    s.circle(cx, cy, 100 * k)
    for x, y in ((left, top), (right, top), (right, bottom), (left, bottom)):
        for turn in range(5):
            angle = math.atan2((top + bottom) / 2 - y, x - cx)
            start = round(angle / (math.pi / 2) - 0.5) * math.pi / 2
            at = start + turn * math.pi / 8
            s.path([(x, y), (cx + 100 * k * math.cos(at), cy - 100 * k * math.sin(at))], 1)
    s.across("A", left, right, 84, "222 inside", top)
    s.upright("B", top, bottom, 740, "302 inside", right)
    s.leader("C", (cx + 71 * k, cy + 71 * k), (right + 40, bottom + 34), "dia 200 inside")
    s.upright("E", cy, (top + bottom) / 2, 150, "20", cx - 100 * k)
    s.leader("F", (left + 46, top + 52), (120, 130), "4")
    foot = 830
    s.poly([(left, foot), (right, foot), (cx + 100 * k, foot - 180 * k * 0.8), (cx - 100 * k, foot - 180 * k * 0.8)])
    s.upright("D", foot - 180 * k * 0.8, foot, 740, "180", right)
    return s


def main():
    folder = Path(sys.argv[1])
    for name, draw in {"01-winch-bracket": winch_bracket, "02-tool-tray": tool_tray, "03-stop-bracket": stop_bracket,
                       "04-axle-plate": axle_plate, "05-ear-flange": ear_flange, "06-gusset": gusset, "07-padeye": padeye, "08-tray-floor": tray_floor,
                       "09-mudguard": mudguard, "10-drawbar-channel": drawbar_channel, "11-trolley-frame": trolley_frame, "20-filter-box": filter_box,
                       "21-tapered-hood": tapered_hood, "22-square-to-round": square_to_round}.items():
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
