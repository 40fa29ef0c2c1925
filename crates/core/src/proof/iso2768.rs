//! General tolerances of ISO 2768-1:1989, classes f, m and c.

use super::ToleranceClass;

/// Table 1, linear sizes: upper bound of each range in mm, then deviations (f, m, c) in mm; `None` where the standard
/// gives none.
const LINEAR: [(f64, [Option<f64>; 3]); 8] = [
    (3.0, [Some(0.05), Some(0.1), Some(0.2)]),
    (6.0, [Some(0.05), Some(0.1), Some(0.3)]),
    (30.0, [Some(0.1), Some(0.2), Some(0.5)]),
    (120.0, [Some(0.15), Some(0.3), Some(0.8)]),
    (400.0, [Some(0.2), Some(0.5), Some(1.2)]),
    (1000.0, [Some(0.3), Some(0.8), Some(2.0)]),
    (2000.0, [Some(0.5), Some(1.2), Some(3.0)]),
    (4000.0, [None, Some(2.0), Some(4.0)]),
];

/// Table 3, angles by the shorter leg: upper bound in mm, then deviations (f and m, c) in minutes of arc.
const ANGULAR: [(f64, [f64; 2]); 5] = [
    (10.0, [60.0, 90.0]),
    (50.0, [30.0, 60.0]),
    (120.0, [20.0, 30.0]),
    (400.0, [10.0, 15.0]),
    (f64::INFINITY, [5.0, 10.0]),
];

/// Permissible deviation of a linear size, mm; `None` below 0.5 mm, above 4 m, or where the class has none.
pub fn linear(class: ToleranceClass, size: f64) -> Option<f64> {
    // The standard's ranges start at 0.5 mm and run "over a up to b".
    if size < 0.5 {
        return None;
    }
    let (_, row) = LINEAR.iter().find(|(up_to, _)| size <= *up_to)?;
    match class {
        ToleranceClass::F => row[0],
        ToleranceClass::M => row[1],
        ToleranceClass::C => row[2],
    }
}

/// Permissible deviation of an angle, radians, by the length of its shorter leg in mm.
pub fn angular(class: ToleranceClass, shorter_leg: f64) -> Option<f64> {
    let (_, row) = ANGULAR.iter().find(|(up_to, _)| shorter_leg <= *up_to)?;
    let minutes = if class == ToleranceClass::C { row[1] } else { row[0] };
    Some((minutes / 60.0).to_radians())
}
