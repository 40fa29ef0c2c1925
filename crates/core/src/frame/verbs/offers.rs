//! What the verbs of frames offer where somebody points: whole steps with sizes that fit what is pointed at.

use std::collections::BTreeMap;

use crate::frame::pointed::{Pointed, Pointing};
use crate::frame::skeleton::ONE_NODE;
use crate::quantity::{Expr, LengthUnit};
use crate::work::frame::{
    BasePlate, BoreAction, Butt, ByLeg, CapPlate, CopyAction, CopyHow, DivideAction, EndAction, EndHow, FacePlate,
    FramePlace, GussetPlate, JointAction, JointAt, JointHow, MemberAction, MirrorPlane, MitreJoint, NodeAction, OnLine,
    OneEnd, PanelPlate, PathAction, PathLeg, PlateKind, Purpose, ReadyAction, ReadyJoints, ReadyKind, SizesTo, ToLeg,
    TrimTo, WhichEnd,
};
use crate::work::measure::Axis;
use crate::work::shape::{BaseShape, Rectangle};
use crate::work::{Action, Group, Offer, PlateAction};

/// The section that is offered first: square hollow, as most frames are welded from (practice).
const FIRST_SECTION: &str = "SHS 50x50x3";

fn sizes(pointing: &Pointing<'_>, all: &[(&str, f64)]) -> BTreeMap<String, Expr> {
    all.iter().map(|(name, size)| ((*name).to_string(), pointing.about(*size))).collect()
}

/// A place beside what is there, not in it; the origin where there is nothing.
fn beside(pointing: &Pointing<'_>) -> FramePlace {
    let lines = &pointing.frame.skeleton.lines;
    let beyond = lines.iter().map(|line| line.from.x.max(line.to.x)).fold(f64::NEG_INFINITY, f64::max);
    let x = beyond.is_finite().then(|| pointing.about(beyond + 500.0));
    FramePlace { x, ..FramePlace::default() }
}

/// Ready frames, their sections on and their joints settled.
pub(super) fn ready(pointing: &Pointing<'_>) -> Vec<Offer> {
    if !pointing.nowhere() {
        return Vec::new();
    }
    let frames: [(&str, &str, ReadyKind, &[(&str, f64)], SizesTo); 5] = [
        (
            "Lay a table",
            "table",
            ReadyKind::Table,
            &[("width", 1200.0), ("depth", 700.0), ("height", 800.0), ("rail", 200.0)],
            SizesTo::Outside,
        ),
        ("Lay a rectangle", "ring", ReadyKind::Rectangle, &[("width", 1000.0), ("depth", 600.0)], SizesTo::Outside),
        (
            "Lay a box",
            "box",
            ReadyKind::Box,
            &[("width", 1000.0), ("depth", 600.0), ("height", 800.0)],
            SizesTo::Outside,
        ),
        ("Lay a ladder", "ladder", ReadyKind::Ladder, &[("length", 2000.0), ("width", 500.0)], SizesTo::Outside),
        (
            "Lay a trestle by its centre lines",
            "trestle",
            ReadyKind::Trestle,
            &[("length", 1200.0), ("spread", 600.0), ("height", 700.0)],
            SizesTo::Lines,
        ),
    ];
    let beside = beside(pointing);
    frames
        .into_iter()
        .map(|(words, stem, kind, all, sizes_to)| {
            let mut sizes = sizes(pointing, all);
            let mut asks: Vec<String> = all.iter().map(|(name, _)| format!("sizes.{name}")).collect();
            if kind == ReadyKind::Ladder {
                sizes.insert("rungs".into(), "6".into());
                asks.push("sizes.rungs".into());
            }
            asks.push("section".into());
            let outside = sizes_to == SizesTo::Outside;
            let action = ReadyAction {
                kind,
                at: beside.clone(),
                lies: Default::default(),
                sizes,
                section: outside.then(|| FIRST_SECTION.into()),
                sizes_to,
                joints: ReadyJoints::MitredRing,
            };
            if !outside {
                asks.pop();
            }
            Offer { asks, ..Offer::new(Group::Line, words, stem, Action::Ready(action)) }
        })
        .collect()
}

