//! Whether two members are one piece of the cut list: what the saw and the drill do to a bar, compared under every way in
//! which the section can be turned onto itself. A turned piece is the same piece; a mirrored one is its opposite hand.

use crate::plane::Vector;
use crate::sheet::Alike;
use crate::space::Vector3;
use crate::work::frame::OneEnd;

use super::cutout::CutoutDepth;
use super::member::Member;

/// Sine of how far a cut leans before it says which way the bar is turned.
const LEANS: f64 = 1e-3;

/// How near two pieces must be to be one, mm: a tenth of what a saw holds.
const NEAR: f64 = 0.05;
/// And in the direction of a cut, as a unit vector's difference: 0.03 deg.
const NEAR_WAY: f64 = 5.0e-4;

/// Something done to a bar, about its centroid line, t from the long point of the start.
#[derive(Clone, Debug, PartialEq)]
enum Feature {
    /// A plane: which end, its normal away from the metal, where it meets the centroid line.
    Plane { which: OneEnd, normal: Vector3, at: f64 },
    /// A cope: which end, direction of the axis either way, the point of it nearest to the end's long point, radius.
    Cope { which: OneEnd, axis: Vector3, foot: Vector3, radius: f64 },
    /// A hole: along, direction in, its offset from the centroid square to it, diameter; either way where it goes through.
    Bore { at: f64, into: Vector, off: Vector, diameter: f64, through: bool },
    /// A cutout: which end, its sides about the centroid, its depth.
    Cutout { which: OneEnd, sides: Vec<(Vector, f64)>, depth: Depth },
    /// A bend: from, to, radius, direction of its centre.
    Bend { from: f64, to: f64, radius: f64, toward: Vector },
}

/// How deep a cutout is: behind the end, or to a plane as [`Feature::Plane`] tells it.
#[derive(Clone, Debug, PartialEq)]
enum Depth {
    Behind(f64),
    To { normal: Vector3, at: f64 },
}

/// A member as the saw sees it.
#[derive(Clone, Debug)]
pub struct Cut {
    /// Section, material.
    stock: (String, String),
    length: f64,
    features: Vec<Feature>,
    round: bool,
    symmetries: Vec<[[f64; 2]; 2]>,
}

impl Cut {
    /// Of a member.
    pub fn of(member: &Member) -> Cut {
        let centroid = member.region.centroid();
        let lines: f64 =
            member.length() - member.reach(OneEnd::Finish).0 + member.reach(OneEnd::Start).0 - 2.0 * member.grip;
        let from = member.reach(OneEnd::Start).0;
        let length = member.length();
        let mut features = Vec::new();
        for (which, end) in OneEnd::BOTH.into_iter().zip(&member.ends) {
            let shift = if which.is_finish() { lines - from } else { -from };
            for cut in &end.planes {
                features.push(Feature::Plane { which, normal: cut.normal, at: cut.reach(centroid) + shift });
            }
            for cope in &end.copes {
                let point = Vector3::new(cope.point.x - centroid.x, cope.point.y - centroid.y, cope.point.z + shift);
                let mark = Vector3::new(0.0, 0.0, if which.is_finish() { length } else { 0.0 });
                let arm = point - mark;
                let foot = mark + (arm - cope.axis * arm.dot(cope.axis));
                features.push(Feature::Cope { which, axis: cope.axis, foot, radius: cope.radius });
            }
            for cutout in &end.cutouts {
                let about = |&(way, level): &(Vector, f64)| (way, level - way.x * centroid.x - way.y * centroid.y);
                let depth = match &cutout.depth {
                    CutoutDepth::Behind(length) => Depth::Behind(*length),
                    CutoutDepth::To(cut) => Depth::To { normal: cut.normal, at: cut.reach(centroid) + shift },
                };
                features.push(Feature::Cutout { which, sides: cutout.sides.iter().map(about).collect(), depth });
            }
        }
        let middle = member.region.extents().centre() - centroid;
        for bore in &member.bores {
            // The side of `walls`: where the hole's axis lies square to its way in.
            let side = bore.into.left();
            let off = side * (side.dot(middle) + bore.off);
            let through = !bore.one_wall;
            features.push(Feature::Bore {
                at: bore.along - from,
                into: bore.into,
                off,
                diameter: bore.diameter,
                through,
            });
        }
        let mut basis = member.start;
        let mut at = -from;
        for line in &member.lines {
            if let Some(arc) = &line.arc {
                let way = (arc.centre - basis.origin).unit();
                let toward = Vector::new(way.dot(basis.u), way.dot(basis.v));
                let radius = line.from.distance(arc.centre);
                features.push(Feature::Bend { from: at, to: at + line.length(), radius, toward });
            }
            at += line.length();
            basis = super::member::along(basis, line);
        }
        // A mirrored section is the drawn one turned end for end: everything is told in the drawn section's frame.
        if member.mirrored {
            let flip = [[-1.0, 0.0], [0.0, 1.0]];
            features = features.iter().map(|feature| feature.moved(&flip, -1.0, length)).collect();
        }
        Cut {
            stock: (member.section.name.clone(), member.material.name.clone()),
            length,
            features,
            round: member.section.is_round(),
            symmetries: member.section.symmetries(),
        }
    }

