//! The part that a program should leave.

use steelk_core::plane::{Outline, Point, Segment};
use steelk_core::toolpath::{Plan, Profile, Settings};

/// A hole that is wanted.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct WantedHole {
    pub name: String,
    pub outline: Outline,
}

/// The part that is wanted, mm from the program's zero, and the machine's own kerf.
#[derive(Clone, Debug, PartialEq)]
pub struct Wanted {
    /// The outside, counter-clockwise.
    pub outer: Outline,
    /// What is cut through, counter-clockwise.
    pub holes: Vec<WantedHole>,
    /// What is cut along once, from mouth to tip.
    pub slits: Vec<Vec<Segment>>,
    /// Centres to be marked, with their names.
    pub marks: Vec<(String, Point)>,
    /// Width and height of the stock; its lower left corner is the zero.
    pub stock: (f64, f64),
    /// Width of the machine's cut.
    pub kerf: f64,
    /// How many tabs hold the part, and their width.
    pub tabs: Option<(usize, f64)>,
}

impl Wanted {
    /// What is wanted of a profile. Of the plan only where its zero lies, how large its stock is and which holes go to the
    /// drill press is taken: not one of its paths.
    pub fn of(profile: &Profile, plan: &Plan, settings: &Settings) -> Wanted {
        let shift = Point::default() - plan.origin;
        let drilled = |name: &str| plan.drilled.iter().any(|one| one == name);
        let (small, cut): (Vec<_>, Vec<_>) = profile.cut.iter().partition(|hole| drilled(&hole.name));
        let centres = small.iter().map(|hole| (hole.name.clone(), hole.outline.extents().centre()));
        Wanted {
            outer: profile.outer.moved(|point| point + shift),
            holes: cut
                .into_iter()
                .map(|hole| WantedHole { name: hole.name.clone(), outline: hole.outline.moved(|point| point + shift) })
                .collect(),
            slits: profile
                .slits
                .iter()
                .map(|slit| slit.line.iter().map(|one| Segment::line(one.start + shift, one.end + shift)).collect())
                .collect(),
            marks: profile
                .marks
                .iter()
                .map(|(name, place, _)| (name.clone(), *place))
                .chain(centres)
                .map(|(name, place)| (name, place + shift))
                .collect(),
            stock: plan.stock,
            kerf: settings.row.kerf,
            tabs: settings.tabs,
        }
    }
}
