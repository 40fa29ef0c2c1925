//! A rib across a bend in the plane square to it: where its ridge and its sides pass the faces of the legs and of the bend.
//!
//! The section's own axes: p runs on the first leg's inner face to its tangent line, which is its origin, q stands square to that face,
//! toward the inside of the bend. `x`, square to both, runs along the bend.

use std::f64::consts::FRAC_PI_2;

use crate::plane::{GAUSS, Point, Vector};
use crate::quantity::tolerance::MODELLING_TOLERANCE;

/// A bend's section, mm and radians.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct BentLegs {
    /// Inside radius.
    pub radius: f64,
    /// Of the sheet.
    pub thickness: f64,
    /// Bend angle from flat.
    pub angle: f64,
}

/// A rib's sizes, mm and radians.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct RibSizes {
    /// On the first and the second leg, from the tangent line to where the ridge leaves the inner face.
    pub legs: [f64; 2],
    /// Of a flat ridge; the diameter of a round one.
    pub width: f64,
    /// Whether its ridge is a cylinder.
    pub is_round: bool,
    /// How far its sides lean from square to the ridge.
    pub draft: f64,
}

/// Which part of the sheet a piece of a rib's rim lies on.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Part {
    /// The leg before the first tangent line: places are counted back from that line, mm.
    First,
    /// The bend: places are its angle from the first tangent line, radians.
    Bend,
    /// The leg past the second tangent line: places are counted from that line, mm.
    Second,
}

/// What of a rib passes the sheet there.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Zone {
    /// Its ridge, where that is round.
    Ridge,
    /// One of its sides.
    Side,
}

/// A piece of one side of a rim, from the first leg's end to the second's.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Piece {
    /// The part of the sheet.
    pub part: Part,
    /// Where it begins, as the part counts.
    pub from: f64,
    /// Where it ends.
    pub to: f64,
    /// What passes there.
    pub zone: Zone,
}

/// One of a rib's two surfaces, over the face of the sheet that it closes.
#[derive(Clone, Debug, PartialEq)]
pub struct RibShell {
    /// The face of the legs that is inside the bend, or the other one.
    pub inner: bool,
    legs: BentLegs,
    /// Of the ridge: a place on it, its way from the first leg to the second, and the way down into the sheet.
    pub start: Point,
    /// Unit vector along the ridge.
    pub along: Vector,
    /// Unit vector square to it, away from the inside of the bend.
    pub down: Vector,
    /// Half of a flat ridge's width; the radius of a round one.
    pub half: f64,
    /// Whether its ridge is a cylinder.
    pub is_round: bool,
    /// How far its sides lean from square to the ridge, radians.
    pub draft: f64,
    /// From the tangent lines to the rim's ends.
    pub ends: [f64; 2],
    /// One side of its rim, from end to end.
    pub pieces: Vec<Piece>,
}

/// The steepest that a ridge stands on a leg, radians: no tool is drawn out past this (common practice).
const STEEPEST: f64 = 85.0 * std::f64::consts::PI / 180.0;
/// Parts that volumes are summed in, between two changes of their rule.
const STEPS: usize = 24;

/// The two surfaces of a rib: over the inner faces, and over the outer ones, a thickness from the first everywhere.
///
/// # Errors
/// A rib that does not pass the bend's tangent lines, or that its sheet is too thick for, in words without sizes.
pub fn shells(legs: &BentLegs, sizes: &RibSizes) -> Result<[RibShell; 2], RibFault> {
    let inner = RibShell::new(legs, sizes, true)?;
    let outer = RibShell::new(legs, sizes, false)?;
    Ok([inner, outer])
}

/// Why a rib cannot be pressed.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum RibFault {
    /// Its ridge ends within the bend, on the first or the second leg; there by how much it lies short of the tangent line, mm.
    Short(usize, f64),
    /// Its ridge stands too steeply on the first or the second leg; its angle, radians.
    Steep(usize, f64),
    /// Nothing is left of its width a thickness further in; the least width, mm.
    Narrow(f64),
}

