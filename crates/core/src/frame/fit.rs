//! A cope of an open section: an end fitted into the outline of another member, strip by strip, as a channel into a channel.
//! Along the other member's axis nothing changes, so the outline seen along it is a curve over one direction of the section;
//! the end stops at the first of it that each strip meets.

use crate::finding::Finding;
use crate::plane::{Outline, Point, Vector, offset};
use crate::quantity::tolerance::ROUNDING;
use crate::space::{Point3, Vector3};

use super::cut_plane::{CutBy, CutPlane};
use super::cutout::{Cutout, CutoutDepth, CutoutKind, span};
use super::end::End;
use super::end_at::{EndAt, basis_at, cut_to};
use super::member::Member;

/// Widest turn of one straight piece of a fillet, radians: 30 deg. Straight cuts clear it, as a torch would.
const TURN: f64 = std::f64::consts::FRAC_PI_6;
/// Strips narrower than this are none, mm.
const NARROW: f64 = 1e-6;

/// Corners round an outline that holds all of it: chords of hollow curves, tangents of round ones.
fn around(outline: &Outline) -> Vec<Point> {
    let mut all = Vec::new();
    for (one, _) in outline.clone().counter_clockwise().segments() {
        all.push(one.start);
        if one.is_line() {
            continue;
        }
        let pieces = (one.sweep().abs() / TURN).ceil().max(1.0) as usize;
        let at = |part: f64| one.at(part / pieces as f64);
        if one.bulge > 0.0 {
            let out = 1.0 / (one.sweep().abs() / pieces as f64 / 2.0).cos();
            let centre = one.centre();
            all.extend((0..pieces).map(|piece| centre + (at(piece as f64 + 0.5) - centre) * out));
        } else {
            all.extend((1..pieces).map(|piece| at(piece as f64)));
        }
    }
    all
}

/// A stretch of the end: from and to across, reach of its near end and its rise from there.
#[derive(Clone, Copy, Debug)]
struct Strip {
    from: f64,
    to: f64,
    reach: f64,
    rise: f64,
}

impl Strip {
    fn at(&self, across: f64) -> f64 {
        self.reach + self.rise * (across - self.from)
    }
}

/// What each strip between `low` and `high` meets first of a closed curve; `None` for those that pass beside it.
fn first_met(curve: &[(f64, f64)], low: f64, high: f64) -> Vec<(Strip, bool)> {
    let mut breaks: Vec<f64> = curve.iter().map(|(across, _)| *across).filter(|at| (low..high).contains(at)).collect();
    breaks.extend([low, high]);
    breaks.sort_by(f64::total_cmp);
    breaks.dedup_by(|two, one| *two - *one < NARROW);
    let nearest = curve.iter().map(|(_, reach)| *reach).fold(f64::INFINITY, f64::min);
    let mut strips: Vec<(Strip, bool)> = Vec::new();
    for pair in breaks.windows(2) {
        let (from, to) = (pair[0], pair[1]);
        let middle = (from + to) / 2.0;
        let mut met: Option<(f64, f64)> = None;
        for (at, &(a, reach_a)) in curve.iter().enumerate() {
            let (b, reach_b) = curve[(at + 1) % curve.len()];
            if (a < middle) == (b < middle) {
                continue;
            }
            let rise = (reach_b - reach_a) / (b - a);
            let here = reach_a + rise * (middle - a);
            if met.is_none_or(|(known, _)| here < known) {
                met = Some((here, rise));
            }
        }
        let (here, rise) = met.unwrap_or((nearest, 0.0));
        let strip = Strip { from, to, reach: here + rise * (from - middle), rise };
        match strips.last_mut() {
            Some((last, hit))
                if *hit == met.is_some()
                    && (last.rise - rise).abs() < ROUNDING
                    && (last.at(from) - strip.reach).abs() < ROUNDING =>
            {
                last.to = to;
            }
            _ => strips.push((strip, met.is_some())),
        }
    }
    strips
}

/// Fits an end into another member's outline, `gap` mm off it. What passes beside the outline stops where the outline begins.
/// On a round member it is the round cope.
///
/// # Errors
/// A member that runs along the other one, or that does not meet it.
pub fn fit_to(members: &[Member], end: EndAt, to: usize, place: Point3, gap: f64) -> Result<End, Finding> {
    let (member, other) = (&members[end.member], &members[to]);
    if other.section.is_round() {
        return cut_to(members, end, to, place, gap, false);
    }
    let way = end.which.way();
    let (there, basis) = (basis_at(other, place), member.basis(end.which));
    let axis = basis.turn_in(there.w);
    let flat = Vector::new(axis.x, axis.y);
    if flat.length() < 0.05 {
        return Err(Finding::error(
            format!("{} runs along {}, so it cannot be fitted into its outline", member.name, other.name),
            "Cut this end in its own way.",
        ));
    }
    let (down, across) = (flat.unit(), flat.unit().left());
    let outline = if gap > 0.0 {
        offset(&other.region.outer, gap).into_iter().max_by(|one, two| one.area().total_cmp(&two.area()))
    } else {
        None
    };
    let curve: Vec<(f64, f64)> = around(outline.as_ref().unwrap_or(&other.region.outer))
        .into_iter()
        .map(|at| {
            let local = basis.local(there.place(at.x, at.y, 0.0));
            // Slid along the other's axis to where it lies across the middle.
            let slid = local - axis * ((local.x * down.x + local.y * down.y) / flat.length());
            (slid.x * across.x + slid.y * across.y, slid.z * way)
        })
        .collect();
    let (low, high) = span(&member.region, across);
    let strips = first_met(&curve, low, high);
    if !strips.iter().any(|(_, hit)| *hit) {
        return Err(Finding::error(
            format!("{} passes beside {}, so it cannot be fitted into its outline", member.name, other.name),
            "Move one of them, or cut this end in its own way.",
        ));
    }
    let lean = way * axis.z / flat.length();
    let by = CutBy::Outline(other.name.clone());
    let plane = |reach: f64, rise: f64| {
        let side = across * -rise + down * -lean;
        let normal = Vector3::new(side.x, side.y, way);
        let long = normal.length();
        CutPlane { normal: normal * (1.0 / long), level: reach / long, by: by.clone(), to: vec![to] }
    };
    let deepest = strips.iter().map(|(one, _)| one.reach.max(one.at(one.to))).fold(f64::NEG_INFINITY, f64::max);
    let mut made = End { planes: vec![plane(deepest, 0.0)], ..End::default() };
    for (strip, _) in &strips {
        if strip.rise.abs() < ROUNDING && (strip.reach - deepest).abs() < ROUNDING {
            continue;
        }
        let mut sides = Vec::new();
        if strip.from > low + NARROW {
            sides.push((across, strip.from));
        }
        if strip.to < high - NARROW {
            sides.push((-across, -strip.to));
        }
        let depth = CutoutDepth::To(plane(strip.reach - strip.rise * strip.from, strip.rise));
        made.cutouts.push(Cutout { kind: CutoutKind::Cope, sides, depth });
    }
    Ok(made)
}
