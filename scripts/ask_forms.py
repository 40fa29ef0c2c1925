"""Presses forms in a general-purpose solid kernel: reads a list of parts (JSON) from the standard input and prints an answer a line. A part
is `{"plain": path of its STEP without forms, "ours": path with them, "thickness", "down", "opposite", "forms": [...]}`. A form is told as a
drawing tells it: `{"panel": "base" | "flange", "x", "in": mm from the left and from the back or the free edge, "turn": degrees to the
left as somebody sees the upper face who looks away from that edge, "from_top": whether it stands out of the upper face, "kind", its
sizes}`. Each is made of half spaces and cones over the face, less those of a thickness further in: nothing is known here of how the
sheet's own corners lie. Answers as ask_heads.py."""

import json
import math
import sys

from OCP.BRepBuilderAPI import BRepBuilderAPI_Transform
from OCP.BRepPrimAPI import BRepPrimAPI_MakeCone, BRepPrimAPI_MakeCylinder
from OCP.gp import gp_Ax2, gp_Ax3, gp_Dir, gp_Pnt, gp_Trsf

from solid_kernel import FAR, beyond, bounds, box, compared, cut, fuse, mirrored, read


def cone(x, low, wide, narrow, height):
    axis = gp_Ax2(gp_Pnt(x, 0, low), gp_Dir(0, 0, 1))
    if abs(wide - narrow) < 1e-9:
        return BRepPrimAPI_MakeCylinder(axis, wide, height).Shape()
    return BRepPrimAPI_MakeCone(axis, wide, narrow, height).Shape()


def sloped(sides, low, high, slope):
    """A box over a level whose given sides lean in from there: `sides` are points and outward directions."""
    shape = box((-FAR / 2, -FAR / 2, low), (FAR / 2, FAR / 2, high))
    for (x, y), (out_x, out_y) in sides:
        normal = (out_x * math.sin(slope), out_y * math.sin(slope), math.cos(slope))
        shape = beyond(shape, (x, y, 0), normal)
    return shape


def form(told, sheet):
    """What stands over the face z = 0 of metal under it, and what is hollow, with y toward where it opens."""
    kind = told["kind"]
    if kind == "extruded":
        radius, height = told["diameter"] / 2, told["height"]
        outer = cone(0, 0, radius + told["wall"], radius + told["wall"], height)
        return outer, cone(0, -sheet - 1, radius, radius, sheet + height + 2)
    height = told["height"]
    if kind == "knock_out":
        radius = told["diameter"] / 2
        return cone(0, 0, radius, radius, height), cone(0, -sheet - 1, radius, radius, height + 1)
    if kind == "louvre":
        long, wide, side = told["length"] / 2, told["width"], math.radians(told["side"])
        roof = math.atan2(height, wide)

        def hood(in_by, low):
            shape = box((-FAR / 2, -wide / 2, low), (FAR / 2, wide / 2, FAR / 2))
            up = (0, -math.sin(roof), math.cos(roof))
            shape = beyond(shape, tuple(at - in_by * by for at, by in zip((0, -wide / 2, 0), up)), up)
            for end in (-1, 1):
                out = (end * math.sin(side), 0, math.cos(side))
                shape = beyond(shape, tuple(at - in_by * by for at, by in zip((end * long, 0, 0), out)), out)
            return shape

        return hood(0, 0), hood(sheet, -sheet)
    slope = math.radians(told["side"])
    run = height / math.tan(slope) if told["side"] < 90 else 0.0
    # The hollow's side is the outer one moved in by a thickness along its own normal, down to the lower face.
    flat = sheet - sheet * math.cos(slope)
    shift = sheet * math.sin(slope) - (flat / math.tan(slope) if told["side"] < 90 else 0.0)

    def solid(in_by, low):
        top = low + height
        if kind == "dimple":
            radius = told["diameter"] / 2 - in_by
            return cone(0, low, radius, radius - run, height)
        if kind == "bead":
            radius, middle = told["width"] / 2 - in_by, (told["length"] - told["width"]) / 2
            shape = fuse(cone(-middle, low, radius, radius - run, height), cone(middle, low, radius, radius - run, height))
            between = box((-middle, -FAR / 2, low), (middle, FAR / 2, top))
            for end in (-1, 1):
                normal = (0, end * math.sin(slope), math.cos(slope))
                between = beyond(between, (0, end * radius, low), normal)
            return fuse(shape, between)
        x, y = told["width"] / 2 - in_by, told["depth"] / 2 - in_by
        shape = box((-x, -y, low), (x, y, top))
        for side, at in (((1, 0), (x, 0)), ((-1, 0), (-x, 0)), ((0, 1), (0, y)), ((0, -1), (0, -y))):
            normal = (side[0] * math.sin(slope), side[1] * math.sin(slope), math.cos(slope))
            shape = beyond(shape, (at[0], at[1], low), normal)
        return shape

    return solid(0.0, 0.0), solid(shift, -sheet)


def cross(a, b):
    return (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])


def placed(shape, told, sheet, low, high, down):
    """Puts what was made at the origin where the form lies."""
    if told["panel"] == "base":
        inward, up = (0, -1, 0), (0, 0, 1)
        spot = (told["x"], high[1] - told["in"], sheet)
    else:
        inward, up = ((0, 0, 1), (0, -1, 0)) if down else ((0, 0, -1), (0, 1, 0))
        height = low[2] + told["in"] if down else high[2] - told["in"]
        # The upper face of a flange bent up looks back over the base, that of one bent down away from it.
        spot = (told["x"], low[1] + (0.0 if down else sheet), height)
    if not told["from_top"]:
        spot = tuple(at - sheet * by for at, by in zip(spot, up))
    along, turn = cross(inward, up), math.radians(told["turn"])
    left = cross(up, along)
    opens = tuple(-math.sin(turn) * a + math.cos(turn) * b for a, b in zip(along, left))
    if told.get("toward"):
        opens = tuple(-by for by in opens)
    out = up if told["from_top"] else tuple(-by for by in up)
    move = gp_Trsf()
    move.SetTransformation(gp_Ax3(gp_Pnt(*spot), gp_Dir(*out), gp_Dir(*cross(opens, out))), gp_Ax3())
    return BRepBuilderAPI_Transform(shape, move, True).Shape()


for part in json.load(sys.stdin):
    shape, ours = read(part["plain"]), read(part["ours"])
    low, high = bounds(shape)
    for told in part["forms"]:
        outer, hollow = (placed(one, told, part["thickness"], low, high, part["down"])
                         for one in form(told, part["thickness"]))
        shape = cut(fuse(shape, outer), hollow)
    if part["opposite"]:
        shape = mirrored(shape)
    compared(shape, ours)
