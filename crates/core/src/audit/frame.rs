//! Second derivations of frames.

use std::collections::{BTreeMap, BTreeSet};

use crate::frame::{FrameMade, Weld, is_drilled, member_body, weld_lengths_back, wrap_template};
use crate::patience;
use crate::quantity::tolerance::CUBIC_METRES;
use crate::space::{Body, Point3, Vector3};
use crate::work::frame::OneEnd;

use super::{Audit, full_sheet};

/// How far a chord may lie off the arc that it stands for, mm.
const CHORD: f64 = 1e-4;

/// The checks that come with every answer.
pub fn light_frame(made: &FrameMade) -> Audit {
    let mut audit = Audit::default();
    for line in &made.list.lines {
        let of = |what: &str| format!("{what} of {}", line.mark);
        audit.positive(&of("mass"), line.mass_each, "kg");
        audit.positive(&of("length"), line.length, "mm");
        audit.positive(&of("painted area"), line.paint_each, "m2");
    }
    for sum in made.list.sums.iter().filter(|sum| sum.pieces > 0) {
        let at = sum.centre_of_gravity;
        for (axis, value) in [("x", at.x), ("y", at.y), ("z", at.z)] {
            audit.finite(&format!("centre of gravity's {axis}"), value, "mm");
        }
    }
    plates(&mut audit, made);
    audit
}

/// The checks before a file, besides [`light_frame`]'s.
pub fn full_frame(made: &FrameMade) -> Audit {
    let mut audit = Audit { full: true, ..Audit::default() };
    masses(&mut audit, made);
    size(&mut audit, made);
    wraps(&mut audit, made);
    for plate in &made.frame.plates {
        let mut own = full_sheet(&plate.part, &crate::sheet::figures(&plate.part));
        for pair in &mut own.pairs {
            pair.what = format!("{} ({})", pair.what, plate.name);
        }
        audit.extend(own);
    }
    audit
}

/// The length of weld between every two pieces as the first of them sees it, against what the second sees.
pub fn full_welds(made: &FrameMade, welds: &[Weld], widest: f64) -> Audit {
    let mut audit = Audit { full: true, ..Audit::default() };
    let back = weld_lengths_back(made, widest);
    let mut there: BTreeMap<[String; 2], f64> = BTreeMap::new();
    for weld in welds {
        if let [one, two] = weld.parts.as_slice() {
            *there.entry([one.clone(), two.clone()]).or_default() += weld.length;
        }
    }
    let exact = |name: &str| {
        let member = made.frame.members.iter().position(|member| member.name == name);
        member.is_none_or(|at| made.member_body(at).is_ok())
    };
    let pairs: BTreeSet<&[String; 2]> = there.keys().chain(back.keys()).collect();
    for pair in pairs.into_iter().filter(|pair| pair.iter().all(|name| exact(name))) {
        patience::check();
        let [one, two] = pair;
        let (first, second) = (there.get(pair).unwrap_or(&0.0), back.get(pair).unwrap_or(&0.0));
        if *first == 0.0 && *second == 0.0 {
            continue;
        }
        audit.compare(
            "weld_length",
            format!("length of weld of {one} and {two}"),
            "mm",
            (&format!("seen from {one}"), *first),
            (&format!("seen from {two}"), *second),
            (0.02 + 1e-4 * first, "slanted rounds are looked at in chords of 0.001 mm, laid out from either piece"),
        );
    }
    audit
}

/// Where each plate lies on the frame as built against where its numbers tell it to lie, reckoned from the members' faces.
fn plates(audit: &mut Audit, made: &FrameMade) {
    for plate in &made.frame.plates {
        // The plate as it was laid down: what is bent from it or cut off it later moves none of what was told.
        let Some(root) = plate.part.flat.nodes.first() else { continue };
        if plate.work.len() > 1 {
            continue;
        }
        let outline = root.region.outer.flatten(CHORD);
        for told in &plate.told {
            let corners =
                outline.iter().flat_map(|at| [0.0, plate.thickness].map(|t| plate.basis.place(at.x, at.y, t)));
            audit.compare(
                "plate_place",
                format!("place of {}, {}", plate.name, told.what),
                "mm",
                ("as it lies on the frame", told.of(corners)),
                ("as its numbers tell, from the faces of the members", told.value),
                (6e-3, "round edges are looked at in chords, and ellipses laid in lines within 0.005 mm"),
            );
        }
    }
}