/// Lines from a node, or between two.
pub(super) fn path(pointing: &Pointing<'_>) -> Vec<Offer> {
    let place = |node: &str| FramePlace { from: Some(node.into()), ..FramePlace::default() };
    let by = |x: f64| PathLeg::By(ByLeg { x: Some(pointing.about(x)), ..ByLeg::default() });
    let offer = |words: &str, start: FramePlace, leg: PathLeg, asks: &[&str]| {
        let action = Action::Path(PathAction { start, legs: vec![leg], close: false });
        Offer::new(Group::Line, words, "line", action).asking(asks)
    };
    let along = ["legs.0.by.x", "legs.0.by.y", "legs.0.by.z"];
    match pointing.nodes().as_deref() {
        Some([node]) => vec![offer("Lay a line from this node", place(node), by(500.0), &along)],
        Some([one, two]) => {
            let to = PathLeg::To(ToLeg { name: None, place: place(two) });
            vec![offer("Lay a line between these two nodes", place(one), to, &[])]
        }
        None if pointing.nowhere() => {
            vec![offer("Lay lines end to end", beside(pointing), by(1000.0), &along)]
        }
        _ => Vec::new(),
    }
}

/// The line that is pointed at: one with no section, or that of a straight member.
fn line(pointing: &Pointing<'_>) -> Option<(String, f64)> {
    match pointing.at[..] {
        [Pointed::Line(at)] => {
            let line = &pointing.frame.skeleton.lines[at];
            Some((line.name.clone(), line.length()))
        }
        [Pointed::Member(at) | Pointed::Face(at, _)] => match &pointing.frame.members[at].lines[..] {
            [line] => Some((line.name.clone(), line.length())),
            _ => None,
        },
        _ => None,
    }
}

/// A node on a line.
pub(super) fn node(pointing: &Pointing<'_>) -> Vec<Offer> {
    if pointing.nowhere() {
        let place = FramePlace { x: Some(pointing.about(500.0)), ..FramePlace::default() };
        let offer = Offer::new(Group::Line, "Name a place", "node", Action::Node(NodeAction::At(place)));
        return vec![offer.asking(&["at.x", "at.y", "at.z"])];
    }
    let Some((line, long)) = line(pointing) else { return Vec::new() };
    let on = OnLine { line: line.as_str().into(), distance: pointing.about(long / 2.0) };
    vec![
        Offer::new(Group::Line, "Name a place on this line", "node", Action::Node(NodeAction::On(on)))
            .asking(&["on.distance"]),
    ]
}

/// A line parted by nodes.
pub(super) fn divide(pointing: &Pointing<'_>) -> Vec<Offer> {
    let Some((line, _)) = line(pointing) else { return Vec::new() };
    let action = DivideAction { line: line.as_str().into(), into: Some("2".into()), at: Vec::new() };
    vec![Offer::new(Group::Line, "Part this line evenly", "parts", Action::Divide(action)).asking(&["into"])]
}

/// A section on lines that have none.
pub(super) fn member(pointing: &Pointing<'_>) -> Vec<Offer> {
    let lines: Vec<&str> = if pointing.nowhere() {
        pointing.bare()
    } else {
        let name = |one: &Pointed| match one {
            Pointed::Line(at) => Some(pointing.frame.skeleton.lines[*at].name.as_str()),
            _ => None,
        };
        match pointing.at.iter().map(name).collect::<Option<Vec<_>>>() {
            Some(all) => all,
            None => return Vec::new(),
        }
    };
    if lines.is_empty() {
        return Vec::new();
    }
    let words = match (pointing.nowhere(), lines.len()) {
        (true, _) => "Put a section on every bare line".to_string(),
        (_, 1) => "Put a section on this line".to_string(),
        (_, count) => format!("Put a section on these {count} lines"),
    };
    let action = MemberAction {
        lines: lines.into_iter().map(Into::into).collect(),
        section: FIRST_SECTION.into(),
        mark: free_letter(pointing),
        ..MemberAction::default()
    };
    vec![Offer::new(Group::Member, words, "members", Action::Member(action)).asking(&["section"])]
}

