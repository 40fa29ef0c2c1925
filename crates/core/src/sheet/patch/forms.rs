//! The faces of pressed forms, each as it stands out of the upper face.

use crate::plane::{Outline, Point, Segment};
use crate::quantity::tolerance::ROUNDING;
use crate::sheet::flat::Flat;
use crate::sheet::form::{Form, Pressed, rings};
use crate::space::{BodyFace, Point3, Surface, Vector3, Walked};

use super::model::Patch;
use super::shell::{Shell, UP, reversed, turned_over};

/// A level ring: its corners and its edges, counter-clockwise seen from above.
struct Ring {
    corners: Vec<usize>,
    walk: Vec<Walked>,
    segments: Vec<Segment>,
    height: f64,
}

/// The patch of a form.
///
/// # Errors
/// A form that its sheet is too thick for, in words.
pub(super) fn patch(flat: &Flat, form: &Form) -> Result<Patch, String> {
    let thickness = flat.thickness;
    let mut shell = Shell::new(&flat.nodes[form.panel].name);
    let openings = match &form.shape {
        Pressed::Raised { height, side, .. } => raised(&mut shell, form, (thickness, *height, *side))?,
        Pressed::KnockOut { height } => knock_out(&mut shell, form, thickness, *height),
        Pressed::Extruded { inside, wall, height, .. } => {
            collar(&mut shell, form, (thickness, inside / 2.0, *wall, *height))
        }
        Pressed::Louvre { length, width, height, side } => {
            louvre(&mut shell, form, thickness, (*length, *width, *height, *side))
        }
    };
    let (body, openings) = if form.up { (shell.body, openings) } else { turned_over(shell.body, openings, thickness) };
    Ok(Patch { of: form.name.clone(), node: form.panel, replaces: form.pilot, body, openings })
}

fn ring(shell: &mut Shell, outline: &Outline, height: f64) -> Ring {
    let segments: Vec<Segment> = outline.segments().map(|(one, _)| one).collect();
    let at = |point: Point| Point3::new(point.x, point.y, height);
    let corners: Vec<usize> = segments.iter().map(|one| shell.corner(at(one.start))).collect();
    let walk = segments
        .iter()
        .enumerate()
        .map(|(place, one)| {
            let ends = (corners[place], corners[(place + 1) % corners.len()]);
            match one.is_line() {
                true => shell.line(ends.0, ends.1),
                false => shell.arc(ends, at(one.centre()), one.radius(), one.bulge > 0.0),
            }
        })
        .collect();
    Ring { corners, walk, segments, height }
}

/// The faces between a ring and the one over it: seen from outside of both, or from within (of a hollow).
fn walls(shell: &mut Shell, name: &str, low: &Ring, high: &Ring, from_within: bool) {
    let count = low.corners.len();
    for at in 0..count {
        let next = (at + 1) % count;
        let rises = [at, next].map(|place| shell.line(low.corners[place], high.corners[place]));
        let around = vec![low.walk[at], rises[1], (high.walk[at].0, !high.walk[at].1), (rises[0].0, !rises[0].1)];
        let (one, two) = (&low.segments[at], &high.segments[at]);
        let level = |point: Point, ring: &Ring| Point3::new(point.x, point.y, ring.height);
        let surface = if one.is_line() {
            let start = level(one.start, low);
            let across = (level(one.end, low) - start).unit();
            let out = across.cross((level(two.start, high) - start).unit()).unit();
            Surface::Plane { point: start, normal: if from_within { -out } else { out }, across }
        } else {
            let (point, radius) = (level(one.centre(), low), one.radius());
            let (axis, across) = (UP, Vector3::new(1.0, 0.0, 0.0));
            let outward = (one.bulge > 0.0) != from_within;
            let slope = (two.radius() - radius) / (high.height - low.height);
            if slope.abs() < ROUNDING {
                Surface::Cylinder { point, axis, across, radius, outward }
            } else {
                Surface::Cone { point, axis, across, radius, slope, outward }
            }
        };
        let walk = if from_within { reversed(&around) } else { around };
        shell.face(name, surface, vec![walk]);
    }
}

