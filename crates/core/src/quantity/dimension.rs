//! What kind of thing a number is: powers of length, angle and mass.

use std::fmt;

/// Powers of length, angle and mass. A plain number has all three at zero.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub struct Dimension {
    /// Power of length (1 a length, 2 an area, 3 a volume).
    pub length: i8,
    /// Power of angle.
    pub angle: i8,
    /// Power of mass.
    pub mass: i8,
}

impl Dimension {
    /// A plain number or a count.
    pub const NUMBER: Dimension = Dimension { length: 0, angle: 0, mass: 0 };
    /// A length, millimetres inside.
    pub const LENGTH: Dimension = Dimension { length: 1, angle: 0, mass: 0 };
    /// An area, square millimetres inside.
    pub const AREA: Dimension = Dimension { length: 2, angle: 0, mass: 0 };
    /// A volume, cubic millimetres inside.
    pub const VOLUME: Dimension = Dimension { length: 3, angle: 0, mass: 0 };
    /// An angle, radians inside.
    pub const ANGLE: Dimension = Dimension { length: 0, angle: 1, mass: 0 };
    /// A mass, kilograms inside.
    pub const MASS: Dimension = Dimension { length: 0, angle: 0, mass: 1 };

    /// The powers of a product; `None` where a power leaves the range of an `i8`.
    pub fn times(self, other: Dimension) -> Option<Dimension> {
        Some(Dimension {
            length: self.length.checked_add(other.length)?,
            angle: self.angle.checked_add(other.angle)?,
            mass: self.mass.checked_add(other.mass)?,
        })
    }

    /// The powers of a quotient; `None` where a power leaves the range of an `i8`.
    pub fn over(self, other: Dimension) -> Option<Dimension> {
        Some(Dimension {
            length: self.length.checked_sub(other.length)?,
            angle: self.angle.checked_sub(other.angle)?,
            mass: self.mass.checked_sub(other.mass)?,
        })
    }

    /// The powers of a square root; `None` when one is odd.
    pub fn square_root(self) -> Option<Dimension> {
        let half = |power: i8| (power % 2 == 0).then_some(power / 2);
        Some(Dimension { length: half(self.length)?, angle: half(self.angle)?, mass: half(self.mass)? })
    }
}

impl fmt::Display for Dimension {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        match (self.length, self.angle, self.mass) {
            (0, 0, 0) => out.write_str("a plain number"),
            (1, 0, 0) => out.write_str("a length"),
            (2, 0, 0) => out.write_str("an area"),
            (3, 0, 0) => out.write_str("a volume"),
            (0, 1, 0) => out.write_str("an angle"),
            (0, 0, 1) => out.write_str("a mass"),
            (length, angle, mass) => {
                let parts: Vec<String> = [("length", length), ("angle", angle), ("mass", mass)]
                    .iter()
                    .filter(|(_, power)| *power != 0)
                    .map(|(name, power)| if *power == 1 { (*name).to_string() } else { format!("{name}^{power}") })
                    .collect();
                write!(out, "a {}", parts.join(" x "))
            }
        }
    }
}

/// A unit as typed after a number.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Unit {
    /// Millimetre.
    Millimetre,
    /// Centimetre.
    Centimetre,
    /// Metre.
    Metre,
    /// International inch, 25.4 mm.
    Inch,
    /// International foot, 304.8 mm.
    Foot,
    /// Degree of angle.
    Degree,
    /// Radian.
    Radian,
    /// Kilogram.
    Kilogram,
    /// Gram.
    Gram,
    /// Avoirdupois pound, 0.45359237 kg exactly (international yard and pound agreement, 1959).
    Pound,
    /// A length's unit squared.
    Square(Side),
    /// A length's unit cubed.
    Cubic(Side),
}

/// The side of a square or a cube that areas and volumes are told in.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[allow(missing_docs)]
pub enum Side {
    Millimetre,
    Centimetre,
    Metre,
    Inch,
    Foot,
}

