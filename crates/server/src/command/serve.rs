//! `steelk serve`.

use std::io::Write as _;
use std::path::PathBuf;
use std::sync::Arc;
use std::time::Duration;

use actix_web::middleware::{Compress, Condition, from_fn};
use actix_web::{App, HttpServer, web};
use steelk_store::Store;

use super::{copies, folder, keep};
use crate::api::{State, routes};
use crate::line::Line;
use crate::marks::marks_of;
use crate::reach::Reach;
use crate::{demo, guard, log, summary};

/// Serve the application.
#[derive(clap::Args)]
pub(super) struct Serve {
    /// Put the demo job on an empty rack.
    #[arg(long)]
    demo: bool,
    /// Where jobs are kept; made when missing.
    #[arg(long, default_value = "steelk-data")]
    data: PathBuf,
    /// Port; 0 takes any free one and prints it.
    #[arg(long, default_value_t = 7420)]
    port: u16,
    /// Address to listen on; others than 127.0.0.1 open Steelk to the network and want consent.
    #[arg(long, default_value = "127.0.0.1")]
    bind: std::net::IpAddr,
    /// A name that this machine has on its network, to be reached under; may be given again.
    #[arg(long)]
    name: Vec<String>,
    /// Seconds within which the body of a request is sent.
    #[arg(long, default_value_t = 120)]
    patience: u64,
    /// Seconds after which working something out is ended.
    #[arg(long, default_value_t = 60)]
    longest_work: u64,
    /// Copies of everything that are kept in the folder, one a day: 7 where left out, none with --demo; 0 makes none.
    #[arg(long)]
    copies: Option<usize>,
    /// What is logged on standard error: error, warn, info, debug or trace.
    #[arg(long, default_value = "info")]
    log: tracing::Level,
    /// Consent: there are no accounts, so whoever reaches the address can read, change and delete every job.
    #[arg(long)]
    without_accounts_i_understand: bool,
}

pub(super) fn run(serve: &Serve) -> Result<(), String> {
    if !serve.bind.is_loopback() && !serve.without_accounts_i_understand {
        return Err(format!(
            "{} opens Steelk to the network. It has no accounts yet: whoever reaches that address can read, change and delete \
             every job, and whatever is sent can be listened to on the way. If that is meant, say so with \
             --without-accounts-i-understand; otherwise leave --bind out",
            serve.bind
        ));
    }
    log::begin(serve.log);
    let (file, _lock) = folder::open(&serve.data)?;
    keep::before_writing(&file)?;
    let store = Store::open(&file, marks_of).map_err(|fault| format!("{}: {fault}", file.display()))?;
    let cores = std::thread::available_parallelism().map_or(1, std::num::NonZero::get);
    let line = Line::new(cores, Duration::from_secs(serve.longest_work.max(1)));
    let state = web::Data::new(State::new(store, Reach::new(serve.bind, &serve.name), line));
    if serve.demo {
        demo::lay_out(&state).map_err(|problem| problem.to_string())?;
    }
    summary::keep(state.clone());
    let copies = serve.copies.unwrap_or(if serve.demo { 0 } else { 7 });
    if copies > 0 {
        copies::keep_daily(file, copies);
    }
    let room = Arc::new(guard::BodyRoom::default());
    let patience = Duration::from_secs(serve.patience.max(1));
    let packed = !serve.bind.is_loopback();
    let runner = actix_web::rt::System::new();
    runner.block_on(async {
        let server = HttpServer::new(move || {
            let room = Arc::clone(&room);
            App::new()
                .app_data(state.clone())
                .wrap(from_fn(move |request, next| guard::room_for_body(Arc::clone(&room), request, next)))
                .wrap(from_fn(guard::same_origin))
                .wrap(from_fn(move |request, next| guard::bodies_in_time(patience, request, next)))
                // On this machine itself packing costs more time than it saves.
                .wrap(Condition::new(packed, Compress::default()))
                .wrap(guard::headers())
                .wrap(from_fn(log::requests))
                .configure(routes)
        })
        .workers(2)
        // Whoever closes the connection does not wait for the answer any more: what is worked out for them ends.
        .h1_allow_half_closed(false)
        .bind((serve.bind, serve.port))
        .map_err(|fault| format!("port {} on {} cannot be taken: {fault}; try --port", serve.port, serve.bind))?;
        tracing::info!(version = env!("CARGO_PKG_VERSION"), folder = %serve.data.display(), "serving");
        for address in server.addrs() {
            println!("Steelk is at http://{address}");
        }
        // Whoever started us may be waiting for that line on a pipe.
        let _ = std::io::stdout().flush();
        server.run().await.map_err(|fault| fault.to_string())
    })
}
