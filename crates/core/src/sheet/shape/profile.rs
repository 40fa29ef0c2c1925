//! Outlines as text: `M x y` begins, `L x y` goes straight, `A bulge x y` goes round, `Z` closes.

use crate::plane::{Edge, Outline, Point};

/// Why a path cannot be read: which word, and what was expected there.
#[derive(Clone, Debug, PartialEq)]
pub struct PathFault {
    /// The word's place, counted from one.
    pub word: usize,
    /// What is wrong with it.
    pub message: String,
}

/// Reads one closed path; numbers are multiplied by `scale` to come out in mm.
///
/// # Errors
/// [`PathFault`] names the first word that does not fit.
pub fn read_path(text: &str, scale: f64) -> Result<Outline, PathFault> {
    let mut words = text.split_ascii_whitespace().enumerate();
    let fault = |word: usize, message: String| Err(PathFault { word: word + 1, message });
    let mut points: Vec<(Point, f64)> = Vec::new();
    let mut closed = false;
    let mut last = 0;
    while let Some((at, word)) = words.next() {
        last = at;
        if closed {
            return fault(at, format!("{word} follows the closing Z"));
        }
        let mut number = || match words.next() {
            Some((_, text)) => text.parse::<f64>().ok().filter(|value| value.is_finite() && value.abs() < 1e9),
            None => None,
        };
        let (bulge, begins) = match word {
            "M" => (0.0, true),
            "L" => (0.0, false),
            "A" => match number() {
                Some(bulge) => (bulge, false),
                None => return fault(at + 1, "a bulge is needed after A".into()),
            },
            "Z" => {
                closed = true;
                continue;
            }
            other => return fault(at, format!("{other} is none of M, L, A and Z")),
        };
        if begins != points.is_empty() {
            return fault(at, "a path begins with one M".into());
        }
        let (Some(x), Some(y)) = (number(), number()) else {
            return fault(at + 1, format!("two numbers are needed after {word}"));
        };
        if let Some(before) = points.last_mut() {
            before.1 = bulge;
        }
        points.push((Point::new(x * scale, y * scale), 0.0));
    }
    if !closed {
        return fault(last, "the path does not close: Z is missing".into());
    }
    // The last point may repeat the first.
    if points.len() > 2 && points[0].0.distance(points[points.len() - 1].0) <= crate::plane::MODELLING_TOLERANCE {
        points.pop();
    }
    if points.len() < 2 {
        return fault(last, "a path needs two points at least".into());
    }
    let edges = points.iter().map(|&(start, bulge)| Edge { start, bulge, tag: 0 }).collect();
    Ok(Outline { edges }.counter_clockwise())
}

/// Writes an outline as a path, in mm; [`read_path`] gives it back digit for digit.
pub fn write_path(outline: &Outline) -> String {
    let mut text = String::new();
    for (at, (segment, _)) in outline.segments().enumerate() {
        if at == 0 {
            text.push_str(&format!("M {} {}", segment.start.x, segment.start.y));
        }
        if segment.is_line() {
            text.push_str(&format!(" L {} {}", segment.end.x, segment.end.y));
        } else {
            text.push_str(&format!(" A {} {} {}", segment.bulge, segment.end.x, segment.end.y));
        }
    }
    text.push_str(" Z");
    text
}
