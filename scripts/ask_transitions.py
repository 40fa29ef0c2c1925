"""Holds the sheets of transitions against a general-purpose solid kernel. Reads a list of transitions (JSON) from the standard input and
prints one answer a line.

Each has its outlines in numbers alone (`sides` or `lower` and `upper` sizes, `height`, `offset`, `tilt`, `elevations`), `thickness`,
`inside` and `gap`, and the STEP file of every sheet by the number of its wall. Answered are: whether every sheet is a valid solid, the
greatest volume that two of them share, how far the named faces and the far faces lie from where the outlines say, the least and the
greatest gap found along the seams every 10 mm, and what the sheets hold between them."""

import itertools
import json
import math
import sys

from OCP.BRepAlgoAPI import BRepAlgoAPI_Common, BRepAlgoAPI_Cut
from OCP.BRep import BRep_Tool
from OCP.BRepBndLib import BRepBndLib
from OCP.BRepBuilderAPI import BRepBuilderAPI_MakeFace
from OCP.BRepCheck import BRepCheck_Analyzer
from OCP.BRepExtrema import BRepExtrema_DistShapeShape
from OCP.BRepGProp import BRepGProp
from OCP.BRepPrimAPI import BRepPrimAPI_MakeBox, BRepPrimAPI_MakeHalfSpace
from OCP.Bnd import Bnd_Box
from OCP.GProp import GProp_GProps
from OCP.STEPControl import STEPControl_Reader
from OCP.TopAbs import TopAbs_VERTEX
from OCP.TopExp import TopExp_Explorer
from OCP.TopoDS import TopoDS
from OCP.gp import gp_Dir, gp_Pln, gp_Pnt

FAR = 5e3


def sub(a, b):
    return tuple(x - y for x, y in zip(a, b))


def add(a, b):
    return tuple(x + y for x, y in zip(a, b))


def times(a, s):
    return tuple(x * s for x in a)


def dot(a, b):
    return sum(x * y for x, y in zip(a, b))


def cross(a, b):
    return (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])


def unit(a):
    return times(a, 1 / math.sqrt(dot(a, a)))


def outline(asked, size):
    """Corners off the middle of the outline's box, counter-clockwise."""
    if asked["sides"]:
        n = asked["sides"]
        reach = size[0] / 2 / math.cos(math.pi / n)
        all = [
            (reach * math.cos(-math.pi / 2 + 2 * math.pi / n * (k - 0.5)), reach * math.sin(-math.pi / 2 + 2 * math.pi / n * (k - 0.5)))
            for k in range(n)
        ]
        middle = tuple((min(p[i] for p in all) + max(p[i] for p in all)) / 2 for i in (0, 1))
        return [(x - middle[0], y - middle[1]) for x, y in all]
    w, d = size[0] / 2, size[1] / 2
    return [(-w, -d), (w, -d), (w, d), (-w, d)]


def corners(asked):
    """Corners of both outlines in space."""
    h, (ox, oy) = asked["height"], asked["offset"]
    ax, ay = (math.radians(t) for t in asked["tilt"])

    def tilted(x, y):
        y, z = y * math.cos(ax), y * math.sin(ax)
        return (x * math.cos(ay) + z * math.sin(ay), y, z * math.cos(ay) - x * math.sin(ay))

    if asked["elevations"]:
        # Seen from the front: x to the right, z up, the rear profile the distance behind.
        front = [(x, 0.0, y) for x, y in outline(asked, asked["lower"])]
        rear = [(x + ox, h, y + oy) for x, y in outline(asked, asked["upper"])]
        return front, rear
    low = [(x, y, 0.0) for x, y in outline(asked, asked["lower"])]
    high = [add((ox, oy, h), tilted(x, y)) for x, y in outline(asked, asked["upper"])]
    return low, high


def read(path):
    reader = STEPControl_Reader()
    reader.ReadFile(path)
    reader.TransferRoots()
    return reader.OneShape()


def volume(shape):
    found = GProp_GProps()
    BRepGProp.VolumeProperties_s(shape, found)
    return found.Mass()


def vertices(shape):
    all, walk = [], TopExp_Explorer(shape, TopAbs_VERTEX)
    while walk.More():
        at = BRep_Tool.Pnt_s(TopoDS.Vertex(walk.Current()))
        all.append((at.X(), at.Y(), at.Z()))
        walk.Next()
    return all


def box(shape):
    found = Bnd_Box()
    BRepBndLib.Add_s(shape, found)
    return found


