//! Holes in a named panel: by designation or by shape, placed from its edges, from a bend's lines, from another hole or
//! from its centre, one or many.

mod angle;
mod corners;
mod datum;
mod fit;
mod new_hole;
mod numbers;
mod profile;
mod read;
mod rim;
mod screws;
mod shape;
mod spread;
mod work;

pub(super) use corners::has_four_corners;
pub(super) use datum::datum;
pub(super) use new_hole::NewHole;
pub use numbers::{
    AlongNumbers, HoleNumbers, HoleShape, PlaceNumbers, RepeatNumbers, RimRowNumbers, SpreadNumbers, WorkNumbers,
};
pub(super) use read::read_form_places;

pub use profile::{HolePart, Stretch};
pub(super) use read::{read_cut, read_drill};
pub use spread::MOST_HOLES;
pub use work::HoleWork;

use std::sync::Arc;

use crate::finding::Finding;
use crate::patience;
use crate::plane::{Box2, Vector};
use crate::quantity::LengthUnit;
use crate::work::sheet::Reach;

use super::flat::{Flat, Hole, HoleCopy, TagKind};
use super::set::SheetSet;
use super::slice;

/// Cuts the holes of one operation; none is made when one of them does not fit. Returns what is worth knowing.
pub(super) fn cut(
    set: &mut SheetSet,
    name: &str,
    given: &HoleNumbers,
    unit: LengthUnit,
) -> Result<Vec<Finding>, Finding> {
    let mut notes = Vec::new();
    on_each_panel(given, |own, number| {
        notes.extend(cut_one(set, name, own, unit, number)?);
        Ok(())
    })?;
    Ok(notes)
}

/// Does the same on each panel, numbered on from one to the next: edges that place it are read as the same edges there.
pub(super) fn on_each_panel(
    given: &HoleNumbers,
    mut make: impl FnMut(&HoleNumbers, Option<&mut usize>) -> Result<(), Finding>,
) -> Result<(), Finding> {
    if given.also.is_empty() {
        return make(given, None);
    }
    let mut number = 0;
    for (at, panel) in std::iter::once(&given.panel).chain(&given.also).enumerate() {
        let field = at.checked_sub(1).map(|at| format!("also.{at}"));
        let mut own = given.clone();
        own.also.clear();
        own.panel.clone_from(panel);
        let moved = |edge: &mut String| {
            if let Some(short) = edge.strip_prefix(&format!("{}.", given.panel)) {
                *edge = format!("{panel}.{short}");
            }
        };
        own.place.from.iter_mut().for_each(|one| moved(&mut one.edge));
        own.place.round.iter_mut().for_each(|(edge, _)| moved(edge));
        match &mut own.spread {
            SpreadNumbers::Along(along) => moved(&mut along.edge),
            SpreadNumbers::Rows(rows) => rows.iter_mut().filter_map(|row| row.along.as_mut()).for_each(moved),
            _ => {}
        }
        make(&own, Some(&mut number)).map_err(|mut fault| {
            fault.message = format!("on {panel}: {}", fault.message);
            match field {
                Some(field) => fault.at_field(field),
                None => fault,
            }
        })?;
    }
    Ok(())
}

/// Cuts the holes of one operation on one panel. `numbers` is how many it has made before this panel; `None` where it is
/// for one panel alone.
fn cut_one(
    set: &mut SheetSet,
    name: &str,
    given: &HoleNumbers,
    unit: LengthUnit,
    numbers: Option<&mut usize>,
) -> Result<Vec<Finding>, Finding> {
    let blank = set.blank_of(Some(&given.panel));
    let flat = &set.flats[blank];
    let panel = flat.find_panel(&given.panel)?;
    let work = given.work.work(flat.thickness, unit)?;
    let spread = match &given.spread {
        SpreadNumbers::Rim(row) => {
            spread::no_other_place(given)?;
            rim::places(set, (name, &given.panel), given, row, unit)?
        }
        _ => spread::spread(flat, panel, given, unit)?,
    };
    let made = laid(name, given, &spread, &work, numbers)?.into_iter().map(|one| one.hole).collect::<Vec<_>>();
    let flat = &mut set.flats[blank];
    let mut notes = spread.notes;
    match given.reach {
        Reach::Panel => put(flat, panel, name, made, unit)?,
        Reach::Flat => slice::cut_flat(flat, name, made)?,
        Reach::Open => slice::cut_open(flat, name, panel, made)?,
        Reach::Through => notes.extend(slice::cut_through(set, name, (blank, panel), &made)?),
    }
    if matches!(given.spread, SpreadNumbers::Rim(_)) {
        let holes = Arc::make_mut(&mut set.flats[blank].holes).iter_mut();
        holes.filter(|hole| hole.operation == name).for_each(|hole| hole.is_divided = true);
    }
    Ok(notes)
}

/// One of an operation's, with the ways that its x and its y lie.
pub(super) struct LaidHole {
    /// Itself.
    pub hole: NewHole,
    /// Unit vectors in the flat; of a mirror image its own.
    pub ways: [Vector; 2],
}

