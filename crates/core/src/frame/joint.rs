//! Joints: where members meet, and the planes and copes that settle their ends.

use std::collections::HashMap;

use super::cut_plane::CutBy;
use crate::finding::Finding;
use crate::quantity::MemberName;
use crate::quantity::tolerance::NO_TURN;
use crate::space::{Point3, Vector3};
use crate::work::frame::OneEnd;

use super::end::End;
use super::end_at::{EndAt, Meeting, cut_by, cut_to, inward};
use super::fit::fit_to;
use super::member::Member;
use super::skeleton::ONE_NODE;

/// How the members of a meeting are cut, in numbers.
#[derive(Clone, Debug, PartialEq)]
pub enum JointNumbers {
    /// On the planes between them.
    Mitre {
        /// Groups or members that are mitred with each other.
        between: Vec<MemberName>,
        /// Between the two, mm.
        gap: f64,
    },
    /// In an order.
    Butt {
        /// Groups or members that run through first.
        through: Vec<MemberName>,
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
        for which in OneEnd::BOTH {
            let place = one.basis(which).origin;
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
            all[at].ends.push(EndAt { member, which });
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

/// The plane between two ends: through the corners in which their faces meet, so that sections of unequal depth meet in
/// full; for equal sections the plane that halves the angle. Returns its normal, away from the first member, and level.
fn mitre_plane(members: &[Member], one: EndAt, two: EndAt, place: Point3) -> (Vector3, f64) {
    let (a, b) = (inward(&members[one.member], one.which), inward(&members[two.member], two.which));
    let square = a.cross(b);
    let bisect = (b - a).unit();
    let through = |normal: Vector3| (normal, place.from_origin().dot(normal));
    if square.length() < NO_TURN {
        return through(-a);
    }
    let square = square.unit();
    // Sideways of each, toward the inside of the corner.
    let (inner_a, inner_b) = (square.cross(a), b.cross(square));
    let reach = |end: EndAt, way: Vector3| {
        let member = &members[end.member];
        let basis = member.basis(end.which);
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
    if along.length() < NO_TURN {
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
fn rank(members: &[Member], member: usize, through: &[MemberName]) -> usize {
    let one = &members[member];
    through
        .iter()
        .position(|name| *name == one.group || *name == one.name || super::names::matches(name, &one.name))
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
        let by = CutBy::Mitre(members[two.member].name.clone());
        let cut = cut_by(&members[one.member], one.which, normal, level - gap / 2.0, by, Some(two.member))?;
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
                let way = inward(&members[first.member], first.which);
                let straight = way.cross(inward(&members[second.member], second.which)).length() < NO_TURN;
                if !straight {
                    say(cut_to(members, first, second.member, place, 0.0, true), first, &mut cut);
                }
            }
            for (at, &end) in order.iter().enumerate().skip(1) {
                for to in &order[..at] {
                    let way = inward(&members[end.member], end.which);
                    if way.cross(inward(&members[to.member], to.which)).length() < NO_TURN {
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
        members[end.member].ends[end.which.at()] = made;
    }
}

/// The ends of a meeting whose member or group is named.
fn named(members: &[Member], ends: &[EndAt], names: &[MemberName]) -> Vec<EndAt> {
    ends.iter().copied().filter(|end| rank(members, end.member, names) < names.len()).collect()
}

/// Which ends of a corner are mitred with each other. It never hangs on the order of the work.
///
/// # Errors
/// Names of which fewer than two are there; a corner where several choices would be possible.
fn mitred_ends(members: &[Member], meeting: &Meeting, between: &[MemberName]) -> Result<Vec<EndAt>, Finding> {
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
            member.ends[end.which.at()] = made.clone();
        }
        member
    };
    super::clash_pair::members_clash(&with(one), &with(two))
}
