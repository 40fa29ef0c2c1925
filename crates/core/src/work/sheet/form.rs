//! Words of pressed forms: louvres, beads, dimples, extruded holes, raised fields.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::quantity::{Expr, PanelName};
use crate::work::shape::BaseShape;

use super::{Face, Mirror, Pattern, Place, Repeat};

/// Press forms into a panel. They are placed, repeated, mirrored and skipped as holes are.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FormAction {
    /// The panel.
    pub panel: PanelName,
    /// Further panels that get the same: edges that place it are read as the same edges of those.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub also: Vec<PanelName>,
    /// What is pressed.
    pub shape: FormShape,
    /// The face that it stands out of: toward whoever stands before that face.
    #[serde(default, skip_serializing_if = "Face::is_top")]
    pub out_of: Face,
    /// Turned from the direction that it is placed along, left positive.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turn: Option<Expr>,
    /// Where.
    #[serde(default)]
    pub place: Place,
    /// Several off: each entry repeats all before it, so two entries make a grid.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub repeat: Vec<Repeat>,
    /// Several off in another way than rows; not together with `repeat`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pattern: Option<Pattern>,
    /// Made again across the panel's centre lines.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mirror: Option<Mirror>,
    /// Single places left out, by number; the others keep their names.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub skip: Vec<usize>,
}

/// What is pressed. Heights stand over the face, to the formed face.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum FormShape {
    /// A louvre.
    Louvre(LouvreForm),
    /// A straight bead or rib with round ends.
    Bead(BeadForm),
    /// A round dimple with a flat crown.
    Dimple(DimpleForm),
    /// A hole with a collar drawn out of the sheet.
    Extruded(ExtrudedForm),
    /// A field that stands out, of any outline.
    Raised(RaisedForm),
    /// A disc that is sheared part of the way, to be knocked out when it is wanted.
    KnockOut(KnockOutForm),
}

/// A louvre: a hood that the tool cuts open along one of its long sides.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LouvreForm {
    /// Along its opening.
    pub length: Expr,
    /// Square to it, on the sheet.
    pub width: Expr,
    /// How high its opening's edge stands over the face.
    pub height: Expr,
    /// The side that it opens to: from the first edge that it is placed from, or to it.
    #[serde(default, skip_serializing_if = "LouvreSide::is_away")]
    pub opens: LouvreSide,
    /// Slope of its closed ends; 60 deg where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Expr>,
}

/// The side that a louvre opens to, by the first edge that it is placed from; by the lower edge of the flat where there is none.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LouvreSide {
    /// Away from that edge.
    #[default]
    Away,
    /// Toward it.
    Toward,
}

impl LouvreSide {
    fn is_away(&self) -> bool {
        *self == LouvreSide::Away
    }
}

/// A bead, or a rib pressed on a face.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BeadForm {
    /// Over all.
    pub length: Expr,
    /// Where it leaves the face.
    pub width: Expr,
    /// How high it stands over the face.
    pub height: Expr,
    /// Slope of its sides; 45 deg where left out, 90 deg upright.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Expr>,
}

/// A dimple.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DimpleForm {
    /// Where it leaves the face.
    pub diameter: Expr,
    /// How high it stands over the face.
    pub height: Expr,
    /// Slope of its sides; 45 deg where left out, 90 deg upright.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Expr>,
}

/// An extruded hole. Its pilot is cut first: as large as the collar's metal asks for. One of `diameter` and `thread` says the hole.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ExtrudedForm {
    /// Inside diameter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub diameter: Option<Expr>,
    /// A thread that is tapped into it: its tap drill is the inside diameter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub thread: Option<String>,
    /// How high the collar stands over the face.
    pub height: Expr,
    /// How thick the collar is; half of the sheet where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wall: Option<Expr>,
}

/// A knock-out.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KnockOutForm {
    /// Of the hole that it leaves.
    pub diameter: Expr,
    /// How far it is pushed out of the face; half of the sheet where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height: Option<Expr>,
}

/// A raised field.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RaisedForm {
    /// Where it leaves the face; without holes, placed by the centre of its box.
    pub outline: BaseShape,
    /// How high it stands over the face.
    pub height: Expr,
    /// Slope of its sides; 45 deg where left out, 90 deg upright.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Expr>,
}
