"""Holds offsets and containment against shapely. Reads one JSON object a line from a file, prints one a line:

in:  {"outline": [[x, y], ...], "by": mm, "offset": [[[x, y], ...], ...], "points": [[x, y], ...]}
out: {"area": shapely's area of the outline, "buffer": its area after buffering, "apart": area in one and not the other,
      "inside": [whether each point lies inside]}
"""

import json
import sys

from shapely.geometry import MultiPolygon, Point, Polygon
from shapely.ops import unary_union


def main():
    with open(sys.argv[1]) as lines:
        for line in lines:
            case = json.loads(line)
            outline = Polygon(case["outline"])
            buffered = outline.buffer(case["by"], quad_segs=400)
            ours = unary_union([Polygon(ring) for ring in case["offset"]]) if case["offset"] else MultiPolygon()
            print(json.dumps({
                "area": outline.area,
                "buffer": buffered.area,
                "apart": buffered.symmetric_difference(ours).area,
                "inside": [outline.contains(Point(place)) for place in case["points"]],
            }))


if __name__ == "__main__":
    main()
