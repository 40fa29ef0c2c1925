//! Rows of a table that is built in.

pub(super) fn rows(text: &'static str) -> csv::StringRecordsIntoIter<&'static [u8]> {
    csv::ReaderBuilder::new().comment(Some(b'#')).from_reader(text.as_bytes()).into_records()
}
