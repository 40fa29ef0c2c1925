//! DXF R2010 in millimetres: lines, arcs and circles as such, on the layers of [`Layer`].

use dxf::entities::{Arc, Circle, Entity, EntityType, Line, Text};
use dxf::enums::{AcadVersion, Units};
use dxf::tables::Layer as DxfLayer;
use dxf::{Color, Drawing as DxfDrawing, Point as DxfPoint};
use steelk_core::drawing::{Drawing, Layer, Stroke};
use steelk_core::patience;
use steelk_core::plane::Point;

use crate::WriteError;

/// Opaque, by entity: without it every entity gets a needless fix when a checker reads the file.
const OPAQUE: i32 = 0x0200_00FF;

/// The drawing as the bytes of a DXF file.
///
/// # Errors
/// [`WriteError::Dxf`] with the library's words.
pub fn write(drawing: &Drawing) -> Result<Vec<u8>, WriteError> {
    let mut file = DxfDrawing::new();
    file.header.version = AcadVersion::R2010;
    file.header.default_drawing_units = Units::Millimeters;
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
    for layer in Layer::ALL {
        file.add_layer(DxfLayer {
            name: layer.name().into(),
            color: Color::from_index(colour(layer)),
            ..DxfLayer::default()
        });
    }
    for (layer, stroke) in &drawing.strokes {
        patience::check();
        add(&mut file, *layer, stroke_entity(stroke));
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
    file.save(&mut bytes).map_err(|fault| WriteError::Dxf(fault.to_string()))?;
    Ok(bytes)
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
        Layer::Text => 8,
    }
}

/// One line of plain ASCII: what every reader shows alike.
fn plain(text: &str) -> String {
    text.chars().map(|c| if c.is_ascii() && !c.is_ascii_control() { c } else { '?' }).collect()
}