impl RibShell {
    fn new(legs: &BentLegs, sizes: &RibSizes, inner: bool) -> Result<RibShell, RibFault> {
        for (leg, &reach) in sizes.legs.iter().enumerate() {
            if reach < MODELLING_TOLERANCE {
                return Err(RibFault::Short(leg, -reach));
            }
        }
        let (sine, cosine) = legs.angle.sin_cos();
        let first = Point::new(-sizes.legs[0], 0.0);
        let tangent = Point::new(legs.radius * sine, legs.radius * (1.0 - cosine));
        let second = tangent + Vector::new(cosine, sine) * sizes.legs[1];
        let along = (second - first).unit();
        let down = along.right();
        let stands = along.y.atan2(along.x);
        for (leg, angle) in [stands, legs.angle - stands].into_iter().enumerate() {
            if angle > STEEPEST {
                return Err(RibFault::Steep(leg, angle));
            }
        }
        let depth = if inner { 0.0 } else { legs.thickness };
        let half = if inner {
            sizes.width / 2.0
        } else if sizes.is_round {
            sizes.width / 2.0 - depth
        } else {
            sizes.width / 2.0 - depth * ((FRAC_PI_2 - sizes.draft) / 2.0).tan()
        };
        if half < MODELLING_TOLERANCE {
            return Err(RibFault::Narrow(sizes.width - 2.0 * half));
        }
        let mut shell = RibShell {
            inner,
            legs: *legs,
            start: first + down * depth,
            along,
            down,
            half,
            is_round: sizes.is_round,
            draft: sizes.draft,
            ends: [0.0; 2],
            pieces: Vec::new(),
        };
        for leg in [0, 1] {
            // Depth under the ridge is straight along a leg: from the tangent line to where it is none.
            let part = if leg == 0 { Part::First } else { Part::Second };
            let (near, rate) = (shell.depth(part, 0.0), shell.depth(part, 1.0) - shell.depth(part, 0.0));
            let end = -near / rate;
            if near < MODELLING_TOLERANCE || end < MODELLING_TOLERANCE {
                return Err(RibFault::Short(leg, (-end).max(0.0)));
            }
            shell.ends[leg] = end;
        }
        shell.pieces = shell.cut_in_pieces();
        Ok(shell)
    }

    /// From the bend's axis to its face, mm.
    pub fn arm(&self) -> f64 {
        self.legs.radius + if self.inner { 0.0 } else { self.legs.thickness }
    }

    /// The bend's axis in the section.
    pub fn axis(&self) -> Point {
        Point::new(0.0, self.legs.radius)
    }

    /// The place of a part's face in the section.
    pub fn place(&self, part: Part, at: f64) -> Point {
        let arm = self.arm();
        match part {
            Part::First => self.axis() + Vector::new(-at, -arm),
            Part::Bend => self.axis() + Vector::new(at.sin(), -at.cos()) * arm,
            Part::Second => {
                let (sine, cosine) = self.legs.angle.sin_cos();
                self.axis() + Vector::new(sine, -cosine) * arm + Vector::new(cosine, sine) * at
            }
        }
    }

    /// How far a place of a part's face lies under the ridge, mm.
    pub fn depth(&self, part: Part, at: f64) -> f64 {
        (self.place(part, at) - self.start).dot(self.down)
    }

    /// Where a round ridge goes over into its sides, under its crest, mm; 0 of a flat one.
    fn shoulder(&self) -> f64 {
        if self.is_round { self.half * (1.0 - self.draft.sin()) } else { 0.0 }
    }

    /// Half of the rib's width so far under its ridge, mm.
    pub fn half_at(&self, depth: f64) -> f64 {
        let shoulder = self.shoulder();
        if !self.is_round || depth >= shoulder {
            let at_shoulder = if self.is_round { self.half * self.draft.cos() } else { self.half };
            at_shoulder + (depth - shoulder).max(0.0) * self.draft.tan()
        } else {
            (depth.max(0.0) * (2.0 * self.half - depth).max(0.0)).sqrt()
        }
    }

    fn cut_in_pieces(&self) -> Vec<Piece> {
        let shoulder = self.shoulder();
        let mut pieces = Vec::new();
        let turn = self.legs.angle;
        for (part, from, to) in
            [(Part::First, self.ends[0], 0.0), (Part::Bend, 0.0, turn), (Part::Second, 0.0, self.ends[1])]
        {
            let mut stops = vec![from, to];
            if self.is_round {
                stops.extend(self.at_depth(part, shoulder));
            }
            let sign = if from < to { 1.0 } else { -1.0 };
            stops.retain(|at| (at - from) * sign > -MODELLING_TOLERANCE && (to - at) * sign > -MODELLING_TOLERANCE);
            stops.sort_by(|one, two| (one * sign).total_cmp(&(two * sign)));
            stops.dedup_by(|next, known| (*next - *known).abs() < MODELLING_TOLERANCE);
            for pair in stops.windows(2) {
                let is_side = !self.is_round || self.depth(part, (pair[0] + pair[1]) / 2.0) > shoulder;
                let zone = if is_side { Zone::Side } else { Zone::Ridge };
                pieces.push(Piece { part, from: pair[0], to: pair[1], zone });
            }
        }
        pieces
    }

