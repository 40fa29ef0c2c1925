//! The piece document: JSON, versioned, every value text with its unit.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::proof::{Acceptance, Tolerance, ToleranceClass};
use crate::quantity::{Expr, LengthUnit, OperationName};
use crate::stock::{BendTable, Grain};
use crate::work::Operation;
use crate::work::cutting::Cutting;
use crate::work::frame::FrameSettings;
use crate::work::measure::Measure;
use crate::work::sheet::Method;

/// The document version written and read.
pub const VERSION: u32 = 1;
/// The largest document read, bytes.
pub const LARGEST_DOCUMENT: usize = 2 * 1024 * 1024;
/// The most call-outs and operations of a piece.
const MOST_ENTRIES: usize = 2000;

/// One fabricated thing.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Piece {
    /// Document version; 1.
    pub steelk: u32,
    /// What kind of piece.
    pub kind: Kind,
    /// Piece mark, as painted on it.
    pub mark: String,
    /// What it is.
    pub title: String,
    /// How many the job needs.
    pub quantity: u32,
    /// How many more are cut, to prove a bend or a set-up on.
    #[serde(default, skip_serializing_if = "is_none")]
    pub spares: u32,
    /// Whether the first is made and measured before the rest.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub first_off: bool,
    /// The unit of bare lengths and of printing.
    pub unit: LengthUnit,
    /// Material and thickness.
    pub stock: StockChoice,
    /// Inside radius and how blanks are computed; a plate needs none.
    #[serde(default)]
    pub bending: Bending,
    /// Turned about to the opposite hand when all is done.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub opposite_hand: bool,
    /// Made to scale: what its lengths are multiplied by, as `1:4` or `0.25`. Thickness, inside radius, threads and screws stay.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub scale: Option<Expr>,
    /// A trial piece, in no list of its job.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub trial: bool,
    /// How the rolling direction of the sheet lies on the blank; not minded where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub grain: Option<Grain>,
    /// What a frame says of saw, bars and welds.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub frame: Option<FrameSettings>,
    /// The same piece made otherwise.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub variants: Vec<Variant>,
    /// General tolerance of call-outs with none of their own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub general_tolerance: Option<ToleranceClass>,
    /// How it is cut; where left out, by the first cutter that reaches its thickness.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cutting: Option<Cutting>,
    /// Rules that do not hold and are accepted for this piece.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub accepted: Vec<Acceptance>,
    /// The drawing's numbers.
    #[serde(default)]
    pub callouts: Vec<CallOut>,
    /// The work, in order.
    #[serde(default)]
    pub operations: Vec<Operation>,
}

/// Kinds of piece.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Kind {
    /// Bent sheet.
    Sheet,
    /// Flat plate: the same work without bends.
    Plate,
    /// Welded frame: centre lines with sections.
    Frame,
}

/// What it is made from.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StockChoice {
    /// Name of a material in the stock table.
    pub material: String,
    /// A length, or a gauge of the material's family (`14 ga`); nothing for a frame.
    #[serde(default, skip_serializing_if = "Expr::is_empty")]
    pub thickness: Expr,
    /// Whether somebody has said that this is the stock: `false` in a piece that was begun with what its job had last. Absent counts as
    /// confirmed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub confirmed: Option<bool>,
}

impl StockChoice {
    /// Whether nothing is to be given out before somebody has confirmed it.
    pub fn is_open(&self) -> bool {
        self.confirmed == Some(false)
    }
}

/// How it is bent unless a bend says otherwise; where left out, an inside radius of the thickness.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Bending {
    /// Inside radius, a length; `R` in expressions.
    pub radius: Expr,
    /// How blanks are computed; the material's K-factor where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub method: Option<Method>,
    /// A measured table, which wins over the method: a copy of the shop's, so that the file alone rebuilds the piece.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub table: Option<BendTable>,
    /// The die opening that it is bent in, a length, where the table tells dies apart.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub die: Option<Expr>,
}

impl Default for Bending {
    fn default() -> Self {
        Bending { radius: "T".into(), method: None, table: None, die: None }
    }
}

