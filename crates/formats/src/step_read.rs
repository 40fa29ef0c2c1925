//! Reads STEP solids back into bodies: what the writer writes, told again from its text alone. For the audit; it is no general
//! reader.

use std::collections::HashMap;

use steelk_core::patience;
use steelk_core::space::{Body, BodyEdge, BodyFace, Curve, Point3, Surface, Vector3};

/// The solids of a file with their names.
///
/// # Errors
/// In words, with the entity's number: what cannot be read.
pub fn read(text: &str) -> Result<Vec<(String, Body)>, String> {
    let mut file = File { entities: HashMap::new() };
    // An entity a line, as they are written.
    for line in text.lines().filter_map(|line| line.trim().strip_suffix(';')).filter(|line| line.starts_with('#')) {
        let (number, rest) = line.split_once('=').ok_or_else(|| format!("no entity in {line}"))?;
        let number = number[1..].parse().map_err(|_| format!("no number in {number}"))?;
        // A compound entity has no name before its bracket; none of them is needed.
        let Some((name, rest)) = rest.split_once('(') else { continue };
        let inner = rest.strip_suffix(')').unwrap_or(rest);
        file.entities.insert(number, (name, inner));
    }
    let mut solids: Vec<usize> = file
        .entities
        .iter()
        .filter(|(_, (name, _))| *name == "MANIFOLD_SOLID_BREP")
        .map(|(number, _)| *number)
        .collect();
    solids.sort_unstable();
    solids.into_iter().map(|number| file.solid(number)).collect()
}

struct File<'a> {
    entities: HashMap<usize, (&'a str, &'a str)>,
}

/// Arguments at the top level of a list; strings and lists stay whole.
fn parts(text: &str) -> Vec<&str> {
    let (mut all, mut depth, mut quoted, mut from) = (Vec::new(), 0, false, 0);
    for (at, c) in text.char_indices() {
        match c {
            '\'' => quoted = !quoted,
            '(' if !quoted => depth += 1,
            ')' if !quoted => depth -= 1,
            ',' if !quoted && depth == 0 => {
                all.push(text[from..at].trim());
                from = at + 1;
            }
            _ => {}
        }
    }
    all.push(text[from..].trim());
    all
}

fn list(text: &str) -> Vec<&str> {
    parts(text.strip_prefix('(').and_then(|text| text.strip_suffix(')')).unwrap_or(text))
}

/// The largest number of a file, mm: a kilometre. A round of more has more chords than there is time for.
const LARGEST: f64 = 1e6;

fn number(text: &str) -> Result<f64, String> {
    let number = text.parse::<f64>().ok().filter(|number| number.is_finite());
    let number = number.ok_or_else(|| format!("\"{text}\" is no number"))?;
    if number.abs() > LARGEST {
        return Err(format!("\"{text}\" is more than {LARGEST} mm, which no part has"));
    }
    Ok(number)
}

fn reference(text: &str) -> Result<usize, String> {
    text.strip_prefix('#').and_then(|digits| digits.parse().ok()).ok_or_else(|| format!("\"{text}\" names no entity"))
}

fn word(text: &str) -> String {
    text.trim_matches('\'').replace("''", "'")
}