impl Side {
    fn size(self) -> f64 {
        match self {
            Side::Millimetre => Unit::Millimetre.size(),
            Side::Centimetre => Unit::Centimetre.size(),
            Side::Metre => Unit::Metre.size(),
            Side::Inch => Unit::Inch.size(),
            Side::Foot => Unit::Foot.size(),
        }
    }
}

impl Unit {
    /// Every unit with the names it is typed by; the first is the one printed.
    pub const ALL: [(Unit, &'static [&'static str]); 20] = [
        (Unit::Millimetre, &["mm"]),
        (Unit::Centimetre, &["cm"]),
        (Unit::Metre, &["m"]),
        (Unit::Inch, &["in", "inch", "inches"]),
        (Unit::Foot, &["ft", "foot", "feet"]),
        (Unit::Degree, &["deg", "degree", "degrees"]),
        (Unit::Radian, &["rad"]),
        (Unit::Kilogram, &["kg"]),
        (Unit::Gram, &["g"]),
        (Unit::Pound, &["lb", "lbs"]),
        (Unit::Square(Side::Millimetre), &["mm2", "mm\u{b2}"]),
        (Unit::Square(Side::Centimetre), &["cm2", "cm\u{b2}"]),
        (Unit::Square(Side::Metre), &["m2", "m\u{b2}"]),
        (Unit::Square(Side::Inch), &["in2", "in\u{b2}"]),
        (Unit::Square(Side::Foot), &["ft2", "ft\u{b2}"]),
        (Unit::Cubic(Side::Millimetre), &["mm3", "mm\u{b3}"]),
        (Unit::Cubic(Side::Centimetre), &["cm3", "cm\u{b3}"]),
        (Unit::Cubic(Side::Metre), &["m3", "m\u{b3}"]),
        (Unit::Cubic(Side::Inch), &["in3", "in\u{b3}"]),
        (Unit::Cubic(Side::Foot), &["ft3", "ft\u{b3}"]),
    ];

    /// The unit of this name, if there is one.
    pub fn named(name: &str) -> Option<Unit> {
        Unit::ALL.iter().find(|(_, names)| names.contains(&name)).map(|(unit, _)| *unit)
    }

    /// The name it is printed by.
    pub fn name(self) -> &'static str {
        Unit::ALL.iter().find(|(unit, _)| *unit == self).map_or("", |(_, names)| names[0])
    }

    /// The size of one in Steelk's inner units (millimetre, radian, kilogram).
    pub fn size(self) -> f64 {
        match self {
            Unit::Millimetre => 1.0,
            Unit::Centimetre => 10.0,
            Unit::Metre => 1000.0,
            Unit::Inch => 25.4,
            Unit::Foot => 304.8,
            Unit::Degree => std::f64::consts::PI / 180.0,
            Unit::Radian => 1.0,
            Unit::Kilogram => 1.0,
            Unit::Gram => 0.001,
            Unit::Pound => 0.453_592_37,
            Unit::Square(side) => side.size().powi(2),
            Unit::Cubic(side) => side.size().powi(3),
        }
    }

    /// What it measures.
    pub fn dimension(self) -> Dimension {
        match self {
            Unit::Millimetre | Unit::Centimetre | Unit::Metre | Unit::Inch | Unit::Foot => Dimension::LENGTH,
            Unit::Degree | Unit::Radian => Dimension::ANGLE,
            Unit::Kilogram | Unit::Gram | Unit::Pound => Dimension::MASS,
            Unit::Square(_) => Dimension::AREA,
            Unit::Cubic(_) => Dimension::VOLUME,
        }
    }

    /// Whether it is an area's or a volume's: those stand only after a number, so that names like `m2` stay free.
    pub fn is_power(self) -> bool {
        matches!(self, Unit::Square(_) | Unit::Cubic(_))
    }
}
