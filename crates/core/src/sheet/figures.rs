//! The figures that are always shown: blank, cut length, mass, volume, centre of gravity.

use serde::Serialize;
use utoipa::ToSchema;

use crate::finding::Why;
use crate::plane::{MODELLING_TOLERANCE, Slit};
use crate::quantity::tolerance::CUBIC_METRES;
use crate::quantity::{Amount, LengthUnit};
use crate::space::{Point3, Vector3};
use crate::work::sheet::{Direction, Make};

use super::{NodeKind, Part, folded_extents};

/// Figures of a part, in mm, mm2, mm3 and kg.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct Figures {
    /// Blank along x, mm.
    pub blank_width: f64,
    /// Blank along y, mm.
    pub blank_height: f64,
    /// Overall folded size, mm.
    pub folded_size: Vector3,
    /// Net area of the blank, mm2.
    pub net_area: f64,
    /// Length of every cut that the cutter makes, mm.
    pub cut_length: f64,
    /// Pierces; holes that are marked or left to the drill press are none.
    pub pierces: usize,
    /// Bends.
    pub bends: usize,
    /// Holes.
    pub holes: usize,
    /// Mass, kg: blank area x thickness, less what drilling takes besides, x density.
    pub mass: f64,
    /// Volume of countersinks, counterbores and blind holes, mm3.
    pub removed: f64,
    /// What the bodies of forms hold more than the flat metal in their place, mm3: thinning is not computed, and the mass goes by the blank.
    pub formed: f64,
    /// Volume of the folded solid before its forms, mm3: a cross-check on the mass.
    pub folded_volume: f64,
    /// Mass that the folded solid's volume would have, kg.
    pub folded_mass: f64,
    /// Centre of gravity of the folded part, mm.
    pub centre_of_gravity: Point3,
}

/// All figures of a part.
pub fn figures(part: &Part) -> Figures {
    let thickness = part.flat.thickness;
    let blank = part.blank.extents();
    let net_area = part.blank.region.area();
    let mut folded_volume = 0.0;
    let mut moment = Vector3::default();
    let mut area_sum = 0.0;
    for (at, node) in part.flat.nodes.iter().enumerate() {
        let area = node.region.area();
        let place = match &node.kind {
            NodeKind::Panel => {
                folded_volume += area * thickness;
                part.folded.apply(at, node.region.centroid_at(area), thickness / 2.0)
            }
            NodeKind::Strip(strip) => {
                // Solid of revolution (Pappus): area of the section T x arc at mid-thickness.
                folded_volume += area * thickness * (strip.radius + thickness / 2.0) / (strip.width / strip.angle);
                bend_centroid(part, at, strip)
            }
        };
        moment = moment + place.from_origin() * area;
        area_sum += area;
    }
    // What countersinks, counterbores and blind holes take away, at the depth where it lies.
    let mut removed = 0.0;
    for taken in super::heads::taken(&part.flat) {
        let place = part.folded.apply(taken.panel, taken.place, taken.height);
        moment = moment - place.from_origin() * (taken.volume / thickness);
        area_sum -= taken.volume / thickness;
        removed += taken.volume;
    }
    folded_volume -= removed;
    let left: Vec<_> = part.flat.holes.iter().filter(|hole| hole.work.through && hole.work.make != Make::Cut).collect();
    // Round holes have no slits: two arcs.
    let straight = part.blank.region.outlines().filter(|outline| outline.edges.iter().any(|edge| edge.bulge == 0.0));
    let slits: Vec<Slit> = straight.flat_map(|outline| outline.without_slits(MODELLING_TOLERANCE).1).collect();
    let centre = moment * (1.0 / area_sum);
    let kilograms = |cubic_mm: f64| cubic_mm * CUBIC_METRES * part.density;
    Figures {
        blank_width: blank.width(),
        blank_height: blank.height(),
        folded_size: folded_extents(part).size(),
        net_area,
        // A tear is walked twice by the outline and cut once, with a pierce of its own.
        cut_length: part.blank.region.perimeter()
            - left.iter().map(|hole| hole.outline.perimeter()).sum::<f64>()
            - slits.iter().map(Slit::length).sum::<f64>(),
        pierces: part.blank.pierces() - left.len() + slits.iter().filter(|slit| slit.open).count(),
        bends: part.flat.bends.len(),
        holes: part.flat.holes.len(),
        mass: kilograms(net_area * thickness - removed),
        removed,
        formed: part.flat.forms.iter().map(|form| form.mass(thickness).volume).sum::<f64>()
            + part.flat.ribs.iter().map(|rib| rib.mass(&part.flat).0).sum::<f64>(),
        folded_volume,
        folded_mass: kilograms(folded_volume),
        centre_of_gravity: Point3::new(centre.x, centre.y, centre.z),
    }
}

