//! Reads the strokes of an SVG file: paths and basic shapes under their transforms, in millimetres by the file's own
//! size. Arcs of circles stay arcs; other curves become dense points.

use roxmltree::{Document, Node, ParsingOptions};
use steelk_core::patience;
use steelk_core::plane::tidy::{MOST_STROKES, Stroke};
use steelk_core::plane::{Point, Segment};
use steelk_core::quantity::tolerance::ROUNDING;
use svgtypes::{Length, LengthUnit, PathParser, PathSegment, PointsParser, Transform, TransformListParser, ViewBox};

use crate::strokes::{Affine, Gathered, Layers, Strokes};

/// The largest file that is read, bytes.
pub const LARGEST_SVG: usize = 20 * 1024 * 1024;
/// Elements within elements go this deep and no deeper.
const MOST_DEEP: usize = 64;
/// The most elements of a file.
const MOST_NODES: u32 = 1_000_000;
/// Millimetres in a CSS pixel: 96 an inch (CSS Values and Units).
const PIXEL: f64 = 25.4 / 96.0;
/// Chords to a curve; the fitting of arcs takes them together again.
const CHORDS: u32 = 96;

/// Why a file cannot be read.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum ReadError {
    /// Too large.
    #[error("the file has {0} bytes; {LARGEST_SVG} is the most that is read")]
    Large(usize),
    /// Not text.
    #[error("it is no text: an SVG file is XML")]
    Binary,
    /// The library's words.
    #[error("it cannot be read as SVG: {0}")]
    Xml(String),
    /// Another kind of XML.
    #[error("its root is <{0}> and not <svg>")]
    Root(String),
    /// Too many strokes.
    #[error("it has more than {MOST_STROKES} strokes")]
    Many,
}

/// Reads an SVG file.
///
/// # Errors
/// [`ReadError`]; nothing in a file makes it panic or take memory without bound.
pub fn read(bytes: &[u8], layers: &Layers) -> Result<Strokes, ReadError> {
    if bytes.len() > LARGEST_SVG {
        return Err(ReadError::Large(bytes.len()));
    }
    let text = std::str::from_utf8(bytes).map_err(|_| ReadError::Binary)?;
    // Entities of a DTD could be made to grow without end: none are read.
    let options = ParsingOptions { allow_dtd: false, nodes_limit: MOST_NODES, ..ParsingOptions::default() };
    let document = Document::parse_with_options(text, options).map_err(|fault| ReadError::Xml(fault.to_string()))?;
    let root = document.root_element();
    if root.tag_name().name() != "svg" {
        return Err(ReadError::Root(root.tag_name().name().chars().take(40).collect()));
    }
    let (base, unit) = page(&root);
    let mut reading = Reading { gathered: Gathered::default(), skipped: Default::default() };
    for child in root.children().filter(Node::is_element) {
        reading.node(&child, &base, "no layer", 0)?;
    }
    let mut notes = vec![unit];
    notes.extend(reading.skipped.into_iter().map(|(kind, count)| format!("{kind}: {count} left out")));
    Ok(reading.gathered.sorted(layers, notes))
}

/// From the file's numbers to millimetres with y up, and how that was found out.
fn page(root: &Node<'_, '_>) -> (Affine, String) {
    let length = |name: &str| root.attribute(name).and_then(|text| text.parse::<Length>().ok()).and_then(millimetres);
    let (width, height) = (length("width"), length("height"));
    let view = root
        .attribute("viewBox")
        .and_then(|text| text.parse::<ViewBox>().ok())
        .filter(|view| view.w > 0.0 && view.h > 0.0);
    let (scale, words) = match (view, width, height) {
        (Some(view), Some(width), _) => (width / view.w, "read by the size that the file states"),
        (Some(view), None, Some(height)) => (height / view.h, "read by the size that the file states"),
        (Some(_), None, None) | (None, None, None) => {
            (PIXEL, "the file states no size: its numbers are taken as pixels, 96 an inch")
        }
        (None, ..) => (PIXEL, "its numbers are pixels, 96 an inch"),
    };
    let scale = if scale.is_finite() && scale > 0.0 { scale } else { PIXEL };
    // SVG's y runs down.
    (Affine { a: scale, b: 0.0, c: 0.0, d: -scale, e: 0.0, f: 0.0 }, words.to_string())
}

