//! Screws that a shop keeps of its own, beside those of the standards: checked, read from CSV and written as CSV.

use super::screw::{COLUMNS, Head, Screw, screw_of};
use super::{TableFault, stock};

/// The most screws that a shop keeps of its own.
const MOST_SCREWS: usize = 500;

/// Checks screws that a shop keeps of its own.
///
/// # Errors
/// [`TableFault`] with the path of the first bad field: no name, a size that cannot be, a flat head without its angle, a socket
/// head without its counterbore, one that is told twice or that the standards' table has already.
pub fn check_screws(screws: &[Screw]) -> Result<(), TableFault> {
    if screws.len() > MOST_SCREWS {
        let message = format!("{} screws; {MOST_SCREWS} is the most", screws.len());
        return Err(TableFault { path: "screws".into(), message });
    }
    for (at, one) in screws.iter().enumerate() {
        let fault = |field: &str, message: String| Err(TableFault { path: format!("screws[{at}].{field}"), message });
        for (field, text, most) in [("size", &one.size, 30), ("source", &one.source, 120)] {
            let none = text.trim().is_empty() && field == "size";
            if none || text.chars().count() > most || text.chars().any(char::is_control) {
                return fault(field, format!("\"{text}\" cannot be: up to {most} characters on one line"));
            }
        }
        let (bore, deep) = one.counterbore.map_or((None, None), |(bore, deep)| (Some(bore), Some(deep)));
        for (field, value, least, most, unit) in [
            ("diameter", Some(one.diameter), 0.1, 500.0, "mm"),
            ("height", Some(one.height), 0.0, 500.0, "mm"),
            ("angle", one.angle, 1.0, 179.0, "deg"),
            ("counterbore", bore, one.diameter, 600.0, "mm"),
            ("counterbore", deep, 0.1, 500.0, "mm"),
        ] {
            if let Some(value) = value.filter(|value| !(least..=most).contains(value)) {
                return fault(field, format!("{value} {unit} is outside {least} to {most} {unit}"));
            }
        }
        match one.head {
            Head::Flat if one.angle.is_none() => return fault("angle", "a flat head has the angle of its cone".into()),
            Head::Socket if one.counterbore.is_none() => {
                return fault("counterbore", "a socket head has the counterbore that takes it".into());
            }
            _ => {}
        }
        let name = format!("{} {}", one.head.words(), one.size.trim());
        if stock().screw(one.head, &one.size).is_some() {
            return fault("size", format!("{name} is in the standards' table: call your own otherwise"));
        }
        let same = |other: &Screw| other.head == one.head && other.size.trim().eq_ignore_ascii_case(one.size.trim());
        if screws[..at].iter().any(same) {
            return fault("size", format!("there is another {name}"));
        }
    }
    Ok(())
}

/// Reads screws from CSV, the form of `data/screws.csv`.
///
/// # Errors
/// [`TableFault`]: no such head line, a cell that cannot be read, and what [`check_screws`] finds.
pub fn read_screws(text: &str) -> Result<Vec<Screw>, TableFault> {
    let mut reader = csv::ReaderBuilder::new()
        .comment(Some(b'#'))
        .flexible(true)
        .from_reader(text.trim_start_matches('\u{feff}').as_bytes());
    let bad = |path: String, message: String| TableFault { path, message };
    let head = reader.headers().map_err(|fault| bad("screws".into(), fault.to_string()))?;
    if head.iter().map(str::trim).ne(COLUMNS) {
        let words = format!("the first line names the columns {}; it is \"{}\"", COLUMNS.join(","), join(head));
        return Err(bad("screws".into(), words));
    }
    let mut all = Vec::new();
    for (at, row) in reader.records().enumerate() {
        let row = row.map_err(|fault| bad(format!("screws[{at}]"), fault.to_string()))?;
        all.push(screw_of(&row).map_err(|(column, message)| bad(format!("screws[{at}].{column}"), message))?);
        if all.len() > MOST_SCREWS {
            break;
        }
    }
    check_screws(&all)?;
    Ok(all)
}

fn join(row: &csv::StringRecord) -> String {
    row.iter().take(COLUMNS.len()).collect::<Vec<_>>().join(",")
}

/// Writes screws as CSV, the form of `data/screws.csv`.
pub fn write_screws(screws: &[Screw]) -> String {
    let mut writer = csv::Writer::from_writer(Vec::new());
    let text = |value: Option<f64>| value.map(|value| value.to_string()).unwrap_or_default();
    // Writing to memory cannot fail.
    let _ = writer.write_record(COLUMNS);
    for one in screws {
        let head = serde_json::to_value(one.head).ok();
        let _ = writer.write_record([
            head.as_ref().and_then(|value| value.as_str()).unwrap_or_default().to_string(),
            one.size.clone(),
            one.diameter.to_string(),
            one.height.to_string(),
            text(one.angle),
            text(one.counterbore.map(|bore| bore.0)),
            text(one.counterbore.map(|bore| bore.1)),
            one.source.clone(),
        ]);
    }
    String::from_utf8(writer.into_inner().unwrap_or_default()).unwrap_or_default()
}