/// One number that the drawing gives.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CallOut {
    /// Its letter or name, as cited in expressions and shown in its balloon.
    pub name: String,
    /// What the drawing calls it.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub text: String,
    /// Its value.
    pub value: Expr,
    /// Its tolerance.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tolerance: Option<Tolerance>,
    /// What it measures on the part.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub measure: Option<Measure>,
    /// Where its balloon sits on the drawing.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub place: Option<BalloonPlace>,
}

/// A place on the drawing's picture, as fractions of its width and height from the upper left.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct BalloonPlace {
    pub x: f64,
    pub y: f64,
}

/// Why a document is refused.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
#[error("{path}: {message}")]
pub struct DocumentError {
    /// Path to the field: `operations[2].do.bend.leg`; `document` for the whole.
    pub path: String,
    /// What is wrong with it.
    pub message: String,
}

impl DocumentError {
    pub(super) fn new(path: impl Into<String>, message: impl Into<String>) -> Self {
        DocumentError { path: path.into(), message: message.into() }
    }
}

impl Piece {
    /// Reads a document.
    ///
    /// # Errors
    /// [`DocumentError`] with the path to the first bad field: not JSON, too large, an unknown field, a value of the
    /// wrong kind, another version, a name that is empty, taken or reserved.
    pub fn read(json: &[u8]) -> Result<Piece, DocumentError> {
        if json.len() > LARGEST_DOCUMENT {
            return Err(DocumentError::new(
                "document",
                format!("the document is {} bytes; {LARGEST_DOCUMENT} is the most that is read", json.len()),
            ));
        }
        let mut reader = serde_json::Deserializer::from_slice(json);
        let piece: Piece = serde_path_to_error::deserialize(&mut reader).map_err(|fault| {
            let path = fault.path().to_string();
            let path = if path == "." || path == "?" { "document".to_string() } else { path };
            DocumentError::new(path, fault.into_inner().to_string())
        })?;
        reader.end().map_err(|fault| DocumentError::new("document", fault.to_string()))?;
        piece.check()?;
        Ok(piece)
    }

    /// The document as text, two-space indented, ending in a line break.
    pub fn write(&self) -> String {
        // Strings, numbers and lists only: nothing in a piece can fail to be written.
        let mut text = serde_json::to_string_pretty(self).unwrap_or_default();
        text.push('\n');
        text
    }

    /// The document as text that is kept: as [`write`](Self::write) where that can be read again.
    ///
    /// # Errors
    /// [`DocumentError`] where it would be larger than what is read.
    pub fn to_keep(&self) -> Result<String, DocumentError> {
        let text = self.write();
        if text.len() > LARGEST_DOCUMENT {
            return Err(DocumentError::new(
                "document",
                format!(
                    "as it is kept the document has {} bytes; {LARGEST_DOCUMENT} is the most that could be opened again",
                    text.len()
                ),
            ));
        }
        Ok(text)
    }

    /// Checks what the types cannot say.
    ///
    /// # Errors
    /// As [`Piece::read`].
    pub fn check(&self) -> Result<(), DocumentError> {
        if self.steelk != VERSION {
            return Err(DocumentError::new(
                "steelk",
                format!("this document is version {}; version {VERSION} is read here", self.steelk),
            ));
        }
        if self.mark.trim().is_empty() || self.mark.chars().count() > 40 || self.mark.chars().any(char::is_control) {
            return Err(DocumentError::new("mark", "a mark has 1 to 40 characters, such as WB-02"));
        }
        if self.title.chars().count() > 200 || self.title.chars().any(char::is_control) {
            return Err(DocumentError::new("title", "a title has at most 200 characters on one line"));
        }
        if self.quantity == 0 || self.quantity > 1_000_000 {
            return Err(DocumentError::new("quantity", "a quantity is a whole number from 1 to 1000000"));
        }
        if self.spares > 1_000_000 {
            return Err(DocumentError::new("spares", "spares are a whole number to 1000000"));
        }
        if self.scale.is_some() && self.kind == Kind::Frame {
            return Err(DocumentError::new("scale", "a frame's sections have no scale"));
        }
        let entries = [
            ("callouts", self.callouts.len()),
            ("operations", self.operations.len()),
            ("accepted", self.accepted.len()),
        ];
        for (path, count) in entries {
            if count > MOST_ENTRIES {
                return Err(DocumentError::new(path, format!("{count} entries; {MOST_ENTRIES} is the most")));
            }
        }
        for (at, callout) in self.callouts.iter().enumerate() {
            let path = format!("callouts[{at}].name");
            check_callout_name(&callout.name).map_err(|message| DocumentError::new(&path, message))?;
            if self.callouts[..at].iter().any(|other| other.name == callout.name) {
                return Err(DocumentError::new(
                    path,
                    format!("the name {} is taken by another call-out", callout.name),
                ));
            }
            if let Some(place) = callout.place
                && !([place.x, place.y].iter().all(|part| (0.0..=1.0).contains(part)))
            {
                return Err(DocumentError::new(
                    format!("callouts[{at}].place"),
                    "a balloon's place is two fractions from 0 to 1",
                ));
            }
        }
        for (at, operation) in self.operations.iter().enumerate() {
            let path = format!("operations[{at}].name");
            check_operation_name(&operation.name).map_err(|message| DocumentError::new(&path, message))?;
            if self.operations[..at].iter().any(|other| other.name == operation.name) {
                return Err(DocumentError::new(
                    path,
                    format!("the name {} is taken by another operation", operation.name),
                ));
            }
        }
        for (at, acceptance) in self.accepted.iter().enumerate() {
            acceptance
                .check()
                .map_err(|(field, message)| DocumentError::new(format!("accepted[{at}].{field}"), message))?;
        }
        if let Some(table) = &self.bending.table {
            table.check().map_err(|fault| DocumentError::new("bending.table", fault.message))?;
        }
        self.check_variants()
    }
}