    /// How this piece compares with another.
    pub fn alike(&self, other: &Cut) -> Alike {
        if self.stock != other.stock
            || (self.length - other.length).abs() > NEAR
            || self.features.len() != other.features.len()
        {
            return Alike::Other;
        }
        let mut opposite = false;
        for matrix in self.ways(other) {
            for along in [1.0, -1.0] {
                if self.matches(other, &matrix, along) {
                    if turn(&matrix) * along > 0.0 {
                        return Alike::Same;
                    }
                    opposite = true;
                }
            }
        }
        if opposite { Alike::Opposite } else { Alike::Other }
    }

    /// Turns and mirrorings of the section to try: its own symmetries, and for a round one those that bring a feature of
    /// this piece onto one of the other's.
    fn ways(&self, other: &Cut) -> Vec<[[f64; 2]; 2]> {
        if !self.round {
            return self.symmetries.clone();
        }
        let mut ways = vec![[[1.0, 0.0], [0.0, 1.0]], [[-1.0, 0.0], [0.0, 1.0]]];
        let Some(first) = self.features.iter().find_map(Feature::azimuth) else { return ways };
        let mut angles: Vec<f64> = other.features.iter().filter_map(Feature::azimuth).collect();
        // Axes and through holes look either way.
        angles.extend(angles.clone().iter().map(|angle| angle + std::f64::consts::PI));
        for angle in angles {
            let (sine, cosine) = (angle - first).sin_cos();
            ways.push([[cosine, -sine], [sine, cosine]]);
            let (sine, cosine) = (angle + first).sin_cos();
            ways.push([[cosine, sine], [sine, -cosine]]);
        }
        ways
    }

    fn matches(&self, other: &Cut, matrix: &[[f64; 2]; 2], along: f64) -> bool {
        let mut used = vec![false; other.features.len()];
        self.features.iter().all(|feature| {
            let moved = feature.moved(matrix, along, self.length);
            let found = other.features.iter().enumerate().position(|(at, one)| !used[at] && one.is_near(&moved));
            if let Some(at) = found {
                used[at] = true;
            }
            found.is_some()
        })
    }
}

fn turn(matrix: &[[f64; 2]; 2]) -> f64 {
    matrix[0][0] * matrix[1][1] - matrix[0][1] * matrix[1][0]
}

fn moved2(matrix: &[[f64; 2]; 2], v: Vector) -> Vector {
    Vector::new(matrix[0][0] * v.x + matrix[0][1] * v.y, matrix[1][0] * v.x + matrix[1][1] * v.y)
}

fn moved3(matrix: &[[f64; 2]; 2], along: f64, v: Vector3) -> Vector3 {
    let flat = moved2(matrix, Vector::new(v.x, v.y));
    Vector3::new(flat.x, flat.y, v.z * along)
}

