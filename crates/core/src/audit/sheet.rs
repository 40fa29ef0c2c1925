//! Second derivations of plates and bent sheet.

use crate::patience;
use crate::plane::{MODELLING_TOLERANCE, Moments, Outline, Region};
use crate::sheet::{CutRecord, Figures, Part, displaced, folded_body, folded_centre, rib_displaced};
use crate::space::{Box3, Mesh};

use super::{Audit, second};

/// So many pieces of outline are looked at with every answer; what is more waits for a file to be asked for.
const LIGHT_PIECES: usize = 1500;
/// A blank of more pieces of outline is walked before a file, not with every answer: a perforation would slow each edit.
const LIGHT_BLANK: usize = 4000;

/// Checks that [`light_sheet`] makes within a bound, and [`full_sheet`] makes in full.
pub const BOUNDED: [&str; 10] = [
    "cut_took",
    "cut_left",
    "copy",
    "blank_area",
    "blank_first_x",
    "blank_first_y",
    "blank_second_x",
    "blank_second_y",
    "blank_second_xy",
    "blank_area_figure",
];

/// The checks that come with every answer. `mesh_chord` is how far the mesh's chords stray from their arcs, mm.
pub fn light_sheet(part: &Part, figures: &Figures, mesh: &Mesh, mesh_chord: f64) -> Audit {
    let mut audit = Audit::default();
    possible(&mut audit, part, figures);
    if pieces_of(&part.blank.region) <= LIGHT_BLANK {
        blank(&mut audit, part);
    }
    size_by_mesh(&mut audit, figures, mesh, mesh_chord);
    cuts(&mut audit, part, &mut Budget(LIGHT_PIECES));
    copies(&mut audit, part, &mut Budget(LIGHT_PIECES));
    audit
}

/// The checks before a file, besides [`light_sheet`]'s.
pub fn full_sheet(part: &Part, figures: &Figures) -> Audit {
    let mut audit = Audit { full: true, ..Audit::default() };
    blank(&mut audit, part);
    cuts(&mut audit, part, &mut Budget(usize::MAX));
    copies(&mut audit, part, &mut Budget(usize::MAX));
    body(&mut audit, part, figures);
    audit
}

/// How many pieces of outline may still be looked at.
struct Budget(usize);

impl Budget {
    fn takes(&mut self, pieces: usize) -> bool {
        let fits = pieces <= self.0;
        self.0 = self.0.saturating_sub(pieces);
        fits
    }
}

fn possible(audit: &mut Audit, part: &Part, figures: &Figures) {
    audit.positive("thickness", part.flat.thickness, "mm");
    audit.positive("blank's width", figures.blank_width, "mm");
    audit.positive("blank's height", figures.blank_height, "mm");
    audit.positive("blank's net area", figures.net_area, "mm2");
    audit.positive("mass", figures.mass, "kg");
    audit.positive("cut length", figures.cut_length, "mm");
    audit.positive("folded volume", figures.folded_volume, "mm3");
    for (axis, value) in
        [("x", figures.centre_of_gravity.x), ("y", figures.centre_of_gravity.y), ("z", figures.centre_of_gravity.z)]
    {
        audit.finite(&format!("centre of gravity's {axis}"), value, "mm");
    }
    for bend in &part.flat.bends {
        audit.positive(&format!("allowance of {}", bend.name), part.flat.strip_of(bend).width, "mm");
    }
}

/// The blank's outline walked against the sum of its panels and strips: area alone is blind to what is shifted or mirrored.
fn blank(audit: &mut Audit, part: &Part) {
    let around = part.blank.extents();
    let about = (around.centre().x, around.centre().y);
    let walked = Moments::of_region(&part.blank.region, about);
    let pieces = part
        .flat
        .nodes
        .iter()
        .fold(Moments::default(), |sum, node| sum.plus(&Moments::of_region(&node.region, about), 1.0));
    let rim = part.blank.region.perimeter();
    let reach = around.width().max(around.height());
    let because = "the modelling tolerance along the rim";
    let film = 10.0 * MODELLING_TOLERANCE * rim.max(1.0);
    let (one, two) = ("by walking the blank's edges", "as the sum of its panels and strips");
    let mut say = |check: &str, what: &str, unit: &str, a: f64, b: f64, tolerance: f64| {
        audit.compare(check, format!("{what} of the blank"), unit, (one, a), (two, b), (tolerance, because));
    };
    say("blank_area", "area", "mm2", walked.area, pieces.area, film);
    say("blank_first_x", "first moment across", "mm3", walked.x, pieces.x, film * reach);
    say("blank_first_y", "first moment up", "mm3", walked.y, pieces.y, film * reach);
    let square = film * reach * reach;
    say("blank_second_x", "second moment across", "mm4", walked.xx, pieces.xx, square);
    say("blank_second_y", "second moment up", "mm4", walked.yy, pieces.yy, square);
    say("blank_second_xy", "mixed second moment", "mm4", walked.xy, pieces.xy, square);
    let closed = part.blank.region.area();
    audit.compare(
        "blank_area_figure",
        "area of the blank",
        "mm2",
        ("by the formula of arcs and triangles", closed),
        ("by integration along its edges", walked.area),
        (film, because),
    );
}

