"""Folds a blank from its DXF file by arithmetic of its own and says how far its panels' corners come from where they should.

Usage: fold_dxf.py BLANK.dxf WANTED.json [...]. Bend lines with "B1 up 90 deg R3" and the table's "BA 4.7 mm" are all that is known of
the bends; where the wanted file tells exact angles and a K-factor, what the drawing says is held against them and they are folded
by, since a drawing rounds. Panels are told apart by shapely: the outline less a strip of the allowance's width along each bend line.
"""

import json
import math
import re
import sys

import ezdxf
from shapely.geometry import LineString, Point, Polygon
from shapely.ops import polygonize_full, unary_union


def folded(path, wanted_path):
    document = ezdxf.readfile(path)
    wanted = json.load(open(wanted_path, encoding="utf-8"))
    space = document.modelspace()
    T = wanted["thickness"]

    def flat(point):
        return (point.x, point.y)


    lines = []
    cut = []
    for entity in space.query('*[layer=="CUT"]'):
        # ezdxf's own lines and arcs of a polyline.
        cut.extend(entity.virtual_entities() if entity.dxftype() == "LWPOLYLINE" else [entity])
    for entity in cut:
        if entity.dxftype() == "LINE":
            lines.append(LineString([flat(entity.dxf.start), flat(entity.dxf.end)]))
        elif entity.dxftype() == "ARC":
            lines.append(LineString([flat(p) for p in entity.flattening(0.001)]))
        elif entity.dxftype() == "CIRCLE":
            lines.append(LineString([flat(p) for p in entity.flattening(0.001)]))


    def snapped(line):
        return LineString([(round(x, 4), round(y, 4)) for x, y in line.coords])


    faces, _, dangles, _ = polygonize_full([snapped(line) for line in lines])
    faces = list(faces.geoms)
    # Lines that close nothing are tears: cut once, a film wide.
    tears = [line.buffer(1e-4, cap_style="square") for line in dangles.geoms]
    outer = max(faces, key=lambda one: Polygon(one.exterior).area)
    blank = Polygon(outer.exterior)
    for face in faces:
        if face is not outer and blank.contains(face.representative_point()):
            blank = blank.difference(Polygon(face.exterior))
    for tear in tears:
        blank = blank.difference(tear)

    def exact(degrees, radius, allowance):
        """The angle in radians, the radius and the allowance without what the drawing rounds away."""
        angles = [one for one in wanted.get("angles", []) if abs(math.degrees(one) - degrees) < 6e-4]
        if not angles:
            return math.radians(degrees), radius, allowance
        angle = min(angles, key=lambda one: abs(math.degrees(one) - degrees))
        by_k = [angle * (radius + k * T) for k in wanted["k"]]
        return angle, radius, min(by_k + [allowance], key=lambda one: (abs(one - allowance) > 6e-4, one == allowance))


    texts = [entity.dxf.text for entity in space.query("TEXT")]
    bends = []
    for entity in space.query("TEXT"):
        said = re.fullmatch(r"(B\d+) (up|down) ([\d.]+) deg R([\d.]+)", entity.dxf.text)
        if not said:
            continue
        mark, way, angle, radius = said.groups()
        row = next(text for text in texts if text.startswith(mark + "  "))
        allowance = float(re.search(r"BA ([\d.]+) mm", row).group(1))
        at = (entity.dxf.insert[0], entity.dxf.insert[1])
        layer = "BEND-UP" if way == "up" else "BEND-DOWN"

        def off(line):
            (ax, ay), (bx, by) = flat(line.dxf.start), flat(line.dxf.end)
            return abs((bx - ax) * (at[1] - ay) - (by - ay) * (at[0] - ax)) / math.dist((ax, ay), (bx, by))

        own = [line for line in space.query(f'LINE[layer=="{layer}"]') if off(line) < 1e-4]
        for line in own:
            bends.append((flat(line.dxf.start), flat(line.dxf.end), way, *exact(float(angle), float(radius), allowance)))


    def strip(bend, more=0.0):
        (ax, ay), (bx, by), *_, width = bend
        length = math.dist((ax, ay), (bx, by))
        ux, uy = (bx - ax) / length, (by - ay) / length
        nx, ny, h = -uy, ux, width / 2
        return Polygon(
            [
                (ax - ux * more - nx * h, ay - uy * more - ny * h),
                (bx + ux * more - nx * h, by + uy * more - ny * h),
                (bx + ux * more + nx * h, by + uy * more + ny * h),
                (ax - ux * more + nx * h, ay - uy * more + ny * h),
            ]
        )


    rest = blank.difference(unary_union([strip(bend, 1e-3) for bend in bends]).buffer(1e-7)) if bends else blank
    panels = [one for one in getattr(rest, "geoms", [rest]) if one.area > 1.0]


    def apply(motion, p):
        return [sum(motion[r][c] * p[c] for c in range(3)) + motion[r][3] for r in range(3)]


    def after(a, b):
        return [[sum(a[r][k] * b[k][c] for k in range(3)) + (a[r][3] if c == 3 else 0) for c in range(4)] for r in range(3)]


    def turn(point, axis, angle):
        x, y, z = axis
        c, s = math.cos(angle), math.sin(angle)
        m = [
            [c + x * x * (1 - c), x * y * (1 - c) - z * s, x * z * (1 - c) + y * s],
            [y * x * (1 - c) + z * s, c + y * y * (1 - c), y * z * (1 - c) - x * s],
            [z * x * (1 - c) - y * s, z * y * (1 - c) + x * s, c + z * z * (1 - c)],
        ]
        return [row + [point[r] - sum(row[k] * point[k] for k in range(3))] for r, row in enumerate(m)]


    def beyond(bend, side):
        """What the panel on one side of a bend does when the other stays: shifted back by the allowance, then turned about the axis."""
        (ax, ay), (bx, by), way, angle, radius, width = bend
        length = math.dist((ax, ay), (bx, by))
        ux, uy = (bx - ax) / length * side, (by - ay) / length * side
        nx, ny = -uy, ux
        # The tangent line on the side that stays, and the axis over it (or under it for a bend down).
        foot = (ax - nx * width / 2, ay - ny * width / 2)
        height = T + radius if way == "up" else -radius
        back = [[1, 0, 0, -nx * width], [0, 1, 0, -ny * width], [0, 0, 1, 0]]
        return after(turn((foot[0], foot[1], height), (ux, uy, 0), angle if way == "up" else -angle), back)


    def home_motion(corners):
        """Where the first panel lies: the motion that takes its corners in the flat to their places."""
        (ax, ay, *a), (bx, by, *b) = corners[0], max(corners[1:], key=lambda one: math.dist(one[:2], corners[0][:2]))
        side = lambda one: abs((bx - ax) * (one[1] - ay) - (by - ay) * (one[0] - ax))
        cx, cy, *c = max(corners, key=side)
        ux, uy, vx, vy = bx - ax, by - ay, cx - ax, cy - ay
        det = ux * vy - uy * vx
        u, v = [q - p for p, q in zip(a, b)], [q - p for p, q in zip(a, c)]
        x = [(p * vy - q * uy) / det for p, q in zip(u, v)]
        y = [(q * ux - p * vx) / det for p, q in zip(u, v)]
        z = [x[1] * y[2] - x[2] * y[1], x[2] * y[0] - x[0] * y[2], x[0] * y[1] - x[1] * y[0]]
        return [[x[r], y[r], z[r], a[r] - x[r] * ax - y[r] * ay] for r in range(3)]


    home = Polygon([(x, y) for x, y, *_ in wanted["panels"][0]["corners"]]).representative_point()
    at = next(index for index, panel in enumerate(panels) if Polygon(panel.exterior).contains(home))
    motions = {at: home_motion(wanted["panels"][0]["corners"])}
    queue = [at]
    while queue:
        here = queue.pop()
        for bend in bends:
            # Beside the strip, not past its ends: there panels stand that other bends carry.
            band = strip(bend, -min(0.05, math.dist(*bend[:2]) / 8)).buffer(5e-3, cap_style="flat", join_style="mitre")
            if not panels[here].intersects(band):
                continue
            (ax, ay), (bx, by), *_ = bend
            for there, panel in enumerate(panels):
                if there in motions or not panel.intersects(band):
                    continue
                middle, own = panel.intersection(band).representative_point(), panels[here].intersection(band).representative_point()
                cross = lambda p: (bx - ax) * (p.y - ay) - (by - ay) * (p.x - ax)
                if cross(middle) * cross(own) >= 0:
                    continue
                motions[there] = after(motions[here], beyond(bend, 1 if cross(middle) > 0 else -1))
                queue.append(there)

    worst, count = 0.0, 0
    for one in wanted["panels"]:
        inside = Polygon([(x, y) for x, y, *_ in one["corners"]]).representative_point()
        there = next((index for index, panel in enumerate(panels) if Polygon(panel.exterior).buffer(1e-3).contains(inside)), None)
        if there is None or there not in motions:
            continue
        for x, y, *to in one["corners"]:
            worst = max(worst, math.dist(apply(motions[there], (x, y, 0.0)), to))
            count += 1
    return {"worst": worst, "corners": count, "panels": len(panels)}


for at in range(1, len(sys.argv), 2):
    print(json.dumps(folded(sys.argv[at], sys.argv[at + 1])))
