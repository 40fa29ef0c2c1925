"""Asks a general-purpose solid kernel about STEP files: reads a list of questions (JSON) from the standard input and prints one
answer a line. `{"one": path, "two": path}` answers the volume that both share and how far they are apart; `{"one": path,
"point": [x, y, z], "normal": [x, y, z]}` answers the area of the plane's section; `{"one": path, "drills": [{"point": [x, y, z],
"way": [x, y, z], "diameter": mm, "depth": mm}], "two": path}` drills the first and answers its volume, with that of the second and
whether that is valid. What takes too long is answered with nothing."""

import json
import multiprocessing
import queue
import sys

from OCP.BRepAlgoAPI import BRepAlgoAPI_Common, BRepAlgoAPI_Cut
from OCP.BRepBuilderAPI import BRepBuilderAPI_MakeFace
from OCP.BRepCheck import BRepCheck_Analyzer
from OCP.BRepExtrema import BRepExtrema_DistShapeShape
from OCP.BRepGProp import BRepGProp
from OCP.BRepPrimAPI import BRepPrimAPI_MakeCylinder
from OCP.GProp import GProp_GProps
from OCP.STEPControl import STEPControl_Reader
from OCP.gp import gp_Ax2, gp_Dir, gp_Pln, gp_Pnt

FAR = 1e4
# Seconds for one question.
LONGEST = 5


def read(path):
    reader = STEPControl_Reader()
    reader.ReadFile(path)
    reader.TransferRoots()
    return reader.OneShape()


def answer(question):
    one = read(question["one"])
    found = GProp_GProps()
    if "drills" in question:
        other = read(question["two"])
        for drill in question["drills"]:
            at = gp_Ax2(gp_Pnt(*drill["point"]), gp_Dir(*drill["way"]))
            tool = BRepPrimAPI_MakeCylinder(at, drill["diameter"] / 2, drill["depth"]).Shape()
            one = BRepAlgoAPI_Cut(one, tool).Shape()
        return {"volume": volume(one), "other": volume(other), "valid": BRepCheck_Analyzer(other).IsValid()}
    if "two" in question:
        two = read(question["two"])
        BRepGProp.VolumeProperties_s(BRepAlgoAPI_Common(one, two).Shape(), found)
        apart = BRepExtrema_DistShapeShape(one, two)
        return {"volume": found.Mass(), "distance": apart.Value() if apart.IsDone() else None}
    plane = gp_Pln(gp_Pnt(*question["point"]), gp_Dir(*question["normal"]))
    face = BRepBuilderAPI_MakeFace(plane, -FAR, FAR, -FAR, FAR).Face()
    BRepGProp.SurfaceProperties_s(BRepAlgoAPI_Common(face, one).Shape(), found)
    return {"area": found.Mass()}


def volume(shape):
    found = GProp_GProps()
    # Adaptive: the plain sums are off by thousandths where a rim is a curve of a higher kind.
    BRepGProp.VolumeProperties_s(shape, found, 1e-8, False, False)
    return found.Mass()


def put(question, answers):
    answers.put(answer(question))


# The kernel does not end on some pairs of curved faces: each question has a process and a time of its own.
for asked in json.load(sys.stdin):
    answers = multiprocessing.Queue()
    worker = multiprocessing.Process(target=put, args=(asked, answers))
    worker.start()
    try:
        found = answers.get(timeout=LONGEST)
    except queue.Empty:
        found = {}
        worker.kill()
    worker.join()
    print(json.dumps(found), flush=True)