/// The places of one operation on one panel, forms' and holes' alike.
///
/// # Errors
/// As of holes: lines that are not there, distances that fix one direction twice, places left out that there are none of.
pub(super) fn laid_on(
    flat: &Flat,
    name: &str,
    given: &HoleNumbers,
    unit: LengthUnit,
    numbers: Option<&mut usize>,
) -> Result<(Vec<LaidHole>, Vec<Finding>), Finding> {
    let panel = flat.find_panel(&given.panel)?;
    let spread = spread::spread(flat, panel, given, unit)?;
    let all = laid(name, given, &spread, &HoleWork::plain(), numbers)?;
    Ok((all, spread.notes))
}

/// What stands at each place, less what is left out.
fn laid(
    name: &str,
    given: &HoleNumbers,
    spread: &spread::Spread,
    work: &HoleWork,
    numbers: Option<&mut usize>,
) -> Result<Vec<LaidHole>, Finding> {
    let (sin, cos) = given.turn.sin_cos();
    let along = Vector::new(spread.along.x * cos - spread.along.y * sin, spread.along.x * sin + spread.along.y * cos);
    let all = spread.centres.len() + spread.mirrored.len();
    if let Some(&wrong) = given.skip.iter().find(|&&one| one == 0 || one > all) {
        return Err(Finding::error(
            format!("place {wrong} is left out, and there are {all} places"),
            "Number the places from 1.",
        )
        .at_field("skip"));
    }
    let before = numbers.as_ref().map(|number| **number);
    let own_name = |at: usize| match before {
        None if all == 1 => name.to_string(),
        before => format!("{name}.{}", before.unwrap_or(0) + at + 1),
    };
    // The places as laid, then those that a mirror makes of all so far.
    let mut all_made: Vec<LaidHole> = spread
        .centres
        .iter()
        .enumerate()
        .map(|(at, &centre)| {
            patience::check();
            let outline = given.shape.outline(centre, along);
            let hole = NewHole { name: own_name(at), outline, centre, work: work.clone(), copy: None };
            LaidHole { hole, ways: [along, along.left()] }
        })
        .collect();
    for &(at, on, normal) in &spread.mirrored {
        patience::check();
        let first = &all_made[at].hole;
        let copy = HoleCopy { of: first.name.clone(), mirror: Some((on, normal)), shift: Vector::default() };
        let (outline, centre) = (copy.outline(&first.outline), copy.point(first.centre));
        let ways = all_made[at].ways.map(|way| way - normal * (2.0 * way.dot(normal)));
        let hole = NewHole { name: own_name(all_made.len()), outline, centre, work: work.clone(), copy: Some(copy) };
        all_made.push(LaidHole { hole, ways });
    }
    let left_out = |at: usize| given.skip.contains(&(at + 1));
    let gone: Vec<String> = (0..all).filter(|&at| left_out(at)).map(own_name).collect();
    if let Some(number) = numbers {
        *number += all;
    }
    let kept = all_made.into_iter().enumerate().filter(|(at, _)| !left_out(*at));
    Ok(kept
        .map(|(_, mut one)| {
            // What it was copied from may be left out itself.
            one.hole.copy = one.hole.copy.filter(|copy| !gone.contains(&copy.of));
            one
        })
        .collect())
}

/// Refuses what runs off its panel or into what is there.
pub(super) fn check(flat: &Flat, panel: usize, holes: &[NewHole], unit: LengthUnit) -> Result<(), Finding> {
    let boxes: Vec<Box2> = holes.iter().map(|one| one.outline.extents()).collect();
    fit::check_fit(flat, panel, holes, &boxes, unit)?;
    fit::check_apart(flat, panel, holes, &boxes)
}

/// Puts holes into a panel; none is put when one of them does not fit.
pub(super) fn put(
    flat: &mut Flat,
    panel: usize,
    operation: &str,
    holes: Vec<NewHole>,
    unit: LengthUnit,
) -> Result<(), Finding> {
    // A perforation has tens of thousands: each one's box is looked for once.
    let boxes: Vec<Box2> = holes.iter().map(|one| one.outline.extents()).collect();
    fit::check_fit(flat, panel, &holes, &boxes, unit)?;
    fit::check_apart(flat, panel, &holes, &boxes)?;
    Arc::make_mut(&mut flat.holes).reserve(holes.len());
    if holes.iter().any(|one| one.work.through) {
        Arc::make_mut(&mut flat.nodes[panel].region).holes.reserve(holes.len());
    }
    for (NewHole { name, mut outline, centre, work, copy }, extents) in holes.into_iter().zip(boxes) {
        patience::check();
        let tag = flat.tag(name.clone(), TagKind::Hole(flat.holes.len()));
        outline.edges.iter_mut().for_each(|edge| edge.tag = tag);
        if work.through {
            Arc::make_mut(&mut flat.nodes[panel].region).holes.push(outline.clone());
        }
        let (operation, reach) = (operation.to_string(), Reach::Panel);
        Arc::make_mut(&mut flat.holes).push(Hole {
            name,
            operation,
            panel,
            centre,
            extents,
            tag,
            outline,
            work,
            reach,
            copy,
            is_divided: false,
        });
    }
    Ok(())
}
