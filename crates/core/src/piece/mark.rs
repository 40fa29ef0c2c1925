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
