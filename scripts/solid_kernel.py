"""What the trials against a general-purpose solid kernel share: reading STEP, volumes, cuts, and how two solids are compared."""

import json

from OCP.BRepAlgoAPI import BRepAlgoAPI_Common, BRepAlgoAPI_Cut, BRepAlgoAPI_Fuse
from OCP.BRepBndLib import BRepBndLib
from OCP.BRepBuilderAPI import BRepBuilderAPI_Transform
from OCP.BRepCheck import BRepCheck_Analyzer
from OCP.BRepGProp import BRepGProp
from OCP.BRepPrimAPI import BRepPrimAPI_MakeBox
from OCP.Bnd import Bnd_Box
from OCP.GProp import GProp_GProps
from OCP.STEPControl import STEPControl_Reader
from OCP.TopAbs import TopAbs_SHELL, TopAbs_SOLID
from OCP.TopExp import TopExp_Explorer
from OCP.gp import gp_Ax2, gp_Ax3, gp_Dir, gp_Pnt, gp_Trsf

FAR = 400.0


def read(path):
    reader = STEPControl_Reader()
    reader.ReadFile(path)
    reader.TransferRoots()
    return reader.OneShape()


def mass(shape):
    found = GProp_GProps()
    BRepGProp.VolumeProperties_s(shape, found, 1e-9, False, False)
    return found.Mass(), found.CentreOfMass()


def count(shape, kind):
    explorer, found = TopExp_Explorer(shape, kind), 0
    while explorer.More():
        found += 1
        explorer.Next()
    return found


def cut(one, two):
    return BRepAlgoAPI_Cut(one, two).Shape()


def fuse(one, two):
    return BRepAlgoAPI_Fuse(one, two).Shape()


def common(one, two):
    return BRepAlgoAPI_Common(one, two).Shape()


def box(low, high):
    return BRepPrimAPI_MakeBox(gp_Pnt(*low), gp_Pnt(*high)).Shape()


def beyond(shape, point, normal):
    """What of a shape does not lie beyond a plane."""
    away = BRepPrimAPI_MakeBox(2 * FAR, 2 * FAR, FAR).Shape()
    turn = gp_Trsf()
    axes = gp_Ax3(gp_Pnt(*point), gp_Dir(*normal))
    corner = axes.Location()
    x, y = axes.XDirection(), axes.YDirection()
    axes.SetLocation(gp_Pnt(
        corner.X() - FAR * (x.X() + y.X()), corner.Y() - FAR * (x.Y() + y.Y()), corner.Z() - FAR * (x.Z() + y.Z())))
    turn.SetTransformation(axes, gp_Ax3())
    return cut(shape, BRepBuilderAPI_Transform(away, turn, True).Shape())


def mirrored(shape, normal=(1, 0, 0), at=(0, 0, 0)):
    turn = gp_Trsf()
    turn.SetMirror(gp_Ax2(gp_Pnt(*at), gp_Dir(*normal)))
    return BRepBuilderAPI_Transform(shape, turn, True).Shape()


def bounds(shape):
    """The corners of a shape's box."""
    around = Bnd_Box()
    BRepBndLib.AddOptimal_s(shape, around, False, False)
    around.SetGap(0.0)
    corner, far = around.CornerMin(), around.CornerMax()
    return (corner.X(), corner.Y(), corner.Z()), (far.X(), far.Y(), far.Z())


def compared(shape, ours):
    """What was made here beside what the file has: volumes, centres, what of each is not in the other, and whether the file's is one valid
    closed solid."""
    (volume, centre), (other, at) = mass(shape), mass(ours)
    low, high = bounds(shape)
    print(json.dumps({
        "volume": volume,
        "ours": other,
        "apart": centre.Distance(at),
        "more": abs(mass(cut(ours, shape))[0]),
        "less": abs(mass(cut(shape, ours))[0]),
        "size": [two - one for one, two in zip(low, high)],
        "valid": BRepCheck_Analyzer(ours).IsValid(),
        "solids": count(ours, TopAbs_SOLID),
        "shells": count(ours, TopAbs_SHELL),
    }), flush=True)