/// An absolute length; percentages and font sizes have none.
fn millimetres(length: Length) -> Option<f64> {
    let unit = match length.unit {
        LengthUnit::None | LengthUnit::Px => PIXEL,
        LengthUnit::In => 25.4,
        LengthUnit::Cm => 10.0,
        LengthUnit::Mm => 1.0,
        LengthUnit::Pt => 25.4 / 72.0,
        LengthUnit::Pc => 25.4 / 6.0,
        _ => return None,
    };
    Some(length.number * unit).filter(|value| value.is_finite() && *value > 0.0)
}

struct Reading {
    gathered: Gathered,
    skipped: std::collections::BTreeMap<String, usize>,
}

impl Reading {
    fn skip(&mut self, what: &str) {
        *self.skipped.entry(what.to_string()).or_default() += 1;
    }

    fn push(&mut self, layer: &str, stroke: Stroke) -> Result<(), ReadError> {
        if self.gathered.len() >= MOST_STROKES {
            return Err(ReadError::Many);
        }
        self.gathered.push(layer, stroke);
        Ok(())
    }

    fn node(&mut self, node: &Node<'_, '_>, at: &Affine, layer: &str, deep: usize) -> Result<(), ReadError> {
        if deep > MOST_DEEP {
            self.skip("elements nested too deep");
            return Ok(());
        }
        let own = match node.attribute("transform").map(transform) {
            Some(Some(own)) => at.after(&own),
            Some(None) => {
                self.skip("elements with a transform that cannot be read");
                return Ok(());
            }
            None => *at,
        };
        let number = |name: &str| {
            let length = node.attribute(name).and_then(|text| text.parse::<Length>().ok());
            // Lengths within a drawing count in its own unit, whatever they say beside plain numbers and pixels.
            length.map_or(0.0, |one| {
                if one.unit == LengthUnit::None { one.number } else { millimetres(one).unwrap_or(0.0) / PIXEL }
            })
        };
        match node.tag_name().name() {
            "g" | "svg" | "a" | "switch" => {
                let layer =
                    node.attribute("id").filter(|id| node.tag_name().name() == "g" && !id.is_empty()).unwrap_or(layer);
                for child in node.children().filter(Node::is_element) {
                    patience::check();
                    self.node(&child, &own, layer, deep + 1)?;
                }
            }
            "path" => self.path(node.attribute("d").unwrap_or(""), &own, layer)?,
            "line" => self.line(&own, layer, (number("x1"), number("y1")), (number("x2"), number("y2")))?,
            "polyline" | "polygon" => {
                let points: Vec<(f64, f64)> = PointsParser::from(node.attribute("points").unwrap_or("")).collect();
                for pair in points.windows(2) {
                    self.line(&own, layer, pair[0], pair[1])?;
                }
                if let (true, [first, .., last]) = (node.tag_name().name() == "polygon", &points[..]) {
                    self.line(&own, layer, *last, *first)?;
                }
            }
            "rect" => {
                let (x, y, w, h) = (number("x"), number("y"), number("width"), number("height"));
                let given = (node.attribute("rx").map(|_| number("rx")), node.attribute("ry").map(|_| number("ry")));
                let (rx, ry) = match given {
                    (Some(rx), Some(ry)) => (rx, ry),
                    (Some(one), None) | (None, Some(one)) => (one, one),
                    (None, None) => (0.0, 0.0),
                };
                let (rx, ry) = (rx.clamp(0.0, w.max(0.0) / 2.0), ry.clamp(0.0, h.max(0.0) / 2.0));
                let corner = if rx > 0.0 && ry > 0.0 { format!("a{rx} {ry} 0 0 1 ") } else { String::new() };
                let data = if corner.is_empty() {
                    format!("M{x} {y}h{w}v{h}h{}z", -w)
                } else {
                    format!(
                        "M{} {y}h{}{corner}{rx} {ry}v{}{corner}{} {ry}h{}{corner}{} {}v{}{corner}{rx} {}z",
                        x + rx,
                        w - 2.0 * rx,
                        h - 2.0 * ry,
                        -rx,
                        -(w - 2.0 * rx),
                        -rx,
                        -ry,
                        -(h - 2.0 * ry),
                        -ry
                    )
                };
                self.path(&data, &own, layer)?;
            }
            "circle" => self.ellipse(&own, layer, (number("cx"), number("cy")), number("r"), number("r"))?,
            "ellipse" => self.ellipse(&own, layer, (number("cx"), number("cy")), number("rx"), number("ry"))?,
            "text" | "tspan" => self.skip("texts"),
            "image" => self.skip("pictures"),
            "use" | "symbol" => self.skip("references to other elements"),
            "title" | "desc" | "metadata" | "defs" | "style" => {}
            _ => self.skip("elements of other kinds"),
        }
        Ok(())
    }

