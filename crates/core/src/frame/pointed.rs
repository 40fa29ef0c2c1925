//! What somebody points at on a frame, and what the rows of verbs make their offers from.

use crate::quantity::{Expr, LengthUnit, MemberName, length_text};
use crate::work::about;
use crate::work::frame::{MemberFace, OneEnd};

use super::model::Frame;

/// What a name on a frame stands for.
#[derive(Clone, Debug, PartialEq)]
pub enum Pointed {
    /// A node.
    Node(String),
    /// A centre line with no section on it, by its place among the lines.
    Line(usize),
    /// A member, by its place.
    Member(usize),
    /// A side of a member.
    Face(usize, MemberFace),
    /// An end of a member.
    End(usize, OneEnd),
    /// A plate, by its place.
    Plate(usize),
}

/// All that is pointed at, with the frame that it is on.
pub struct Pointing<'a> {
    /// The frame.
    pub frame: &'a Frame,
    /// In the order pointed at.
    pub at: Vec<Pointed>,
    /// The unit that values are offered in.
    pub unit: LengthUnit,
}

/// What a name stands for; `None` where the frame has nothing of that name.
pub fn pointed(frame: &Frame, name: &str) -> Option<Pointed> {
    if frame.skeleton.nodes.iter().any(|node| node.name == name) {
        return Some(Pointed::Node(name.into()));
    }
    let of = |own: &str| name == own || name.strip_prefix(own).is_some_and(|rest| rest.starts_with('.'));
    // The longest that fits: `rail.1` before `rail`.
    let member =
        frame.members.iter().enumerate().filter(|(_, one)| of(&one.name)).max_by_key(|(_, one)| one.name.len());
    let plate = frame.plates.iter().enumerate().filter(|(_, one)| of(&one.name)).max_by_key(|(_, one)| one.name.len());
    let longer = match (&member, &plate) {
        (Some((_, member)), Some((_, plate))) => plate.name.len() > member.name.len(),
        (None, Some(_)) => true,
        _ => false,
    };
    if let (Some((at, _)), true) = (plate, longer) {
        return Some(Pointed::Plate(at));
    }
    if let Some((at, one)) = member {
        return Some(match name[one.name.len()..].trim_start_matches('.') {
            "top" => Pointed::Face(at, MemberFace::Top),
            "bottom" => Pointed::Face(at, MemberFace::Bottom),
            "left" => Pointed::Face(at, MemberFace::Left),
            "right" => Pointed::Face(at, MemberFace::Right),
            end if end.starts_with("start") => Pointed::End(at, OneEnd::Start),
            end if end.starts_with("finish") => Pointed::End(at, OneEnd::Finish),
            _ => Pointed::Member(at),
        });
    }
    let line = frame.skeleton.lines.iter().position(|line| line.name == name)?;
    Some(Pointed::Line(line))
}

impl Pointed {
    /// What it is, in words with its size: "member table.leg-1, SHS 50x50x3, 750 mm".
    pub fn words(&self, frame: &Frame, unit: LengthUnit) -> String {
        let member = |at: usize| {
            let one = &frame.members[at];
            format!("{}, {}, {}", one.name, one.section.name, length_text(one.length(), unit))
        };
        match self {
            Pointed::Node(name) => format!("node {name}"),
            Pointed::Line(at) => {
                let line = &frame.skeleton.lines[*at];
                format!("line {}, {}", line.name, length_text(line.length(), unit))
            }
            Pointed::Member(at) => format!("member {}", member(*at)),
            Pointed::Face(at, face) => format!("{} face of member {}", side(*face), member(*at)),
            Pointed::End(at, end) => format!("{} of member {}", end.word(), member(*at)),
            Pointed::Plate(at) => {
                let plate = &frame.plates[*at];
                format!("plate {}, {}", plate.name, length_text(plate.thickness, unit))
            }
        }
    }

    /// The member that it is of.
    pub fn member(&self) -> Option<usize> {
        match self {
            Pointed::Member(at) | Pointed::Face(at, _) | Pointed::End(at, _) => Some(*at),
            _ => None,
        }
    }
}

fn side(face: MemberFace) -> &'static str {
    match face {
        MemberFace::Top => "top",
        MemberFace::Bottom => "bottom",
        MemberFace::Left => "left",
        MemberFace::Right => "right",
    }
}

impl<'a> Pointing<'a> {
    /// Whether nothing is pointed at.
    pub fn nowhere(&self) -> bool {
        self.at.is_empty()
    }

    /// The members, where only members, their sides and ends are pointed at; each once.
    pub fn members(&self) -> Option<Vec<usize>> {
        let mut all = Vec::new();
        for one in &self.at {
            let at = one.member()?;
            if !all.contains(&at) {
                all.push(at);
            }
        }
        (!all.is_empty()).then_some(all)
    }

    /// The nodes, where only nodes are pointed at; each once.
    pub fn nodes(&self) -> Option<Vec<&str>> {
        let mut all: Vec<&str> = Vec::new();
        for one in &self.at {
            let Pointed::Node(name) = one else { return None };
            if !all.contains(&name.as_str()) {
                all.push(name);
            }
        }
        (!all.is_empty()).then_some(all)
    }

    /// How a member is cited.
    pub fn named(&self, member: usize) -> MemberName {
        self.frame.members[member].name.as_str().into()
    }

    /// Half of the larger side of a member's section, mm.
    pub fn half(&self, member: usize) -> f64 {
        let around = self.frame.members[member].region.extents();
        around.width().max(around.height()) / 2.0
    }

    /// A length near one in mm, as the piece's unit is typed.
    pub fn about(&self, millimetres: f64) -> Expr {
        about(millimetres, self.unit)
    }

    /// Names of the centre lines with no section on them.
    pub fn bare(&self) -> Vec<&'a str> {
        let has = |name: &str| self.frame.members.iter().any(|one| one.lines.iter().any(|line| line.name == name));
        self.frame.skeleton.lines.iter().map(|line| line.name.as_str()).filter(|name| !has(name)).collect()
    }
}
