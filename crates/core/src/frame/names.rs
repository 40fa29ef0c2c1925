//! Names that work cites, alone or by a pattern.

/// Whether a name fits a pattern: itself, all of an operation's (`table` for `table.leg-1`), or with `*` for any letters.
pub fn matches(pattern: &str, name: &str) -> bool {
    if pattern == name || name.strip_prefix(pattern).is_some_and(|rest| rest.starts_with('.')) {
        return true;
    }
    let mut parts = pattern.split('*');
    let Some(first) = parts.next() else { return false };
    let parts: Vec<&str> = parts.collect();
    let Some(mut rest) = name.strip_prefix(first) else { return false };
    let Some((last, middle)) = parts.split_last() else { return false };
    for part in middle {
        match rest.find(part) {
            Some(at) => rest = &rest[at + part.len()..],
            None => return false,
        }
    }
    rest.ends_with(last)
}