/// Mass and centre of gravity by the list against those of the bodies; each member's length against its body's.
fn masses(audit: &mut Audit, made: &FrameMade) {
    let (mut mass, mut first) = (0.0, Vector3::default());
    for member in &made.frame.members {
        patience::check();
        // Holes that the body does not show are left out of it and taken off here as the list takes them off.
        let mut plain = member.clone();
        let shown = |body: &Body| member.bores.iter().all(|bore| is_drilled(member, bore, body));
        let made_bodies = member_body(member).and_then(|body| {
            if shown(&body) {
                return Ok((body, true));
            }
            plain.strip_bores();
            member_body(&plain).map(|body| (body, false))
        });
        let (body, with_bores) = match made_bodies {
            Ok(bodies) => bodies,
            Err(fault) => {
                audit.left_out.push(format!("mass of {} by its body: {fault}", member.name));
                return;
            }
        };
        let own = body.mass();
        let (mut volume, mut moment) = (own.volume, own.centre.from_origin() * own.volume);
        if !with_bores {
            let (taken, at) = member.bored_moments();
            volume -= taken;
            moment = moment - at;
        }
        audit.compare(
            "member_mass",
            format!("mass of {}", member.name),
            "kg",
            ("by its section and cuts", member.mass()),
            ("by the faces of its body", volume * member.density() * CUBIC_METRES),
            (1e-6 * member.mass().abs() + 1e-9, "exact faces"),
        );
        let own = member.centre_of_gravity();
        let other = Point3::default() + moment * (1.0 / volume);
        audit.compare(
            "member_centre",
            format!("centre of gravity of {}", member.name),
            "mm",
            ("apart by both ways", own.distance(other)),
            ("where they agree", 0.0),
            (1e-5 * member.length().max(1.0), "exact faces"),
        );
        length(audit, member, &body);
        mass += volume * member.density() * CUBIC_METRES;
        first = first + moment * (member.density() * CUBIC_METRES);
    }
    for plate in &made.frame.plates {
        // Plates are held against their own bodies one by one.
        mass += plate.mass();
        first = first + plate.centre_of_gravity().from_origin() * plate.mass();
    }
    if let Some(whole) = made.list.sums.first().filter(|sum| sum.pieces > 0) {
        audit.compare(
            "frame_mass",
            "mass of the frame",
            "kg",
            ("by its list", whole.mass),
            ("by its bodies", mass),
            (1e-6 * mass.abs() + 1e-9, "exact faces"),
        );
        let centre = Point3::default() + first * (1.0 / mass);
        audit.compare(
            "frame_centre",
            "centre of gravity of the frame",
            "mm",
            ("apart by both ways", whole.centre_of_gravity.distance(centre)),
            ("where they agree", 0.0),
            (1e-2, "pieces that differ by less than the saw holds are one line of the list"),
        );
    }
}

/// The overall size by the bodies against that by the corners of sections as cut.
fn size(audit: &mut Audit, made: &FrameMade) {
    let Some(around) = made.extents() else { return };
    let corners = made.extents_by_corners();
    let members = &made.frame.members;
    let coped = members.iter().flat_map(|member| &member.ends).any(|end| !end.copes.is_empty());
    let tolerance = if !members.iter().all(crate::frame::Member::is_straight) {
        (0.08, "bent members are looked at in chords of 0.05 mm on both sides")
    } else if coped {
        (0.02, "the tips of copes are sharp, and looked at in 4096 places an edge")
    } else {
        (5e-3, "corners of rounds are looked at in chords")
    };
    for (way, body, corner) in [
        ("x", around.size().x, corners.size().x),
        ("y", around.size().y, corners.size().y),
        ("z", around.size().z, corners.size().z),
    ] {
        audit.compare(
            "frame_size",
            format!("overall size of the frame along {way}"),
            "mm",
            ("by its bodies", body),
            ("by the corners of its sections as cut", corner),
            tolerance,
        );
    }
}

/// A straight member's length by its planes against how far its body reaches along it.
fn length(audit: &mut Audit, member: &crate::frame::Member, body: &Body) {
    if !member.is_straight() || member.has_cutouts() {
        return;
    }
    // Turned so that the member runs along x: the box is then its length.
    let basis = member.start;
    let back = crate::space::Motion::to_frame(basis.origin, basis.w, basis.u, basis.v).inverse();
    let around = body.moved(&back, str::to_string).extents();
    audit.compare(
        "member_length",
        format!("length of {}", member.name),
        "mm",
        ("by the planes of its cuts", member.length() - 2.0 * member.grip),
        ("by its body", around.size().x),
        (1e-3, "copes are looked at in chords"),
    );
}

/// A wrap template laid round the tube, as whoever stands before that end with the paper's print outside: each place of its
/// curve must lie on the cut.
fn wraps(audit: &mut Audit, made: &FrameMade) {
    for member in &made.frame.members {
        patience::check();
        for which in OneEnd::BOTH {
            let (Some(wrap), Some((centre, radius))) = (wrap_template(member, which), member.region.outer.as_circle())
            else {
                continue;
            };
            let basis = member.basis(which);
            // Out of the end along the axis, and the seam below.
            let out = if which.is_finish() { basis.w } else { -basis.w };
            let long = member.reach(which).0;
            let mut worst: f64 = 0.0;
            for at in &wrap.curve {
                // Going right on the paper turns right-handed about the way out.
                let angle = at.x / radius;
                let away = -basis.v * angle.cos() + out.cross(-basis.v) * angle.sin();
                let place = basis.place(centre.x, centre.y, long) + (away * radius - out * at.y);
                worst = worst.max(off_cut(member, which, basis.local(place)));
            }
            audit.compare(
                "wrap_template",
                format!("wrap template of {} at its {}", member.name, which.word()),
                "mm",
                ("from the cut when it is laid round the tube", worst),
                ("on the cut", 0.0),
                (1e-3, "the curve is told in half degrees and holds its own places exactly"),
            );
        }
    }
}

/// How far a place, in the end's frame, lies off what cuts the end: the surface that comes first there, mm.
fn off_cut(member: &crate::frame::Member, which: OneEnd, place: Vector3) -> f64 {
    let end = &member.ends[which.at()];
    let planes = end.planes.iter().map(|cut| (cut.normal.dot(place) - cut.level).abs());
    let copes = end.copes.iter().map(|cope| {
        let arm = place - cope.point;
        let away = (arm - cope.axis * arm.dot(cope.axis)).length();
        // Where the tube passes beside the one it is coped on, the cut is where they are nearest.
        if away > cope.radius { 0.0 } else { cope.radius - away }
    });
    planes.chain(copes).fold(f64::INFINITY, f64::min)
}
