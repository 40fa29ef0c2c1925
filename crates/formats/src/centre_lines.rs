//! Centre lines of a frame in: DXF (3D lines, arcs and circles' arcs, polylines) and CSV.

use steelk_core::patience;
use steelk_core::quantity::LengthUnit;
use steelk_core::quantity::tolerance::NOTHING;
use steelk_core::work::frame::LinesAction;

use crate::dxf_read::load;

/// Why a file gives no centre lines.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
#[error("{0}")]
pub struct CentreLineFault(pub String);

/// The most lines that are read.
const MOST: usize = 5000;

fn place(x: f64, y: f64, z: f64) -> Result<String, CentreLineFault> {
    if [x, y, z].iter().any(|value| !value.is_finite() || value.abs() > 1e6) {
        return Err(CentreLineFault(format!(
            "a coordinate of {x}, {y}, {z} is out of reach; a frame stands within 1 km"
        )));
    }
    // Digits beyond a millionth are a drawing program's rounding.
    let tidy = |value: f64| {
        let text = format!("{value:.6}");
        let text = text.trim_end_matches('0').trim_end_matches('.');
        if text == "-0" { "0".to_string() } else { text.to_string() }
    };
    Ok(format!("{} {} {}", tidy(x), tidy(y), tidy(z)))
}

/// Reads CSV: six numbers a row for a line (x1, y1, z1, x2, y2, z2), nine for an arc past its second place. A first row of
/// words is a heading.
///
/// # Errors
/// [`CentreLineFault`] with the row.
pub fn from_csv(text: &str, unit: LengthUnit) -> Result<LinesAction, CentreLineFault> {
    let mut file =
        csv::ReaderBuilder::new().has_headers(false).flexible(true).comment(Some(b'#')).from_reader(text.as_bytes());
    let mut lines = Vec::new();
    for (row, record) in file.records().enumerate() {
        let record = record.map_err(|fault| CentreLineFault(format!("row {}: {fault}", row + 1)))?;
        let numbers: Vec<Option<f64>> =
            record.iter().map(str::trim).filter(|cell| !cell.is_empty()).map(|cell| cell.parse().ok()).collect();
        if row == 0 && numbers.iter().all(Option::is_none) {
            continue;
        }
        if numbers.is_empty() {
            continue;
        }
        let numbers: Option<Vec<f64>> = numbers.into_iter().collect();
        let numbers = numbers
            .filter(|numbers| matches!(numbers.len(), 6 | 9))
            .ok_or_else(|| CentreLineFault(format!("row {}: a line has 6 numbers and an arc 9", row + 1)))?;
        let places: Result<Vec<String>, _> =
            numbers.chunks_exact(3).map(|part| place(part[0], part[1], part[2])).collect();
        lines.push(places.map_err(|fault| CentreLineFault(format!("row {}: {}", row + 1, fault.0)))?.join(", "));
        if lines.len() > MOST {
            return Err(CentreLineFault(format!("more than {MOST} lines; split the file")));
        }
    }
    if lines.is_empty() {
        return Err(CentreLineFault("there are no lines in it".into()));
    }
    Ok(LinesAction { unit, lines, source: String::new() })
}

