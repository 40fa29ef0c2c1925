//! The `steelk` command line.

mod build;
mod check;
mod serve;

use std::path::{Path, PathBuf};
use std::process::ExitCode;

use clap::{Parser, Subcommand};
use steelk_core::piece::Piece;

/// From a drawing's numbers to proved blanks.
#[derive(Parser)]
#[command(name = "steelk", version, about)]
struct Arguments {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Serve the application.
    Serve(serve::Serve),
    /// Write blank.dxf, blank.svg, cutlist.csv and report.json of a piece.
    Build {
        /// The piece document.
        piece: PathBuf,
        /// Where the files go; made when missing.
        #[arg(long)]
        out: PathBuf,
    },
    /// Print how a piece's call-outs and rules stand; exit 1 when something is off.
    Check {
        /// The piece document.
        piece: PathBuf,
    },
    /// Print the JSON Schema of the piece document.
    Schema,
    /// Print the OpenAPI description of the server.
    Openapi,
}

/// Runs the command line.
pub fn run() -> ExitCode {
    let result = match Arguments::parse().command {
        Command::Serve(serve) => serve::run(&serve),
        Command::Build { piece, out } => build::run(&piece, &out),
        Command::Check { piece } => return check::run(&piece),
        Command::Schema => print(&crate::openapi::piece_schema()),
        Command::Openapi => print(&crate::openapi::document()),
    };
    match result {
        Ok(()) => ExitCode::SUCCESS,
        Err(fault) => {
            eprintln!("steelk: {fault}");
            ExitCode::from(2)
        }
    }
}

fn print(value: &serde_json::Value) -> Result<(), String> {
    println!("{}", serde_json::to_string_pretty(value).map_err(|fault| fault.to_string())?);
    Ok(())
}

fn read_piece(path: &Path) -> Result<Piece, String> {
    let bytes = std::fs::read(path).map_err(|fault| format!("{} cannot be read: {fault}", path.display()))?;
    Piece::read(&bytes).map_err(|fault| format!("{}: {fault}", path.display()))
}
