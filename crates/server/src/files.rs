//! The files of a piece, made with what core and formats do not have: the shop's cutters, a clock, the simulated cutter, the
//! audit of plates.

use std::time::{Duration, Instant};

use actix_web::http::StatusCode;
use steelk_core::nest::nest;
use steelk_core::piece::{Outcome, Piece};
use steelk_core::stock::{Cutter, ShopRules, Workshop, example_cutters, shipped_rules};
use steelk_formats::output::{FileSettings, Means, NoFile, Order, Package, Stamp, package};

use crate::audited::audited;
use crate::problem::Problem;
use crate::simulated::checked;
use steelk_formats::program::words;

/// What a shop says of its files and with what it cuts.
#[derive(Clone, Debug)]
pub struct Shop {
    /// Its cutters.
    pub cutters: Vec<Cutter>,
    /// Names and contours.
    pub files: FileSettings,
    /// What its rules go by.
    pub rules: ShopRules,
}

impl Shop {
    /// The shop that a piece is checked for.
    pub fn workshop(&self) -> Workshop<'_> {
        Workshop { rules: &self.rules, cutters: &self.cutters }
    }
}

impl Default for Shop {
    /// The made-up cutters that Steelk ships with, its own names.
    fn default() -> Self {
        Shop { cutters: example_cutters().to_vec(), files: FileSettings::default(), rules: shipped_rules().clone() }
    }
}

/// How long bars are searched when a file is asked for, seconds a section.
pub const SEARCH: f64 = 1.5;

impl From<NoFile> for Problem {
    fn from(fault: NoFile) -> Self {
        match fault {
            NoFile::NotThere(detail) => Problem::new(StatusCode::NOT_FOUND, "Not there", detail),
            NoFile::Refused { title, detail, field } => {
                Problem { field, ..Problem::new(StatusCode::CONFLICT, title, detail) }
            }
            NoFile::Choice { field, detail } => Problem::field(field, detail),
            NoFile::Write(fault) => fault.into(),
        }
    }
}

/// Has something made of a piece with every check made that stands before a file ([`audited`]).
///
/// # Errors
/// [`Problem`]: it is withheld, or what is made of it cannot be.
pub fn order<T>(
    piece: &Piece,
    outcome: &Outcome,
    shop: &Shop,
    stamp: &Stamp,
    make: impl FnOnce(Order<'_>) -> Result<T, Problem>,
) -> Result<T, Problem> {
    let means = Means {
        cutters: &shop.cutters,
        nest: &|problem| {
            let end = Instant::now() + Duration::from_secs_f64(SEARCH);
            nest(problem, &mut |_| Instant::now() < end)
        },
        run: &|program| checked(program).map(|_| ()).map_err(|findings| words(&findings)),
        audited: &|piece| audited(piece, shop.workshop()),
    };
    make(Order::new(piece, outcome, stamp, &shop.files, &means)?)
}

/// Every file of a piece.
///
/// # Errors
/// As [`order`].
pub fn whole_package(piece: &Piece, outcome: &Outcome, shop: &Shop, stamp: &Stamp) -> Result<Package, Problem> {
    order(piece, outcome, shop, stamp, |order| Ok(package(&order)?))
}
