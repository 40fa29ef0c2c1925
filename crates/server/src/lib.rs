//! The Actix Web API, the static front end and the `steelk` command line.
//!
//! ```
//! use std::time::Duration;
//! use steelk_server::line::within;
//!
//! // One piece of a list: it neither keeps the rest waiting nor takes it down.
//! assert_eq!(within(Duration::from_secs(5), || 2 + 2), Ok(4));
//! assert!(within(Duration::from_secs(5), || -> u32 { panic!("unforeseen") }).is_err());
//! ```

#![forbid(unsafe_code)]
#![warn(missing_docs)]

pub mod answer;
pub mod api;
pub mod audit_answer;
pub mod audited;
pub mod command;
pub mod cutting_answer;
pub mod demo;
pub mod files;
pub mod frame_answer;
pub mod guard;
pub mod guarded;
pub mod line;
pub mod log;
pub mod marks;
pub mod openapi;
pub mod problem;
pub mod reach;
pub mod saw_line;
pub mod seam_answer;
pub mod simulated;
pub mod site;
pub mod summary;
pub mod surface_answer;
