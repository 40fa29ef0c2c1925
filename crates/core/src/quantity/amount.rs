//! What the figures of lists and papers are of, and how they are told in the document's unit: millimetres and kilograms, or inches
//! and pounds.

use super::{LengthUnit, Unit, decimal};

/// What a figure is of, and the metric unit that it is handed over in.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Amount {
    /// mm; in.
    Length,
    /// Lengths of bars and welds in all, mm; told in m or ft.
    Run,
    /// mm2; in2.
    Area,
    /// mm3; in3.
    Cubic,
    /// mm3; told in cm3 or in3.
    Volume,
    /// Painted surface, m2; ft2.
    Paint,
    /// kg; lb.
    Mass,
    /// kg/m; lb/ft.
    MassPerRun,
    /// kg/m3; lb/in3.
    Density,
    /// mm/min; in/min.
    Speed,
}

impl LengthUnit {
    /// The sign that stands after figures of it.
    pub fn word(self, of: Amount) -> &'static str {
        let (metric, inch) = match of {
            Amount::Length => ("mm", "in"),
            Amount::Run => ("m", "ft"),
            Amount::Area => ("mm2", "in2"),
            Amount::Cubic => ("mm3", "in3"),
            Amount::Volume => ("cm3", "in3"),
            Amount::Paint => ("m2", "ft2"),
            Amount::Mass => ("kg", "lb"),
            Amount::MassPerRun => ("kg/m", "lb/ft"),
            Amount::Density => ("kg/m3", "lb/in3"),
            Amount::Speed => ("mm/min", "in/min"),
        };
        if self == LengthUnit::Mm { metric } else { inch }
    }

    /// A figure in the unit that [`word`](Self::word) says, from the metric one of [`Amount`].
    pub fn figure(self, of: Amount, metric: f64) -> f64 {
        let [inch, foot, pound] = [Unit::Inch, Unit::Foot, Unit::Pound].map(Unit::size);
        let (told, own) = match of {
            Amount::Length | Amount::Speed => (1.0, inch),
            Amount::Run => (1000.0, foot),
            Amount::Area => (1.0, inch * inch),
            Amount::Cubic => (1.0, inch * inch * inch),
            Amount::Volume => (1000.0, inch * inch * inch),
            Amount::Paint => (1.0, foot * foot / 1e6),
            Amount::Mass => (1.0, pound),
            Amount::Density => (1.0, pound / (inch * inch * inch) * 1e9),
            Amount::MassPerRun => (1.0, pound / foot * 1000.0),
        };
        metric / if self == LengthUnit::Mm { told } else { own }
    }

    /// Decimals that tell as much as so many of the metric figure do.
    pub fn places(self, of: Amount, metric: usize) -> usize {
        match (self, of) {
            (LengthUnit::Mm, _) => metric,
            (LengthUnit::In, Amount::Length | Amount::Area) => (metric + 2).min(metric.max(4)),
            (LengthUnit::In, Amount::Volume | Amount::Speed) => metric + 1,
            (LengthUnit::In, Amount::Cubic) => metric + 3,
            (LengthUnit::In, Amount::Density) => metric + 4,
            (LengthUnit::In, _) => metric,
        }
    }

    /// The figure with its unit, with as many decimals as `places` of the metric one: `3.25 in`.
    pub fn says(self, of: Amount, metric: f64, places: usize) -> String {
        format!("{} {}", self.bare(of, metric, places), self.word(of))
    }

    /// Words of a check that speaks of millimetres, told in this unit: each `12.5 mm` outside of quotes becomes inches. What stands in
    /// quotes is what somebody typed.
    pub fn retold(self, words: &str) -> String {
        if self == LengthUnit::Mm {
            return words.to_string();
        }
        let retold = |part: &str| {
            let mut pieces = part.split(" mm");
            let mut text = pieces.next().unwrap_or_default().to_string();
            for rest in pieces {
                let ends = rest.starts_with(|next: char| next.is_alphanumeric());
                let digits =
                    text.len() - text.trim_end_matches(|sign: char| sign.is_ascii_digit() || sign == '.').len();
                match text[text.len() - digits..].parse::<f64>() {
                    Ok(metric) if !ends => {
                        text.truncate(text.len() - digits);
                        text.push_str(&self.says(Amount::Length, metric, 2));
                    }
                    _ => text.push_str(" mm"),
                }
                text.push_str(rest);
            }
            text
        };
        let parts = words.split('"').enumerate();
        let told = parts.map(|(at, part)| if at % 2 == 0 { retold(part) } else { part.to_string() });
        told.collect::<Vec<_>>().join("\"")
    }

    /// The figure without its unit, where that is said beside it.
    pub fn bare(self, of: Amount, metric: f64, places: usize) -> String {
        decimal(self.figure(of, metric), self.places(of, places))
    }
}