    fn line(&mut self, at: &Affine, layer: &str, from: (f64, f64), to: (f64, f64)) -> Result<(), ReadError> {
        self.push(layer, Stroke::Segment(Segment::line(at.point(from.0, from.1), at.point(to.0, to.1))))
    }

    fn ellipse(&mut self, at: &Affine, layer: &str, (x, y): (f64, f64), rx: f64, ry: f64) -> Result<(), ReadError> {
        if rx <= 0.0 || ry <= 0.0 {
            return Ok(());
        }
        if let (true, Some(scale)) = ((rx - ry).abs() <= ROUNDING * rx, at.even()) {
            return self.push(layer, Stroke::Circle(at.point(x, y), rx * scale.abs()));
        }
        let points = (0..=720).map(|step| {
            let (sin, cos) = (f64::from(step) * std::f64::consts::TAU / 720.0).sin_cos();
            at.point(x + rx * cos, y + ry * sin)
        });
        self.push(layer, Stroke::Curve(points.collect()))
    }

    fn path(&mut self, data: &str, at: &Affine, layer: &str) -> Result<(), ReadError> {
        let mut pen = Pen::default();
        for segment in PathParser::from(data) {
            let Ok(segment) = segment else {
                // As the standard says: what stands before the fault is drawn.
                self.skip("rests of paths after a fault");
                return Ok(());
            };
            for stroke in pen.draw(segment, at) {
                patience::check();
                self.push(layer, stroke)?;
            }
        }
        Ok(())
    }
}

fn transform(text: &str) -> Option<Affine> {
    let whole = TransformListParser::from(text).collect::<Result<Vec<_>, _>>().ok()?;
    // The library folds a list into one matrix.
    let one: Transform = if whole.is_empty() { Transform::default() } else { text.parse().ok()? };
    let found = Affine { a: one.a, b: one.b, c: one.c, d: one.d, e: one.e, f: one.f };
    [found.a, found.b, found.c, found.d, found.e, found.f].iter().all(|value| value.is_finite()).then_some(found)
}

/// Where a path stands while it is drawn, in the file's own numbers.
#[derive(Default)]
struct Pen {
    here: (f64, f64),
    start: (f64, f64),
    /// The last control point of a cubic or a quadratic, for smooth ones.
    cubic: Option<(f64, f64)>,
    quadratic: Option<(f64, f64)>,
}

impl Pen {
    fn draw(&mut self, segment: PathSegment, at: &Affine) -> Vec<Stroke> {
        let (cubic, quadratic) = (self.cubic.take(), self.quadratic.take());
        let here = self.here;
        let base = |abs: bool| if abs { (0.0, 0.0) } else { here };
        let place = |abs: bool, x: f64, y: f64| (base(abs).0 + x, base(abs).1 + y);
        let mirrored =
            |control: Option<(f64, f64)>| control.map_or(here, |one| (2.0 * here.0 - one.0, 2.0 * here.1 - one.1));
        match segment {
            PathSegment::MoveTo { abs, x, y } => {
                self.here = place(abs, x, y);
                self.start = self.here;
                Vec::new()
            }
            PathSegment::LineTo { abs, x, y } => self.line(place(abs, x, y), at),
            PathSegment::HorizontalLineTo { abs, x } => self.line((base(abs).0 + x, here.1), at),
            PathSegment::VerticalLineTo { abs, y } => self.line((here.0, base(abs).1 + y), at),
            PathSegment::CurveTo { abs, x1, y1, x2, y2, x, y } => {
                let (one, two, to) = (place(abs, x1, y1), place(abs, x2, y2), place(abs, x, y));
                self.bezier(&[here, one, two, to], at)
            }
            PathSegment::SmoothCurveTo { abs, x2, y2, x, y } => {
                let (two, to) = (place(abs, x2, y2), place(abs, x, y));
                self.bezier(&[here, mirrored(cubic), two, to], at)
            }
            PathSegment::Quadratic { abs, x1, y1, x, y } => {
                let (one, to) = (place(abs, x1, y1), place(abs, x, y));
                self.bezier(&[here, one, to], at)
            }
            PathSegment::SmoothQuadratic { abs, x, y } => {
                let to = place(abs, x, y);
                self.bezier(&[here, mirrored(quadratic), to], at)
            }
            PathSegment::EllipticalArc { abs, rx, ry, x_axis_rotation, large_arc, sweep, x, y } => {
                let to = place(abs, x, y);
                self.here = to;
                arc(here, to, (rx, ry, x_axis_rotation), large_arc, sweep, at)
            }
            PathSegment::ClosePath { .. } => {
                let start = self.start;
                self.line(start, at)
            }
        }
    }