fn check_callout_name(name: &str) -> Result<(), String> {
    let mut characters = name.chars();
    let starts = characters.next().is_some_and(|c| c.is_ascii_alphabetic());
    if !starts || name.len() > 24 || !characters.all(|c| c.is_ascii_alphanumeric() || c == '_') {
        return Err(format!("\"{name}\" is no call-out name: a letter, then letters, digits or _, 24 at most"));
    }
    let reserved = matches!(name, "T" | "R" | "pi")
        || crate::quantity::Unit::named(name).is_some_and(|unit| !unit.is_power())
        || crate::quantity::Function::named(name).is_some();
    if reserved {
        return Err(format!("{name} already means something in expressions; choose another name"));
    }
    Ok(())
}

pub(super) fn check_operation_name(name: &str) -> Result<(), String> {
    let mut characters = name.chars();
    let starts = characters.next().is_some_and(|c| c.is_ascii_lowercase());
    let rest = characters.all(|c| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '-' || c == '_');
    if starts && rest && name.len() <= 40 {
        return Ok(());
    }
    Err(format!("\"{name}\" is no operation name: a small letter, then small letters, digits, - or _, 40 at most"))
}

/// For serde: no spares are not written.
fn is_none(spares: &u32) -> bool {
    *spares == 0
}

/// A named variant.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Variant {
    /// Its name: `light`, `left`.
    pub name: String,
    /// Its own mark; the piece's with the variant's name where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mark: Option<String>,
    /// What it is; the piece's own words where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub title: Option<String>,
    /// How many are made; none where left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub quantity: Option<u32>,
    /// How many more of it are cut.
    #[serde(default, skip_serializing_if = "is_none")]
    pub spares: u32,
    /// Whether the first of it is made and measured before the rest.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub first_off: bool,
    /// Operations that it rests.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub rest: Vec<OperationName>,
    /// Operations that rest in the piece and are made in it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub wakes: Vec<OperationName>,
    /// Call-outs that have another value in it.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub set: BTreeMap<String, Expr>,
    /// Of the opposite hand to the piece.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub opposite_hand: bool,
    /// Material and thickness of its own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stock: Option<StockChoice>,
    /// Inside radius and way to compute blanks of its own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bending: Option<Bending>,
    /// How it is cut, where that is its own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cutting: Option<Cutting>,
    /// What its lengths are multiplied by: `1:4`. Thickness, inside radius, threads and screws stay.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub scale: Option<Expr>,
    /// A trial piece: it has its template and its program, and is in no list of the job.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub trial: bool,
}

impl Variant {
    /// Its mark on the shop floor.
    pub fn own_mark(&self, piece: &Piece) -> String {
        self.mark.clone().unwrap_or_else(|| format!("{}-{}", piece.mark, self.name))
    }
}
