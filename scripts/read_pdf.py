"""Opens PDF files with pdfplumber and prints, one JSON object a page, what stands on it in millimetres.

Usage: read_pdf.py FILE ... . `cut` holds the ends of heavy strokes (the outline and the check lines), `thin` those of the
thinnest (centres and register marks); places from the lower left corner of the paper.
"""

import json
import sys

import pdfplumber

MM = 25.4 / 72


def strokes(page):
    for line in page.lines:
        yield line["linewidth"], [(line["x0"], line["y0"]), (line["x1"], line["y1"])]
    for curve in page.curves:
        # Curves come with y from the top of the page, ends and handles in turn.
        yield curve["linewidth"], [(x, float(page.height) - y) for x, y in curve["pts"]]


def main():
    for name in sys.argv[1:]:
        with pdfplumber.open(name) as pdf:
            for page in pdf.pages:
                found = {"width": float(page.width) * MM, "height": float(page.height) * MM, "cut": [], "thin": []}
                for weight, points in strokes(page):
                    places = [[float(x) * MM, float(y) * MM] for x, y in points]
                    if abs(weight - 0.7) < 1e-6:
                        found["cut"].append(places)
                    elif abs(weight - 0.35) < 1e-6:
                        found["thin"].append(places)
                # Every word that stands on it, with how far the words reach.
                found["all"] = " ".join((page.extract_text() or "").split())
                # What a reader of the paper sees: nothing that runs off it.
                seen = page.filter(lambda one: one["object_type"] != "char" or float(one["x1"]) <= float(page.width))
                found["inside"] = " ".join((seen.extract_text() or "").split())
                high = float(page.height)
                if page.chars:
                    found["lowest"] = (high - max(float(one["bottom"]) for one in page.chars)) * MM
                    found["highest"] = (high - min(float(one["top"]) for one in page.chars)) * MM
                    found["left"] = min(float(one["x0"]) for one in page.chars) * MM
                    found["right"] = max(float(one["x1"]) for one in page.chars) * MM
                found["words"] = (page.extract_text() or "").splitlines()[:1]
                print(json.dumps(found))


if __name__ == "__main__":
    main()
