//! The `steelk` command line.

mod build;
mod check;
mod copies;
mod folder;
mod jobs;
mod keep;
mod nest;
mod office;
mod package;
mod say;
mod serve;
mod simulate;

use std::path::{Path, PathBuf};
use std::process::ExitCode;

use clap::{Parser, Subcommand};
use steelk_core::piece::Piece;
use steelk_core::stock::{Cutter, ShopRules, example_cutters, read_cutters, shipped_rules};

use say::say;
use steelk_formats::output::{FileSettings, Stamp};

use crate::files::Shop;

/// From a drawing's numbers to proved blanks.
#[derive(Parser)]
#[command(name = "steelk", version, about)]
struct Arguments {
    #[command(subcommand)]
    command: Command,
}

/// What files say of their revision; nothing that is not told.
#[derive(clap::Args)]
struct StampOf {
    /// Number or letter of the revision.
    #[arg(long)]
    revision: Option<String>,
    /// Who made it.
    #[arg(long)]
    by: Option<String>,
    /// When, as it is to be written.
    #[arg(long)]
    date: Option<String>,
}

#[derive(Subcommand)]
enum Command {
    /// Serve the application.
    Serve(serve::Serve),
    /// Write the files of a piece: blank and profile (DXF, SVG), flat sheet, solid (STEP, GLB), cut program, tables,
    /// template, report.
    Build {
        /// The piece document.
        piece: PathBuf,
        /// Where the files go; made when missing.
        #[arg(long)]
        out: PathBuf,
        /// Which variant of the piece; the piece itself where left out.
        #[arg(long)]
        variant: Option<String>,
        /// The shop's cutters as TOML; the made-up examples where left out.
        #[arg(long)]
        cutters: Option<PathBuf>,
        /// The shop's word on its files as JSON: the pattern of names, how contours leave.
        #[arg(long)]
        files: Option<PathBuf>,
        /// What the shop's rules go by as TOML; common practice and made-up machines where left out.
        #[arg(long)]
        rules: Option<PathBuf>,
        #[command(flatten)]
        stamp: StampOf,
    },
    /// Run a cut program on the simulated cutter, or an NC1 file on the simulated saw and drill line, and measure what
    /// it leaves; exit 1 when it is wrong.
    Simulate {
        /// The program.
        program: PathBuf,
        /// The piece document that it should make.
        #[arg(long)]
        against: PathBuf,
        /// Which variant of the piece; the piece itself where left out.
        #[arg(long)]
        variant: Option<String>,
        /// Which blank of a piece of several, by its letter.
        #[arg(long)]
        blank: Option<String>,
        /// The shop's cutters as TOML; the made-up examples where left out.
        #[arg(long)]
        cutters: Option<PathBuf>,
    },
    /// Print how a piece's call-outs and rules stand. Exit 0: ready; 1: a call-out is off or a rule broken; 2: it is
    /// refused.
    Check {
        /// The piece document.
        piece: PathBuf,
        /// Which variant of the piece; the piece itself where left out.
        #[arg(long)]
        variant: Option<String>,
        /// The shop's cutters as TOML; the made-up examples where left out.
        #[arg(long)]
        cutters: Option<PathBuf>,
        /// What the shop's rules go by as TOML; common practice and made-up machines where left out.
        #[arg(long)]
        rules: Option<PathBuf>,
    },
    /// Cut a bare list of pieces from stock bars and print the plan as JSON, with a proved lower bound.
    Nest {
        /// The list.
        list: PathBuf,
    },
    /// List the jobs on the rack with their pieces.
    Jobs {
        /// The folder that is served.
        #[arg(long, default_value = "steelk-data")]
        data: PathBuf,
        /// What was deleted instead.
        #[arg(long)]
        deleted: bool,
    },
    /// Put back what was deleted; `jobs --deleted` tells the numbers.
    #[command(name = "put-back")]
    PutBack {
        /// The folder that is served.
        #[arg(long, default_value = "steelk-data")]
        data: PathBuf,
        /// The number of a job.
        #[arg(long, required_unless_present = "piece")]
        job: Option<i64>,
        /// The number of a piece.
        #[arg(long)]
        piece: Option<i64>,
    },
    /// Copy everything into one file, while it may be served; the copy is read back before it counts.
    Backup {
        /// The file; one that is not there yet.
        file: PathBuf,
        /// The folder that is served.
        #[arg(long, default_value = "steelk-data")]
        data: PathBuf,
    },
    /// Lay a copy down as a folder to serve; an empty one, or one that is not there yet.
    Restore {
        /// The copy.
        file: PathBuf,
        /// The folder.
        #[arg(long)]
        data: PathBuf,
    },
    /// Read everything that is kept: the file's pages, every revision; and work out every piece. Exit 1 when something
    /// is wrong.
    Verify {
        /// The folder that is served.
        #[arg(long, default_value = "steelk-data")]
        data: PathBuf,
    },
    /// Lay down a folder as large as a design office's, of the demo's pieces, to measure on.
    #[command(hide = true)]
    Office {
        /// The folder; an empty one, or one that is not there yet.
        #[arg(long)]
        data: PathBuf,
        /// How many jobs.
        #[arg(long, default_value_t = 2000, value_parser = clap::value_parser!(u32).range(1..=100_000))]
        jobs: u32,
        /// How many pieces in all of them.
        #[arg(long, default_value_t = 100_000, value_parser = clap::value_parser!(u32).range(..=10_000_000))]
        pieces: u32,
    },
    /// Print the JSON Schema of the piece document.
    Schema,
    /// Print the OpenAPI description of the server.
    Openapi,
}

