//! General tolerances of welded sizes: ISO 13920:1996, table 1, linear dimensions (from memory; class B as in the handbook).

use crate::work::frame::WeldedClass;

/// Upper bound of each range in mm, then the deviations of classes A, B, C and D in mm.
const LINEAR: [(f64, [f64; 4]); 11] = [
    (30.0, [1.0, 1.0, 1.0, 1.0]),
    (120.0, [1.0, 2.0, 3.0, 4.0]),
    (400.0, [1.0, 2.0, 4.0, 7.0]),
    (1000.0, [2.0, 3.0, 6.0, 9.0]),
    (2000.0, [3.0, 4.0, 8.0, 12.0]),
    (4000.0, [4.0, 6.0, 11.0, 16.0]),
    (8000.0, [5.0, 8.0, 14.0, 21.0]),
    (12000.0, [6.0, 10.0, 18.0, 27.0]),
    (16000.0, [7.0, 12.0, 21.0, 32.0]),
    (20000.0, [8.0, 14.0, 24.0, 36.0]),
    (f64::INFINITY, [9.0, 16.0, 27.0, 40.0]),
];

/// Permissible deviation of a linear welded size, mm; `None` below 2 mm.
pub fn welded_linear(class: WeldedClass, size: f64) -> Option<f64> {
    if size < 2.0 {
        return None;
    }
    let (_, row) = LINEAR.iter().find(|(up_to, _)| size <= *up_to)?;
    Some(row[class as usize])
}
