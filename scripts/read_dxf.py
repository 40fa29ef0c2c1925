"""Opens DXF files with ezdxf and measures what is on the CUT layer with shapely. Prints one JSON object a file.

Arcs are measured exactly: the polygon of chord ends by shapely, plus each arc's circular segment by its closed form.
"""

import json
import math
import sys

import ezdxf
from ezdxf import recover
from shapely.geometry import Point, Polygon


def rings(entities):
    """Chains lines and arcs end to end; yields lists of (start, bulge)."""
    pieces = []
    for entity in entities:
        if entity.dxftype() == "LINE":
            pieces.append([(entity.dxf.start.x, entity.dxf.start.y), (entity.dxf.end.x, entity.dxf.end.y), 0.0])
        elif entity.dxftype() == "ARC":
            sweep = math.radians((entity.dxf.end_angle - entity.dxf.start_angle) % 360)
            start, end = entity.start_point, entity.end_point
            pieces.append([(start.x, start.y), (end.x, end.y), math.tan(sweep / 4)])
    while pieces:
        start, here, bulge = pieces.pop(0)
        ring = [(start, bulge)]
        while math.dist(here, start) > 1e-6:
            for at, (a, b, bend) in enumerate(pieces):
                if math.dist(a, here) < 1e-6:
                    ring.append((a, bend))
                    here = b
                    pieces.pop(at)
                    break
                if math.dist(b, here) < 1e-6:
                    ring.append((b, -bend))
                    here = a
                    pieces.pop(at)
                    break
            else:
                raise SystemExit(f"outline open at {here}")
        yield ring


def area(ring):
    polygon = Polygon([point for point, _ in ring])
    total = polygon.area
    ccw = polygon.exterior.is_ccw
    for at, (start, bulge) in enumerate(ring):
        if bulge:
            end = ring[(at + 1) % len(ring)][0]
            sweep = 4 * math.atan(bulge)
            radius = math.dist(start, end) * (1 + bulge * bulge) / (4 * abs(bulge))
            cap = radius * radius * (sweep - math.sin(sweep)) / 2
            total += cap if ccw else -cap
    return total


for path in sys.argv[1:]:
    document, _ = recover.readfile(path)
    auditor = document.audit()
    space = document.modelspace()
    cut = []
    for entity in space:
        if entity.dxf.layer != "CUT":
            continue
        if entity.dxftype() == "LWPOLYLINE":
            assert entity.closed, f"{path}: an open polyline is no contour"
            # ezdxf's own lines and arcs of a polyline.
            cut.extend(entity.virtual_entities())
        else:
            cut.append(entity)
    circles = [entity for entity in cut if entity.dxftype() == "CIRCLE"]
    # The outside is the largest contour, a ring of lines and arcs or a circle.
    areas = [abs(area(ring)) for ring in rings(cut)] + [math.pi * circle.dxf.radius**2 for circle in circles]
    contours = sorted(areas, reverse=True)
    # The circles once more by shapely's own buffer, as a check on the check: a 64-gon's area is within 0.2 %.
    for circle in circles:
        round_ = Point(circle.dxf.center.x, circle.dxf.center.y).buffer(circle.dxf.radius, quad_segs=64)
        assert abs(round_.area / (math.pi * circle.dxf.radius**2) - 1) < 2e-3
    print(
        json.dumps(
            {
                "version": document.dxfversion,
                "units": document.header["$INSUNITS"],
                "errors": [str(error) for error in auditor.errors],
                "fixes": sorted({error.code for error in auditor.fixes}),
                "layers": sorted(layer.dxf.name for layer in document.layers),
                "net_area": contours[0] - sum(contours[1:]),
                "circles": sorted(c.dxf.radius for c in circles),
                "arcs": sum(entity.dxftype() == "ARC" for entity in cut),
                "bends": sorted((e.dxf.layer, round(e.dxf.start.distance(e.dxf.end), 6)) for e in space if e.dxf.layer.startswith("BEND")),
                "texts": sorted(e.dxf.text for e in space.query("TEXT")),
            }
        )
    )
