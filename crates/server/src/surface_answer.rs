//! Transitions as the screen lists and draws them: true sizes, angles, slopes, capacity, and their edges from above and from the side.

use std::fmt::Write as _;

use serde::Serialize;
use steelk_core::quantity::{Amount, LengthUnit, angle_text, decimal, length_text};
use steelk_core::sheet::{Sheets, SurfaceRecord};
use steelk_core::space::Point3;
use steelk_core::work::sheet::{TabHeld, TransitionJoint, TransitionSaid};
use utoipa::ToSchema;

/// A transition.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct SurfaceView {
    pub operation: String,
    /// Its surface with its unit.
    pub area: String,
    /// What it holds, with its unit; absent where a rim is not plane.
    pub capacity: Option<String>,
    pub panels: Vec<SurfacePanelView>,
    pub edges: Vec<SurfaceEdgeView>,
    pub rims: Vec<SurfaceRimView>,
    /// Holes in its joints, drilled after welding.
    pub after_welding: Vec<AfterWeldingView>,
    /// From above (from the front by elevations), then from the right.
    pub views: Vec<SurfaceDrawing>,
}

/// One of its panels.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct SurfacePanelView {
    /// As it is cited.
    pub name: String,
    pub is_left_out: bool,
    /// True area and slope against the plane of the first outline, with their units.
    pub area: String,
    pub slope: String,
    /// Of a rim flange or a tab: how far it lies from the plane that it should lie on; what holds a tab.
    pub off_plane: Option<String>,
    pub held: Option<&'static str>,
}

/// An edge between two panels.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct SurfaceEdgeView {
    /// As the operation names it: `front/right`.
    pub between: String,
    /// True length, angle between the panels on the inside, bend angle, with their units.
    pub length: String,
    pub dihedral: String,
    pub bend: String,
    pub joint: TransitionJoint,
}

/// An edge that one panel has.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct SurfaceRimView {
    pub panel: String,
    pub edge: String,
    /// How far one face stands back, and which comes up to the plane, in words.
    pub words: String,
}

/// A hole in a joint.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct AfterWeldingView {
    pub operation: String,
    pub between: String,
    /// Across, with its unit.
    pub size: String,
    /// Its centre on the surface, with its unit.
    pub place: String,
}

/// A transition's edges seen from one side, mm, y down.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct SurfaceDrawing {
    /// `from above`.
    pub seen: String,
    /// Left, top, width, height.
    pub frame: [f64; 4],
    /// Edges that one panel has, as one path.
    pub rims: String,
    /// A path for each of [`SurfaceView::edges`].
    pub edges: Vec<String>,
}

/// Every transition of a piece.
pub(crate) fn surface_views(sheets: &Sheets, show: LengthUnit) -> Vec<SurfaceView> {
    sheets.surfaces().iter().map(|surface| view(surface, show)).collect()
}

fn view(surface: &SurfaceRecord, show: LengthUnit) -> SurfaceView {
    let area = |value: f64| show.says(Amount::Area, value, 1);
    let panels = surface.panels.iter().map(|panel| SurfacePanelView {
        name: panel.name.clone(),
        is_left_out: panel.is_left_out,
        area: area(panel.area),
        slope: angle_text(panel.slope),
        off_plane: panel.off_plane.map(|off| length_text(off, show)),
        held: panel.held.map(TabHeld::word),
    });
    let edges = surface.edges.iter().map(|edge| SurfaceEdgeView {
        between: edge.between.join("/"),
        length: length_text(edge.length, show),
        dihedral: angle_text(edge.dihedral),
        bend: angle_text(edge.bend_angle()),
        joint: edge.joint,
    });
    let rims = surface.rims.iter().map(|rim| SurfaceRimView {
        panel: format!("{}.{}", surface.operation, rim.panel),
        edge: rim.edge.clone(),
        words: match (rim.back < LEVEL, rim.inner_touches) {
            (true, _) => "both faces come up to it".to_string(),
            (false, true) => {
                format!("the inner face comes up to it, the outer one stands back {}", length_text(rim.back, show))
            }
            (false, false) => {
                format!("the outer face comes up to it, the inner one stands back {}", length_text(rim.back, show))
            }
        },
    });
    let after = surface.after_welding.iter().map(|hole| AfterWeldingView {
        operation: hole.operation.clone(),
        between: hole.between.join(" and "),
        size: length_text(hole.diameter, show),
        place: [("x", hole.at.x), ("y", hole.at.y), ("z", hole.at.z)]
            .map(|(axis, value)| format!("{axis} {}", length_text(value, show)))
            .join(", "),
    });
    let first = if surface.said == TransitionSaid::Plan { "from above" } else { "from the front" };
    let plan = surface.said == TransitionSaid::Plan;
    let views = vec![
        drawing(surface, first, |place| if plan { (place.x, -place.y) } else { (place.x, -place.z) }),
        drawing(surface, "from the right", |place| (place.y, -place.z)),
    ];
    SurfaceView {
        operation: surface.operation.clone(),
        area: area(surface.area),
        capacity: surface.capacity.map(|volume| show.says(Amount::Volume, volume, 1)),
        panels: panels.collect(),
        edges: edges.collect(),
        rims: rims.collect(),
        after_welding: after.collect(),
        views,
    }
}

/// Less than this a face stands level with the other one, mm.
const LEVEL: f64 = 5e-4;

fn drawing(surface: &SurfaceRecord, seen: &str, flat: impl Fn(Point3) -> (f64, f64)) -> SurfaceDrawing {
    let used = surface.panels.iter().flat_map(|panel| &panel.corners);
    let (mut low, mut high) = ((f64::INFINITY, f64::INFINITY), (f64::NEG_INFINITY, f64::NEG_INFINITY));
    for &corner in used {
        let (x, y) = flat(surface.points[corner]);
        low = (low.0.min(x), low.1.min(y));
        high = (high.0.max(x), high.1.max(y));
    }
    let path = |ends: [usize; 2]| {
        let [(ax, ay), (bx, by)] = ends.map(|at| flat(surface.points[at]));
        let n = |value: f64| decimal(value, 3);
        format!("M{} {}L{} {}", n(ax), n(ay), n(bx), n(by))
    };
    let mut rims = String::new();
    for rim in &surface.rims {
        let _ = write!(rims, "{}", path(rim.ends));
    }
    SurfaceDrawing {
        seen: seen.to_string(),
        frame: [low.0, low.1, high.0 - low.0, high.1 - low.1],
        rims,
        edges: surface.edges.iter().map(|edge| path(edge.ends)).collect(),
    }
}