fn size_by_mesh(audit: &mut Audit, figures: &Figures, mesh: &Mesh, chord: f64) {
    if mesh.triangles.is_empty() {
        return;
    }
    let size = mesh.extents().size();
    let reason = "chords of the mesh lie within their arcs";
    for (axis, exact, drawn) in [
        ("x", figures.folded_size.x, size.x),
        ("y", figures.folded_size.y, size.y),
        ("z", figures.folded_size.z, size.z),
    ] {
        audit.compare(
            "size_mesh",
            format!("overall size along {axis}"),
            "mm",
            ("from its edges", exact),
            ("from its mesh", drawn),
            (2.0 * chord + 1e-6, reason),
        );
    }
}

fn pieces_of(region: &Region) -> usize {
    region.outlines().map(|one| one.edges.len()).sum()
}

/// What each cut took, node by node, against what another library says that it should have taken.
fn cuts(audit: &mut Audit, part: &Part, budget: &mut Budget) {
    for record in &part.flat.cuts {
        patience::check();
        let cost = record.nodes.iter().map(|node| pieces_of(&node.before) + record.tool.edges.len()).sum();
        if budget.takes(cost) {
            cut(audit, record);
        }
    }
}

fn cut(audit: &mut Audit, record: &CutRecord) {
    // Chords stray from the arcs of the tool, and from those of the node that the cut parts.
    let arcs = |outline: &Outline| -> f64 {
        outline.segments().filter(|(edge, _)| !edge.is_line()).map(|(edge, _)| edge.length()).sum()
    };
    for node in &record.nodes {
        let round = arcs(&record.tool) + node.before.outlines().map(arcs).sum::<f64>();
        let rim = record.tool.perimeter() + node.before.perimeter();
        let tolerance = 4.0 * second::CHORD * round + 10.0 * MODELLING_TOLERANCE * rim + 1e-6;
        let because = "chords within 0.0005 mm of the arcs";
        let took = node.before.area() - node.after.iter().map(Region::area).sum::<f64>();
        let (should, differs) = second::cut(&node.before, &record.tool, &node.after).unwrap_or((f64::NAN, f64::NAN));
        let what = |of: &str| format!("{of} {} by {}", node.node, record.name);
        audit.compare(
            "cut_took",
            what("area taken of"),
            "mm2",
            ("as it was cut", took),
            ("as it should be cut", should),
            (tolerance, because),
        );
        audit.compare(
            "cut_left",
            what("metal left of"),
            "mm2",
            ("differing", differs),
            ("where both ways agree", 0.0),
            (tolerance, because),
        );
    }
}

/// What was made again lies where the first one's motion takes it, mirrored where that mirrors, and reaches as far.
fn copies(audit: &mut Audit, part: &Part, budget: &mut Budget) {
    let by_name: std::collections::HashMap<&str, usize> =
        part.flat.holes.iter().enumerate().map(|(at, hole)| (hole.name.as_str(), at)).collect();
    for hole in part.flat.holes.iter() {
        patience::check();
        let Some(copy) = &hole.copy else { continue };
        let Some(first) = by_name.get(copy.of.as_str()).map(|&at| &part.flat.holes[at]) else { continue };
        if !budget.takes(first.outline.edges.len() * 2) {
            continue;
        }
        // Reflected point by point here, not by the way that made it.
        let mut image = first.outline.moved(|point| {
            let mut to = point;
            if let Some((on, normal)) = copy.mirror {
                let off = (point.x - on.x) * normal.x + (point.y - on.y) * normal.y;
                to.x -= 2.0 * off * normal.x;
                to.y -= 2.0 * off * normal.y;
            }
            to + copy.shift
        });
        if copy.mirror.is_some() {
            image.edges.iter_mut().for_each(|edge| edge.bulge = -edge.bulge);
        }
        let differs = second::difference(&image, &hole.outline).unwrap_or(f64::NAN);
        let tolerance = 4.0 * second::CHORD * image.perimeter() + 1e-6;
        audit.compare(
            "copy",
            format!("outline of {} as a copy of {}", hole.name, copy.of),
            "mm2",
            ("differing", differs),
            ("where it lies as the first one moved", 0.0),
            (tolerance, "chords within 0.0005 mm of the arcs"),
        );
    }
}

