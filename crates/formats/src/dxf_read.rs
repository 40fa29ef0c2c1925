//! Reads the strokes of a DXF file: lines, arcs, circles, polylines with bulges, ellipses, splines and block inserts, in
//! millimetres by the file's own units.

use std::collections::HashMap;

use dxf::entities::{Entity, EntityType, Spline};
use dxf::enums::Units;
use dxf::{Drawing, Vector as DxfVector};
use steelk_core::patience;
use steelk_core::plane::tidy::{MOST_STROKES, Stroke};
use steelk_core::plane::{Point, Segment};
use steelk_core::quantity::tolerance::{PARALLEL, ROUNDING};

use crate::strokes::{Affine, Gathered, Layers, Strokes};

/// The largest file that is read, bytes.
pub const LARGEST_DXF: usize = 20 * 1024 * 1024;
/// The longest line of a file, bytes; the reader's time grows with its square.
const LONGEST_LINE: usize = 4096;
/// Blocks within blocks go this deep and no deeper.
const MOST_DEEP: usize = 8;
/// The most entities that are laid out, blocks again and again with each insert: what they cost is bounded, be there strokes in
/// them or not.
const MOST_LAID_OUT: usize = 1_000_000;

/// Why a file cannot be read.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum ReadError {
    /// Too large.
    #[error("the file has {0} bytes; {LARGEST_DXF} is the most that is read")]
    Large(usize),
    /// A line of senseless length.
    #[error("line {0} of the file is longer than {LONGEST_LINE} characters: it is no DXF text")]
    Line(usize),
    /// The library's words.
    #[error("it cannot be read as DXF: {0}")]
    Dxf(String),
    /// Too many strokes, perhaps by blocks that repeat each other.
    #[error("it has more than {MOST_STROKES} strokes once its blocks are laid out")]
    Many,
    /// Too much to lay out, perhaps by blocks that repeat each other.
    #[error("its blocks come to more than {MOST_LAID_OUT} entities once they are laid out")]
    Work,
}

/// Reads a DXF file.
///
/// # Errors
/// [`ReadError`]; nothing in a file makes it panic or take memory without bound.
pub fn read(bytes: &[u8], layers: &Layers) -> Result<Strokes, ReadError> {
    let [read] = read_each(bytes, [layers])?;
    Ok(read)
}

/// Reads a DXF file once, and takes of it what each of several choices of layers takes.
///
/// # Errors
/// As [`read`].
pub fn read_each<const N: usize>(bytes: &[u8], choices: [&Layers; N]) -> Result<[Strokes; N], ReadError> {
    if bytes.len() > LARGEST_DXF {
        return Err(ReadError::Large(bytes.len()));
    }
    if let Some(line) = bytes.split(|byte| *byte == b'\n').position(|line| line.len() > LONGEST_LINE) {
        return Err(ReadError::Line(line + 1));
    }
    let file = load(bytes)?;
    let mut reading = Reading {
        strokes: Gathered::default(),
        texts: Vec::new(),
        layer: String::new(),
        skipped: HashMap::new(),
        blocks: HashMap::new(),
        laid_out: 0,
    };
    for block in file.blocks() {
        reading
            .blocks
            .insert(block.name.to_ascii_uppercase(), (block.base_point.x, block.base_point.y, &block.entities));
    }
    let (scale, unit) = unit(file.header.default_drawing_units);
    for entity in file.entities() {
        reading.layer.clone_from(&entity.common.layer);
        reading.entity(entity, &Affine::scaled(scale), 0)?;
    }
    let mut notes = vec![unit];
    let mut skipped: Vec<(String, usize)> = reading.skipped.into_iter().collect();
    skipped.sort();
    notes.extend(skipped.into_iter().map(|(kind, count)| format!("{kind}: {count} left out")));
    Ok(choices.map(|layers| Strokes { texts: reading.texts.clone(), ..reading.strokes.sorted(layers, notes.clone()) }))
}

/// What the library makes of a file. It is not ours: should it panic on a broken file (a date in its head past what a calendar
/// holds, for one), that is a refusal and not the end of the server.
pub(crate) fn load(bytes: &[u8]) -> Result<Drawing, ReadError> {
    match std::panic::catch_unwind(|| Drawing::load(&mut std::io::Cursor::new(bytes))) {
        Ok(Ok(file)) => Ok(file),
        Ok(Err(fault)) => Err(ReadError::Dxf(fault.to_string())),
        Err(_) => Err(ReadError::Dxf("its structure is broken".into())),
    }
}

