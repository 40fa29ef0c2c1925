//! Joints: where members meet, and the planes and copes that settle their ends.

use std::collections::HashMap;

use crate::finding::Finding;
use crate::space::{Point3, Vector3};

use super::fit::fit_to;
use super::member::{Basis, Cope, CutPlane, End, Member};
use super::skeleton::ONE_NODE;

/// An end of a member at a node.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct EndAt {
    /// The member.
    pub member: usize,
    /// Its finish, or its start.
    pub finish: bool,
}

/// Members that come together in one place.
#[derive(Clone, Debug, PartialEq)]
pub struct Meeting {
    /// The place, mm.
    pub place: Point3,
    /// Ends there, in the order of the work.
    pub ends: Vec<EndAt>,
    /// Members that run on through it.
    pub passing: Vec<usize>,
}

/// How the members of a meeting are cut, in numbers.
#[derive(Clone, Debug, PartialEq)]
pub enum JointNumbers {
    /// On the planes between them.
    Mitre {
        /// Groups or members that are mitred with each other.
        between: Vec<String>,
        /// Between the two, mm.
        gap: f64,
    },
    /// In an order.
    Butt {
        /// Groups or members that run through first.
        through: Vec<String>,
        /// Between the two, mm.
        gap: f64,
        /// The first ends at the node.
        to_node: bool,
    },
    /// To what runs on.
    Trim {
        /// Between the two, mm.
        gap: f64,
    },
    /// Into the outline of what runs on.
    Cope {
        /// Between the two, mm.
        gap: f64,
    },
    /// One through a bore of the other.
    Pass {
        /// All round, mm.
        gap: f64,
    },
}

/// Every place where an end meets another end or a member that runs on.
pub fn meetings(members: &[Member]) -> Vec<Meeting> {
    let mut cells: HashMap<[i64; 3], Vec<usize>> = HashMap::new();
    let mut all: Vec<Meeting> = Vec::new();
    let cell = |place: Point3| [place.x, place.y, place.z].map(|at| (at / 0.01).round() as i64);
    for (member, one) in members.iter().enumerate() {
        for finish in [false, true] {
            let place = one.basis(finish).origin;
            let [x, y, z] = cell(place);
            let mut known = None;
            for dx in -1..=1 {
                for dy in -1..=1 {
                    for dz in -1..=1 {
                        for &at in cells.get(&[x + dx, y + dy, z + dz]).into_iter().flatten() {
                            if all[at].place.distance(place) < ONE_NODE {
                                known = Some(at);
                            }
                        }
                    }
                }
            }
            let at = known.unwrap_or_else(|| {
                all.push(Meeting { place, ends: Vec::new(), passing: Vec::new() });
                cells.entry([x, y, z]).or_default().push(all.len() - 1);
                all.len() - 1
            });
            all[at].ends.push(EndAt { member, finish });
        }
    }
    // Members that run on: sorted by their box along x, so that few are looked at for each place.
    let mut order: Vec<(f64, f64, usize)> = members
        .iter()
        .enumerate()
        .map(|(index, member)| {
            let (mut low, mut high) = (f64::INFINITY, f64::NEG_INFINITY);
            for line in &member.lines {
                let reach = line.arc.map_or(0.0, |arc| line.from.distance(arc.centre));
                low = low.min(line.from.x.min(line.to.x) - 2.0 * reach);
                high = high.max(line.from.x.max(line.to.x) + 2.0 * reach);
            }
            (low - ONE_NODE, high + ONE_NODE, index)
        })
        .collect();
    order.sort_by(|one, two| one.0.total_cmp(&two.0));
    for meeting in &mut all {
        for &(_, high, index) in order.iter().take_while(|(low, ..)| *low <= meeting.place.x) {
            if high < meeting.place.x || meeting.ends.iter().any(|end| end.member == index) {
                continue;
            }
            if members[index].lines.iter().any(|line| line.distance_of(meeting.place).is_some()) {
                meeting.passing.push(index);
            }
        }
        meeting.passing.sort_unstable();
    }
    all.retain(|meeting| meeting.ends.len() + meeting.passing.len() > 1);
    all
}

/// The way from a node into a member.
pub fn inward(member: &Member, finish: bool) -> Vector3 {
    if finish { -member.finish.w } else { member.start.w }
}

/// The four faces of a section's box in space: outward normal and level, mm. At a place along a bent member the frame
/// there is needed; `basis` is it.
pub fn faces(member: &Member, basis: &Basis) -> [(Vector3, f64); 4] {
    let around = member.region.extents();
    [(basis.v, around.high.y), (-basis.v, -around.low.y), (-basis.u, -around.low.x), (basis.u, around.high.x)]
        .map(|(normal, out)| (normal, basis.origin.from_origin().dot(normal) + out))
}

