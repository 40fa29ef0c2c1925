//! When two marks look alike: painted on steel, `WB-02`, `wb–02` and one with a Cyrillic `В` cannot be told apart.

use unicode_normalization::UnicodeNormalization as _;

/// Signs that show nothing.
fn shows_nothing(sign: char) -> bool {
    matches!(sign, '\u{ad}' | '\u{200b}'..='\u{200f}' | '\u{202a}'..='\u{202e}' | '\u{2060}'..='\u{2064}' | '\u{feff}')
}

/// The key that a mark shares with every mark that looks like it: compatibility forms taken together (Unicode NFKC), letters of
/// other scripts as the Latin ones that they look like (Unicode Technical Standard 39), one kind of dash, one case, single spaces.
/// Latin letters and digits stay apart, `O1` from `01`: shops use both.
pub fn mark_key(mark: &str) -> String {
    let plain: String = mark.nfkc().filter(|sign| !shows_nothing(*sign)).collect();
    let mut key = String::with_capacity(plain.len());
    for sign in plain.chars() {
        match sign {
            '\u{2010}'..='\u{2015}' | '\u{2212}' => key.push('-'),
            _ if sign.is_ascii() => key.push(sign),
            _ => key.extend(unicode_security::skeleton(sign.encode_utf8(&mut [0; 4]))),
        }
    }
    key.to_lowercase().split_whitespace().collect::<Vec<_>>().join(" ")
}

#[cfg(test)]
mod tests {
    use super::mark_key;

    #[test]
    fn marks_that_look_alike_share_a_key() {
        for alike in [
            "WB-02",
            "wb-02",
            " WB-02 ",
            "WB\u{2013}02",
            "W\u{412}-02",
            "\u{ff37}B-02",
            "WB-\u{200b}02",
            "WB\u{2212}02",
        ] {
            assert_eq!(mark_key(alike), "wb-02", "{alike:?}");
        }
        assert_eq!(mark_key("A\u{30a} 1"), mark_key("\u{c5}  1"), "one letter, written in two ways");
        for apart in [("WB-02", "WB-20"), ("O1", "01"), ("L1", "I1"), ("WB 02", "WB02"), ("\u{df}1", "B1")] {
            assert_ne!(mark_key(apart.0), mark_key(apart.1), "{apart:?}");
        }
    }
}