fn level_face(shell: &mut Shell, name: &str, up: bool, outer: &Ring, inner: Option<&Ring>) {
    let start = outer.segments[0].start;
    let point = Point3::new(start.x, start.y, outer.height);
    let surface = Surface::Plane { point, normal: if up { UP } else { -UP }, across: Vector3::new(1.0, 0.0, 0.0) };
    let walk = |ring: &Ring, ahead: bool| if ahead { ring.walk.clone() } else { reversed(&ring.walk) };
    let loops = std::iter::once(walk(outer, up)).chain(inner.map(|ring| walk(ring, !up))).collect();
    shell.face(name, surface, loops);
}

type Openings = [Vec<Vec<Walked>>; 2];

fn raised(shell: &mut Shell, form: &Form, (thickness, height, side): (f64, f64, f64)) -> Result<Openings, String> {
    let [foot, crown, mouth, floor] = rings(&form.outline, thickness, height, side)?;
    let (foot, crown) = (ring(shell, &foot, thickness), ring(shell, &crown, thickness + height));
    let (mouth, floor) = (ring(shell, &mouth, 0.0), ring(shell, &floor, height));
    let name = &form.name;
    walls(shell, &format!("{name}.side"), &foot, &crown, false);
    level_face(shell, &format!("{name}.crown"), true, &crown, None);
    walls(shell, &format!("{name}.hollow-side"), &mouth, &floor, true);
    level_face(shell, &format!("{name}.hollow"), false, &floor, None);
    Ok([vec![mouth.walk.clone()], vec![reversed(&foot.walk)]])
}

/// A disc moved up: its rim over the sheet, and as deep a recess under it.
fn knock_out(shell: &mut Shell, form: &Form, thickness: f64, height: f64) -> Openings {
    let (foot, crown) = (ring(shell, &form.outline, thickness), ring(shell, &form.outline, thickness + height));
    let (mouth, floor) = (ring(shell, &form.outline, 0.0), ring(shell, &form.outline, height));
    let name = &form.name;
    walls(shell, &format!("{name}.side"), &foot, &crown, false);
    level_face(shell, &format!("{name}.crown"), true, &crown, None);
    walls(shell, &format!("{name}.hollow-side"), &mouth, &floor, true);
    level_face(shell, &format!("{name}.hollow"), false, &floor, None);
    [vec![mouth.walk.clone()], vec![reversed(&foot.walk)]]
}

fn collar(shell: &mut Shell, form: &Form, (thickness, inner, wall, height): (f64, f64, f64, f64)) -> Openings {
    let circle = |radius: f64| Outline::circle(form.centre, radius, 0);
    let foot = ring(shell, &circle(inner + wall), thickness);
    let rim = ring(shell, &circle(inner + wall), thickness + height);
    let bore = ring(shell, &circle(inner), thickness + height);
    let mouth = ring(shell, &circle(inner), 0.0);
    let name = &form.name;
    walls(shell, &format!("{name}.side"), &foot, &rim, false);
    level_face(shell, &format!("{name}.rim"), true, &rim, Some(&bore));
    walls(shell, &format!("{name}.bore"), &mouth, &bore, true);
    [vec![mouth.walk.clone()], vec![reversed(&foot.walk)]]
}

