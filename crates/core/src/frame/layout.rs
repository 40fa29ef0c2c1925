//! A frame while it is laid out: lines, which of them have a section, and what joints are wanted.

use std::collections::HashMap;
use std::sync::Arc as Shared;

use crate::finding::Finding;
use crate::patience;
use crate::section::Section;
use crate::space::Point3;
use crate::stock::Material;
use crate::work::frame::{JointAt, MemberAction, UsualJoints};

use super::joint::JointNumbers;
use super::skeleton::{CentreLine, Skeleton};

/// A group's numbers.
#[derive(Debug)]
pub(super) struct Group {
    /// The operation that puts the section on.
    pub name: String,
    /// Its words.
    pub action: MemberAction,
    pub section: Shared<Section>,
    pub material: &'static Material,
    /// About the line, radians.
    pub roll: f64,
    /// Off the line, mm.
    pub across: f64,
    pub up: f64,
    /// What the saw's grip needs, mm.
    pub grip: f64,
}

/// A joint that is wanted.
#[derive(Debug)]
pub(super) struct JointSaid {
    /// The operation that says so.
    pub name: String,
    pub at: JointAt,
    pub how: JointNumbers,
}

/// Joints of a ready frame at its own nodes, where no step says others.
#[derive(Debug)]
pub(super) struct ReadyJointed {
    /// The operation that laid it.
    pub name: String,
    /// Its nodes, mm.
    pub places: Vec<Point3>,
    /// Where members end together.
    pub corners: JointNumbers,
}

/// A frame while it is laid out.
#[derive(Debug, Default)]
pub(super) struct Layout {
    pub skeleton: Skeleton,
    pub groups: Vec<Group>,
    /// Which group each line has.
    pub assigned: HashMap<String, usize>,
    /// Lines that are copies, each with the line that it is a copy of.
    pub copied: Vec<(String, String)>,
    pub joints: Vec<JointSaid>,
    /// Of ready frames with their sections on.
    pub ready: Vec<ReadyJointed>,
    /// Where no step says anything.
    pub usual: Option<UsualJoints>,
    /// Operations that a copy does not make again, with what they do.
    pub not_copied: HashMap<String, &'static str>,
}

impl Layout {
    /// The group of a line.
    pub fn group_of(&self, line: &str) -> Option<&Group> {
        self.assigned.get(line).and_then(|&at| self.groups.get(at))
    }

    pub fn line(&self, name: &str, field: &str) -> Result<&CentreLine, Finding> {
        self.skeleton.line(name).ok_or_else(|| self.no_line(name, field))
    }

    pub fn no_line(&self, name: &str, field: &str) -> Finding {
        let known: Vec<&str> = self.skeleton.lines.iter().map(|line| line.name.as_str()).take(12).collect();
        let way_out = if known.is_empty() {
            "There are no lines before this step: lay some first.".to_string()
        } else {
            format!("Lines before this step are {}.", known.join(", "))
        };
        Finding::error(format!("there is no line called {name}"), way_out).at_field(field)
    }

    pub fn lay(&mut self, operation: &str, lines: Vec<CentreLine>) -> Result<(), Finding> {
        let mut number = 0;
        for line in lines {
            patience::check();
            for place in [line.from, line.to] {
                if self.skeleton.named(place).is_none() {
                    number += 1;
                    self.skeleton.add_node(format!("{operation}.n{number}"), place);
                }
            }
            self.skeleton.add_line(line)?;
        }
        Ok(())
    }
}