    fn line(&mut self, to: (f64, f64), at: &Affine) -> Vec<Stroke> {
        let from = std::mem::replace(&mut self.here, to);
        if from == to {
            return Vec::new();
        }
        vec![Stroke::Segment(Segment::line(at.point(from.0, from.1), at.point(to.0, to.1)))]
    }

    fn bezier(&mut self, controls: &[(f64, f64)], at: &Affine) -> Vec<Stroke> {
        let last = controls.len() - 1;
        self.here = controls[last];
        let before = Some(controls[last - 1]);
        if last == 3 {
            self.cubic = before
        } else {
            self.quadratic = before
        }
        let points: Vec<Point> = (0..=CHORDS)
            .map(|step| {
                let share = f64::from(step) / f64::from(CHORDS);
                // de Casteljau.
                let mut own: Vec<(f64, f64)> = controls.to_vec();
                while own.len() > 1 {
                    own = own
                        .windows(2)
                        .map(|pair| {
                            let toward = |a: f64, b: f64| a + (b - a) * share;
                            (toward(pair[0].0, pair[1].0), toward(pair[0].1, pair[1].1))
                        })
                        .collect();
                }
                at.point(own[0].0, own[0].1)
            })
            .collect();
        vec![Stroke::Curve(points)]
    }
}

/// An elliptical arc by its ends (SVG 2, appendix B.2.4); of a circle an arc, of an ellipse dense points.
fn arc(
    from: (f64, f64),
    to: (f64, f64),
    (rx, ry, turn): (f64, f64, f64),
    large: bool,
    sweep: bool,
    at: &Affine,
) -> Vec<Stroke> {
    if from == to {
        return Vec::new();
    }
    let straight = || vec![Stroke::Segment(Segment::line(at.point(from.0, from.1), at.point(to.0, to.1)))];
    let (mut rx, mut ry) = (rx.abs(), ry.abs());
    if !(rx > 0.0 && ry > 0.0) {
        return straight();
    }
    let (sin, cos) = turn.to_radians().sin_cos();
    let (dx, dy) = ((from.0 - to.0) / 2.0, (from.1 - to.1) / 2.0);
    let (x1, y1) = (cos * dx + sin * dy, -sin * dx + cos * dy);
    let grow = (x1 / rx).powi(2) + (y1 / ry).powi(2);
    if grow > 1.0 {
        rx *= grow.sqrt();
        ry *= grow.sqrt();
    }
    let below = (rx * y1).powi(2) + (ry * x1).powi(2);
    let root = (((rx * ry).powi(2) - below) / below).max(0.0).sqrt() * if large == sweep { -1.0 } else { 1.0 };
    let (cx1, cy1) = (root * rx * y1 / ry, -root * ry * x1 / rx);
    let centre = (cos * cx1 - sin * cy1 + (from.0 + to.0) / 2.0, sin * cx1 + cos * cy1 + (from.1 + to.1) / 2.0);
    let angle = |x: f64, y: f64| (y / ry).atan2(x / rx);
    let start = angle(x1 - cx1, y1 - cy1);
    let mut swept = (angle(-x1 - cx1, -y1 - cy1) - start).rem_euclid(std::f64::consts::TAU);
    if !sweep {
        swept -= std::f64::consts::TAU;
    }
    let on = |share: f64| {
        let (s, c) = (start + swept * share).sin_cos();
        let (x, y) = (rx * c, ry * s);
        at.point(centre.0 + cos * x - sin * y, centre.1 + sin * x + cos * y)
    };
    if let (true, Some(scale)) = ((rx - ry).abs() <= ROUNDING * rx, at.even()) {
        let parts = if swept.abs() > std::f64::consts::PI { 2 } else { 1 };
        return (0..parts)
            .map(|part| {
                let (a, b) = (f64::from(part) / f64::from(parts), f64::from(part + 1) / f64::from(parts));
                // The ends as the file has them: rounding of the centre must not open a gap.
                let begin = if part == 0 { at.point(from.0, from.1) } else { on(a) };
                let end = if part + 1 == parts { at.point(to.0, to.1) } else { on(b) };
                let bulge = (swept * (b - a) / 4.0).tan() * scale.signum();
                Stroke::Segment(Segment { start: begin, end, bulge })
            })
            .collect();
    }
    let steps = 240;
    vec![Stroke::Curve((0..=steps).map(|step| on(f64::from(step) / f64::from(steps))).collect())]
}
