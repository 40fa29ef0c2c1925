//! Review figures of a lifting lug with a pin: ASME BTH-1, 3-3.3 (from memory). An aid for review, never a certificate.

use crate::finding::{Finding, Why};
use crate::quantity::decimal;
use crate::sheet::Part;

/// What a lug is reviewed with.
#[derive(Clone, Debug, PartialEq)]
pub struct LugNumbers {
    /// Pin diameter, mm.
    pub pin: f64,
    /// Load, kg.
    pub load: f64,
    /// Yield strength, MPa.
    pub yield_strength: f64,
    /// Tensile strength, MPa.
    pub tensile_strength: f64,
    /// Design factor Nd.
    pub design_factor: f64,
}

/// Its figures.
#[derive(Clone, Debug, PartialEq)]
pub struct LugFigures {
    /// Load, kN.
    pub load: f64,
    /// Allowable tension through the hole, kN.
    pub tension: f64,
    /// Allowable for one plane of fracture, kN.
    pub fracture: f64,
    /// Allowable double shear beyond the pin, kN.
    pub shear: f64,
    /// Allowable bearing of the pin, kN.
    pub bearing: f64,
    /// The workings.
    pub whys: Vec<Why>,
}

/// The words that go with every figure of a lug.
pub const REVIEW: &str = "for review by a licensed engineer under the local code";

const SOURCE: &str = "ASME BTH-1, 3-3.3 (from memory); for review by a licensed engineer under the local code";

/// The figures of a plate with one round hole.
///
/// # Errors
/// A plate with no round hole, or one that the pin does not enter.
pub fn review(part: &Part, numbers: &LugNumbers) -> Result<LugFigures, Finding> {
    let outline = &part.blank.region.outer;
    let hole = part
        .blank
        .region
        .holes
        .iter()
        .filter_map(crate::plane::Outline::as_circle)
        .max_by(|one, two| one.1.total_cmp(&two.1))
        .ok_or_else(|| {
            Finding::error("a lug that lifts needs a round hole", "Give its shape a hole.").at_field("kind.face.shape")
        })?;
    let (centre, radius) = hole;
    let (dh, dp, t) = (2.0 * radius, numbers.pin, part.flat.thickness);
    if dp >= dh {
        return Err(Finding::error(
            format!("a pin of {dp:.1} mm does not enter a hole of {dh:.1} mm"),
            "Take a thinner pin or a larger hole.",
        )
        .at_field("kind.face.lifts.pin"));
    }
    let least = |sideways: bool| {
        outline
            .segments()
            .flat_map(|(one, _)| (0..=64).map(move |at| one.at(f64::from(at) / 64.0)))
            .filter(|at| {
                let arm = *at - centre;
                // Beside the hole: within 30 deg of across; beyond it: within 30 deg of up.
                if sideways { arm.y.abs() < arm.x.abs() * 0.577 } else { arm.y > arm.x.abs() * 1.732 }
            })
            .map(|at| at.distance(centre))
            .fold(f64::INFINITY, f64::min)
    };
    let (side, beyond) = (least(true), least(false));
    let (be, ro, a) = (side - radius, beyond, beyond - radius);
    let (fu, fy, nd) = (numbers.tensile_strength, numbers.yield_strength, numbers.design_factor);
    let effective = (4.0 * t).min(be).min(0.6 * be * (fu / fy) * (dh / be).sqrt());
    let cr = 1.0 - 0.275 * (1.0 - (dp / dh).powi(2)).max(0.0).sqrt();
    let base = fu / (1.2 * nd);
    let tension = cr * base * 2.0 * t * effective / 1000.0;
    let fracture = cr * base * (1.13 * (ro - radius) + 0.92 * be / (1.0 + be / dh)) * t / 1000.0;
    let phi = (55.0 * dp / dh).to_radians();
    let area = 2.0 * (a + dp / 2.0 * (1.0 - phi.cos())) * t;
    let shear = 0.70 * base * area / 1000.0;
    let bearing = 1.25 * fy * dp * t / nd / 1000.0;
    let load = numbers.load * 9.806_65 / 1000.0;
    let two = |value: f64| decimal(value, 2);
    let why = |title: &str, formula: &str, working: String| Why {
        title: title.into(),
        formula: formula.into(),
        working,
        source: SOURCE.into(),
    };
    let whys = vec![
        why(
            "Lug, tension through the hole",
            "Pt = Cr Fu / (1.2 Nd) 2 t beff, beff = min(4 t, be, 0.6 be (Fu / Fy) sqrt(Dh / be))",
            format!(
                "beff {} mm, Cr {}: {} x {} / (1.2 x {}) x 2 x {} x {} = {} kN; load {} kN",
                two(effective),
                decimal(cr, 3),
                decimal(cr, 3),
                two(fu),
                two(nd),
                two(t),
                two(effective),
                two(tension),
                two(load)
            ),
        ),
        why(
            "Lug, one plane of fracture beyond the pin",
            "Pb = Cr Fu / (1.2 Nd) (1.13 (Ro - Dh / 2) + 0.92 be / (1 + be / Dh)) t",
            format!(
                "Ro {} mm, be {} mm, Dh {} mm: {} kN; load {} kN",
                two(ro),
                two(be),
                two(dh),
                two(fracture),
                two(load)
            ),
        ),
        why(
            "Lug, double shear beyond the pin",
            "Pv = 0.70 Fu / (1.2 Nd) Av, Av = 2 (a + Dp / 2 (1 - cos phi)) t, phi = 55 deg x Dp / Dh",
            format!("Av {} mm2: {} kN; load {} kN", two(area), two(shear), two(load)),
        ),
        why(
            "Lug, bearing of the pin",
            "Fp = 1.25 Fy Dp t / Nd",
            format!(
                "1.25 x {} x {} x {} / {} = {} kN; load {} kN",
                two(fy),
                two(dp),
                two(t),
                two(nd),
                two(bearing),
                two(load)
            ),
        ),
    ];
    Ok(LugFigures { load, tension, fracture, shear, bearing, whys })
}