/// The frame of a member at the place nearest to a point on its lines.
pub fn basis_at(member: &Member, place: Point3) -> Basis {
    let mut basis = member.start;
    for line in &member.lines {
        if let Some(distance) = line.distance_of(place) {
            return super::member::part_way(basis, line, distance.clamp(0.0, line.length()));
        }
        basis = super::member::along(basis, line);
    }
    // Off its lines: the nearer end's frame.
    if member.start.origin.distance(place) < member.finish.origin.distance(place) {
        member.start
    } else {
        member.finish
    }
}

/// The face of `other` through which a ray leaves it; the face on the far side where `far`. `None` where the ray runs
/// along it.
pub fn face_met(other: &Member, place: Point3, way: Vector3, far: bool) -> Option<(Vector3, f64)> {
    let basis = basis_at(other, place);
    let mut best: Option<(f64, (Vector3, f64))> = None;
    for (normal, level) in faces(other, &basis) {
        let rate = normal.dot(way) * if far { -1.0 } else { 1.0 };
        if rate < 1e-3 {
            continue;
        }
        let distance = (level - place.from_origin().dot(normal)) / rate;
        if best.is_none_or(|(known, _)| distance < known - 1e-9) {
            best = Some((distance, (normal, level)));
        }
    }
    best.map(|(_, face)| face)
}

/// A plane in space as a cut of an end: metal is kept where `normal . x <= level`.
///
/// # Errors
/// A plane that runs along the member.
pub fn cut_by(
    member: &Member,
    finish: bool,
    normal: Vector3,
    level: f64,
    by: String,
    to: Option<usize>,
) -> Result<CutPlane, Finding> {
    let basis = member.basis(finish);
    let local = basis.turn_in(normal);
    let along = if finish { local.z } else { -local.z };
    if along < 0.05 {
        let angle = local.z.abs().min(1.0).acos().to_degrees();
        return Err(Finding::error(
            format!(
                "{} cannot be cut by the {by}: it would lie {angle:.1} deg from square, along the member",
                member.name
            ),
            "Let the other member be cut instead, or cut this end in its own way.",
        ));
    }
    Ok(CutPlane {
        normal: local,
        level: level - basis.origin.from_origin().dot(normal),
        by,
        to: to.into_iter().collect(),
    })
}

/// A round member as a cope of an end.
fn cope_on(member: &Member, finish: bool, other: &Member, to: usize, place: Point3, gap: f64) -> Option<Cope> {
    let round = other.section.is_round().then(|| other.region.extents().width() / 2.0)?;
    let there = basis_at(other, place);
    let middle = other.region.extents().centre();
    let basis = member.basis(finish);
    let axis = basis.turn_in(there.w);
    if axis.z.abs() > 0.999 {
        return None;
    }
    Some(Cope { point: basis.local(there.place(middle.x, middle.y, 0.0)), axis, radius: round + gap, to })
}

/// Cuts an end to a member: its near face, or a cope where it is round.
///
/// # Errors
/// As [`cut_by`]; a member that runs along the one that it would be cut to.
pub fn cut_to(members: &[Member], end: EndAt, to: usize, place: Point3, gap: f64, far: bool) -> Result<End, Finding> {
    let (member, other) = (&members[end.member], &members[to]);
    if !far && let Some(cope) = cope_on(member, end.finish, other, to, place, gap) {
        if member.region.extents().width().min(member.region.extents().height()) > 2.0 * cope.radius + 1e-6 {
            return Err(Finding::error(
                format!("{} is wider than {}, on which it would be coped", member.name, other.name),
                "Let the thinner member be cut.",
            ));
        }
        return Ok(End { copes: vec![cope], ..End::default() });
    }
    let way = inward(member, end.finish);
    let Some((normal, level)) = face_met(other, place, way, far) else {
        return Err(Finding::error(
            format!("{} runs along {}, so no face of it cuts {}", member.name, other.name, member.name),
            "Cut this end in its own way.",
        ));
    };
    let outward = if far { normal } else { -normal };
    let level = if far { level - gap } else { -(level + gap) };
    let cut = cut_by(member, end.finish, outward, level, format!("face of {}", other.name), Some(to))?;
    Ok(End { planes: vec![cut], ..End::default() })
}