/// Millimetres in one unit of the file, and the unit in words.
fn unit(units: Units) -> (f64, String) {
    let (scale, name) = match units {
        Units::Inches => (25.4, "inches"),
        Units::Feet => (304.8, "feet"),
        Units::Centimeters => (10.0, "centimetres"),
        Units::Decimeters => (100.0, "decimetres"),
        Units::Meters => (1000.0, "metres"),
        Units::Microns => (0.001, "microns"),
        Units::Mils => (0.0254, "thousandths of an inch"),
        Units::Yards => (914.4, "yards"),
        Units::Millimeters => (1.0, "millimetres"),
        _ => return (1.0, "the file names no unit: taken as millimetres".into()),
    };
    (scale, format!("read in {name}"))
}

/// With an entity's own axes: a normal that points down mirrors across y. `None` for any other tilt.
fn facing(at: &Affine, normal: &DxfVector) -> Option<Affine> {
    if normal.x.abs() > PARALLEL || normal.y.abs() > PARALLEL {
        return None;
    }
    let side = if normal.z < 0.0 { -1.0 } else { 1.0 };
    Some(at.after(&Affine { a: side, b: 0.0, c: 0.0, d: 1.0, e: 0.0, f: 0.0 }))
}

/// A line of text in a file.
#[derive(Clone, Debug, PartialEq)]
pub struct TextFound {
    /// Its layer.
    pub layer: String,
    /// Where it begins, mm.
    pub place: Point,
    /// The words.
    pub value: String,
}

struct Reading<'a> {
    strokes: Gathered,
    texts: Vec<TextFound>,
    /// Layer of the entity that is read.
    layer: String,
    skipped: HashMap<String, usize>,
    /// Base point and entities by name in capitals.
    blocks: HashMap<String, (f64, f64, &'a Vec<Entity>)>,
    /// Entities and empty inserts laid out so far.
    laid_out: usize,
}

