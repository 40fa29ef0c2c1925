//! Words that go over several lines.

/// A line broken at its spaces.
pub(super) fn wrapped(line: &str, most: usize) -> Vec<String> {
    let mut lines = vec![String::new()];
    for word in line.split_whitespace() {
        let last = lines.len() - 1;
        if !lines[last].is_empty() && lines[last].len() + 1 + word.len() > most {
            lines.push(word.to_string());
        } else {
            if !lines[last].is_empty() {
                lines[last].push(' ');
            }
            lines[last].push_str(word);
        }
    }
    lines
}
