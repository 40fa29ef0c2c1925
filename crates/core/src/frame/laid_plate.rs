//! A plate where it lies on the frame.

use serde::Serialize;

use crate::sheet::{BlankCut, Part};
use crate::space::{Point3, Vector3};
use crate::stock::Material;
use crate::work::Operation;

use super::lug::LugFigures;
use super::member::Basis;

/// What a plate on a frame is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize)]
pub enum PlateForm {
    /// In the corner of two members.
    #[serde(rename = "gusset")]
    Gusset,
    /// Across the end of a member.
    #[serde(rename = "base plate")]
    BasePlate,
    /// On the end of a tube.
    #[serde(rename = "end cap")]
    EndCap,
    /// In an opening between members, or on top of them.
    #[serde(rename = "panel")]
    Panel,
    /// Lying on a face of a member.
    #[serde(rename = "plate")]
    OnFace,
    /// Standing on a face of a member.
    #[serde(rename = "upright")]
    Upright,
    /// Standing on a face and lifted by.
    #[serde(rename = "lug")]
    Lug,
}

impl PlateForm {
    /// What lists and titles call it.
    pub fn word(self) -> &'static str {
        match self {
            PlateForm::Gusset => "gusset",
            PlateForm::BasePlate => "base plate",
            PlateForm::EndCap => "end cap",
            PlateForm::Panel => "panel",
            PlateForm::OnFace => "plate",
            PlateForm::Upright => "upright",
            PlateForm::Lug => "lug",
        }
    }

    /// Whether its edges lie on members and are welded from both sides, rather than all round its foot.
    pub fn welded_on_both_sides(self) -> bool {
        matches!(self, PlateForm::Gusset | PlateForm::Panel)
    }
}

/// A plate of a frame.
#[derive(Clone, Debug)]
pub struct FramePlate {
    /// `OPERATION` or `OPERATION.2`.
    pub name: String,
    /// The operation that put it there.
    pub operation: String,
    /// Mark given to it.
    pub mark: Option<String>,
    /// What it is.
    pub form: PlateForm,
    /// Its material.
    pub material: &'static Material,
    /// Thickness, mm.
    pub thickness: f64,
    /// Its work as a plate piece's.
    pub work: Vec<Operation>,
    /// As built.
    pub part: Part,
    /// Where it lies: x of the flat along u, y along v, its lower face at t = 0.
    pub basis: Basis,
    /// Sub-weldment.
    pub weldment: Option<String>,
    /// Members that it meets, by index, with how long it lies along each, mm.
    pub meets: Vec<(usize, f64)>,
    /// Where its numbers tell it to lie, reckoned from the members' faces.
    pub told: Vec<Told>,
    /// Figures of a lug that lifts.
    pub lug: Option<LugFigures>,
}

impl FramePlate {
    /// As the shop sees it: what two plates are compared by.
    pub fn cut(&self) -> BlankCut {
        BlankCut::of(&self.part, format!("{} {} {:.3}", self.material.name, self.form.word(), self.thickness))
    }

    /// Mass, kg: net area x thickness x density.
    pub fn mass(&self) -> f64 {
        crate::sheet::figures(&self.part).mass
    }

    /// Centre of gravity, mm.
    pub fn centre_of_gravity(&self) -> Point3 {
        let at = crate::sheet::figures(&self.part).centre_of_gravity;
        self.basis.place(at.x, at.y, at.z)
    }
}

/// What of a plate is told along a direction.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Extreme {
    /// Where it begins.
    Least,
    /// The middle of where it begins and where it ends.
    Middle,
}

/// One thing that a plate's numbers say of where it lies.
#[derive(Clone, Debug, PartialEq)]
pub struct Told {
    /// In words: `its face on the top of rail`.
    pub what: String,
    /// Unit direction in space.
    pub along: Vector3,
    /// What of it.
    pub extreme: Extreme,
    /// Where that should be along the direction, mm from the origin of space.
    pub value: f64,
}

impl Told {
    pub(super) fn new(what: impl Into<String>, along: Vector3, extreme: Extreme, value: f64) -> Told {
        Told { what: what.into(), along, extreme, value }
    }

    /// Where that of these points is, mm.
    pub fn of(&self, points: impl Iterator<Item = Point3>) -> f64 {
        let (low, high) = points.fold((f64::INFINITY, f64::NEG_INFINITY), |(low, high), place| {
            let at = place.from_origin().dot(self.along);
            (low.min(at), high.max(at))
        });
        match self.extreme {
            Extreme::Least => low,
            Extreme::Middle => (low + high) / 2.0,
        }
    }
}