impl Reading<'_> {
    fn skip(&mut self, what: &str) {
        *self.skipped.entry(what.to_string()).or_default() += 1;
    }

    fn push(&mut self, stroke: Stroke) -> Result<(), ReadError> {
        if self.strokes.len() >= MOST_STROKES {
            return Err(ReadError::Many);
        }
        self.strokes.push(&self.layer, stroke);
        Ok(())
    }

    /// Counts a piece of work.
    fn work(&mut self) -> Result<(), ReadError> {
        self.laid_out += 1;
        if self.laid_out > MOST_LAID_OUT { Err(ReadError::Work) } else { Ok(()) }
    }

    fn entity(&mut self, entity: &Entity, at: &Affine, deep: usize) -> Result<(), ReadError> {
        self.work()?;
        patience::check();
        match &entity.specific {
            EntityType::Line(line) => self
                .push(Stroke::Segment(Segment::line(at.point(line.p1.x, line.p1.y), at.point(line.p2.x, line.p2.y)))),
            EntityType::Circle(circle) => match facing(at, &circle.normal) {
                Some(at) => self.round(&at, (circle.center.x, circle.center.y), circle.radius, 0.0, 360.0),
                None => self.tilted(),
            },
            EntityType::Arc(arc) => match facing(at, &arc.normal) {
                Some(at) => self.round(&at, (arc.center.x, arc.center.y), arc.radius, arc.start_angle, arc.end_angle),
                None => self.tilted(),
            },
            EntityType::LwPolyline(line) => match facing(at, &line.extrusion_direction) {
                Some(at) => {
                    let vertices: Vec<_> = line.vertices.iter().map(|one| (one.x, one.y, one.bulge)).collect();
                    self.polyline(&at, &vertices, line.is_closed())
                }
                None => self.tilted(),
            },
            EntityType::Polyline(line) => match facing(at, &line.normal) {
                Some(at) => {
                    let vertices: Vec<_> =
                        line.vertices().map(|one| (one.location.x, one.location.y, one.bulge)).collect();
                    self.polyline(&at, &vertices, line.is_closed())
                }
                None => self.tilted(),
            },
            EntityType::Ellipse(ellipse) => {
                // Given in the plane of the drawing: only its sense of turning follows the normal.
                let (x, y) = (ellipse.major_axis.x, ellipse.major_axis.y);
                let side = if ellipse.normal.z < 0.0 { -1.0 } else { 1.0 };
                let (minor_x, minor_y) = (-y * ellipse.minor_axis_ratio * side, x * ellipse.minor_axis_ratio * side);
                let from = ellipse.start_parameter;
                let mut sweep = (ellipse.end_parameter - from).rem_euclid(std::f64::consts::TAU);
                if sweep < ROUNDING {
                    sweep = std::f64::consts::TAU;
                }
                let count = 720;
                let points = (0..=count)
                    .map(|step| {
                        let (sin, cos) = (from + sweep * f64::from(step) / f64::from(count)).sin_cos();
                        at.point(ellipse.center.x + x * cos + minor_x * sin, ellipse.center.y + y * cos + minor_y * sin)
                    })
                    .collect();
                self.push(Stroke::Curve(points))
            }
            EntityType::Spline(spline) => match spline_points(spline) {
                Some(points) => self.push(Stroke::Curve(points.into_iter().map(|(x, y)| at.point(x, y)).collect())),
                None => {
                    self.skip("splines without control points");
                    Ok(())
                }
            },
            EntityType::Insert(insert) => {
                let Some(&(base_x, base_y, entities)) = self.blocks.get(&insert.name.to_ascii_uppercase()) else {
                    self.skip("inserts of blocks that are not there");
                    return Ok(());
                };
                if deep >= MOST_DEEP {
                    self.skip("inserts nested too deep");
                    return Ok(());
                }
                let Some(placed) = facing(at, &insert.extrusion_direction) else { return self.tilted() };
                let (sin, cos) = insert.rotation.to_radians().sin_cos();
                let (columns, rows) = (insert.column_count.max(1), insert.row_count.max(1));
                for row in 0..rows {
                    for column in 0..columns {
                        // An empty block takes its time too.
                        self.work()?;
                        let (x, y) = (f64::from(column) * insert.column_spacing, f64::from(row) * insert.row_spacing);
                        let (sx, sy) = (insert.x_scale_factor, insert.y_scale_factor);
                        let mut own = Affine { a: cos * sx, b: sin * sx, c: -sin * sy, d: cos * sy, e: 0.0, f: 0.0 };
                        let base = own.point(base_x, base_y);
                        own.e = insert.location.x + cos * x - sin * y - base.x;
                        own.f = insert.location.y + sin * x + cos * y - base.y;
                        let whole = placed.after(&own);
                        let own_layer = self.layer.clone();
                        for entity in entities {
                            // Layer 0 within a block is the layer of its insert.
                            if entity.common.layer != "0" {
                                self.layer.clone_from(&entity.common.layer);
                            }
                            self.entity(entity, &whole, deep + 1)?;
                            self.layer.clone_from(&own_layer);
                        }
                    }
                }
                Ok(())
            }
            EntityType::Text(text) => {
                self.skip("texts");
                if self.texts.len() < MOST_STROKES {
                    self.texts.push(TextFound {
                        layer: self.layer.clone(),
                        place: at.point(text.location.x, text.location.y),
                        value: text.value.clone(),
                    });
                }
                Ok(())
            }
            EntityType::MText(_) | EntityType::AttributeDefinition(_) => {
                self.skip("texts");
                Ok(())
            }
            EntityType::RotatedDimension(_) | EntityType::RadialDimension(_) | EntityType::DiameterDimension(_) => {
                self.skip("dimensions");
                Ok(())
            }
            _ => {
                self.skip("entities of other kinds");
                Ok(())
            }
        }
    }

    fn tilted(&mut self) -> Result<(), ReadError> {
        self.skip("entities tilted out of the plane");
        Ok(())
    }

    /// An arc from one angle counter-clockwise to another, degrees; a whole circle where they are the same.
    fn round(&mut self, at: &Affine, (x, y): (f64, f64), radius: f64, from: f64, to: f64) -> Result<(), ReadError> {
        let mut sweep = (to - from).rem_euclid(360.0);
        let whole = sweep < ROUNDING;
        if whole {
            sweep = 360.0;
        }
        let on = |angle: f64| {
            let (sin, cos) = angle.to_radians().sin_cos();
            at.point(x + radius * cos, y + radius * sin)
        };
        let Some(scale) = at.even() else {
            return self
                .push(Stroke::Curve((0..=360).map(|step| on(from + sweep * f64::from(step) / 360.0)).collect()));
        };
        if whole {
            return self.push(Stroke::Circle(at.point(x, y), radius * scale.abs()));
        }
        // Past half a turn a bulge grows without bound: two arcs then.
        let parts = if sweep > 180.0 { 2 } else { 1 };
        for part in 0..parts {
            let (a, b) = (
                from + sweep * f64::from(part) / f64::from(parts),
                from + sweep * f64::from(part + 1) / f64::from(parts),
            );
            let bulge = ((b - a).to_radians() / 4.0).tan() * scale.signum();
            self.push(Stroke::Segment(Segment { start: on(a), end: on(b), bulge }))?;
        }
        Ok(())
    }

    fn polyline(&mut self, at: &Affine, vertices: &[(f64, f64, f64)], closed: bool) -> Result<(), ReadError> {
        let count = vertices.len();
        let steps = if closed { count } else { count.saturating_sub(1) };
        for step in 0..steps {
            let ((x, y, bulge), (to_x, to_y, _)) = (vertices[step], vertices[(step + 1) % count]);
            let segment = Segment { start: Point::new(x, y), end: Point::new(to_x, to_y), bulge };
            match at.even() {
                Some(scale) => self.push(Stroke::Segment(Segment {
                    start: at.point(x, y),
                    end: at.point(to_x, to_y),
                    bulge: bulge * scale.signum(),
                }))?,
                None if bulge == 0.0 => {
                    self.push(Stroke::Segment(Segment::line(at.point(x, y), at.point(to_x, to_y))))?;
                }
                None => {
                    let points = (0..=90).map(|part| segment.at(f64::from(part) / 90.0));
                    self.push(Stroke::Curve(points.map(|point| at.point(point.x, point.y)).collect()))?;
                }
            }
        }
        Ok(())
    }
}