/// A hood of planes: its roof rises from the far side to its opening, its ends slope in from their own sides. The hollow under it is
/// bounded by planes a thickness away from those.
fn louvre(
    shell: &mut Shell,
    form: &Form,
    thickness: f64,
    (length, width, height, side): (f64, f64, f64, f64),
) -> Openings {
    let [x, y] = form.ways;
    let handed = x.cross(y) > 0.0;
    let roof = (height / width).atan();
    let mut at = |u: f64, v: f64, z: f64| {
        let place = form.centre + x * u + y * v;
        shell.corner(Point3::new(place.x, place.y, z))
    };
    let (half, front, back) = (length / 2.0, width / 2.0, -width / 2.0);
    // Where the hollow leaves the lower face, how high it is at the opening, and where its ends have come to there.
    let (inner, low) = (half - thickness * (side / 2.0).tan(), back + thickness * (roof / 2.0).tan());
    let under = height + thickness - thickness / roof.cos();
    let top = half - height / side.tan();
    let inner_top = inner - under / side.tan();
    // Where the hollow's ends pass the upper face in the plane of the opening.
    let cross = inner - thickness / side.tan();
    let ends = [-1.0, 1.0];
    let hinge = ends.map(|end| at(end * half, back, thickness));
    let foot = ends.map(|end| at(end * half, front, thickness));
    let lip = ends.map(|end| at(end * top, front, thickness + height));
    let mouth = ends.map(|end| at(end * inner, low, 0.0));
    let sill = ends.map(|end| at(end * inner, front, 0.0));
    let arch = ends.map(|end| at(end * inner_top, front, under));
    let pass = ends.map(|end| at(end * cross, front, thickness));
    let name = &form.name;
    let plane = |shell: &mut Shell, part: &str, mut corners: Vec<usize>| {
        if !handed {
            corners.reverse();
        }
        shell.plane(&format!("{name}.{part}"), &corners);
    };
    plane(shell, "roof", vec![hinge[0], hinge[1], lip[1], lip[0]]);
    plane(shell, "left", vec![hinge[0], lip[0], foot[0]]);
    plane(shell, "right", vec![hinge[1], foot[1], lip[1]]);
    plane(shell, "hollow", vec![mouth[0], arch[0], arch[1], mouth[1]]);
    plane(shell, "hollow-left", vec![mouth[0], sill[0], pass[0], arch[0]]);
    plane(shell, "hollow-right", vec![mouth[1], arch[1], pass[1], sill[1]]);
    // The edge of the hood, seen from before it, and the edge of the sheet, seen from under it.
    plane(shell, "lip", vec![foot[1], pass[1], arch[1], arch[0], pass[0], foot[0], lip[0], lip[1]]);
    plane(shell, "slit", vec![sill[0], sill[1], pass[1], pass[0]]);
    let walk = |shell: &mut Shell, mut corners: Vec<usize>| {
        if !handed {
            corners.reverse();
        }
        shell.around(&corners)
    };
    // Seen from above clockwise; seen from below too.
    let upper = walk(shell, vec![hinge[0], foot[0], pass[0], pass[1], foot[1], hinge[1]]);
    let lower = walk(shell, vec![mouth[0], mouth[1], sill[1], sill[0]]);
    [vec![lower], vec![upper]]
}

/// How high a form stands over the face that it stands out of by its faces, mm. `None` where it has none.
pub fn form_height(flat: &Flat, form: &Form) -> Option<f64> {
    if super::run_into(flat, form).is_some() {
        return None;
    }
    let around = patch(flat, form).ok()?.body.extents();
    Some(if form.up { around.high.z - flat.thickness } else { -around.low.z })
}

/// A face of a form that is called so: its corners in the panel's own coordinates, and its normal where it is a plane; with the form's
/// place in the flat's list.
pub fn form_face(flat: &Flat, name: &str) -> Option<(usize, Vec<Point3>, Option<Vector3>)> {
    let (stem, _) = name.rsplit_once('.')?;
    let at = flat.forms.iter().position(|form| form.name == stem)?;
    let body = patch(flat, &flat.forms[at]).ok()?.body;
    let own: Vec<&BodyFace> = body.faces.iter().filter(|face| face.name == name).collect();
    let first = own.first()?;
    let normal = match &first.surface {
        Surface::Plane { normal, .. } => Some(*normal),
        _ => None,
    };
    let edges = first.loops.iter().flatten().map(|&(edge, _)| &body.edges[edge]);
    Some((at, edges.flat_map(|edge| [body.corners[edge.from], body.corners[edge.to]]).collect(), normal))
}

/// How much more metal the faces of a form enclose than the flat sheet that they stand in place of, mm3: its own faces, closed by those
/// that they replace, turned about. `None` for a form that has no faces.
pub fn displaced(flat: &Flat, form: &Form) -> Option<f64> {
    let Patch { mut body, openings, .. } = patch(flat, form).ok()?;
    for (top, walks) in [false, true].into_iter().zip(&openings) {
        let normal = if top { -UP } else { UP };
        for walk in walks {
            let corner = body.corners[body.edges[walk[0].0].from];
            let surface = Surface::Plane { point: corner, normal, across: Vector3::new(1.0, 0.0, 0.0) };
            let (name, owner) = (form.name.clone(), form.operation.clone());
            body.faces.push(BodyFace { name, owner, surface, loops: vec![walk.clone()] });
        }
    }
    let pilot = match form.shape {
        Pressed::Extruded { pilot, .. } => std::f64::consts::PI * pilot * pilot / 4.0 * flat.thickness,
        _ => 0.0,
    };
    body.is_closed().then(|| body.mass().volume + pilot)
}