/// A letter for the marks of a group that no other has, so that they read as a shop writes them: M1. None where all are taken.
fn free_letter(pointing: &Pointing<'_>) -> Option<String> {
    let taken = |letter: &str| pointing.frame.members.iter().any(|member| member.mark == letter);
    ["M", "N", "Q", "V", "W"].into_iter().find(|letter| !taken(letter)).map(Into::into)
}

/// How members meet at nodes.
pub(super) fn joint(pointing: &Pointing<'_>) -> Vec<Offer> {
    let frame = pointing.frame;
    let (at, words, tee) = if pointing.nowhere() {
        if frame.meetings.is_empty() {
            return Vec::new();
        }
        (JointAt::All, "every corner and tee", false)
    } else {
        let Some(nodes) = pointing.nodes() else { return Vec::new() };
        let meets = |name: &str| {
            let place = frame.skeleton.node(name)?;
            frame.meetings.iter().find(|one| one.place.distance(place) < ONE_NODE)
        };
        let found: Option<Vec<_>> = nodes.iter().map(|name| meets(name)).collect();
        let Some(found) = found else { return Vec::new() };
        let tee = found.iter().any(|one| !one.passing.is_empty());
        // A mitre of more than two wants to be told which.
        if found.iter().any(|one| one.ends.len() > 2) {
            let at = JointAt::Nodes(nodes.into_iter().map(Into::into).collect());
            let how = JointHow::Butt(Butt::default());
            let action = Action::Joint(JointAction { at, how });
            return vec![Offer::new(Group::Joint, "Butt the members that meet here", "joint", action)];
        }
        (JointAt::Nodes(nodes.into_iter().map(Into::into).collect()), "the members that meet here", tee)
    };
    let offer = |verb: &str, how: JointHow| {
        let action = Action::Joint(JointAction { at: at.clone(), how });
        Offer::new(Group::Joint, format!("{verb} {words}"), "joint", action)
    };
    if tee {
        return vec![offer("Trim", JointHow::Trim(Default::default()))];
    }
    let mut all = vec![offer("Butt", JointHow::Butt(Butt::default()))];
    if !pointing.nowhere() {
        all.insert(0, offer("Mitre", JointHow::Mitre(MitreJoint::default())));
    }
    all
}

/// Ends cut to another member, or closed with a cap.
pub(super) fn end(pointing: &Pointing<'_>) -> Vec<Offer> {
    if let [Pointed::End(at, which)] = pointing.at[..] {
        let cap = CapPlate { thickness: pointing.about(3.0), inset: None };
        let at_end = if which == OneEnd::Start { WhichEnd::Start } else { WhichEnd::Finish };
        let action = EndAction { of: vec![pointing.named(at)], at: at_end, how: EndHow::Cap(cap) };
        return vec![
            Offer::new(Group::Joint, "Close this end with a cap", "cap", Action::End(action))
                .asking(&["how.cap.thickness"]),
        ];
    }
    let Some(members) = pointing.members() else { return Vec::new() };
    let [one, other] = members[..] else { return Vec::new() };
    let (a, b) = (&pointing.frame.members[one], &pointing.frame.members[other]);
    if a.start.w.cross(b.start.w).length() < 0.1 {
        return Vec::new();
    }
    // The end that is nearer to the other one's line.
    let near = |which: OneEnd| {
        let place = a.basis(which).origin;
        let from = place - b.start.origin;
        (from - b.start.w * from.dot(b.start.w)).length()
    };
    let at = if near(OneEnd::Start) < near(OneEnd::Finish) { WhichEnd::Start } else { WhichEnd::Finish };
    let to = TrimTo { to: vec![pointing.named(other)], gap: None, far: false, beyond: false };
    let action = EndAction { of: vec![pointing.named(one)], at, how: EndHow::Extend(to) };
    vec![Offer::new(Group::Joint, format!("Cut {} to the face of {}", a.name, b.name), "cut", Action::End(action))]
}

