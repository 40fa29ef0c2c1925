//! Pieces of a frame that share metal, by their bodies. Pairs of one shape that lie alike are looked at once: frames are mostly
//! copies.

use std::borrow::Cow;
use std::collections::HashMap;

use crate::patience;
use crate::space::query::{DEEP, Probe, clash, parted_by_a_face, shared_volume};
use crate::space::{Body, Box3, Point3};

use super::clash_pair::SKIN;
use super::made::FrameMade;
use super::shape::relative;
use super::solid::{BodyFault, FACETS, facets};

/// What a plate runs into.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum PlateMeets {
    /// A member, by index.
    Member(usize),
    /// Another plate, by index.
    Plate(usize),
}

/// A plate and a member or another plate that share space.
#[derive(Clone, Debug, PartialEq)]
pub struct PlateClash {
    /// The plate, by index.
    pub plate: usize,
    /// What it runs into.
    pub other: PlateMeets,
    /// Volume that both fill, about, mm3.
    pub volume: f64,
    /// A place in it.
    pub place: Point3,
}

/// Two members that share space.
#[derive(Clone, Debug, PartialEq)]
pub struct MemberClash {
    /// The members, by index.
    pub members: [usize; 2],
    /// Volume that both fill, about, mm3.
    pub volume: f64,
    /// A place in it.
    pub place: Point3,
}

/// All that runs into each other in a frame.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct FrameClashes {
    /// Members into members.
    pub members: Vec<MemberClash>,
    /// Plates into members and plates.
    pub plates: Vec<PlateClash>,
    /// Pieces that could not be looked at, each with why.
    pub unseen: Vec<String>,
}

/// A piece as it is looked at: a member by its index, or a plate by its index.
struct Looked<'a> {
    what: PlateMeets,
    body: Cow<'a, Body>,
    around: Box3,
    /// How near the body is to the piece, mm.
    near: f64,
}

/// Everything of a frame that shares metal.
pub fn clashes(made: &FrameMade) -> FrameClashes {
    let mut found = FrameClashes::default();
    let mut all: Vec<Looked<'_>> = Vec::new();
    for (at, member) in made.frame.members.iter().enumerate() {
        let what = PlateMeets::Member(at);
        all.push(match (made.member_body(at), made.member_extents(at)) {
            (Ok(body), Ok(around)) => Looked { what, around, body: Cow::Borrowed(body), near: 0.0 },
            // Ends that cross leave no piece to look at: the rule of what is too short for its cuts says so.
            (Err(BodyFault::Crossed), _) => continue,
            _ => {
                let body = facets(member);
                Looked { what, around: body.extents(), body: Cow::Owned(body), near: FACETS }
            }
        });
    }
    for (at, (plate, body)) in made.frame.plates.iter().zip(made.plate_bodies()).enumerate() {
        match body {
            Ok(body) => {
                let body = Cow::Borrowed(body);
                all.push(Looked { what: PlateMeets::Plate(at), around: body.extents(), body, near: 0.0 });
            }
            Err(fault) => found.unseen.push(format!("{}: {fault}", plate.name)),
        }
    }
    let mut order: Vec<usize> = (0..all.len()).collect();
    order.sort_by(|&one, &two| all[one].around.low.x.total_cmp(&all[two].around.low.x));
    let mut looker = Looker { made, probes: HashMap::new(), known: HashMap::new() };
    for (at, &one) in order.iter().enumerate() {
        for &two in &order[at + 1..] {
            patience::check();
            if all[two].around.low.x >= all[one].around.high.x - SKIN {
                break;
            }
            let (a, b) = (&all[one.min(two)], &all[one.max(two)]);
            if !a.around.overlaps(&b.around, SKIN) {
                continue;
            }
            // One that runs through the other's bore lies wholly in it, whether that bore can be shown in the body or not.
            if let (PlateMeets::Member(one), PlateMeets::Member(two)) = (a.what, b.what)
                && (made.frame.passes.contains(&(one, two)) || made.frame.passes.contains(&(two, one)))
            {
                continue;
            }
            let Some((volume, place)) = looker.look(a, b, &mut found.unseen) else { continue };
            // Members come before plates, so the second is a plate where any is.
            match (a.what, b.what) {
                (PlateMeets::Member(one), PlateMeets::Member(two)) => {
                    found.members.push(MemberClash { members: [one, two], volume, place });
                }
                (PlateMeets::Plate(other), PlateMeets::Plate(plate)) => {
                    found.plates.push(PlateClash { plate, other: PlateMeets::Plate(other), volume, place });
                }
                (other, PlateMeets::Plate(plate)) | (PlateMeets::Plate(plate), other) => {
                    found.plates.push(PlateClash { plate, other, volume, place });
                }
            }
        }
    }
    found.members.sort_by_key(|clash| clash.members);
    found.plates.sort_by_key(|clash| (clash.plate, clash.other));
    found.unseen.dedup();
    found
}

/// What two pieces share, mm3, and where.
type Shared = Option<(f64, Point3)>;

/// The same in the first member's own frame.
type Kept = Option<(f64, crate::space::Vector3)>;

struct Looker<'a> {
    made: &'a FrameMade,
    /// Of each piece that was looked at closely, where it lies.
    probes: HashMap<PlateMeets, Option<Probe>>,
    /// Of pairs of members: their shapes and how they lie to each other.
    known: HashMap<(usize, usize, [i64; 12]), Kept>,
}

impl Looker<'_> {
    fn look(&mut self, a: &Looked<'_>, b: &Looked<'_>, unseen: &mut Vec<String>) -> Shared {
        let (PlateMeets::Member(one), PlateMeets::Member(two)) = (a.what, b.what) else {
            return self.look_closely(a, b, unseen);
        };
        let members = &self.made.frame.members;
        let shapes = (self.made.first_of_shape(one), self.made.first_of_shape(two));
        let basis = members[one].start;
        let key = (shapes.0, shapes.1, relative(&basis, &members[two].start));
        if let Some(known) = self.known.get(&key) {
            return known.map(|(volume, at)| (volume, basis.place(at.x, at.y, at.z)));
        }
        let found = self.look_closely(a, b, unseen);
        self.known.insert(key, found.map(|(volume, place)| (volume, basis.local(place))));
        found
    }

    fn look_closely(&mut self, a: &Looked<'_>, b: &Looked<'_>, unseen: &mut Vec<String>) -> Shared {
        let deep = DEEP + a.near + b.near;
        if parted_by_a_face(&a.body, &b.body, deep) {
            return None;
        }
        for piece in [a, b] {
            self.probes.entry(piece.what).or_insert_with(|| {
                let probe = Probe::new(&piece.body);
                if let Err(fault) = &probe {
                    unseen.push(fault.to_string());
                }
                probe.ok()
            });
        }
        let (one, two) = (self.probes[&a.what].as_ref()?, self.probes[&b.what].as_ref()?);
        let found = clash(one, two, deep)?;
        let (volume, middle) = shared_volume(one, two);
        // What is too thin for the lines through it is told by the place that was found.
        Some(if volume > 0.0 { (volume, middle) } else { (volume, found.place) })
    }
}