/// What the bodies of forms differ by from the flat metal in their place, operation by operation: thinning is not computed, and the blank's
/// mass stays as it is. Returns the sum, mm3.
fn forms(audit: &mut Audit, part: &Part) -> f64 {
    let flat = &part.flat;
    let mut all: Vec<(&str, usize, f64, f64)> = Vec::new();
    let mut add = |operation, formula: f64, faces: Option<f64>| {
        patience::check();
        let faces = faces.unwrap_or(f64::NAN);
        match all.iter_mut().find(|(own, ..)| *own == operation) {
            Some(own) => (own.1, own.2, own.3) = (own.1 + 1, own.2 + formula, own.3 + faces),
            None => all.push((operation, 1, formula, faces)),
        }
    };
    for form in flat.forms.iter() {
        add(&form.operation, form.mass(flat.thickness).volume, displaced(flat, form));
    }
    for rib in flat.ribs.iter() {
        add(&rib.operation, rib.mass(flat).0, rib_displaced(flat, rib));
    }
    for &(operation, count, formula, faces) in &all {
        audit.compare(
            "form",
            format!("{count} x {operation} as formed less as flat, thinning not computed"),
            "mm3",
            ("by formula", formula),
            ("by its faces", faces),
            (
                1e-6 * formula.abs() + 1e-4 * count as f64,
                "planes, cones and cylinders are integrated; a round rim on a bend is in cubic pieces",
            ),
        );
    }
    all.iter().map(|own| own.2).sum()
}

/// Volume, centre of gravity and size by the faces of the solid, heads and blind holes with them.
fn body(audit: &mut Audit, part: &Part, figures: &Figures) {
    let body = match folded_body(&part.flat) {
        Ok(body) => body,
        Err(fault) => {
            audit.left_out.push(format!("volume and size by the solid's faces: {fault}"));
            return;
        }
    };
    let mass = body.mass();
    let shown = figures.folded_volume + forms(audit, part);
    let heads = match (figures.removed > 0.0, part.flat.forms.is_empty() && part.flat.ribs.is_empty()) {
        (false, true) => "by panels and strips",
        (true, true) => "by panels and strips, less countersinks, counterbores and blind holes by their formulas",
        (false, false) => "by panels and strips, with what forms differ by",
        (true, false) => "by panels and strips, less heads and blind holes, with what forms differ by",
    };
    audit.compare(
        "folded_volume",
        "volume of the folded part",
        "mm3",
        (heads, shown),
        ("by the faces of its solid", mass.volume),
        (1e-6 * shown.abs() + 1e-3, "edges that slant across a bend are cubic pieces within 1e-6 mm"),
    );
    let reach: f64 = figures.folded_size.length().max(1.0);
    let (one, two) = (folded_centre(part), mass.centre);
    for (axis, a, b) in [("x", one.x, two.x), ("y", one.y, two.y), ("z", one.z, two.z)] {
        audit.compare(
            "centre_of_gravity",
            format!("folded solid's centre along {axis}"),
            "mm",
            ("by panels and strips", a),
            ("by the faces of its solid", b),
            (1e-5 * reach, "a bend's centre is integrated along its rim"),
        );
    }
    let around: Box3 = body.extents();
    let (one, two) = (figures.folded_size, around.size());
    for (axis, a, b) in [("x", one.x, two.x), ("y", one.y, two.y), ("z", one.z, two.z)] {
        audit.compare(
            "size_body",
            format!("overall size along {axis}"),
            "mm",
            ("from the edges of panels and bends", a),
            ("from the faces of its solid", b),
            (2e-3, "edges that slant across a bend are looked at in 64 places"),
        );
    }
}