/// Centre of the folded solid, mm: each bend by its folded volume, heads and blind holes taken off where they lie, forms as they stand. The centre of
/// gravity goes by the blank's metal instead, which a bend moves but neither makes nor takes.
pub fn folded_centre(part: &Part) -> Point3 {
    let thickness = part.flat.thickness;
    let (mut volume, mut first) = (0.0, Vector3::default());
    for (at, node) in part.flat.nodes.iter().enumerate() {
        let area = node.region.area();
        let (own, place) = match &node.kind {
            NodeKind::Panel => {
                (area * thickness, part.folded.apply(at, node.region.centroid_at(area), thickness / 2.0))
            }
            NodeKind::Strip(strip) => (
                area * thickness * (strip.radius + thickness / 2.0) / (strip.width / strip.angle),
                bend_centroid(part, at, strip),
            ),
        };
        volume += own;
        first = first + place.from_origin() * own;
    }
    for taken in super::heads::taken(&part.flat) {
        let place = part.folded.apply(taken.panel, taken.place, taken.height);
        volume -= taken.volume;
        first = first - place.from_origin() * taken.volume;
    }
    for form in part.flat.forms.iter() {
        let Some(motion) = part.folded.motion(form.panel) else { continue };
        let mass = form.mass(thickness);
        let [x, y, z] = mass.first;
        let origin = motion.apply(Point3::default()).from_origin();
        first = first + motion.direction(Vector3::new(x, y, z)) + origin * mass.volume;
        volume += mass.volume;
    }
    for rib in part.flat.ribs.iter() {
        let (Some(motion), Some(strip)) = (part.folded.strip_motion(rib.strip), part.flat.nodes[rib.strip].strip())
        else {
            continue;
        };
        let (own, [along, across, up]) = rib.mass(&part.flat);
        let place = crate::plane::Vector::new(strip.origin.x, strip.origin.y) * own
            + strip.along * along
            + strip.across * across;
        let origin = motion.apply(Point3::default()).from_origin();
        first = first + motion.direction(Vector3::new(place.x, place.y, up)) + origin * own;
        volume += own;
    }
    Point3::default() + first * (1.0 / volume)
}

/// Centroid of a bent strip of any outline. The metal of each element of its area lies at
/// (2/3)(Ro^3 - Ri^3)/(Ro^2 - Ri^2) from the axis (an annular sector's), so the rest is means over the flat region.
fn bend_centroid(part: &Part, node: usize, strip: &crate::sheet::Strip) -> Point3 {
    let thickness = part.flat.thickness;
    let (inner, outer) = (strip.radius, strip.radius + thickness);
    let arm = 2.0 / 3.0 * (outer.powi(3) - inner.powi(3)) / (outer.powi(2) - inner.powi(2));
    let (mut area, mut along, mut sine, mut cosine) = (0.0, 0.0, 0.0, 0.0);
    let region = &part.flat.nodes[node].region;
    // Green: the mean of g(v) over the region is the integral of u g(v) dv round its rim, of u that of u^2/2 dv.
    for (outline, sign) in std::iter::once((&region.outer, 1.0)).chain(region.holes.iter().map(|hole| (hole, -1.0))) {
        for (segment, _) in outline.segments() {
            let pieces = (segment.length() / (strip.radius + thickness) * 4.0).ceil().clamp(1.0, 64.0) as usize;
            let pieces = if segment.is_line() { pieces } else { pieces.max(16) };
            let handed = sign * strip.along.cross(strip.across).signum();
            for piece in 0..pieces {
                let at = |share: f64| strip.local(segment.at((piece as f64 + share) / pieces as f64));
                let (start, middle, end) = (at(0.0), at(0.5), at(1.0));
                // Gauss, three points, on the chord through the middle (a parabola).
                for (node, weight) in
                    [(-0.774_596_669_241_483_4, 5.0 / 18.0), (0.0, 8.0 / 18.0), (0.774_596_669_241_483_4, 5.0 / 18.0)]
                {
                    let t: f64 = (node + 1.0) / 2.0;
                    let blend = |a: f64, b: f64, c: f64| {
                        a * (1.0 - t) * (1.0 - 2.0 * t) + 4.0 * b * t * (1.0 - t) + c * t * (2.0 * t - 1.0)
                    };
                    let slope = start.1 * (4.0 * t - 3.0) + middle.1 * (4.0 - 8.0 * t) + end.1 * (4.0 * t - 1.0);
                    let (u, v) = (blend(start.0, middle.0, end.0), blend(start.1, middle.1, end.1));
                    let turn = v / strip.width * strip.angle;
                    let share = handed * weight * slope;
                    area += u * share;
                    along += u * u / 2.0 * share;
                    sine += u * turn.sin() * share;
                    cosine += u * turn.cos() * share;
                }
            }
        }
    }
    let up = match strip.direction {
        Direction::Up => thickness + inner - arm * cosine / area,
        Direction::Down => arm * cosine / area - inner,
    };
    part.folded.in_strip(node, along / area, arm * sine / area, up).unwrap_or_default()
}

impl Figures {
    /// The working of the mass.
    pub fn why_mass(&self, thickness: f64, density: f64, unit: LengthUnit) -> Why {
        let cubic = |value: f64| unit.says(Amount::Cubic, value, 1);
        Why {
            title: "Mass".into(),
            formula: if self.removed > 0.0 {
                "mass = (net blank area x thickness - countersinks, counterbores and blind holes) x density".into()
            } else {
                "mass = net blank area x thickness x density".into()
            },
            working: format!(
                "{}{} x {}{} x {} = {} (the folded solid's volume, {}, would weigh {}: K is not 0.5)",
                if self.removed > 0.0 { "(" } else { "" },
                unit.says(Amount::Area, self.net_area, 2),
                unit.says(Amount::Length, thickness, 3),
                if self.removed > 0.0 { format!(" - {})", cubic(self.removed)) } else { String::new() },
                unit.says(Amount::Density, density, 1),
                unit.says(Amount::Mass, self.mass, 4),
                cubic(self.folded_volume),
                unit.says(Amount::Mass, self.folded_mass, 4)
            ),
            source: "metal is neither made nor lost in a bend; density from data/materials.toml".into(),
        }
    }
}
