//! Ribs that are offered where a bend is pointed at.

use crate::sheet::bending::outside_setback;
use crate::sheet::flat::Bend;
use crate::sheet::pointed::{Pointed, Pointing};
use crate::sheet::rib::check_bend;
use crate::work::sheet::{RibAction, RibPlace, RibRidge};
use crate::work::{Action, Group, Offer};

/// Thicknesses that a rib is wide, and inside radii that its legs pass the tangent line by (common practice).
const WIDE: f64 = 5.0;

/// One rib, and a row of them, across the bend that is pointed at.
pub(in crate::sheet::verbs) fn rib(pointing: &Pointing<'_>) -> Vec<Offer> {
    let Some(flat) = pointing.flat else { return Vec::new() };
    let fits = |bend: &&Bend| check_bend(bend.make, flat.strip_of(bend), &bend.name, pointing.unit).is_ok();
    let bend = match &pointing.at[..] {
        [] => flat.bends.iter().find(fits),
        [Pointed::Bend(at)] => Some(&flat.bends[*at]).filter(fits),
        _ => None,
    };
    let Some(bend) = bend else { return Vec::new() };
    let strip = flat.strip_of(bend);
    let thickness = flat.thickness;
    let width = WIDE * thickness;
    let leg = outside_setback(strip.angle, strip.radius, thickness) + 3.0 * thickness + strip.radius;
    let rib = |count: Option<usize>| RibAction {
        bend: bend.name.as_str().into(),
        panel_leg: pointing.about(leg),
        flange_leg: Some(pointing.about(leg)),
        angle: None,
        width: pointing.about(width),
        ridge: RibRidge::Flat,
        draft: None,
        radius: None,
        from: None,
        at: None,
        last: None,
        at_is: RibPlace::Middle,
        count: count.map(|count| count.to_string().as_str().into()),
        pitch: None,
        skip: Vec::new(),
    };
    let asks = ["panel_leg", "flange_leg", "width"];
    let offer = |words: &str, count: Option<usize>| {
        let asks: Vec<&str> = asks.into_iter().chain(count.map(|_| "count")).collect();
        Offer::new(Group::Bend, words, "rib", Action::Rib(rib(count))).asking(&asks)
    };
    if pointing.nowhere() {
        return vec![offer("Press a rib across a bend", None).wanting("bend")];
    }
    let mut all = vec![offer("Press a rib across it", None)];
    // Their sides spread under the ridge: three times the width leaves metal between them.
    if strip.length > 6.0 * width {
        all.push(offer("Press a row of ribs across it", Some(3)));
    }
    all
}
