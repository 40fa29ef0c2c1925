//! Ready frames: their lines by name about their own origin, from a handful of numbers.

use std::collections::BTreeMap;

use crate::finding::Finding;
use crate::quantity::decimal;
use crate::space::{Point3, Vector3};
use crate::work::frame::{Lies, ReadyKind};

use super::outside::Reach;
use super::skeleton::CentreLine;

/// The sizes that a kind needs, and those that it may have.
pub fn sizes_of(kind: ReadyKind) -> (&'static [&'static str], &'static [&'static str]) {
    match kind {
        ReadyKind::Rectangle => (&["width", "depth"], &[]),
        ReadyKind::Box => (&["width", "depth", "height"], &[]),
        ReadyKind::Table => (&["width", "depth", "height"], &["rail"]),
        ReadyKind::Trestle => (&["length", "spread", "height"], &["rail"]),
        ReadyKind::AFrame => (&["width", "height"], &["bar"]),
        ReadyKind::FlatTruss => (&["length", "height", "bays"], &[]),
        ReadyKind::PitchedTruss => (&["span", "rise", "bays"], &[]),
        ReadyKind::Ladder => (&["length", "width", "rungs"], &["first"]),
        ReadyKind::Stair => (&["rise", "going", "width", "steps"], &[]),
    }
}

/// What a line of a ready frame is, by its own name.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct PartOf {
    /// The letter of its mark, as a shop would call it.
    pub mark: &'static str,
    /// Whether it is a leg or a post, which a ring lies on.
    pub stands: bool,
}

/// What a line is, by its own name: `leg-1` a leg.
pub fn part_of(line: &str) -> PartOf {
    let stem = line.split('-').next().unwrap_or(line);
    let (mark, stands) = match stem {
        "leg" => ("L", true),
        "post" | "king" => ("P", true),
        "top" => ("T", false),
        "bottom" | "beam" | "bar" => ("B", false),
        "rail" => ("R", false),
        "rung" => ("G", false),
        "tread" => ("S", false),
        "diagonal" => ("D", false),
        "web" => ("W", false),
        "tie" => ("T", false),
        // The four of a rectangle, the two sides of a ladder, a stair, a roof.
        _ => ("F", false),
    };
    PartOf { mark, stands }
}

/// The sizes to the centre lines of a frame whose outside has these, by what its members reach beyond the lines.
///
/// # Errors
/// A kind whose ends are not square to its sizes; sizes that the members fill.
pub(super) fn to_outside(
    kind: ReadyKind,
    lies: Lies,
    sizes: &mut BTreeMap<String, f64>,
    over: &Reach,
) -> Result<(), Finding> {
    let along = |axis: usize| {
        let of = |v: Vector3| [v.x, v.y, v.z][axis];
        of(over.before) + of(over.after)
    };
    // Which axis each size runs along, as it lies.
    let axes: &[(&str, usize)] = match (kind, lies) {
        (ReadyKind::Rectangle, Lies::Flat) => &[("width", 0), ("depth", 1)],
        (ReadyKind::Rectangle, Lies::Across) => &[("width", 0), ("depth", 2)],
        (ReadyKind::Rectangle, Lies::Lengthwise) => &[("width", 1), ("depth", 2)],
        (ReadyKind::Box | ReadyKind::Table, _) => &[("width", 0), ("depth", 1), ("height", 2)],
        (ReadyKind::Ladder, Lies::Flat) => &[("width", 0), ("length", 1)],
        (ReadyKind::Ladder, Lies::Across) => &[("width", 0), ("length", 2)],
        (ReadyKind::Ladder, Lies::Lengthwise) => &[("width", 1), ("length", 2)],
        _ => {
            return Err(Finding::error(
                "its slanted members have no outside that its sizes could be told to",
                "Tell its sizes to the centre lines.",
            )
            .at_field("sizes_to"));
        }
    };
    for &(name, axis) in axes {
        let Some(size) = sizes.get_mut(name) else { continue };
        if *size <= along(axis) {
            return Err(Finding::error(
                format!("a {name} of {} mm outside is filled by its members", decimal(*size, 3)),
                "Give it a larger size or a smaller section.",
            )
            .at_field(format!("sizes.{name}")));
        }
        *size -= along(axis);
    }
    // A rail's underside: its line is half a member above, and the lines are moved up by what is below them.
    if let Some(rail) = sizes.get_mut("rail") {
        *rail += over.after.z - over.before.z;
    }
    Ok(())
}

/// Sizes that are counts.
pub fn is_count(size: &str) -> bool {
    matches!(size, "bays" | "rungs" | "steps")
}

