"""Presses ribs across a bend in a general-purpose solid kernel: reads a list of parts (JSON) from the standard input and prints an answer a
line. A part is `{"plain": path of its STEP without ribs, "ours": path with them, "thickness", "radius": inside, "angle": degrees from flat,
"down", "front": whether the flange stands at the front, "opposite", "size": [width, depth of the base to the outside mould lines], "ribs":
[{"x": of its middle from the left, "panel": leg, "flange": leg, "width", "round", "draft": degrees}]}`. Legs are measured as a person does
it, from the outermost place of the other leg's outside. The sheet is filled up to its outer faces, a ridge is a straight prism laid into it,
and what lies a thickness further in is taken out again: nothing is known here of rims, ellipses or tangent lines. Answers as
`solid_kernel.compared`."""

import json
import math
import sys

from OCP.BRepAdaptor import BRepAdaptor_Curve
from OCP.BRepBuilderAPI import BRepBuilderAPI_MakeEdge, BRepBuilderAPI_MakeFace, BRepBuilderAPI_MakeWire
from OCP.BRepFilletAPI import BRepFilletAPI_MakeFillet
from OCP.BRepPrimAPI import BRepPrimAPI_MakePrism
from OCP.GC import GC_MakeArcOfCircle
from OCP.TopAbs import TopAbs_EDGE
from OCP.TopExp import TopExp_Explorer
from OCP.TopoDS import TopoDS
from OCP.gp import gp_Pnt, gp_Vec

from solid_kernel import FAR, beyond, box, common, compared, cut, fuse, mirrored, read


def prism(points, arcs, along):
    """A closed outline in space (corner after corner; at some of them an arc over a place to the next), drawn out along a vector."""
    wire = BRepBuilderAPI_MakeWire()
    for at, point in enumerate(points):
        one, two = gp_Pnt(*point), gp_Pnt(*points[(at + 1) % len(points)])
        edge = GC_MakeArcOfCircle(one, gp_Pnt(*arcs[at]), two).Value() if at in arcs else None
        wire.Add((BRepBuilderAPI_MakeEdge(edge) if edge else BRepBuilderAPI_MakeEdge(one, two)).Edge())
    face = BRepBuilderAPI_MakeFace(wire.Wire()).Face()
    return BRepPrimAPI_MakePrism(face, gp_Vec(*along)).Shape()


def filled(part, way, normal, mould, width):
    """Everything inside the sheet's outer faces, far beyond its legs, with the bend's outside round."""
    shape = box((0, -FAR, 0), (width, FAR, FAR))
    shape = beyond(shape, mould, tuple(-by for by in normal))
    outside = part["radius"] + part["thickness"]
    fillet = BRepFilletAPI_MakeFillet(shape)
    explorer = TopExp_Explorer(shape, TopAbs_EDGE)
    found = 0
    while explorer.More():
        edge = TopoDS.Edge(explorer.Current())
        explorer.Next()
        curve = BRepAdaptor_Curve(edge)
        ends = [curve.Value(curve.FirstParameter()), curve.Value(curve.LastParameter())]
        on = all(abs(end.Y() - mould[1]) < 1e-6 and abs(end.Z() - mould[2]) < 1e-6 for end in ends)
        if on and not found:
            fillet.Add(outside, edge)
            found += 1
    return fillet.Shape()


def ridge(told, first, second, inside, in_by):
    """A straight prism under the ridge, a thickness further in or none: far along and far down, between its two sides."""
    along = (0.0, second[1] - first[1], second[2] - first[2])
    long = math.hypot(along[1], along[2])
    along = tuple(by / long for by in along)
    up = (0.0, -along[2], along[1])
    if up[1] * inside[1] + up[2] * inside[2] < 0:
        up = tuple(-by for by in up)
    start = tuple(at - FAR / 2 * by for at, by in zip(first, along))
    draft, half, low = math.radians(told["draft"]), told["width"] / 2, FAR / 4

    def place(x, height):
        return (told["x"] + x, start[1] + up[1] * height, start[2] + up[2] * height)

    if told["round"]:
        # The round of the outside, a thickness smaller about the same axis; the sides touch it where they are as steep.
        radius = half - in_by
        x, touch = radius * math.cos(draft), -half + radius * math.sin(draft)
        foot = x + (touch + low) * math.tan(draft)
        points = [place(x, touch), place(-x, touch), place(-foot, -low), place(foot, -low)]
        arcs = {0: place(0.0, -half + radius)}
    else:
        # The sides, moved in along their own normals.
        top = half + in_by * math.tan(draft) - in_by / math.cos(draft)
        foot = half + low * math.tan(draft) - in_by / math.cos(draft)
        points = [place(top, -in_by), place(-top, -in_by), place(-foot, -low), place(foot, -low)]
        arcs = {}
    return prism(points, arcs, tuple(FAR * by for by in along))


for part in json.load(sys.stdin):
    shape, ours = read(part["plain"]), read(part["ours"])
    sheet, turn = part["thickness"], math.radians(part["angle"])
    width, depth = part["size"]
    # As if the flange stood at the back and were bent up; everything is mirrored to it.
    if part["front"]:
        shape = mirrored(shape, (0, 1, 0), (0, depth / 2, 0))
    if part["down"]:
        shape = mirrored(shape, (0, 0, 1), (0, 0, sheet / 2))
    outside = part["radius"] + sheet
    # The outermost place of the bend, or of the flange's outside where it leans out.
    reach = outside * math.tan(turn / 2) if turn < math.pi / 2 else outside
    tangent = depth - reach
    way, normal = (0.0, math.cos(turn), math.sin(turn)), (0.0, -math.sin(turn), math.cos(turn))
    corner = (0.0, tangent + outside * math.tan(turn / 2), 0.0)
    fill = filled(part, way, normal, corner, width)
    centre = (0.0, tangent, outside)
    for told in part["ribs"]:
        first = (0.0, depth - told["panel"], sheet)
        # Along the flange from the place of the outside that lies furthest back along it.
        back = sum(a * b for a, b in zip(centre, way)) - outside if turn > math.pi / 2 else sum(
            a * b for a, b in zip(corner, way))
        off = sum(a * b for a, b in zip(corner, normal)) + sheet
        second = tuple(way[i] * (back + told["flange"]) + normal[i] * off for i in range(3))
        inside = tuple(a + b for a, b in zip((0.0, 0.0, 1.0), normal))
        outer = common(ridge(told, first, second, inside, 0.0), fill)
        shape = cut(fuse(shape, outer), ridge(told, first, second, inside, sheet))
    if part["down"]:
        shape = mirrored(shape, (0, 0, 1), (0, 0, sheet / 2))
    if part["front"]:
        shape = mirrored(shape, (0, 1, 0), (0, depth / 2, 0))
    if part["opposite"]:
        shape = mirrored(shape)
    compared(shape, ours)