impl<'a> File<'a> {
    /// The arguments of an entity of a kind.
    fn of(&self, at: usize, kind: &str) -> Result<Vec<&'a str>, String> {
        match self.entities.get(&at) {
            Some((name, inner)) if *name == kind => Ok(parts(inner)),
            Some((name, _)) => Err(format!("#{at} is {name}, not {kind}")),
            None => Err(format!("#{at} is not in the file")),
        }
    }

    fn triple(&self, at: usize, kind: &str) -> Result<[f64; 3], String> {
        let own = self.of(at, kind)?;
        let values = list(own.get(1).copied().unwrap_or_default());
        let [x, y, z] = values.as_slice() else { return Err(format!("#{at} has no three coordinates")) };
        Ok([number(x)?, number(y)?, number(z)?])
    }

    fn point(&self, text: &str) -> Result<Point3, String> {
        let [x, y, z] = self.triple(reference(text)?, "CARTESIAN_POINT")?;
        Ok(Point3::new(x, y, z))
    }

    fn direction(&self, text: &str) -> Result<Vector3, String> {
        let [x, y, z] = self.triple(reference(text)?, "DIRECTION")?;
        Ok(Vector3::new(x, y, z))
    }

    /// Point, axis and the way across of a placement.
    fn placement(&self, text: &str) -> Result<(Point3, Vector3, Vector3), String> {
        let own = self.of(reference(text)?, "AXIS2_PLACEMENT_3D")?;
        let [_, point, axis, across] = own.as_slice() else { return Err(format!("{text} is no whole placement")) };
        Ok((self.point(point)?, self.direction(axis)?, self.direction(across)?))
    }

    fn solid(&self, at: usize) -> Result<(String, Body), String> {
        let own = self.of(at, "MANIFOLD_SOLID_BREP")?;
        let name = word(own.first().copied().unwrap_or_default());
        let shell = self.of(reference(own.get(1).copied().unwrap_or_default())?, "CLOSED_SHELL")?;
        let mut body = Body::default();
        let (mut corners, mut edges) = (HashMap::new(), HashMap::new());
        for face in list(shell.get(1).copied().unwrap_or_default()) {
            patience::check();
            let own = self.of(reference(face)?, "ADVANCED_FACE")?;
            let [called, bounds, surface, sense] = own.as_slice() else {
                return Err(format!("{face} is no whole face"));
            };
            let mut loops = Vec::new();
            for bound in list(bounds) {
                let bound = reference(bound)?;
                let own = self.of(bound, "FACE_OUTER_BOUND").or_else(|_| self.of(bound, "FACE_BOUND"))?;
                let walk = self.of(reference(own.get(1).copied().unwrap_or_default())?, "EDGE_LOOP")?;
                let mut walked = Vec::new();
                for oriented in list(walk.get(1).copied().unwrap_or_default()) {
                    let own = self.of(reference(oriented)?, "ORIENTED_EDGE")?;
                    let [.., edge, ahead] = own.as_slice() else { return Err(format!("{oriented} is no whole edge")) };
                    let edge = reference(edge)?;
                    let known = match edges.get(&edge) {
                        Some(&known) => known,
                        None => {
                            let made = self.edge(edge, &mut body, &mut corners)?;
                            body.edges.push(made);
                            edges.insert(edge, body.edges.len() - 1);
                            body.edges.len() - 1
                        }
                    };
                    walked.push((known, *ahead == ".T."));
                }
                loops.push(walked);
            }
            let surface = self.surface(reference(surface)?, *sense == ".T.")?;
            body.faces.push(BodyFace { name: word(called), owner: name.clone(), surface, loops });
        }
        Ok((name, body))
    }

    fn edge(&self, at: usize, body: &mut Body, corners: &mut HashMap<usize, usize>) -> Result<BodyEdge, String> {
        let own = self.of(at, "EDGE_CURVE")?;
        let [_, from, to, curve, _] = own.as_slice() else { return Err(format!("#{at} is no whole edge")) };
        let mut corner = |text: &str| -> Result<usize, String> {
            let at = reference(text)?;
            if let Some(&known) = corners.get(&at) {
                return Ok(known);
            }
            let own = self.of(at, "VERTEX_POINT")?;
            body.corners.push(self.point(own.get(1).copied().unwrap_or_default())?);
            corners.insert(at, body.corners.len() - 1);
            Ok(body.corners.len() - 1)
        };
        let (from, to) = (corner(from)?, corner(to)?);
        Ok(BodyEdge { from, to, curve: self.curve(reference(curve)?)? })
    }

    fn points(&self, text: &str) -> Result<Vec<Point3>, String> {
        list(text).into_iter().map(|point| self.point(point)).collect()
    }

    fn curve(&self, at: usize) -> Result<Curve, String> {
        let kind = self.entities.get(&at).map_or("nothing", |(name, _)| *name);
        let own = self.of(at, kind)?;
        match (kind, own.as_slice()) {
            ("LINE", _) => Ok(Curve::Line),
            ("CIRCLE", [_, placement, radius]) => {
                let (centre, axis, _) = self.placement(placement)?;
                Ok(Curve::Circle { centre, axis, radius: number(radius)? })
            }
            ("ELLIPSE", [_, placement, long, short]) => {
                let (centre, axis, major) = self.placement(placement)?;
                Ok(Curve::Ellipse { centre, axis, major, long: number(long)?, short: number(short)? })
            }
            ("B_SPLINE_CURVE_WITH_KNOTS", [_, "3", points, ..]) => Ok(Curve::Cubic(self.points(points)?)),
            _ => Err(format!("#{at} is a curve of an unknown kind: {kind}")),
        }
    }

    fn surface(&self, at: usize, outward: bool) -> Result<Surface, String> {
        let kind = self.entities.get(&at).map_or("nothing", |(name, _)| *name);
        let own = self.of(at, kind)?;
        let placed = |text: &str| self.placement(text);
        match (kind, own.as_slice()) {
            ("PLANE", [_, placement]) => {
                let (point, normal, across) = placed(placement)?;
                Ok(Surface::Plane { point, normal: if outward { normal } else { -normal }, across })
            }
            ("CYLINDRICAL_SURFACE", [_, placement, radius]) => {
                let (point, axis, across) = placed(placement)?;
                Ok(Surface::Cylinder { point, axis, across, radius: number(radius)?, outward })
            }
            ("CONICAL_SURFACE", [_, placement, radius, angle]) => {
                let (point, axis, across) = placed(placement)?;
                let slope = number(angle)?.tan();
                Ok(Surface::Cone { point, axis, across, radius: number(radius)?, slope, outward })
            }
            ("TOROIDAL_SURFACE", [_, placement, major, minor]) => {
                let (point, axis, across) = placed(placement)?;
                Ok(Surface::Torus { point, axis, across, major: number(major)?, minor: number(minor)?, outward })
            }
            ("B_SPLINE_SURFACE_WITH_KNOTS", [_, "3", "1", rows, ..]) => {
                let (mut first, mut second) = (Vec::new(), Vec::new());
                for row in list(rows) {
                    let pair = self.points(row)?;
                    let [one, two] = pair.as_slice() else { return Err(format!("#{at} has a row of no two points")) };
                    first.push(*one);
                    second.push(*two);
                }
                Ok(Surface::Ruled { first, second, outward })
            }
            _ => Err(format!("#{at} is a surface of an unknown kind: {kind}")),
        }
    }
}