    /// Where a part's face lies so far under the ridge.
    fn at_depth(&self, part: Part, wanted: f64) -> Vec<f64> {
        match part {
            Part::First | Part::Second => {
                let (near, rate) = (self.depth(part, 0.0), self.depth(part, 1.0) - self.depth(part, 0.0));
                vec![(wanted - near) / rate]
            }
            Part::Bend => {
                // depth = middle + arm cos(at - deepest)
                let middle = (self.axis() - self.start).dot(self.down);
                let deepest = self.down.x.atan2(-self.down.y);
                let share = (wanted - middle) / self.arm();
                if share.abs() >= 1.0 {
                    return Vec::new();
                }
                let off = share.acos();
                vec![deepest - off, deepest + off]
            }
        }
    }

    /// What lies between the ridge's surface and the face under it: its volume, mm3, and its moments in the section, mm4. By slices square
    /// to the ridge, never by its faces.
    pub fn held(&self) -> (f64, Vector) {
        let from_start = |place: Point| (place - self.start).dot(self.along);
        let turn = self.legs.angle;
        let mut stops = [
            from_start(self.place(Part::First, self.ends[0])),
            from_start(self.place(Part::First, 0.0)),
            from_start(self.place(Part::Bend, turn)),
            from_start(self.place(Part::Second, self.ends[1])),
        ];
        // A bend whose face runs on past its own deepest turns of the ridge has its places in another order.
        stops.sort_by(f64::total_cmp);
        let (mut volume, mut first) = (0.0, Vector::new(0.0, 0.0));
        for pair in stops.windows(2) {
            let wide = pair[1] - pair[0];
            for step in 0..STEPS {
                for (share, weight) in GAUSS {
                    // Under a round crest a slice grows with the root of the cube of its depth: close to both ends places lie closer, by
                    // 3 t2 - 2 t3, over which it is smooth.
                    let t = (step as f64 + share) / STEPS as f64;
                    let s = pair[0] + wide * t * t * (3.0 - 2.0 * t);
                    let deep = self.face_under(s);
                    let (area, moment) = self.slice(deep);
                    let thin = weight * wide * 6.0 * t * (1.0 - t) / STEPS as f64;
                    volume += area * thin;
                    let place = Vector::new(self.start.x, self.start.y) + self.along * s;
                    first = first + place * (area * thin) + self.down * (moment * thin);
                }
            }
        }
        (volume, first)
    }

    /// How far the face lies under the ridge so far along it: the least of its two legs and of its bend.
    fn face_under(&self, s: f64) -> f64 {
        let on = self.start + self.along * s;
        // A leg's face: from a place on it, its normal to the inside.
        let leg = |part: Part, normal: Vector| {
            let slope = self.down.dot(normal);
            (self.place(part, 0.0) - on).dot(normal) / slope
        };
        let (sine, cosine) = self.legs.angle.sin_cos();
        let legs = leg(Part::First, Vector::new(0.0, 1.0)).min(leg(Part::Second, Vector::new(-sine, cosine)));
        // On the bend, where the place lies between the tangent lines.
        let to_axis = self.axis() - on;
        let (along, down) = (to_axis.dot(self.along), to_axis.dot(self.down));
        let under = self.arm().powi(2) - along * along;
        if under <= 0.0 {
            return legs.max(0.0);
        }
        let deep = down + under.sqrt();
        let out = on + self.down * deep - self.axis();
        let turn = out.x.atan2(-out.y);
        if (0.0..=self.legs.angle).contains(&turn) { deep } else { legs.max(0.0) }
    }

    /// A slice square to the ridge, down to a depth: its area, mm2, and its moment about the ridge, mm3.
    fn slice(&self, deep: f64) -> (f64, f64) {
        let shoulder = self.shoulder().min(deep);
        let (mut area, mut moment) = (0.0, 0.0);
        if shoulder > 0.0 {
            // A segment of a circle: area R2 (a - sin a cos a), its moment about the centre 2/3 R3 sin3 a (standard plane geometry).
            let radius = self.half;
            let half_angle = (1.0 - shoulder / radius).acos();
            let (sine, cosine) = half_angle.sin_cos();
            area = radius * radius * (half_angle - sine * cosine);
            moment = radius * area - 2.0 / 3.0 * (radius * sine).powi(3);
        }
        if deep > shoulder {
            // A trapezoid under it.
            let (high, top, bottom) = (deep - shoulder, self.half_at(self.shoulder()), self.half_at(deep));
            let own = (top + bottom) * high;
            area += own;
            moment += own * shoulder + 2.0 * high * high * (top / 2.0 + (bottom - top) / 3.0);
        }
        (area, moment)
    }
}
