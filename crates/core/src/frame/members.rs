//! Members from lines with a section on them.

use std::collections::HashSet;

use crate::finding::Finding;
use crate::plane::{Outline, Point, Region, Vector};
use crate::quantity::tolerance::{MODELLING_TOLERANCE, NO_TURN};
use crate::space::{Motion, Vector3};
use crate::work::frame::Align;
use crate::work::frame::OneEnd;

use super::end::square_end;
use super::layout::{Group, Layout};
use super::member::{Basis, Member, along};
use super::model::mirrored_outline;
use super::skeleton::{CentreLine, ONE_NODE};

/// Members of every line that has a section; lines that run into each other smoothly, one of them round, are one.
pub(super) fn members(layout: &Layout, findings: &mut Vec<Finding>) -> Vec<Member> {
    let mut all = Vec::new();
    let mut numbers = vec![0usize; layout.groups.len()];
    let mut used: HashSet<&str> = HashSet::new();
    // Groups with an arc: only their lines can run into each other smoothly.
    let mut bent = vec![false; layout.groups.len()];
    for line in layout.skeleton.lines.iter().filter(|line| line.arc.is_some()) {
        if let Some(&at) = layout.assigned.get(&line.name) {
            bent[at] = true;
        }
    }
    for line in &layout.skeleton.lines {
        let Some(&at) = layout.assigned.get(&line.name) else { continue };
        if used.contains(line.name.as_str()) {
            continue;
        }
        numbers[at] += 1;
        let chain = if bent[at] { chain(layout, line, at, &mut used) } else { vec![line.clone()] };
        match member_of(&layout.groups[at], chain, numbers[at]) {
            Ok(member) => all.push(member),
            Err(finding) => findings.push(finding.of_operation(&layout.groups[at].name)),
        }
    }
    all
}

fn chain<'b>(layout: &'b Layout, first: &'b CentreLine, group: usize, used: &mut HashSet<&'b str>) -> Vec<CentreLine> {
    used.insert(first.name.as_str());
    let mut chain = vec![first.clone()];
    loop {
        let mut grown = false;
        for line in &layout.skeleton.lines {
            if used.contains(line.name.as_str()) || layout.assigned.get(&line.name) != Some(&group) {
                continue;
            }
            let (head, tail) = (&chain[0], &chain[chain.len() - 1]);
            // Straight lines are members of their own, however they run on.
            if line.arc.is_none() && head.arc.is_none() && tail.arc.is_none() {
                continue;
            }
            let smooth = |one: Vector3, two: Vector3| one.cross(two).length() < NO_TURN && one.dot(two) > 0.0;
            let bent = |other: &CentreLine| line.arc.is_some() || other.arc.is_some();
            for turned in [line.clone(), line.reversed()] {
                if bent(tail)
                    && turned.from.distance(tail.to) < ONE_NODE
                    && smooth(tail.heading(tail.length()), turned.heading(0.0))
                {
                    used.insert(line.name.as_str());
                    chain.push(turned);
                    grown = true;
                    break;
                }
                if bent(head)
                    && turned.to.distance(head.from) < ONE_NODE
                    && smooth(turned.heading(turned.length()), head.heading(0.0))
                {
                    used.insert(line.name.as_str());
                    chain.insert(0, turned);
                    grown = true;
                    break;
                }
            }
            if grown {
                break;
            }
        }
        if !grown {
            return chain;
        }
    }
}

fn member_of(group: &Group, lines: Vec<CentreLine>, number: usize) -> Result<Member, Finding> {
    let first = lines[0].clone();
    let (name, mirrored) = (first.name.clone(), first.mirrored);
    let shape = &group.section.region;
    let around = shape.extents();
    let centroid = shape.centroid();
    let (x, y) = match group.action.align {
        Align::Centre => (0.0, 0.0),
        Align::Centroid => (centroid.x, centroid.y),
        Align::Top => (0.0, around.high.y),
        Align::Bottom => (0.0, around.low.y),
        Align::Left => (around.low.x, 0.0),
        Align::Right => (around.high.x, 0.0),
        Align::TopLeft => (around.low.x, around.high.y),
        Align::TopRight => (around.high.x, around.high.y),
        Align::BottomLeft => (around.low.x, around.low.y),
        Align::BottomRight => (around.high.x, around.low.y),
    };
    let shift = Vector::new(group.across - x, group.up - y);
    let place = |at: Point| {
        let moved = at + shift;
        if mirrored { Point::new(-moved.x, moved.y) } else { moved }
    };
    let move_outline = |outline: &Outline| {
        let moved = outline.moved(place);
        // Mirroring walks arcs the other way.
        if mirrored { mirrored_outline(&moved) } else { moved }
    };
    let region = Region { outer: move_outline(&shape.outer), holes: shape.holes.iter().map(move_outline).collect() };
    let heading = first.heading(0.0);
    let plain = Basis::about(first.from, heading, first.up);
    let roll = if mirrored { -group.roll } else { group.roll };
    let start = plain.moved(&Motion::turn(first.from, heading, roll));
    let finish = lines.iter().fold(start, along);
    if lines.len() > 1 || first.arc.is_some() {
        let mut basis = start;
        for line in &lines {
            if let Some(arc) = &line.arc {
                let radius = line.from.distance(arc.centre);
                let way = (arc.centre - line.from).unit();
                let inner = region
                    .outer
                    .flatten(0.1)
                    .iter()
                    .map(|at| (basis.u * at.x + basis.v * at.y).dot(way))
                    .fold(f64::NEG_INFINITY, f64::max);
                if inner >= radius - MODELLING_TOLERANCE {
                    return Err(Finding::error(
                        format!(
                            "{name} is bent to {radius:.1} mm, and its section reaches {inner:.1} mm toward the centre"
                        ),
                        "Take a larger radius or a smaller section.",
                    ));
                }
            }
            basis = along(basis, line);
        }
    }
    Ok(Member {
        name,
        group: group.name.clone(),
        number,
        section: group.section.clone(),
        region,
        material: group.material,
        lines,
        start,
        finish,
        ends: OneEnd::BOTH.map(|which| square_end(which, 0.0)),
        bores: Vec::new(),
        mirrored,
        mark: group.action.mark.clone().unwrap_or_else(|| group.name.to_ascii_uppercase()),
        grip: group.grip,
        weldment: group.action.weldment.clone(),
        columns: group.action.columns.clone(),
        kept_bodies: None,
    })
}
