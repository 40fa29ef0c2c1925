"""Drills plates and bent parts in a general-purpose solid kernel: reads a list of parts (JSON) from the standard input and prints an
answer a line. A part is `{"plain": path of its STEP without holes, "ours": path with them, "opposite": bool, "holes": [...]}`. A hole is
told by where a person sets the tool and what goes in: `{"panel": "base" | "flange", "x", "in": mm from the left and from the back or the
free edge, "from_top": bool, "turned": [[radius, radius, from, to], ...]}`, depths under the face. Answers volumes and centres of
both, what of each is not in the other, and whether ours is one valid closed solid."""

import json
import sys

from OCP.BRepPrimAPI import BRepPrimAPI_MakeCone, BRepPrimAPI_MakeCylinder
from OCP.gp import gp_Ax2, gp_Dir, gp_Pnt

from solid_kernel import bounds, compared, cut, mirrored, read

# A head's tool begins this far outside of its face, mm.
OUTSIDE = 1.0


def tools(hole, thickness, low, high, down):
    """The tools of one hole: where they are set and which way they go in."""
    if hole["panel"] == "base":
        way = (0, 0, -1) if hole["from_top"] else (0, 0, 1)
        at = (hole["x"], high[1] - hole["in"], thickness if hole["from_top"] else 0.0)
    else:
        # The upper face of a flange bent up looks back over the base, that of one bent down away from it.
        inner = hole["from_top"] != down
        way = (0, -1, 0) if inner else (0, 1, 0)
        height = low[2] + hole["in"] if down else high[2] - hole["in"]
        at = (hole["x"], low[1] + (thickness if inner else 0.0), height)
    for wide, narrow, start, end in hole["turned"]:
        # What begins at the face begins outside of it, as wide as a tool is there.
        if start == 0.0:
            back = [at[i] - way[i] * OUTSIDE for i in range(3)]
            yield BRepPrimAPI_MakeCylinder(gp_Ax2(gp_Pnt(*back), gp_Dir(*way)), wide, OUTSIDE).Shape()
        begin = [at[i] + way[i] * start for i in range(3)]
        axis = gp_Ax2(gp_Pnt(*begin), gp_Dir(*way))
        if abs(wide - narrow) < 1e-12:
            yield BRepPrimAPI_MakeCylinder(axis, wide, end - start).Shape()
        else:
            yield BRepPrimAPI_MakeCone(axis, wide, narrow, end - start).Shape()


for part in json.load(sys.stdin):
    plain, ours = read(part["plain"]), read(part["ours"])
    # The plain one is always the hand as drawn.
    low, high = bounds(plain)
    shape = plain
    for hole in part["holes"]:
        for tool in tools(hole, part["thickness"], low, high, part["down"]):
            shape = cut(shape, tool)
    if part["opposite"]:
        shape = mirrored(shape)
    compared(shape, ours)