/// The lines of a ready frame. Lengths in mm, counts whole.
///
/// # Errors
/// A size that is missing, not above zero, or a count out of range, with its name.
pub fn lines(kind: ReadyKind, lies: Lies, sizes: &BTreeMap<String, f64>) -> Result<Vec<CentreLine>, Finding> {
    let size = |name: &str| -> Result<f64, Finding> {
        let value = sizes.get(name).copied().ok_or_else(|| {
            Finding::error(format!("its {name} is missing"), "Give it a number.").at_field(format!("sizes.{name}"))
        })?;
        if value <= 0.0 {
            return Err(Finding::error(format!("a {name} of {value} cannot be built"), "Give it a size above 0.")
                .at_field(format!("sizes.{name}")));
        }
        Ok(value)
    };
    let count = |name: &str| -> Result<usize, Finding> {
        let value = size(name)?;
        if value > 200.0 {
            return Err(Finding::error(format!("{value} {name} are too many: 200 at most"), "Type fewer.")
                .at_field(format!("sizes.{name}")));
        }
        Ok(value.round() as usize)
    };
    let p = Point3::new;
    let mut lines = Vec::new();
    let mut add = |name: &str, from: Point3, to: Point3| lines.push(CentreLine::straight(name, from, to));
    match kind {
        ReadyKind::Rectangle => {
            let (w, d) = (size("width")?, size("depth")?);
            // Walked round, so that every member has its left on the inside.
            let corners = [p(0.0, 0.0, 0.0), p(w, 0.0, 0.0), p(w, d, 0.0), p(0.0, d, 0.0)];
            for (at, name) in ["front", "right", "back", "left"].iter().enumerate() {
                add(name, corners[at], corners[(at + 1) % 4]);
            }
        }
        ReadyKind::Box => {
            let (w, d, h) = (size("width")?, size("depth")?, size("height")?);
            for (stem, z) in [("bottom", 0.0), ("top", h)] {
                let corners = [p(0.0, 0.0, z), p(w, 0.0, z), p(w, d, z), p(0.0, d, z)];
                for (at, name) in ["front", "right", "back", "left"].iter().enumerate() {
                    add(&format!("{stem}-{name}"), corners[at], corners[(at + 1) % 4]);
                }
            }
            for (at, (x, y)) in [(0.0, 0.0), (w, 0.0), (w, d), (0.0, d)].into_iter().enumerate() {
                add(&format!("post-{}", at + 1), p(x, y, 0.0), p(x, y, h));
            }
        }
        ReadyKind::Table => {
            let (w, d, h) = (size("width")?, size("depth")?, size("height")?);
            let corners = [(0.0, 0.0), (w, 0.0), (w, d), (0.0, d)];
            let names = ["front", "right", "back", "left"];
            for (at, name) in names.iter().enumerate() {
                let (one, two) = (corners[at], corners[(at + 1) % 4]);
                add(&format!("top-{name}"), p(one.0, one.1, h), p(two.0, two.1, h));
            }
            for (at, (x, y)) in corners.iter().enumerate() {
                add(&format!("leg-{}", at + 1), p(*x, *y, 0.0), p(*x, *y, h));
            }
            if let Some(&rail) = sizes.get("rail") {
                if rail <= 0.0 || rail >= h {
                    return Err(Finding::error(
                        format!("rails {rail} mm up are not between the floor and the top at {h} mm"),
                        "Put them between.",
                    )
                    .at_field("sizes.rail"));
                }
                for (at, name) in names.iter().enumerate() {
                    let (one, two) = (corners[at], corners[(at + 1) % 4]);
                    add(&format!("rail-{name}"), p(one.0, one.1, rail), p(two.0, two.1, rail));
                }
            }
        }
        ReadyKind::Trestle => {
            let (l, s, h) = (size("length")?, size("spread")?, size("height")?);
            add("beam", p(0.0, 0.0, h), p(l, 0.0, h));
            for (end, x) in [(1, 0.0), (2, l)] {
                add(&format!("leg-{end}-front"), p(x, -s / 2.0, 0.0), p(x, 0.0, h));
                add(&format!("leg-{end}-back"), p(x, s / 2.0, 0.0), p(x, 0.0, h));
                if let Some(&rail) = sizes.get("rail") {
                    let half = s / 2.0 * (1.0 - rail / h);
                    if rail <= 0.0 || rail >= h {
                        return Err(Finding::error(
                            format!("rails {rail} mm up are not between the floor and the beam at {h} mm"),
                            "Put them between.",
                        )
                        .at_field("sizes.rail"));
                    }
                    add(&format!("rail-{end}"), p(x, -half, rail), p(x, half, rail));
                }
            }
        }
        ReadyKind::AFrame => {
            let (w, h) = (size("width")?, size("height")?);
            add("left", p(0.0, 0.0, 0.0), p(w / 2.0, 0.0, h));
            add("right", p(w, 0.0, 0.0), p(w / 2.0, 0.0, h));
            if let Some(&bar) = sizes.get("bar") {
                if bar <= 0.0 || bar >= h {
                    return Err(Finding::error(
                        format!("a bar {bar} mm up is not between the feet and the peak at {h} mm"),
                        "Put it between.",
                    )
                    .at_field("sizes.bar"));
                }
                let inset = w / 2.0 * bar / h;
                add("bar", p(inset, 0.0, bar), p(w - inset, 0.0, bar));
            }
        }
        ReadyKind::FlatTruss => {
            let (l, h, n) = (size("length")?, size("height")?, count("bays")?);
            add("bottom", p(0.0, 0.0, 0.0), p(l, 0.0, 0.0));
            add("top", p(0.0, 0.0, h), p(l, 0.0, h));
            let x = |at: usize| l * at as f64 / n as f64;
            for at in 0..=n {
                add(&format!("post-{}", at + 1), p(x(at), 0.0, 0.0), p(x(at), 0.0, h));
            }
            for at in 0..n {
                // Diagonals fall toward the middle: in tension under a load from above.
                let name = format!("diagonal-{}", at + 1);
                if 2 * at + 1 < n || (n == 1) {
                    add(&name, p(x(at), 0.0, h), p(x(at + 1), 0.0, 0.0));
                } else {
                    add(&name, p(x(at), 0.0, 0.0), p(x(at + 1), 0.0, h));
                }
            }
        }
        ReadyKind::PitchedTruss => {
            let (s, r, n) = (size("span")?, size("rise")?, count("bays")?);
            let half = s / 2.0;
            add("tie", p(0.0, 0.0, 0.0), p(s, 0.0, 0.0));
            add("left", p(0.0, 0.0, 0.0), p(half, 0.0, r));
            add("right", p(s, 0.0, 0.0), p(half, 0.0, r));
            add("king", p(half, 0.0, 0.0), p(half, 0.0, r));
            for at in 1..n {
                let along = at as f64 / n as f64;
                for (side, x) in [("left", half * along), ("right", s - half * along)] {
                    add(&format!("post-{side}-{at}"), p(x, 0.0, 0.0), p(x, 0.0, r * along));
                    let next = (at + 1) as f64 / n as f64;
                    let foot = if side == "left" { half * next } else { s - half * next };
                    add(&format!("web-{side}-{at}"), p(x, 0.0, r * along), p(foot, 0.0, 0.0));
                }
            }
        }
        ReadyKind::Ladder => {
            let (l, w, n) = (size("length")?, size("width")?, count("rungs")?);
            add("left", p(0.0, 0.0, 0.0), p(0.0, l, 0.0));
            add("right", p(w, 0.0, 0.0), p(w, l, 0.0));
            let first = sizes.get("first").copied().unwrap_or(l / (n + 1) as f64);
            let step = if n > 1 { (l - 2.0 * first) / (n - 1) as f64 } else { 0.0 };
            if first <= 0.0 || (n > 1 && step <= 0.0) {
                return Err(Finding::error(
                    format!("a first rung at {first} mm leaves no room on rails of {l} mm"),
                    "Put it nearer to the end.",
                )
                .at_field("sizes.first"));
            }
            for at in 0..n {
                let y = first + step * at as f64;
                add(&format!("rung-{}", at + 1), p(0.0, y, 0.0), p(w, y, 0.0));
            }
        }
        ReadyKind::Stair => {
            let (r, g, w, n) = (size("rise")?, size("going")?, size("width")?, count("steps")?);
            let (run, up) = (g * n as f64, r * n as f64);
            add("left", p(0.0, 0.0, 0.0), p(0.0, run, up));
            add("right", p(w, 0.0, 0.0), p(w, run, up));
            for at in 1..n {
                let (y, z) = (g * at as f64, r * at as f64);
                add(&format!("tread-{at}"), p(0.0, y, z), p(w, y, z));
            }
        }
    }
    // Rectangles, ladders are drawn on the floor; the others standing across.
    let on_floor = matches!(kind, ReadyKind::Rectangle | ReadyKind::Ladder);
    let standing = matches!(kind, ReadyKind::AFrame | ReadyKind::FlatTruss | ReadyKind::PitchedTruss);
    let turn = |v: Vector3| match (lies, on_floor, standing) {
        (Lies::Across, true, _) => Vector3::new(v.x, 0.0, v.y),
        (Lies::Lengthwise, true, _) => Vector3::new(0.0, v.x, v.y),
        (Lies::Lengthwise, _, true) => Vector3::new(0.0, v.x, v.z),
        (Lies::Flat, _, true) => v,
        _ => v,
    };
    for line in &mut lines {
        line.from = Point3::default() + turn(line.from.from_origin());
        line.to = Point3::default() + turn(line.to.from_origin());
    }
    Ok(lines)
}