/// Runs the command line; `before_serving` is called before the application is served, and before nothing else.
pub fn run(before_serving: fn()) -> ExitCode {
    let result = match Arguments::parse().command {
        Command::Serve(serve) => {
            before_serving();
            serve::run(&serve)
        }
        Command::Build { piece, out, variant, cutters, files, rules, stamp } => {
            let stamp = Stamp { revision: stamp.revision, by: stamp.by, date: stamp.date };
            read_shop(cutters.as_deref(), files.as_deref(), rules.as_deref())
                .and_then(|shop| build::run(&piece, &out, variant.as_deref(), &shop, &stamp))
        }
        Command::Simulate { program, against, variant, blank, cutters } => match read_table(cutters.as_deref()) {
            Ok(cutters) => return simulate::run(&program, &against, (variant.as_deref(), blank.as_deref()), &cutters),
            Err(fault) => Err(fault),
        },
        Command::Check { piece, variant, cutters, rules } => {
            match read_shop(cutters.as_deref(), None, rules.as_deref()) {
                Ok(shop) => return check::run(&piece, variant.as_deref(), &shop),
                Err(fault) => Err(fault),
            }
        }
        Command::Nest { list } => nest::run(&list),
        Command::Jobs { data, deleted } => jobs::list(&data, deleted),
        Command::PutBack { data, job, piece } => jobs::put_back(&data, job, piece),
        Command::Backup { file, data } => keep::backup(&file, &data),
        Command::Restore { file, data } => keep::restore(&file, &data),
        Command::Verify { data } => return keep::verify(&data),
        Command::Office { data, jobs, pieces } => office::lay_down(&data, jobs, pieces),
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
    say!("{}", serde_json::to_string_pretty(value).map_err(|fault| fault.to_string())?);
    Ok(())
}

fn read_table(path: Option<&Path>) -> Result<Vec<Cutter>, String> {
    let Some(path) = path else { return Ok(example_cutters().to_vec()) };
    let text = std::fs::read_to_string(path).map_err(|fault| format!("{} cannot be read: {fault}", path.display()))?;
    read_cutters(&text).map_err(|fault| format!("{}: {fault}", path.display()))
}

fn read_shop(cutters: Option<&Path>, files: Option<&Path>, rules: Option<&Path>) -> Result<Shop, String> {
    Ok(Shop { cutters: read_table(cutters)?, files: read_files(files)?, rules: read_rules(rules)? })
}

fn read_rules(path: Option<&Path>) -> Result<ShopRules, String> {
    let Some(path) = path else { return Ok(shipped_rules().clone()) };
    let text = std::fs::read_to_string(path).map_err(|fault| format!("{} cannot be read: {fault}", path.display()))?;
    ShopRules::read(&text).map_err(|fault| format!("{}: {fault}", path.display()))
}

fn read_files(path: Option<&Path>) -> Result<FileSettings, String> {
    let Some(path) = path else { return Ok(FileSettings::default()) };
    let text = std::fs::read_to_string(path).map_err(|fault| format!("{} cannot be read: {fault}", path.display()))?;
    serde_json::from_str(&text).map_err(|fault| format!("{}: {fault}", path.display()))
}

fn read_piece(path: &Path) -> Result<Piece, String> {
    let bytes = std::fs::read(path).map_err(|fault| format!("{} cannot be read: {fault}", path.display()))?;
    Piece::read(&bytes).map_err(|fault| format!("{}: {fault}", path.display()))
}
