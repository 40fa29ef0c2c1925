"""Independent figures for frames from general-purpose libraries. `sections`: areas and centroids of standard sections, made by
shapely from their sizes with its own rounding (openings and closings by buffers). `coped`: volumes of coped tubes, made by the
solid kernel as a tube less a cylinder. Reads JSON from the standard input, prints one JSON line an entry."""

import json
import math
import sys


def sections(entries):
    from shapely.affinity import scale
    from shapely.geometry import Point, Polygon, box
    from shapely.ops import unary_union

    fine = 256

    def rounded(width, height, radius):
        return box(-width / 2 + radius, -height / 2 + radius, width / 2 - radius, height / 2 - radius).buffer(radius, quad_segs=fine)

    for one in entries:
        kind = one["kind"]
        if kind == "hollow":
            shape = rounded(one["width"], one["height"], one["outer"]).difference(
                rounded(one["width"] - 2 * one["wall"], one["height"] - 2 * one["wall"], one["inner"])
            )
        elif kind == "tube":
            shape = Point(0, 0).buffer(one["diameter"] / 2, quad_segs=fine).difference(Point(0, 0).buffer(one["diameter"] / 2 - one["wall"], quad_segs=fine))
        elif kind == "angle":
            a, b, t, r = one["height"], one["width"], one["thickness"], one["root"]
            raw = unary_union([box(0, 0, b, t), box(0, 0, t, a)])
            # Root: a closing fills the inner corner. Toes: what an opening takes off two outer corners.
            filled = raw.buffer(r, quad_segs=fine).buffer(-r, quad_segs=fine)
            toe = r / 2
            corner = (1 - math.pi / 4) * toe * toe
            print(json.dumps({"area": filled.area - 2 * corner}))
            continue
        else:
            h, b, tw, tf, r = one["height"], one["width"], one["web"], one["flange"], one["root"]
            left = 0 if kind == "channel" else b / 2 - tw / 2
            taper = one.get("taper", 0)
            if taper:
                # The flange is as thick as told at half its width. A rounded corner of an angle takes or fills
                # r^2 (cot(angle / 2) - (pi - angle) / 2); of the root and of the toe it is a right angle and the taper.
                toe, heel = tf - taper * b / 2, tf + taper * (b / 2 - tw)
                lower = Polygon([(0, 0), (b, 0), (b, toe), (tw, heel), (0, heel)])
                raw = unary_union([box(0, 0, tw, h), lower, scale(lower, 1, -1, origin=(0, h / 2))])
                angle = math.pi / 2 + math.atan(taper)
                corner = 1 / math.tan(angle / 2) - (math.pi - angle) / 2
                print(json.dumps({"area": raw.area + 2 * corner * (r * r - r * r / 4)}))
                continue
            raw = unary_union([box(left, 0, left + tw, h), box(0, 0, b, tf), box(0, h - tf, b, h)])
            # Each root is a square less a quarter of a disc.
            fillets = (2 if kind == "channel" else 4) * (1 - math.pi / 4) * r * r
            print(json.dumps({"area": raw.area + fillets}))
            continue
        print(json.dumps({"area": shape.area, "centroid": [shape.centroid.x, shape.centroid.y]}))


def coped(entries):
    from OCP.BRepAlgoAPI import BRepAlgoAPI_Cut
    from OCP.BRepGProp import BRepGProp
    from OCP.BRepPrimAPI import BRepPrimAPI_MakeCylinder
    from OCP.GProp import GProp_GProps
    from OCP.TopAbs import TopAbs_SOLID
    from OCP.TopExp import TopExp_Explorer
    from OCP.gp import gp_Ax2, gp_Dir, gp_Pnt

    for one in entries:
        angle = math.radians(one["degrees"])
        way = gp_Dir(math.cos(angle), 0, math.sin(angle))
        place = gp_Ax2(gp_Pnt(0, 0, 0), way)
        outside = BRepPrimAPI_MakeCylinder(place, one["branch"] / 2, one["length"]).Shape()
        inside = BRepPrimAPI_MakeCylinder(place, one["branch"] / 2 - one["wall"], one["length"]).Shape()
        run = BRepPrimAPI_MakeCylinder(gp_Ax2(gp_Pnt(-2000, 0, 0), gp_Dir(1, 0, 0)), one["run"] / 2, 4000).Shape()
        tube = BRepAlgoAPI_Cut(BRepAlgoAPI_Cut(outside, inside).Shape(), run).Shape()
        # Of the pieces that are left, the long one is the member.
        most = 0.0
        explorer = TopExp_Explorer(tube, TopAbs_SOLID)
        while explorer.More():
            figures = GProp_GProps()
            BRepGProp.VolumeProperties_s(explorer.Current(), figures)
            most = max(most, figures.Mass())
            explorer.Next()
        print(json.dumps({"volume": most}))


if __name__ == "__main__":
    {"sections": sections, "coped": coped}[sys.argv[1]](json.load(sys.stdin))