/// The plane between two ends: through the corners in which their faces meet, so that sections of unequal depth meet in
/// full; for equal sections the plane that halves the angle. Returns its normal, away from the first member, and level.
fn mitre_plane(members: &[Member], one: EndAt, two: EndAt, place: Point3) -> (Vector3, f64) {
    let (a, b) = (inward(&members[one.member], one.finish), inward(&members[two.member], two.finish));
    let square = a.cross(b);
    let bisect = (b - a).unit();
    let through = |normal: Vector3| (normal, place.from_origin().dot(normal));
    if square.length() < 1e-6 {
        return through(-a);
    }
    let square = square.unit();
    // Sideways of each, toward the inside of the corner.
    let (inner_a, inner_b) = (square.cross(a), b.cross(square));
    let reach = |end: EndAt, way: Vector3| {
        let member = &members[end.member];
        let basis = member.basis(end.finish);
        let (x, y) = (basis.u.dot(way), basis.v.dot(way));
        let around = member.region.extents();
        let pick = |weight: f64, low: f64, high: f64| weight * if weight > 0.0 { high } else { low };
        pick(x, around.low.x, around.high.x) + pick(y, around.low.y, around.high.y)
    };
    // Places in the plane of the two axes, along a and sideways: faces cross at p = x a + y b.
    let cross = |side_a: f64, side_b: f64| {
        // p . inner_a = side_a, p . inner_b = side_b
        let (b_on_a, a_on_b) = (b.dot(inner_a), a.dot(inner_b));
        a * (side_b / a_on_b) + b * (side_a / b_on_a)
    };
    let inside = cross(reach(one, inner_a), reach(two, inner_b));
    let outside = cross(-reach(one, -inner_a), -reach(two, -inner_b));
    let along = inside - outside;
    if along.length() < 1e-6 {
        return through(bisect);
    }
    let mut normal = along.cross(square).unit();
    if normal.dot(bisect) < 0.0 {
        normal = -normal;
    }
    let level = (place + outside).from_origin().dot(normal);
    (normal, level)
}

/// Where the order of the work puts an end among those of a butt joint.
fn rank(members: &[Member], member: usize, through: &[String]) -> usize {
    let one = &members[member];
    through
        .iter()
        .position(|name| *name == one.group || *name == one.name || super::build::matches(name, &one.name))
        .unwrap_or(through.len())
}

/// Cuts every end of a meeting. Ends are written over; a cut that cannot be made is a finding and leaves that end as it was.
pub fn settle(members: &mut [Member], meeting: &Meeting, how: &JointNumbers, findings: &mut Vec<Finding>) {
    let place = meeting.place;
    let mut cut: Vec<(EndAt, End)> = Vec::new();
    let mut say = |result: Result<End, Finding>, end: EndAt, cut: &mut Vec<(EndAt, End)>| match result {
        Ok(made) => match cut.iter_mut().find(|(known, _)| *known == end) {
            Some((_, known)) => {
                known.planes.extend(made.planes);
                known.copes.extend(made.copes);
                known.cutouts.extend(made.cutouts);
            }
            None => cut.push((end, made)),
        },
        Err(finding) => findings.push(finding),
    };
    let gap = match how {
        JointNumbers::Mitre { gap, .. }
        | JointNumbers::Butt { gap, .. }
        | JointNumbers::Trim { gap }
        | JointNumbers::Cope { gap }
        | JointNumbers::Pass { gap } => *gap,
    };
    let meet = |members: &[Member], end: EndAt, to: usize| match how {
        JointNumbers::Cope { gap } => fit_to(members, end, to, place, *gap),
        _ => cut_to(members, end, to, place, gap, false),
    };
    // What runs on is never cut; every end is cut to it.
    for &end in &meeting.ends {
        for &passing in &meeting.passing {
            say(meet(members, end, passing), end, &mut cut);
        }
    }
    let mitre = |members: &[Member], one: EndAt, two: EndAt| -> Result<End, Finding> {
        let (normal, level) = mitre_plane(members, one, two, place);
        let by = format!("mitre with {}", members[two.member].name);
        let cut = cut_by(&members[one.member], one.finish, normal, level - gap / 2.0, by, Some(two.member))?;
        Ok(End { planes: vec![cut], ..End::default() })
    };
    let mut mitres: Vec<(EndAt, EndAt)> = Vec::new();
    match how {
        JointNumbers::Mitre { between, .. } if !meeting.passing.is_empty() => {
            // Each is cut to what runs on already; those that would share space are parted by the plane between them.
            let chosen = if between.is_empty() { meeting.ends.clone() } else { named(members, &meeting.ends, between) };
            for &one in &chosen {
                for &two in chosen.iter().filter(|two| **two != one) {
                    if would_clash(members, one, two, &cut) {
                        mitres.push((one, two));
                    }
                }
            }
            for (one, two) in mitres.drain(..) {
                say(mitre(members, one, two), one, &mut cut);
            }
        }
        JointNumbers::Mitre { between, .. } => {
            let mitred = match mitred_ends(members, meeting, between) {
                Ok(mitred) => mitred,
                Err(finding) => {
                    findings.push(finding);
                    return;
                }
            };
            for &one in &mitred {
                for &two in mitred.iter().filter(|two| **two != one) {
                    say(mitre(members, one, two), one, &mut cut);
                }
            }
            for &end in meeting.ends.iter().filter(|end| !mitred.contains(end)) {
                for to in &mitred {
                    say(cut_to(members, end, to.member, place, gap, false), end, &mut cut);
                }
            }
        }
        JointNumbers::Butt { through, to_node, .. } if meeting.passing.is_empty() => {
            let mut order = meeting.ends.clone();
            order.sort_by_key(|end| rank(members, end.member, through));
            let first = order[0];
            if let (false, Some(&second)) = (*to_node, order.get(1)) {
                // Flush with the far face of the next one; where they run on in line, the node parts them.
                let way = inward(&members[first.member], first.finish);
                let straight = way.cross(inward(&members[second.member], second.finish)).length() < 1e-6;
                if !straight {
                    say(cut_to(members, first, second.member, place, 0.0, true), first, &mut cut);
                }
            }
            for (at, &end) in order.iter().enumerate().skip(1) {
                for to in &order[..at] {
                    let way = inward(&members[end.member], end.finish);
                    if way.cross(inward(&members[to.member], to.finish)).length() < 1e-6 {
                        continue;
                    }
                    say(cut_to(members, end, to.member, place, gap, false), end, &mut cut);
                }
            }
        }
        _ => {
            // Ends on one that runs on: each gives way to those before it, where they would share space.
            let mut order = meeting.ends.clone();
            if let JointNumbers::Butt { through, .. } = how {
                order.sort_by_key(|end| rank(members, end.member, through));
            }
            let from = usize::from(meeting.passing.is_empty());
            for (at, &end) in order.iter().enumerate().skip(from) {
                for &to in &order[..at] {
                    if meeting.passing.is_empty() || would_clash(members, end, to, &cut) {
                        say(meet(members, end, to.member), end, &mut cut);
                    }
                }
            }
        }
    }
    for (end, made) in cut {
        members[end.member].ends[usize::from(end.finish)] = made;
    }
}

