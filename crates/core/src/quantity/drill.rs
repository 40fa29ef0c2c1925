//! Drills that are called by a number or a letter: `#7`, `letter F`.

use std::sync::LazyLock;

/// Names with diameters in inches, in the order of the table: `#7`, `F`.
static DRILLS: LazyLock<Vec<(&'static str, f64)>> = LazyLock::new(|| {
    let lines = include_str!("../../../../data/drills.csv").lines();
    // A number's name begins as a remark does: the table's own remark has words.
    let rows = lines.filter_map(|line| line.split_once(',')).filter(|(name, _)| !name.contains(' '));
    rows.filter_map(|(name, inches)| Some((name, inches.parse().ok()?))).collect()
});

/// The diameter of a drill in inches by its name: `#7`, `F`.
pub fn drill_inches(name: &str) -> Option<f64> {
    DRILLS.iter().find(|(own, _)| *own == name).map(|(_, inches)| *inches)
}

/// How near a diameter must come to a drill's to be called by it, in: half the last digit of the table.
const CALLED: f64 = 0.000_05;

/// What a drill of this diameter is called, where it has a number or a letter: `#7 drill`, `letter F drill`.
pub fn drill_called(millimetres: f64) -> Option<String> {
    let inches = millimetres / 25.4;
    let (name, _) = DRILLS.iter().find(|(_, own)| (own - inches).abs() <= CALLED)?;
    Some(if name.starts_with('#') { format!("{name} drill") } else { format!("letter {name} drill") })
}
