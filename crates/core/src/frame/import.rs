//! Centre lines as text: places parted by commas, coordinates by spaces.

use crate::finding::Finding;
use crate::space::Point3;

/// Places of a text such as `0 0 0, 1000 0 0`, brought to mm.
///
/// # Errors
/// A coordinate that is no finite number below 1 km, or a place with other than three.
pub fn places(text: &str, scale: f64) -> Result<Vec<Point3>, Finding> {
    text.split(',')
        .map(|place| {
            let numbers: Vec<f64> = place
                .split_whitespace()
                .filter_map(|part| part.parse::<f64>().ok())
                .map(|value| value * scale)
                .filter(|value| value.is_finite() && value.abs() < 1e6)
                .collect();
            match (numbers.as_slice(), place.split_whitespace().count()) {
                ([x, y, z], 3) => Ok(Point3::new(*x, *y, *z)),
                _ => Err(Finding::error(
                    format!("\"{}\" is no place", place.trim()),
                    "A place is three numbers, x y z, each within a kilometre.",
                )),
            }
        })
        .collect()
}