/// Reads DXF: LINE, ARC, LWPOLYLINE and POLYLINE in the model, each in its own plane. Other things are passed over.
///
/// # Errors
/// [`CentreLineFault`]: not a DXF, too large, nothing in it that is a line.
pub fn from_dxf(bytes: &[u8], unit: LengthUnit) -> Result<LinesAction, CentreLineFault> {
    const LARGEST: usize = 2 * 1024 * 1024;
    if bytes.len() > LARGEST || bytes.split(|&byte| byte == b'\n').any(|line| line.len() > 4096) {
        return Err(CentreLineFault("the file is larger than 2 MiB or has a line of more than 4096 bytes".into()));
    }
    let drawing = load(bytes).map_err(|fault| CentreLineFault(fault.to_string()))?;
    let unit = match drawing.header.default_drawing_units {
        dxf::enums::Units::Inches => LengthUnit::In,
        dxf::enums::Units::Millimeters => LengthUnit::Mm,
        _ => unit,
    };
    let mut lines = Vec::new();
    for entity in drawing.entities() {
        patience::check();
        match &entity.specific {
            dxf::entities::EntityType::Line(one) => {
                lines.push(format!(
                    "{}, {}",
                    place(one.p1.x, one.p1.y, one.p1.z)?,
                    place(one.p2.x, one.p2.y, one.p2.z)?
                ));
            }
            dxf::entities::EntityType::Arc(one) => {
                let own = Plane::of(&one.normal);
                let mut sweep = one.end_angle - one.start_angle;
                if sweep <= 0.0 {
                    sweep += 360.0;
                }
                let at = |part: f64| {
                    let angle = (one.start_angle + sweep * part).to_radians();
                    own.place(
                        one.center.x + one.radius * angle.cos(),
                        one.center.y + one.radius * angle.sin(),
                        one.center.z,
                    )
                };
                lines.push(format!("{}, {}, {}", at(0.0)?, at(0.5)?, at(1.0)?));
            }
            dxf::entities::EntityType::LwPolyline(one) => {
                let own = Plane::of(&one.extrusion_direction);
                let count = one.vertices.len();
                let closed = one.flags & 1 == 1;
                for at in 0..if closed { count } else { count.saturating_sub(1) } {
                    let (a, b) = (&one.vertices[at], &one.vertices[(at + 1) % count]);
                    let level = 0.0;
                    let (from, to) = (own.place(a.x, a.y, level)?, own.place(b.x, b.y, level)?);
                    if a.bulge == 0.0 {
                        lines.push(format!("{from}, {to}"));
                    } else {
                        let past = (
                            (a.x + b.x) / 2.0 + a.bulge * (b.y - a.y) / 2.0,
                            (a.y + b.y) / 2.0 - a.bulge * (b.x - a.x) / 2.0,
                        );
                        lines.push(format!("{from}, {}, {to}", own.place(past.0, past.1, level)?));
                    }
                }
            }
            dxf::entities::EntityType::Polyline(one) => {
                let places: Vec<String> = one
                    .vertices()
                    .map(|vertex| place(vertex.location.x, vertex.location.y, vertex.location.z))
                    .collect::<Result<_, _>>()?;
                for pair in places.windows(2) {
                    lines.push(format!("{}, {}", pair[0], pair[1]));
                }
            }
            _ => {}
        }
        if lines.len() > MOST {
            return Err(CentreLineFault(format!("more than {MOST} lines; split the file")));
        }
    }
    if lines.is_empty() {
        return Err(CentreLineFault("there are no lines, arcs or polylines in it".into()));
    }
    Ok(LinesAction { unit, lines, source: String::new() })
}

/// The plane of an entity with its own extrusion direction (the format's arbitrary axis rule).
struct Plane {
    x: [f64; 3],
    y: [f64; 3],
    z: [f64; 3],
}

impl Plane {
    fn of(normal: &dxf::Vector) -> Plane {
        let length = (normal.x * normal.x + normal.y * normal.y + normal.z * normal.z).sqrt();
        let z =
            if length > NOTHING { [normal.x / length, normal.y / length, normal.z / length] } else { [0.0, 0.0, 1.0] };
        let cross = |a: [f64; 3], b: [f64; 3]| {
            [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]
        };
        let unit = |a: [f64; 3]| {
            let length = (a[0] * a[0] + a[1] * a[1] + a[2] * a[2]).sqrt();
            [a[0] / length, a[1] / length, a[2] / length]
        };
        let near = z[0].abs() < 1.0 / 64.0 && z[1].abs() < 1.0 / 64.0;
        let x = unit(cross(if near { [0.0, 1.0, 0.0] } else { [0.0, 0.0, 1.0] }, z));
        Plane { x, y: cross(z, x), z }
    }

    fn place(&self, a: f64, b: f64, c: f64) -> Result<String, CentreLineFault> {
        let at = |axis: usize| a * self.x[axis] + b * self.y[axis] + c * self.z[axis];
        place(at(0), at(1), at(2))
    }
}
