//! DXF R2010 in millimetres or inches, on the layers of [`Layer`]: a contour is one closed polyline with bulges or a whole circle, or by the
//! shop's setting separate lines and arcs.

use dxf::entities::{Arc, Circle, Entity, EntityType, Line, LwPolyline, Text};
use dxf::enums::{AcadVersion, DrawingUnits, Units};
use dxf::tables::Layer as DxfLayer;
use dxf::{Color, Drawing as DxfDrawing, LwPolylineVertex, Point as DxfPoint};
use serde::{Deserialize, Serialize};
use steelk_core::drawing::{Drawing, Layer, Stroke};
use steelk_core::patience;
use steelk_core::plane::{Point, Segment};
use steelk_core::quantity::LengthUnit;
use utoipa::ToSchema;

use crate::WriteError;

/// How contours leave in a DXF file.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Contours {
    /// Each closed contour as one polyline, its arcs as bulges; circles whole.
    #[default]
    Polylines,
    /// Lines and arcs one by one, for controls that read no polylines; circles whole.
    LinesAndArcs,
}

/// How a drawing leaves as DXF.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Style {
    /// As polylines or line by line.
    pub contours: Contours,
    /// The unit of its coordinates; the file says it.
    pub unit: LengthUnit,
    /// What stands at its head as comments (group 999): readers skip them, and nothing of them is cut.
    pub remarks: Vec<String>,
}

/// Opaque, by entity: without it every entity gets a needless fix when a checker reads the file.
const OPAQUE: i32 = 0x0200_00FF;

/// The drawing as the bytes of a DXF file.
///
/// # Errors
/// [`WriteError::Dxf`] with the library's words.
pub fn write(drawing: &Drawing, style: &Style) -> Result<Vec<u8>, WriteError> {
    let scaled;
    let drawing = match style.unit {
        LengthUnit::Mm => drawing,
        LengthUnit::In => {
            scaled = drawing.scaled(1.0 / LengthUnit::In.millimetres());
            &scaled
        }
    };
    let mut file = DxfDrawing::new();
    file.header.version = AcadVersion::R2010;
    (file.header.default_drawing_units, file.header.drawing_units) = match style.unit {
        LengthUnit::Mm => (Units::Millimeters, DrawingUnits::Metric),
        LengthUnit::In => (Units::Inches, DrawingUnits::English),
    };
    // The same piece gives the same file: no dates, no random identities.
    file.header.creation_date = Default::default();
    file.header.creation_date_universal = Default::default();
    file.header.update_date = Default::default();
    file.header.update_date_universal = Default::default();
    file.header.fingerprint_guid = Default::default();
    file.header.version_guid = Default::default();
    let size = drawing.extents();
    if !drawing.strokes.is_empty() {
        file.header.minimum_drawing_extents = place(size.low);
        file.header.maximum_drawing_extents = place(size.high);
    }
    for layer in drawing.layers() {
        file.add_layer(DxfLayer {
            name: layer.name().into(),
            color: Color::from_index(colour(layer)),
            ..DxfLayer::default()
        });
    }
    let mut rest = drawing.strokes.as_slice();
    while let Some((layer, stroke)) = rest.first() {
        patience::check();
        let closed = if style.contours == Contours::Polylines { closed_run(rest) } else { None };
        match closed {
            Some(segments) => {
                rest = &rest[segments.len()..];
                add(&mut file, *layer, polyline(&segments));
            }
            None => {
                rest = &rest[1..];
                add(&mut file, *layer, stroke_entity(stroke));
            }
        }
    }
    for (layer, text) in &drawing.texts {
        let entity = Text {
            location: place(text.place),
            text_height: text.height,
            rotation: text.turn.to_degrees(),
            value: plain(&text.value),
            ..Text::default()
        };
        add(&mut file, *layer, EntityType::Text(entity));
    }
    let mut bytes = Vec::new();
    let unit = match style.unit {
        LengthUnit::Mm => "UNITS: millimetres",
        LengthUnit::In => "UNITS: inches",
    };
    for remark in style.remarks.iter().map(String::as_str).chain([unit]) {
        bytes.extend_from_slice(format!("999\r\n{}\r\n", plain(remark)).as_bytes());
    }
    file.save(&mut bytes).map_err(|fault| WriteError::Dxf(fault.to_string()))?;
    Ok(bytes)
}

/// The contour that a list of strokes begins with, where it begins with one: segments of one layer, each beginning where the one
/// before ends, until one ends where the first begins. Strokes of one outline follow one another and share their corners exactly.
fn closed_run(strokes: &[(Layer, Stroke)]) -> Option<Vec<Segment>> {
    let (first_layer, _) =
        strokes.first().filter(|(layer, _)| matches!(layer, Layer::Cut | Layer::Mark | Layer::Form))?;
    let mut run: Vec<Segment> = Vec::new();
    for (layer, stroke) in strokes {
        let Stroke::Segment(segment) = stroke else { return None };
        if layer != first_layer || run.last().is_some_and(|last| last.end != segment.start) {
            return None;
        }
        run.push(*segment);
        if segment.end == run[0].start {
            // There and back along one line is no contour.
            return (run.len() > 2 || run.iter().any(|one| !one.is_line())).then_some(run);
        }
    }
    None
}

/// The flag of a polyline that its last corner joins its first.
const CLOSED: i32 = 1;

fn polyline(segments: &[Segment]) -> EntityType {
    let vertices = segments
        .iter()
        .map(|one| LwPolylineVertex { x: one.start.x, y: one.start.y, bulge: one.bulge, ..LwPolylineVertex::default() })
        .collect();
    EntityType::LwPolyline(LwPolyline { flags: CLOSED, vertices, ..LwPolyline::default() })
}

fn stroke_entity(stroke: &Stroke) -> EntityType {
    match stroke {
        Stroke::Circle { centre, radius } => EntityType::Circle(Circle::new(place(*centre), *radius)),
        Stroke::Segment(segment) if segment.is_line() => {
            EntityType::Line(Line::new(place(segment.start), place(segment.end)))
        }
        Stroke::Segment(segment) => {
            // DXF arcs always run counter-clockwise, angles in degrees.
            let ahead = if segment.bulge > 0.0 { *segment } else { segment.reversed() };
            let centre = ahead.centre();
            let angle = |point: Point| {
                let arm = point - centre;
                arm.y.atan2(arm.x).to_degrees().rem_euclid(360.0)
            };
            EntityType::Arc(Arc::new(place(centre), ahead.radius(), angle(ahead.start), angle(ahead.end)))
        }
    }
}

fn add(file: &mut DxfDrawing, layer: Layer, kind: EntityType) {
    let mut entity = Entity::new(kind);
    entity.common.layer = layer.name().into();
    entity.common.transparency = OPAQUE;
    file.add_entity(entity);
}

fn place(point: Point) -> DxfPoint {
    DxfPoint::new(point.x, point.y, 0.0)
}

/// Colour numbers of the layers: plain and far apart; layers are told by name.
fn colour(layer: Layer) -> u8 {
    match layer {
        Layer::Cut => 7,
        Layer::BendUp => 5,
        Layer::BendDown => 3,
        Layer::Mark => 6,
        Layer::Form => 4,
        Layer::Text => 8,
    }
}

/// One line of plain ASCII: what every reader shows alike.
fn plain(text: &str) -> String {
    text.chars().map(|c| if c.is_ascii() && !c.is_ascii_control() { c } else { '?' }).collect()
}
