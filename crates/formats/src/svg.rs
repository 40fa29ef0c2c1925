//! SVG at true size: one user unit is one millimetre, the page's own size is said in the drawing's unit.

use std::fmt::Write as _;

use steelk_core::drawing::{Drawing, Layer, Stroke};
use steelk_core::plane::Point;
use steelk_core::quantity::LengthUnit;
use steelk_core::quantity::tolerance::MODELLING_TOLERANCE;

/// The drawing as an SVG file, with 10 mm of margin all round. `head` stands in its description: of which revision it is.
pub fn write(drawing: &Drawing, title: &str, head: &[String], unit: LengthUnit) -> String {
    let margin = 10.0;
    let size = drawing.extents();
    let (low, width, height) = if drawing.strokes.is_empty() {
        (Point::new(0.0, 0.0), 0.0, 0.0)
    } else {
        (size.low, size.width(), size.height())
    };
    let (page_width, page_height) = (width + 2.0 * margin, height + 2.0 * margin);
    // SVG's y runs down.
    let x = |point: Point| number(point.x - low.x + margin);
    let y = |point: Point| number(height - (point.y - low.y) + margin);
    let mut out = String::new();
    // Writing to a String cannot fail.
    let _ = writeln!(
        out,
        r##"<svg xmlns="http://www.w3.org/2000/svg" width="{2}{4}" height="{3}{4}" viewBox="0 0 {0} {1}">"##,
        number(page_width),
        number(page_height),
        number(page_width / unit.millimetres()),
        number(page_height / unit.millimetres()),
        unit.sign()
    );
    let _ = writeln!(out, "<title>{}</title>", escape(title));
    let _ = writeln!(out, "<desc>{}</desc>", escape(&head.join(". ")));
    for layer in drawing.layers() {
        let (colour, weight) = match layer {
            Layer::Cut => ("#000000", 0.2),
            Layer::BendUp => ("#b5622a", 0.2),
            Layer::BendDown => ("#3c6b57", 0.2),
            Layer::Form => ("#3b4a7a", 0.2),
            Layer::Mark | Layer::Text => ("#1c212e", 0.15),
        };
        let dash = if layer == Layer::BendDown { r#" stroke-dasharray="3 1.5""# } else { "" };
        let _ =
            writeln!(out, r#"<g id="{}" fill="none" stroke="{colour}" stroke-width="{weight}"{dash}>"#, layer.name());
        let mut pen: Option<Point> = None;
        let mut path = String::new();
        for (_, stroke) in drawing.strokes.iter().filter(|(own, _)| *own == layer) {
            match stroke {
                Stroke::Circle { centre, radius } => {
                    let _ =
                        writeln!(out, r#"<circle cx="{}" cy="{}" r="{}"/>"#, x(*centre), y(*centre), number(*radius));
                }
                Stroke::Segment(segment) => {
                    if pen.is_none_or(|pen| pen.distance(segment.start) > MODELLING_TOLERANCE) {
                        let _ = write!(path, "M{} {}", x(segment.start), y(segment.start));
                    }
                    if segment.is_line() {
                        let _ = write!(path, "L{} {}", x(segment.end), y(segment.end));
                    } else {
                        let large = u8::from(segment.sweep().abs() > std::f64::consts::PI);
                        // Counter-clockwise on paper is SVG's negative sweep.
                        let sweep = u8::from(segment.bulge < 0.0);
                        let radius = number(segment.radius());
                        let _ =
                            write!(path, "A{radius} {radius} 0 {large} {sweep} {} {}", x(segment.end), y(segment.end));
                    }
                    pen = Some(segment.end);
                }
            }
        }
        if !path.is_empty() {
            let _ = writeln!(out, r#"<path d="{path}"/>"#);
        }
        for (_, text) in drawing.texts.iter().filter(|(own, _)| *own == layer) {
            let (px, py) = (x(text.place), y(text.place));
            let _ = writeln!(
                out,
                r#"<text x="{px}" y="{py}" font-family="monospace" font-size="{}" fill="{colour}" stroke="none" transform="rotate({} {px} {py})">{}</text>"#,
                number(text.height * 1.4),
                number(-text.turn.to_degrees()),
                escape(&text.value)
            );
        }
        out.push_str("</g>\n");
    }
    out.push_str("</svg>\n");
    out
}

fn number(value: f64) -> String {
    steelk_core::quantity::decimal(value, 9)
}

fn escape(text: &str) -> String {
    text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;").replace('"', "&quot;")
}
