//! What the command line prints.

use std::fmt::Arguments;
use std::io::Write as _;

/// Prints a line. Whoever reads it may have had enough (`steelk check PIECE | head`): the work goes on to its end all
/// the same, files are written whole and the exit code says what it says.
pub(super) fn line(text: Arguments<'_>) {
    let _ = writeln!(std::io::stdout().lock(), "{text}");
}

/// As `println`, and never a panic.
macro_rules! say {
    ($($part:tt)*) => { $crate::command::say::line(format_args!($($part)*)) };
}
pub(super) use say;
