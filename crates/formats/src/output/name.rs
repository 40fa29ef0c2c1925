//! How files are named: one pattern for all of them, the shop's own.

use serde::{Deserialize, Serialize};
use steelk_core::quantity::LengthUnit;
use utoipa::ToSchema;

use crate::dxf_file::Contours;

/// The shop's word on its files.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FileSettings {
    /// The pattern of names.
    #[serde(default)]
    pub names: NamePattern,
    /// How contours leave in DXF files.
    #[serde(default)]
    pub contours: Contours,
    /// The unit of DXF files.
    #[serde(default)]
    pub dxf: FileUnit,
    /// The unit of cut programs.
    #[serde(default)]
    pub programs: FileUnit,
}

/// The unit that files for machines are in.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum FileUnit {
    /// Millimetres, whatever the piece is drawn in.
    #[default]
    Millimetres,
    /// Inches, whatever the piece is drawn in.
    Inches,
    /// As the piece is drawn.
    Piece,
}

impl FileUnit {
    /// For a piece that is drawn in a unit.
    pub fn of(self, piece: LengthUnit) -> LengthUnit {
        match self {
            FileUnit::Millimetres => LengthUnit::Mm,
            FileUnit::Inches => LengthUnit::In,
            FileUnit::Piece => piece,
        }
    }
}

/// A pattern of file names without their ends: letters and `{mark}`, `{revision}`, `{material}`, `{thickness}`, `{quantity}`,
/// `{file}` (what the file is: `blank`, or a member's mark). What stands in square brackets is left out where a value in it is
/// not known.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(try_from = "String", into = "String")]
#[schema(value_type = String)]
pub struct NamePattern(String);

/// What a name is made of.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct Named {
    pub mark: String,
    pub revision: Option<String>,
    pub material: Option<String>,
    /// With its unit: `8mm`.
    pub thickness: Option<String>,
    pub quantity: Option<usize>,
    pub file: String,
    /// What stands before its end whatever the pattern: that the piece is not released.
    pub warning: Option<&'static str>,
}

/// Why a pattern is refused.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
pub enum NameFault {
    /// Longer than a file system takes with what it stands for.
    #[error("a pattern of {0} characters is too long; {MOST} at most")]
    Long(usize),
    /// Not a value that there is.
    #[error(
        "{{{0}}} is no value of a file name; there are {{mark}}, {{revision}}, {{material}}, {{thickness}}, {{quantity}} and {{file}}"
    )]
    Unknown(String),
    /// A bracket without its other half, or one in another.
    #[error("the brackets of {0} do not pair: [ ] and {{ }} open and close, and none stands in its like")]
    Brackets(String),
    /// A letter that not every file system takes.
    #[error("{0:?} does not belong in a file name; letters, digits, spaces, -, _, +, =, . and @ do")]
    Letter(char),
    /// Two files of one piece, or of two pieces, would have one name.
    #[error("{{{0}}} is missing outside of square brackets: without it two files would have one name")]
    Missing(&'static str),
}

/// The longest pattern, characters.
const MOST: usize = 120;
/// The most characters of a value in a name.
const MOST_OF_VALUE: usize = 60;

impl Default for NamePattern {
    fn default() -> Self {
        NamePattern("{mark}[_r{revision}][_{material}][_{thickness}][_x{quantity}]_{file}".into())
    }
}

impl TryFrom<String> for NamePattern {
    type Error = NameFault;

    fn try_from(text: String) -> Result<Self, NameFault> {
        let count = text.chars().count();
        if count > MOST {
            return Err(NameFault::Long(count));
        }
        let parts = parts(&text)?;
        for name in ["mark", "file"] {
            if !parts.iter().any(|part| !part.optional && part.value == Some(name)) {
                return Err(NameFault::Missing(name));
            }
        }
        Ok(NamePattern(text))
    }
}

impl From<NamePattern> for String {
    fn from(pattern: NamePattern) -> String {
        pattern.0
    }
}

/// A stretch of a pattern: letters, or a value.
struct Part<'a> {
    letters: &'a str,
    value: Option<&'static str>,
    /// Whether it stands in square brackets, and in which.
    optional: bool,
    group: usize,
}

const VALUES: [&str; 6] = ["mark", "revision", "material", "thickness", "quantity", "file"];

fn parts(text: &str) -> Result<Vec<Part<'_>>, NameFault> {
    let unpaired = || NameFault::Brackets(text.to_string());
    let (mut all, mut optional, mut group) = (Vec::new(), false, 0);
    let mut rest = text;
    while let Some(first) = rest.chars().next() {
        match first {
            '{' => {
                let end = rest.find('}').ok_or_else(unpaired)?;
                let name = &rest[1..end];
                if name.contains(['{', '[', ']']) {
                    return Err(unpaired());
                }
                let value = VALUES.into_iter().find(|one| *one == name);
                let value = value.ok_or_else(|| NameFault::Unknown(name.to_string()))?;
                all.push(Part { letters: "", value: Some(value), optional, group });
                rest = &rest[end + 1..];
            }
            '[' if !optional => {
                (optional, group) = (true, group + 1);
                rest = &rest[1..];
            }
            ']' if optional => {
                (optional, group) = (false, group + 1);
                rest = &rest[1..];
            }
            '[' | ']' | '}' => return Err(unpaired()),
            _ => {
                let end = rest.find(['{', '}', '[', ']']).unwrap_or(rest.len());
                let letters = &rest[..end];
                if let Some(bad) = letters.chars().find(|c| !c.is_ascii_alphanumeric() && !" -_+=.@".contains(*c)) {
                    return Err(NameFault::Letter(bad));
                }
                all.push(Part { letters, value: None, optional, group });
                rest = &rest[end..];
            }
        }
    }
    if optional { Err(unpaired()) } else { Ok(all) }
}

/// A value as every file system takes it.
fn safe(value: &str) -> String {
    let letter = |c: char| if c.is_ascii_alphanumeric() || matches!(c, '-' | '_' | '.') { c } else { '-' };
    value.chars().map(letter).take(MOST_OF_VALUE).collect()
}

impl NamePattern {
    /// The name of a file with its end: `WB-01_r3_S275_8mm_x4_blank.dxf`.
    pub fn name(&self, of: &Named, end: &str) -> String {
        let value = |name: &str| match name {
            "mark" => Some(of.mark.clone()),
            "revision" => of.revision.clone(),
            "material" => of.material.clone(),
            "thickness" => of.thickness.clone(),
            "quantity" => of.quantity.map(|count| count.to_string()),
            _ => Some(of.file.clone()),
        };
        // What is kept was read before.
        let parts = parts(&self.0).unwrap_or_default();
        let lacks = |group: usize| {
            parts.iter().any(|part| part.group == group && part.value.is_some_and(|name| value(name).is_none()))
        };
        let mut text = String::new();
        for part in parts.iter().filter(|part| !part.optional || !lacks(part.group)) {
            match part.value {
                Some(name) => text.push_str(&safe(&value(name).unwrap_or_default())),
                None => text.push_str(part.letters),
            }
        }
        // A leading dot hides a file.
        let text = text.trim_matches([' ', '.']);
        let text = if text.is_empty() { "file" } else { text };
        match of.warning {
            Some(warning) => format!("{text}_{warning}.{end}"),
            None => format!("{text}.{end}"),
        }
    }
}
