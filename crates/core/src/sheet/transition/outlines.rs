//! Outlines as corners: rounds are made of flats.

use std::collections::HashMap;

use crate::plane::{Outline, Point};
use crate::sheet::shape::Laid;

/// Neighbours that turn less than this are one panel, radians.
pub(super) const ONE_PLANE: f64 = 1e-7;

/// A corner of an outline and the name of the edge that begins there.
pub(super) struct Corner {
    pub place: Point,
    pub edge: String,
}

/// The corners of an outline off its middle, rounds as flats.
pub(super) fn corners(
    (laid, middle): &(Laid, Point),
    lines: usize,
    of: &str,
    chords: &mut Vec<(String, f64)>,
) -> Vec<Corner> {
    let outline: Outline = laid.outer.clone().counter_clockwise();
    let mut all = Vec::new();
    let mut used: HashMap<String, usize> = HashMap::new();
    for (segment, tag) in outline.segments() {
        let name = laid.name_of(tag).to_string();
        let parts = if segment.is_line() {
            1
        } else {
            let quarters = segment.sweep().abs() / std::f64::consts::FRAC_PI_2;
            // A quarter that is one but for rounding is one.
            ((quarters * lines as f64) - ONE_PLANE).ceil().max(1.0) as usize
        };
        if !segment.is_line() {
            let half = segment.sweep().abs() / parts as f64 / 2.0;
            let told = format!("{name} of the {of} outline");
            if !chords.iter().any(|(known, _)| *known == told) {
                chords.push((told, segment.radius() * (1.0 - half.cos())));
            }
        }
        for part in 0..parts {
            let place = segment.at(part as f64 / parts as f64);
            let count = used.entry(name.clone()).and_modify(|count| *count += 1).or_insert(1);
            let edge = if segment.is_line() && *count == 1 { name.clone() } else { format!("{name}-{count}") };
            all.push(Corner { place: Point::new(place.x - middle.x, place.y - middle.y), edge });
        }
    }
    all
}