/// Points on a spline by de Boor's algorithm (rational where it has weights); `None` where its knots or points do not
/// fit its degree.
fn spline_points(spline: &Spline) -> Option<Vec<(f64, f64)>> {
    let degree = usize::try_from(spline.degree_of_curve).ok().filter(|degree| (1..=10).contains(degree))?;
    let count = spline.control_points.len();
    let knots = &spline.knot_values;
    if count <= degree
        || knots.len() != count + degree + 1
        || knots.windows(2).any(|pair| pair[0].is_nan() || pair[1] < pair[0])
    {
        return None;
    }
    let weight = |at: usize| spline.weight_values.get(at).copied().filter(|weight| *weight > 0.0).unwrap_or(1.0);
    let (first, last) = (knots[degree], knots[count]);
    if last.is_nan() || last <= first {
        return None;
    }
    // Dense within every span, so that no corner between spans is cut.
    let spans: Vec<usize> = (degree..count).filter(|&at| knots[at + 1] > knots[at]).collect();
    let steps = (4000 / spans.len().max(1)).clamp(8, 400);
    let mut points = Vec::with_capacity(spans.len() * steps + 1);
    for &span in &spans {
        let to = if span == spans[spans.len() - 1] { steps } else { steps - 1 };
        for step in 0..=to {
            let u = knots[span] + (knots[span + 1] - knots[span]) * step as f64 / steps as f64;
            let mut own: Vec<[f64; 3]> = (0..=degree)
                .map(|at| {
                    let index = span - degree + at;
                    let (point, weight) = (&spline.control_points[index], weight(index));
                    [point.x * weight, point.y * weight, weight]
                })
                .collect();
            for level in 1..=degree {
                for at in (level..=degree).rev() {
                    let index = span - degree + at;
                    let below = knots[index + degree + 1 - level] - knots[index];
                    let share = if below > 0.0 { (u - knots[index]) / below } else { 0.0 };
                    for part in 0..3 {
                        own[at][part] = own[at - 1][part] * (1.0 - share) + own[at][part] * share;
                    }
                }
            }
            let [x, y, w] = own[degree];
            points.push((x / w, y / w));
        }
    }
    Some(points)
}
