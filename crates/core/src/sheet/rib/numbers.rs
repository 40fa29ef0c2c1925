//! Ribs in numbers.

/// The most ribs of one operation.
pub(super) const MOST_RIBS: usize = 500;

/// The numbers of one operation's ribs, mm and radians.
#[derive(Clone, Debug, PartialEq)]
pub struct RibNumbers {
    /// The bend, by its flange.
    pub bend: String,
    /// Where the ridge meets the legs.
    pub legs: RibLegsNumbers,
    /// Of a flat ridge; the diameter of a round one.
    pub width: f64,
    /// Whether the ridge is a cylinder.
    pub is_round: bool,
    /// How far its sides lean from square to the ridge.
    pub draft: f64,
    /// Of its edges, on paper.
    pub radius: Option<f64>,
    /// Where they stand along the bend.
    pub row: RibRow,
    /// Places left out, by number.
    pub skip: Vec<usize>,
}

/// Where a rib's ridge meets the legs, from the outside mould lines.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum RibLegsNumbers {
    /// On the panel and on the flange.
    Both(f64, f64),
    /// On the panel, and the ridge's angle to it.
    Angle(f64, f64),
}

/// Where ribs stand along a bend.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct RibRow {
    /// The end that places count from; the bend's own start where `None`.
    pub from: Option<String>,
    /// From that end to the first.
    pub at: Option<f64>,
    /// From the other end to the last.
    pub last: Option<f64>,
    /// Whether end distances go to a rib's edge and not to its middle.
    pub to_edge: bool,
    /// How many.
    pub count: Option<usize>,
    /// From middle to middle.
    pub pitch: Option<f64>,
}

impl RibRow {
    /// Middles of the ribs along a bend of this length, from the end that they count from.
    ///
    /// # Errors
    /// Numbers that say too much or too little, in words: what, and the way out.
    pub fn places(&self, length: f64, width: f64) -> Result<Vec<f64>, (String, &'static str)> {
        let edge = if self.to_edge { width / 2.0 } else { 0.0 };
        let first = self.at.map(|at| at + edge);
        let last = self.last.map(|last| length - last - edge);
        let row = |first: f64, step: f64, count: usize| (0..count).map(|at| first + step * at as f64).collect();
        match (self.count, self.pitch) {
            (None | Some(1), None) => match (first, last) {
                (Some(_), Some(_)) => {
                    Err(("one rib has two end distances".into(), "Leave one of them out, or say how many there are."))
                }
                (Some(at), None) | (None, Some(at)) => Ok(vec![at]),
                (None, None) => Ok(vec![length / 2.0]),
            },
            (Some(count), Some(pitch)) => {
                let long = pitch * (count - 1) as f64;
                match (first, last) {
                    (Some(_), Some(_)) => Err((
                        "a count, a pitch and both end distances say more than a row has".into(),
                        "Leave one of them out.",
                    )),
                    (Some(at), None) => Ok(row(at, pitch, count)),
                    (None, Some(at)) => Ok(row(at - long, pitch, count)),
                    (None, None) => Ok(row((length - long) / 2.0, pitch, count)),
                }
            }
            (Some(count), None) => {
                let (first, last) = match (first, last) {
                    (None, None) => {
                        let step = length / count as f64;
                        (step / 2.0, length - step / 2.0)
                    }
                    // What is said of one end holds at the other.
                    (first, last) => {
                        let own = |other: Option<f64>| length - other.unwrap_or_default();
                        (first.unwrap_or_else(|| own(last)), last.unwrap_or_else(|| own(first)))
                    }
                };
                Ok(row(first, (last - first) / (count - 1) as f64, count))
            }
            (None, Some(pitch)) => {
                let (Some(first), last) = (first.or_else(|| last.map(|last| length - last)), last) else {
                    return Err((
                        "a pitch alone does not say where the ribs begin".into(),
                        "Give how far the first stands from the bend's end, or how many there are.",
                    ));
                };
                let last = last.unwrap_or(length - first);
                let spaces = ((last - first) / pitch - crate::quantity::tolerance::WHOLE).ceil().max(0.0);
                if spaces > MOST_RIBS as f64 {
                    return Err((format!("{spaces} spaces are too many ribs"), "Make the pitch larger."));
                }
                let count = spaces as usize + 1;
                let step = if spaces > 0.0 { (last - first) / spaces } else { 0.0 };
                Ok(row(first, step, count))
            }
        }
    }
}
