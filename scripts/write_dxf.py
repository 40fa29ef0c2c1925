"""Writes DXF files with ezdxf for the reader to be held against: every unit, bulges, splines, ellipses, inserts turned,
scaled and mirrored. Prints one JSON object a file: its name, net area and outer perimeter in mm, how many holes.

Usage: write_dxf.py FOLDER. Areas are closed forms; that of the spline is shapely's on ezdxf's own fine flattening.
"""

import json
import math
import sys
from pathlib import Path

import ezdxf
from ezdxf import units
from shapely.geometry import Polygon

FOLDER = Path(sys.argv[1])


def save(doc, name, area, holes, outer=None):
    path = FOLDER / name
    doc.saveas(path)
    print(json.dumps({"file": str(path), "area": area, "holes": holes, "outer": outer}))


def rectangle(space, width, height, x=0.0, y=0.0):
    corners = [(x, y), (x + width, y), (x + width, y + height), (x, y + height)]
    for at, corner in enumerate(corners):
        space.add_line(corner, corners[(at + 1) % 4])


# One plate in every unit: 6 by 4 units with a bore of 2.
for unit, millimetres in {units.MM: 1.0, units.CM: 10.0, units.M: 1000.0, units.IN: 25.4, units.FT: 304.8}.items():
    doc = ezdxf.new("R2010")
    doc.units = unit
    rectangle(doc.modelspace(), 6, 4)
    doc.modelspace().add_circle((3, 2), 1)
    save(doc, f"unit-{unit}.dxf", (24 - math.pi) * millimetres**2, 1, 20 * millimetres)

# Polylines with bulges, new and old: an obround 100 by 40 and a slot in it.
for version, old in (("R2010", False), ("R2000", True)):
    doc = ezdxf.new(version)
    doc.units = units.MM
    space = doc.modelspace()
    outer = [(20, 0, 0), (80, 0, 1), (80, 40, 0), (20, 40, 1)]
    inner = [(40, 15, 0), (60, 15, 1), (60, 25, 0), (40, 25, 1)]
    for ring in (outer, inner):
        if old:
            line = space.add_polyline2d([(x, y) for x, y, _ in ring], close=True)
            for vertex, (_, _, bulge) in zip(line.vertices, ring):
                vertex.dxf.bulge = bulge
        else:
            space.add_lwpolyline(ring, format="xyb", close=True)
    save(doc, f"bulges-{version}.dxf", 60 * 40 + math.pi * 400 - 20 * 10 - math.pi * 25, 1, 120 + 2 * math.pi * 20)

# An ellipse with an elliptic hole, turned.
doc = ezdxf.new("R2010")
doc.units = units.MM
space = doc.modelspace()
space.add_ellipse((0, 0), major_axis=(60, 30), ratio=0.5)
space.add_ellipse((0, 0), major_axis=(10, 0), ratio=0.4)
save(doc, "ellipses.dxf", math.pi * math.hypot(60, 30) ** 2 * 0.5 - math.pi * 10 * 4, 1)

# A closed cubic spline.
doc = ezdxf.new("R2010")
doc.units = units.MM
spline = doc.modelspace().add_spline()
spline.set_closed([(0, 0, 0), (80, -10, 0), (120, 40, 0), (70, 90, 0), (10, 70, 0), (-20, 30, 0)], degree=3)
flat = Polygon([(p.x, p.y) for p in spline.construction_tool().approximate(20000)])
save(doc, "spline.dxf", flat.area, 0, flat.length)

# A plate whose holes are inserts of one block: turned, doubled, squeezed (circles to ellipses), mirrored, in rows.
doc = ezdxf.new("R2010")
doc.units = units.MM
block = doc.blocks.new("HOLE")
block.add_circle((1, 0), 3)
keyed = doc.blocks.new("KEYED")
keyed.add_lwpolyline([(0, 0, 0), (10, 0, 0.5), (10, 6, 0), (0, 6, 0)], format="xyb", close=True)
space = doc.modelspace()
rectangle(space, 200, 120)
space.add_blockref("HOLE", (30, 30), dxfattribs={"rotation": 30})
space.add_blockref("HOLE", (60, 30), dxfattribs={"xscale": 2, "yscale": 2})
space.add_blockref("HOLE", (100, 30), dxfattribs={"xscale": 3, "yscale": 1})
space.add_blockref("KEYED", (150, 60), dxfattribs={"xscale": -1})
space.add_blockref("HOLE", (20, 80), dxfattribs={"column_count": 4, "row_count": 2, "column_spacing": 20, "row_spacing": 15})
chord, bulge = 6, 0.5
radius = chord * (1 + bulge**2) / (4 * bulge)
sweep = 4 * math.atan(bulge)
key = 60 + radius**2 * (sweep - math.sin(sweep)) / 2
save(doc, "inserts.dxf", 200 * 120 - math.pi * 9 * (1 + 4 + 3 + 8) - key, 12, 640)

# An arc drawn face down: its extrusion points away from the reader.
doc = ezdxf.new("R2010")
doc.units = units.MM
space = doc.modelspace()
space.add_line((-50, 0), (50, 0))
space.add_arc((0, 0), 50, 0, 180, dxfattribs={"extrusion": (0, 0, -1)})
save(doc, "face-down.dxf", math.pi * 2500 / 2, 0, 100 + math.pi * 50)