impl Feature {
    fn azimuth(&self) -> Option<f64> {
        let way = match self {
            Feature::Plane { normal, .. } => Vector::new(normal.x, normal.y),
            Feature::Cope { axis, .. } => Vector::new(axis.x, axis.y),
            Feature::Bore { into, .. } => *into,
            Feature::Cutout { sides, .. } => sides.first()?.0,
            Feature::Bend { toward, .. } => *toward,
        };
        (way.length() > LEANS).then(|| way.y.atan2(way.x))
    }

    fn moved(&self, matrix: &[[f64; 2]; 2], along: f64, length: f64) -> Feature {
        let place = |t: f64| if along > 0.0 { t } else { length - t };
        let end = |which: OneEnd| if along > 0.0 { which } else { which.other() };
        match self {
            Feature::Plane { which, normal, at } => {
                Feature::Plane { which: end(*which), normal: moved3(matrix, along, *normal), at: place(*at) }
            }
            Feature::Cope { which, axis, foot, radius } => {
                let flat = moved3(matrix, along, *foot);
                Feature::Cope {
                    which: end(*which),
                    axis: moved3(matrix, along, *axis),
                    foot: Vector3::new(flat.x, flat.y, place(foot.z)),
                    radius: *radius,
                }
            }
            Feature::Bore { at, into, off, diameter, through } => Feature::Bore {
                at: place(*at),
                into: moved2(matrix, *into),
                off: moved2(matrix, *off),
                diameter: *diameter,
                through: *through,
            },
            Feature::Cutout { which, sides, depth } => Feature::Cutout {
                which: end(*which),
                sides: sides.iter().map(|(way, level)| (moved2(matrix, *way), *level)).collect(),
                depth: match depth {
                    Depth::Behind(length) => Depth::Behind(*length),
                    Depth::To { normal, at } => Depth::To { normal: moved3(matrix, along, *normal), at: place(*at) },
                },
            },
            Feature::Bend { from, to, radius, toward } => {
                let (a, b) = (place(*from), place(*to));
                Feature::Bend { from: a.min(b), to: a.max(b), radius: *radius, toward: moved2(matrix, *toward) }
            }
        }
    }

    fn is_near(&self, other: &Feature) -> bool {
        let near = |a: f64, b: f64| (a - b).abs() < NEAR;
        let way3 = |a: Vector3, b: Vector3| (a - b).length() < NEAR_WAY;
        let way = |a: Vector, b: Vector| (a - b).length() < NEAR_WAY;
        let flat = |a: Vector, b: Vector| (a - b).length() < NEAR;
        match (self, other) {
            (Feature::Plane { which: f, normal: n, at: a }, Feature::Plane { which: g, normal: m, at: b }) => {
                f == g && way3(*n, *m) && near(*a, *b)
            }
            (
                Feature::Cope { which: f, axis: a, foot: p, radius: r },
                Feature::Cope { which: g, axis: b, foot: q, radius: s },
            ) => f == g && (way3(*a, *b) || way3(*a, -*b)) && (*p - *q).length() < NEAR && near(*r, *s),
            (
                Feature::Bore { at: a, into: i, off: o, diameter: d, through: t },
                Feature::Bore { at: b, into: j, off: p, diameter: e, through: u },
            ) => near(*a, *b) && t == u && near(*d, *e) && flat(*o, *p) && (way(*i, *j) || (*t && way(*i, -*j))),
            (Feature::Cutout { which: f, sides: a, depth: x }, Feature::Cutout { which: g, sides: b, depth: y }) => {
                let sides =
                    a.len() == b.len() && a.iter().all(|(v, l)| b.iter().any(|(w, m)| way(*v, *w) && near(*l, *m)));
                let deep = match (x, y) {
                    (Depth::Behind(x), Depth::Behind(y)) => near(*x, *y),
                    (Depth::To { normal: n, at: x }, Depth::To { normal: m, at: y }) => way3(*n, *m) && near(*x, *y),
                    _ => false,
                };
                f == g && sides && deep
            }
            (
                Feature::Bend { from: a, to: b, radius: r, toward: w },
                Feature::Bend { from: c, to: d, radius: s, toward: z },
            ) => near(*a, *c) && near(*b, *d) && near(*r, *s) && way(*w, *z),
            _ => false,
        }
    }
}
