//! Words as people look for them and order them, for the database to use.

use std::cmp::Ordering;

use rusqlite::Connection;
use rusqlite::functions::FunctionFlags;

/// Teaches a connection `folded(text)` and the collation `as_numbered`.
pub(crate) fn teach(connection: &Connection) -> rusqlite::Result<()> {
    connection.create_scalar_function(
        "folded",
        1,
        FunctionFlags::SQLITE_UTF8 | FunctionFlags::SQLITE_DETERMINISTIC,
        |context| Ok(folded(context.get_raw(0).as_str()?)),
    )?;
    connection.create_collation("as_numbered", natural)
}

/// A text as it is searched: of any language, whatever its case.
pub(crate) fn folded(text: &str) -> String {
    text.to_lowercase()
}

/// The order that people expect: digits count as the number that they are, case does not. TS-9 is before TS-104.
pub(crate) fn natural(one: &str, other: &str) -> Ordering {
    let (one_low, other_low) = (folded(one), folded(other));
    let (mut left, mut right) = (one_low.as_str(), other_low.as_str());
    while let (Some(a), Some(b)) = (left.chars().next(), right.chars().next()) {
        if a.is_ascii_digit() && b.is_ascii_digit() {
            let (first, second) = (digits(left), digits(right));
            let order = number(first).len().cmp(&number(second).len()).then_with(|| number(first).cmp(number(second)));
            if order != Ordering::Equal {
                return order;
            }
            (left, right) = (&left[first.len()..], &right[second.len()..]);
        } else if a != b {
            return a.cmp(&b);
        } else {
            (left, right) = (&left[a.len_utf8()..], &right[b.len_utf8()..]);
        }
    }
    // Alike but for case or leading zeros: still the same order each time.
    left.len().cmp(&right.len()).then_with(|| one.cmp(other))
}

/// The digits that a text begins with.
fn digits(text: &str) -> &str {
    let end = text.find(|c: char| !c.is_ascii_digit()).unwrap_or(text.len());
    &text[..end]
}

/// Digits without the zeros before them.
fn number(digits: &str) -> &str {
    digits.trim_start_matches('0')
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn numbers_count_as_numbers_and_case_does_not() {
        let mut rack = ["ts-104", "TS-1000", "TS-9", "ts-9a", "TS-010", "", "B", "a", "12", "2", "Ä-2", "ä-10"];
        rack.sort_by(|a, b| natural(a, b));
        assert_eq!(rack, ["", "2", "12", "a", "B", "TS-9", "ts-9a", "TS-010", "ts-104", "TS-1000", "Ä-2", "ä-10"]);
    }

    #[test]
    fn it_is_an_order() {
        // Whatever stands beside what: no two answers contradict each other, or the database would lose rows.
        let texts =
            ["", "0", "00", "1", "01", "a", "A", "a1", "a01", "a1b", "a10", "A2", "-", "9999999999999999999999"];
        for a in texts {
            assert_eq!(natural(a, a), Ordering::Equal, "{a:?}");
            for b in texts {
                assert_eq!(natural(a, b), natural(b, a).reverse(), "{a:?} {b:?}");
                assert_eq!(natural(a, b) == Ordering::Equal, a == b, "{a:?} {b:?}");
                for c in texts {
                    if natural(a, b).is_le() && natural(b, c).is_le() {
                        assert!(natural(a, c).is_le(), "{a:?} {b:?} {c:?}");
                    }
                }
            }
        }
    }
}
