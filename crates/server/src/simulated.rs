//! A cut program on the simulated cutter.

use steelk_core::finding::Finding;
use steelk_cutter::{Inspection, Machine, Run, RunError, Wanted, inspect, run};
use steelk_formats::program::{NotReady, Program};

/// The machine that a program is for.
pub fn machine(program: &Program) -> Machine {
    Machine::of(&program.settings.cutter, &program.settings.row)
}

/// The part that a program should leave.
pub fn wanted(program: &Program) -> Wanted {
    Wanted::of(&program.profile, &program.plan, &program.settings)
}

/// Runs a text (a program's own, or one from a file) on a program's machine and measures what is left against its part.
///
/// # Errors
/// [`RunError`] with the line at which the machine would stop.
pub fn simulate(program: &Program, text: &[u8]) -> Result<(Run, Inspection), RunError> {
    let run = run(text, &machine(program))?;
    let inspection = inspect(&run, &wanted(program));
    Ok((run, inspection))
}

/// Whether a program may be given out: the simulated cutter must have found the part that was wanted.
///
/// # Errors
/// What it found.
pub fn checked(program: &Program) -> Result<Inspection, NotReady> {
    let refuse =
        |message: String| vec![Finding::error(message, "Choose another cutter or other leads and look again.")];
    let (_, inspection) = simulate(program, program.text.as_bytes())
        .map_err(|fault| refuse(format!("the simulated cutter stops: {fault}")))?;
    if let Some(fault) = inspection.faults.first() {
        return Err(refuse(format!("the simulated cutter finds the part wrong: {}", fault.message)));
    }
    Ok(inspection)
}
