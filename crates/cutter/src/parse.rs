//! RS-274 text to blocks of words: letters with numbers, comments in brackets or after a semicolon.

use steelk_core::patience;

/// The largest program that is read, bytes.
pub const LARGEST_PROGRAM: usize = 64 * 1024 * 1024;
/// The longest line, bytes: RS-274 controls take 256.
const LONGEST_LINE: usize = 256;
/// The most words on a line.
const MOST_WORDS: usize = 24;

/// A letter and its number.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Word {
    /// Capital letter.
    pub letter: char,
    /// Its number.
    pub value: f64,
}

/// One line of a program.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Block {
    /// Line number in the text, from 1.
    pub line: usize,
    /// Words in order.
    pub words: Vec<Word>,
    /// What its comments say.
    pub comments: Vec<String>,
}

impl Block {
    /// The number of a letter, where it is given once or more: the first.
    pub fn value(&self, letter: char) -> Option<f64> {
        self.words.iter().find(|word| word.letter == letter).map(|word| word.value)
    }
}

/// Why a text is no program.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum ParseError {
    /// Too large.
    #[error("the program has {0} bytes; {LARGEST_PROGRAM} is the most that is read")]
    Large(usize),
    /// No text.
    #[error("line {0} holds something that is no ASCII text: this is no cut program")]
    Binary(usize),
    /// Too long.
    #[error("line {0} is longer than {LONGEST_LINE} characters")]
    Long(usize),
    /// Too much on a line.
    #[error("line {0} has more than {MOST_WORDS} words")]
    Crowded(usize),
    /// A letter without a number, or a number without a letter.
    #[error("line {line}: \"{text}\" is no word of a letter and a number")]
    Word {
        /// Line number.
        line: usize,
        /// What stands there.
        text: String,
    },
    /// A bracket left open.
    #[error("line {0}: a comment is opened and not closed")]
    Comment(usize),
    /// Nothing to run.
    #[error("there is no block in it that a cutter could run")]
    Empty,
}

/// Reads a program.
///
/// # Errors
/// [`ParseError`] with the line; nothing in a text makes it panic or take memory beyond a small multiple of the text.
pub fn parse(bytes: &[u8]) -> Result<Vec<Block>, ParseError> {
    if bytes.len() > LARGEST_PROGRAM {
        return Err(ParseError::Large(bytes.len()));
    }
    let mut blocks = Vec::new();
    for (at, raw) in bytes.split(|byte| *byte == b'\n').enumerate() {
        patience::check();
        let line = at + 1;
        let raw = raw.strip_suffix(b"\r").unwrap_or(raw);
        if raw.len() > LONGEST_LINE {
            return Err(ParseError::Long(line));
        }
        if raw.iter().any(|byte| !(byte.is_ascii_graphic() || *byte == b' ' || *byte == b'\t')) {
            return Err(ParseError::Binary(line));
        }
        // ASCII was just checked.
        let text: String = raw.iter().map(|&byte| char::from(byte)).collect();
        let block = read_line(&text, line)?;
        if !block.words.is_empty() || !block.comments.is_empty() {
            blocks.push(block);
        }
    }
    if !blocks.iter().any(|block| !block.words.is_empty()) {
        return Err(ParseError::Empty);
    }
    Ok(blocks)
}

fn read_line(text: &str, line: usize) -> Result<Block, ParseError> {
    let mut block = Block { line, ..Block::default() };
    let trimmed = text.trim();
    // A percent sign frames the program; a slash marks a block that may be skipped: it is run.
    if trimmed.starts_with('%') {
        return Ok(block);
    }
    let mut rest = trimmed.strip_prefix('/').unwrap_or(trimmed);
    loop {
        rest = rest.trim_start();
        let Some(first) = rest.chars().next() else { return Ok(block) };
        if first == ';' {
            block.comments.push(rest[1..].trim().to_string());
            return Ok(block);
        }
        if first == '(' {
            let end = rest.find(')').ok_or(ParseError::Comment(line))?;
            block.comments.push(rest[1..end].trim().to_string());
            rest = &rest[end + 1..];
            continue;
        }
        let after = rest[1..].trim_start();
        let length = after.find(|c: char| !(c.is_ascii_digit() || "+-.".contains(c))).unwrap_or(after.len());
        let value = after[..length].parse::<f64>().ok().filter(|value| value.is_finite());
        let (true, Some(value)) = (first.is_ascii_alphabetic(), value) else {
            return Err(ParseError::Word { line, text: rest.chars().take(20).collect() });
        };
        if block.words.len() == MOST_WORDS {
            return Err(ParseError::Crowded(line));
        }
        block.words.push(Word { letter: first.to_ascii_uppercase(), value });
        rest = &after[length..];
    }
}
