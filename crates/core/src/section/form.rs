//! A section: its form by name and its outlines.

use serde::Serialize;
use utoipa::ToSchema;

use crate::plane::{Box2, Outline, Point, Region, Vector};
use crate::quantity::tolerance::{NO_TURN, SQUARE_METRES};

/// What kind of section it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Form {
    SquareHollow,
    RectangularHollow,
    RoundHollow,
    Angle,
    Channel,
    Beam,
    Flat,
    Round,
    Square,
    Timber,
    Own,
}

impl Form {
    /// The form in words.
    pub fn words(self) -> &'static str {
        match self {
            Form::SquareHollow => "square hollow",
            Form::RectangularHollow => "rectangular hollow",
            Form::RoundHollow => "round hollow",
            Form::Angle => "angle",
            Form::Channel => "channel",
            Form::Beam => "I and H",
            Form::Flat => "flat",
            Form::Round => "round bar",
            Form::Square => "square bar",
            Form::Timber => "sawn timber",
            Form::Own => "own outline",
        }
    }

    /// Whether it is a closed tube, so that water and zinc cannot leave by themselves.
    pub fn is_hollow(self) -> bool {
        matches!(self, Form::SquareHollow | Form::RectangularHollow | Form::RoundHollow)
    }
}

/// A section in numbers.
#[derive(Clone, Debug, PartialEq)]
pub struct Section {
    /// Its name as cited: `SHS 50x50x3`.
    pub name: String,
    /// Its kind.
    pub form: Form,
    /// The metal seen from its end, about the middle of its box, mm.
    pub region: Region,
    /// Wall or web thickness, mm.
    pub web: f64,
    /// Flange thickness, mm; the wall of a hollow section.
    pub flange: f64,
    /// Outer corner radius of a hollow section, root radius of a rolled one, mm.
    pub radius: f64,
    /// Where its sizes or formulas come from.
    pub source: String,
    /// Mass of a metre that is stated of it, kg/m, where that is not what its area makes.
    pub stated: Option<f64>,
    /// Its sides are told apart though its outline is alike: no turn and no mirroring brings it onto itself.
    pub one_way: bool,
}

impl Section {
    /// Net area, mm2.
    pub fn area(&self) -> f64 {
        self.region.area()
    }

    /// Mass of a metre of a material of this density in kg/m3, kg/m: as stated, else as its area makes it.
    pub fn mass_per_metre(&self, density: f64) -> f64 {
        self.stated.unwrap_or(self.area() * density * SQUARE_METRES)
    }

    /// What its metal weighs, kg/m3: the material's density, or what makes its area weigh as much as is stated.
    pub fn density(&self, material: f64) -> f64 {
        self.stated.map_or(material, |stated| stated / (self.area() * SQUARE_METRES))
    }

    /// Outside perimeter, mm: what paint covers of a closed section; of an open one its whole outline.
    pub fn paint_perimeter(&self) -> f64 {
        self.region.outer.perimeter()
    }

    /// Width and height of its box, mm.
    pub fn extents(&self) -> Box2 {
        self.region.extents()
    }

    /// Whether it is a circle outside.
    pub fn is_round(&self) -> bool {
        self.region.outer.as_circle().is_some()
    }

    /// The turns and mirrorings about its centroid, of the eight of a square, that bring it onto itself, as rows of a
    /// 2 by 2 matrix. A round section is brought onto itself by all eight and by any turn besides.
    pub fn symmetries(&self) -> Vec<[[f64; 2]; 2]> {
        if self.one_way {
            return vec![EIGHT[0]];
        }
        let centre = self.region.centroid();
        let outlines: Vec<Vec<(Point, f64)>> = self
            .region
            .outlines()
            .map(|outline| outline.segments().map(|(one, _)| (one.start, one.bulge)).collect())
            .collect();
        EIGHT
            .into_iter()
            .filter(|matrix| {
                let turned = matrix[0][0] * matrix[1][1] - matrix[0][1] * matrix[1][0];
                self.region.outlines().zip(&outlines).all(|(outline, edges)| {
                    if outline.as_circle().is_some_and(|(middle, _)| middle.distance(centre) < NEAR) {
                        return true;
                    }
                    // Every edge lands on an edge: its start on a start (or, mirrored, on an end) with the same bulge.
                    outline.segments().all(|(one, _)| {
                        let at = if turned > 0.0 { one.start } else { one.end };
                        let moved = apply(matrix, at, centre);
                        edges
                            .iter()
                            .any(|(start, bulge)| start.distance(moved) < NEAR && (bulge - one.bulge).abs() < NO_TURN)
                    })
                })
            })
            .collect()
    }
}

/// Two corners of a section nearer than this are the same corner, mm: far below any rolling tolerance.
pub(super) const NEAR: f64 = 1.0e-4;

/// The eight turns and mirrorings of a square.
pub(super) const EIGHT: [[[f64; 2]; 2]; 8] = [
    [[1.0, 0.0], [0.0, 1.0]],
    [[-1.0, 0.0], [0.0, -1.0]],
    [[0.0, -1.0], [1.0, 0.0]],
    [[0.0, 1.0], [-1.0, 0.0]],
    [[1.0, 0.0], [0.0, -1.0]],
    [[-1.0, 0.0], [0.0, 1.0]],
    [[0.0, 1.0], [1.0, 0.0]],
    [[0.0, -1.0], [-1.0, 0.0]],
];

pub(super) fn apply(matrix: &[[f64; 2]; 2], point: Point, centre: Point) -> Point {
    let arm = point - centre;
    centre + Vector::new(matrix[0][0] * arm.x + matrix[0][1] * arm.y, matrix[1][0] * arm.x + matrix[1][1] * arm.y)
}

/// A section of your own: any closed outline, brought about the middle of its box.
pub fn own_section(name: &str, outer: &Outline, holes: &[Outline]) -> Section {
    let middle = outer.extents().centre();
    let shift = Point::default() - middle;
    let move_by = |outline: &Outline| outline.moved(|point| point + shift).counter_clockwise();
    let around = outer.extents();
    let thin = around.width().min(around.height());
    Section {
        name: name.to_string(),
        form: Form::Own,
        region: Region { outer: move_by(outer), holes: holes.iter().map(move_by).collect() },
        web: thin,
        flange: thin,
        radius: 0.0,
        source: "an outline of your own".into(),
        stated: None,
        one_way: false,
    }
}