/// The ends of a meeting whose member or group is named.
fn named(members: &[Member], ends: &[EndAt], names: &[String]) -> Vec<EndAt> {
    ends.iter().copied().filter(|end| rank(members, end.member, names) < names.len()).collect()
}

/// Which ends of a corner are mitred with each other. It never hangs on the order of the work.
///
/// # Errors
/// Names of which fewer than two are there; a corner where several choices would be possible.
fn mitred_ends(members: &[Member], meeting: &Meeting, between: &[String]) -> Result<Vec<EndAt>, Finding> {
    let list = |ends: &[EndAt]| ends.iter().map(|end| members[end.member].name.as_str()).collect::<Vec<_>>().join(", ");
    let ends = &meeting.ends;
    if !between.is_empty() {
        let chosen = named(members, ends, between);
        if chosen.len() < 2 {
            return Err(Finding::error(
                format!(
                    "a mitre between {} finds {} of them where {} meet",
                    between.join(" and "),
                    chosen.len(),
                    list(ends)
                ),
                "Name two that end there, or say another joint for this node.",
            )
            .at_field("how.mitre.between"));
        }
        return Ok(chosen);
    }
    let mut groups: Vec<(&str, Vec<EndAt>)> = Vec::new();
    for &end in ends {
        let group = members[end.member].group.as_str();
        match groups.iter_mut().find(|(known, _)| *known == group) {
            Some((_, own)) => own.push(end),
            None => groups.push((group, vec![end])),
        }
    }
    if ends.len() == 2 || groups.len() == 1 {
        return Ok(ends.clone());
    }
    let several: Vec<&Vec<EndAt>> = groups.iter().map(|(_, own)| own).filter(|own| own.len() > 1).collect();
    match several.as_slice() {
        [one] => Ok((*one).clone()),
        _ => Err(Finding::error(
            format!("{} meet in one node, and nothing says which of them are mitred", list(ends)),
            "Say between which groups or members, or make it a butt with the order in which they run through.",
        )
        .at_field("how.mitre.between")),
    }
}

/// Whether two ends would share space with the cuts that they have so far.
fn would_clash(members: &[Member], one: EndAt, two: EndAt, cut: &[(EndAt, End)]) -> bool {
    let with = |end: EndAt| {
        let mut member = members[end.member].clone();
        if let Some((_, made)) = cut.iter().find(|(known, _)| *known == end) {
            member.ends[usize::from(end.finish)] = made.clone();
        }
        member
    };
    super::clash::members_clash(&with(one), &with(two))
}