def half(point, normal):
    """The half of space that the normal points to."""
    face = BRepBuilderAPI_MakeFace(gp_Pln(gp_Pnt(*point), gp_Dir(*normal)), -FAR, FAR, -FAR, FAR).Face()
    return BRepPrimAPI_MakeHalfSpace(face, gp_Pnt(*add(point, times(normal, 10.0)))).Solid()


def answer(asked):
    low, high = corners(asked)
    n, t = len(low), asked["thickness"]
    hand = -1 if asked["opposite"] else 1
    low, high = ([(hand * x, y, z) for x, y, z in side] for side in (low, high))
    everything = low + high
    centre = times((sum(p[0] for p in everything), sum(p[1] for p in everything), sum(p[2] for p in everything)), 1 / len(everything))
    shapes = [read(path) for path in asked["sheets"]]
    said = {"valid": all(BRepCheck_Analyzer(one).IsValid() for one in shapes), "solids": len(shapes)}
    boxes = [box(one) for one in shapes]
    shared = 0.0
    for a, b in itertools.combinations(range(len(shapes)), 2):
        if not boxes[a].IsOut(boxes[b]):
            shared = max(shared, volume(BRepAlgoAPI_Common(shapes[a], shapes[b]).Shape()))
    said["shared"] = shared
    if not asked["plain"]:
        return said
    # Which sheet is which wall is found by where it lies.
    walls, named, far = [], 0.0, 0.0
    for k in range(n):
        a, b, c, d = low[k], low[(k + 1) % n], high[k], high[(k + 1) % n]
        outward = unit(cross(sub(b, a), sub(c, a)))
        if dot(sub(a, centre), outward) < 0:
            outward = times(outward, -1)
        # From the named face toward the inside, or toward the outside where the sizes are inside ones.
        inner = t if not asked["inside"] else 0.0
        lies = lambda shape: [dot(sub(v, a), outward) for v in vertices(shape)]
        off = lambda shape: max(abs(max(lies(shape)) - (t - inner)), abs(min(lies(shape)) + inner))
        best = min(range(len(shapes)), key=lambda at: off(shapes[at]))
        heights = lies(shapes[best])
        top, bottom = (max(heights), min(heights))
        face, other = (bottom, top) if asked["inside"] else (top, bottom)
        named = max(named, abs(face))
        far = max(far, abs(abs(other) - t))
        walls.append((shapes[best], a, outward, inner))
    said["named"], said["far"] = named, far
    gaps = []
    for k in range(n):
        one, two = walls[k][0], walls[(k + 1) % n][0]
        from_, to = low[(k + 1) % n], high[(k + 1) % n]
        long, way = math.dist(from_, to), unit(sub(to, from_))
        # Clear of the ends, where square edges stand back from the rims.
        steps = int((long - 20) // 10)
        for step in range(1, max(steps, 2)):
            place = add(from_, times(way, 10 + 10 * step if steps > 1 else long / 2))
            plane = BRepBuilderAPI_MakeFace(gp_Pln(gp_Pnt(*place), gp_Dir(*way)), -60, 60, -60, 60).Face()
            cuts = [BRepAlgoAPI_Common(plane, one).Shape(), BRepAlgoAPI_Common(plane, two).Shape()]
            apart = BRepExtrema_DistShapeShape(*cuts)
            if apart.IsDone():
                gaps.append(apart.Value())
    said["gaps"] = [min(gaps), max(gaps)] if gaps else None
    # What a convex body of these inner faces holds.
    held = BRepPrimAPI_MakeBox(gp_Pnt(-FAR / 2, -FAR / 2, -FAR / 2), gp_Pnt(FAR / 2, FAR / 2, FAR / 2)).Shape()
    ends = [(low[0], unit(cross(sub(low[1], low[0]), sub(low[2], low[0])))), (high[0], unit(cross(sub(high[1], high[0]), sub(high[2], high[0]))))]
    for shape, point, outward, inner in walls:
        # The sheet's own inner face: as far in as its metal reaches.
        depth = min(dot(sub(v, point), outward) for v in vertices(shape))
        ends.append((add(point, times(outward, depth)), outward))
    for point, normal in ends:
        if dot(sub(centre, point), normal) < 0:
            normal = times(normal, -1)
        held = BRepAlgoAPI_Common(held, half(point, normal)).Shape()
    said["capacity"] = volume(held)
    return said


for asked in json.load(sys.stdin):
    print(json.dumps(answer(asked)), flush=True)
