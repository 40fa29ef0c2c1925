"""Opens STEP files in a general-purpose solid kernel and prints, a line each, what it finds: solids, whether valid and
closed, volume, surface area, centre of gravity, size, numbers of faces by kind. Also builds reference parts of its own from a
section (straights and arcs) swept over a width, less round holes: `read_step.py --build parts.json`."""

import json
import math
import sys

from OCP.Bnd import Bnd_Box
from OCP.BRep import BRep_Builder
from OCP.BRepAlgoAPI import BRepAlgoAPI_Cut, BRepAlgoAPI_Fuse
from OCP.BRepAdaptor import BRepAdaptor_Surface
from OCP.BRepBndLib import BRepBndLib
from OCP.BRepBuilderAPI import BRepBuilderAPI_MakeEdge, BRepBuilderAPI_MakeFace, BRepBuilderAPI_MakeWire
from OCP.BRepCheck import BRepCheck_Analyzer
from OCP.BRepGProp import BRepGProp
from OCP.BRepPrimAPI import BRepPrimAPI_MakeCylinder, BRepPrimAPI_MakePrism
from OCP.GC import GC_MakeArcOfCircle
from OCP.GProp import GProp_GProps
from OCP.STEPControl import STEPControl_Reader
from OCP.TopAbs import TopAbs_FACE, TopAbs_SHELL, TopAbs_SOLID
from OCP.TopExp import TopExp_Explorer
from OCP.TopoDS import TopoDS
from OCP.gp import gp_Ax2, gp_Dir, gp_Pnt, gp_Vec


def all_of(shape, kind):
    found = []
    explorer = TopExp_Explorer(shape, kind)
    while explorer.More():
        found.append(explorer.Current())
        explorer.Next()
    return found


def measured(shape):
    volume, surface = GProp_GProps(), GProp_GProps()
    # Adaptive: the plain sums are off by thousandths where a rim is a curve of a higher kind.
    BRepGProp.VolumeProperties_s(shape, volume, 1e-8, False, False)
    BRepGProp.SurfaceProperties_s(shape, surface, 1e-8, False)
    centre = volume.CentreOfMass()
    around = Bnd_Box()
    BRepBndLib.AddOptimal_s(shape, around, False, False)
    around.SetGap(0.0)
    low, high = around.CornerMin(), around.CornerMax()
    return {
        "size": [high.X() - low.X(), high.Y() - low.Y(), high.Z() - low.Z()],
        "volume": volume.Mass(),
        "area": surface.Mass(),
        "centre": [centre.X(), centre.Y(), centre.Z()],
    }


def read(path):
    reader = STEPControl_Reader()
    status = reader.ReadFile(path)
    reader.TransferRoots()
    shape = reader.OneShape()
    solids = all_of(shape, TopAbs_SOLID)
    shells = all_of(shape, TopAbs_SHELL)
    kinds, planes = {}, []
    for face in all_of(shape, TopAbs_FACE):
        surface = BRepAdaptor_Surface(TopoDS.Face(face))
        kind = str(surface.GetType()).split("_")[-1]
        kinds[kind] = kinds.get(kind, 0) + 1
        if kind == "Plane":
            own = GProp_GProps()
            BRepGProp.SurfaceProperties_s(face, own)
            way = surface.Plane().Axis().Direction()
            planes.append([way.X(), way.Y(), way.Z(), own.Mass()])
    found = {
        "path": path,
        "status": int(status) if isinstance(status, int) else str(status),
        "solids": len(solids),
        "valid": BRepCheck_Analyzer(shape).IsValid(),
        "closed": all(shell.Closed() for shell in shells) and len(shells) == 1,
        "kinds": kinds,
        "planes": planes,
    }
    found.update(measured(shape))
    return found


def section(part):
    """The metal's outline seen from its end: the way along its lower face and back along its upper."""
    thickness = part["thickness"]
    x, z, heading = 0.0, 0.0, 0.0
    # Each piece as edges on the right-hand face and on the left-hand face.
    right, left = [], []

    def at(px, pz):
        return gp_Pnt(px, 0.0, pz)

    def beside(px, pz, direction, by):
        return at(px - math.sin(direction) * by, pz + math.cos(direction) * by)

    for piece in part["chain"]:
        if piece[0] == "s":
            length = piece[1]
            nx, nz = x + math.cos(heading) * length, z + math.sin(heading) * length
            right.append(BRepBuilderAPI_MakeEdge(at(x, z), at(nx, nz)).Edge())
            left.append(BRepBuilderAPI_MakeEdge(beside(x, z, heading, thickness), beside(nx, nz, heading, thickness)).Edge())
            x, z = nx, nz
            continue
        _, degrees, radius, way = piece
        angle = math.radians(degrees)
        side = 1.0 if way == "up" else -1.0
        # The right-hand face is outside of an up bend and inside of a down bend.
        own = radius + thickness if side > 0 else radius
        cx, cz = x - math.sin(heading) * side * own, z + math.cos(heading) * side * own

        def on(share, arm):
            turned = heading + side * angle * share
            return at(cx + math.sin(turned) * side * arm, cz - math.cos(turned) * side * arm)

        other = radius if side > 0 else radius + thickness
        for arm, into in ((own, right), (other, left)):
            if arm > 1e-9:
                into.append(BRepBuilderAPI_MakeEdge(GC_MakeArcOfCircle(on(0, arm), on(0.5, arm), on(1, arm)).Value()).Edge())
        end = on(1, own)
        x, z, heading = end.X(), end.Z(), heading + side * angle
    wire = BRepBuilderAPI_MakeWire()
    first = beside(0.0, 0.0, 0.0, thickness)
    wire.Add(BRepBuilderAPI_MakeEdge(first, at(0.0, 0.0)).Edge())
    for edge in right:
        wire.Add(edge)
    wire.Add(BRepBuilderAPI_MakeEdge(at(x, z), beside(x, z, heading, thickness)).Edge())
    for edge in reversed(left):
        wire.Add(edge)
    return wire.Wire()


def swept(part):
    face = BRepBuilderAPI_MakeFace(section(part)).Face()
    return BRepPrimAPI_MakePrism(face, gp_Vec(0.0, part["width"], 0.0)).Shape()


def built(part):
    shape = swept(part)
    for more in part.get("fuse", []):
        shape = BRepAlgoAPI_Fuse(shape, swept(more)).Shape()
    for hole in part.get("holes", []):
        axis = gp_Ax2(gp_Pnt(*hole["from"]), gp_Dir(*hole["way"]))
        shape = BRepAlgoAPI_Cut(shape, BRepPrimAPI_MakeCylinder(axis, hole["diameter"] / 2.0, hole["length"]).Shape()).Shape()
    found = measured(shape)
    found["valid"] = BRepCheck_Analyzer(shape).IsValid()
    return found


if sys.argv[1] == "--build":
    with open(sys.argv[2], encoding="utf-8") as file:
        for one in json.load(file):
            print(json.dumps(built(one)))
else:
    for argument in sys.argv[1:]:
        print(json.dumps(read(argument)))