/// Holes into the side that is pointed at.
pub(super) fn bore(pointing: &Pointing<'_>) -> Vec<Offer> {
    let [Pointed::Face(at, face)] = pointing.at[..] else { return Vec::new() };
    let member = &pointing.frame.members[at];
    let action = BoreAction {
        of: vec![pointing.named(at)],
        face,
        diameter: pointing.about((pointing.half(at) / 2.5).clamp(3.0, 11.0)),
        at: pointing.about(member.length() / 2.0),
        off: None,
        count: None,
        spacing: None,
        one_wall: false,
        purpose: Purpose::Bolt,
    };
    vec![
        Offer::new(Group::Hole, "Bore a hole into this face", "bolt", Action::Bore(action)).asking(&["diameter", "at"]),
    ]
}

/// Plates: on a side, at an end, between members.
pub(super) fn plate(pointing: &Pointing<'_>) -> Vec<Offer> {
    let plate = |words: String, stem: &str, kind: PlateKind, asks: &[&str]| {
        let action = PlateAction {
            kind,
            thickness: pointing.about(6.0),
            material: None,
            mark: None,
            weldment: None,
            work: Vec::new(),
        };
        Offer::new(Group::Plate, words, stem, Action::Plate(action)).asking(asks)
    };
    let rectangle =
        |side: f64| BaseShape::Rectangle(Rectangle { width: pointing.about(side), depth: pointing.about(side) });
    match pointing.at[..] {
        [Pointed::Face(at, face)] => {
            let member = &pointing.frame.members[at];
            let kind = PlateKind::Face(FacePlate {
                of: vec![pointing.named(at)],
                face,
                at: pointing.about(member.length() / 2.0),
                shape: rectangle(2.0 * pointing.half(at)),
                stands: None,
                off: None,
                lifts: None,
            });
            return vec![plate("Put a plate on this face".into(), "plate", kind, &["thickness", "kind.face.at"])];
        }
        [Pointed::End(at, which)] => {
            let kind = PlateKind::Base(BasePlate {
                of: vec![pointing.named(at)],
                at: if which == OneEnd::Start { WhichEnd::Start } else { WhichEnd::Finish },
                shape: rectangle(4.0 * pointing.half(at)),
                within: true,
            });
            return vec![plate("Put a base plate on this end".into(), "foot", kind, &["thickness"])];
        }
        _ => {}
    }
    let Some(members) = pointing.members() else { return Vec::new() };
    match members[..] {
        [one, two] => {
            let leg = pointing.about(3.0 * pointing.half(one).max(pointing.half(two)));
            let kind = PlateKind::Gusset(GussetPlate {
                between: [pointing.named(one), pointing.named(two)],
                first: leg.clone(),
                second: leg,
                corner: None,
                tips: None,
                off: None,
            });
            vec![plate(
                "Put a gusset between these two".into(),
                "gusset",
                kind,
                &["thickness", "kind.gusset.first", "kind.gusset.second"],
            )]
        }
        [_, _, _, _] => {
            let between = members.iter().map(|&at| pointing.named(at)).collect();
            let kind = PlateKind::Panel(PanelPlate { between, clearance: None, on_top: false });
            vec![plate("Put a panel between these four".into(), "panel", kind, &["thickness"])]
        }
        _ => Vec::new(),
    }
}

/// Members made again across a plane.
pub(super) fn copy(pointing: &Pointing<'_>) -> Vec<Offer> {
    let Some(members) = pointing.members() else { return Vec::new() };
    let place = &pointing.frame.members[members[0]].start.origin;
    let offer = |axis: Axis, at: f64| {
        // Beside what is made again, so that the copies lie free.
        let unit = match pointing.unit {
            LengthUnit::Mm => pointing.about(at + 500.0),
            LengthUnit::In => pointing.about(at + 508.0),
        };
        let how = CopyHow::Mirror(MirrorPlane { axis, at: Some(unit) });
        let of = members.iter().map(|&at| pointing.frame.members[at].lines[0].name.as_str().into()).collect();
        let what = if members.len() == 1 { "this member" } else { "these members" };
        let words = format!("Make {what} again, mirrored along {}", axis.letter());
        Offer::new(Group::Again, words, "mirror", Action::Copy(CopyAction { of, how })).asking(&["how.mirror.at"])
    };
    vec![offer(Axis::X, place.x), offer(Axis::Y, place.y)]
}
