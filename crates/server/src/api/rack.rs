//! The rack: jobs searched, sorted and a page at a time.

use std::time::{Duration, Instant};

use actix_web::web::{self, ServiceConfig};
use serde::{Deserialize, Serialize};
use steelk_store::{Among, Figures, Job, RackJob, RackPage, RackSort};
use utoipa::ToSchema;

use super::{State, off_thread, worked_out};
use crate::problem::Problem;
use crate::summary::bring_up;

/// How long the pieces of a page are worked on before it is told with what is known.
const MOMENT: Duration = Duration::from_millis(250);
/// Jobs of a page where nothing is said.
const PAGE: u32 = 50;
/// The most jobs of a page.
const LARGEST_PAGE: u32 = 500;
/// The longest text that is searched for, letters.
const LONGEST_SEARCH: usize = 200;

/// A job on the rack.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct JobLine {
    pub id: i64,
    pub number: String,
    pub title: String,
    pub due: Option<String>,
    pub version: i64,
    pub pieces: u64,
    /// Pieces times their quantities.
    pub items: u64,
    /// Mass of everything, kg.
    pub mass: f64,
    /// Call-outs that hold, and call-outs in all.
    pub holds: u64,
    pub callouts: u64,
    /// Broken rules and errors.
    pub broken: u64,
    /// `drafting`, or `proved` when every call-out holds and nothing is broken.
    pub stage: String,
    /// Pieces that are being worked out again: counted with what was last known of them, new ones not at all.
    pub waiting: u64,
    /// The first pieces that it was found by, where its own words do not say what was searched for.
    pub found: Vec<FoundPiece>,
}

/// A piece that a job was found by.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct FoundPiece {
    pub id: i64,
    pub mark: String,
    pub title: String,
}

/// A page of the rack.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct RackAnswer {
    pub jobs: Vec<JobLine>,
    /// How many jobs have what was searched for, on all pages.
    pub found: u64,
    /// How many jobs there are.
    pub all: u64,
}

/// What the rack is sorted by.
#[derive(Clone, Copy, Debug, Default, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub(crate) enum SortKey {
    #[default]
    Number,
    Title,
    Due,
    Pieces,
    Mass,
    Stage,
}

/// What is asked of the rack.
#[derive(Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub(crate) struct Asked {
    /// Words, each of which the job, its stage or one of its pieces has; at most 200 letters, of which the first eight
    /// words are looked for.
    #[serde(default)]
    search: String,
    /// By its number where nothing is said.
    #[serde(default)]
    #[param(inline)]
    sort: SortKey,
    /// The greatest first.
    #[serde(default)]
    down: bool,
    /// How many jobs to pass over.
    #[serde(default)]
    from: u32,
    /// How many to tell, 1 to 500; 50 where nothing is said.
    #[serde(default)]
    #[param(minimum = 1, maximum = 500)]
    most: Option<u32>,
}

impl JobLine {
    pub(super) fn new(job: &Job, figures: &Figures) -> JobLine {
        JobLine {
            id: job.id,
            number: job.number.clone(),
            title: job.title.clone(),
            due: job.due.clone(),
            version: job.version,
            pieces: figures.pieces,
            items: figures.items,
            mass: figures.mass,
            holds: figures.holds,
            callouts: figures.callouts,
            broken: figures.broken,
            stage: figures.stage().into(),
            waiting: figures.waiting,
            found: Vec::new(),
        }
    }
}

impl Asked {
    fn page(self) -> Result<RackPage, Problem> {
        let most = self.most.unwrap_or(PAGE);
        if !(1..=LARGEST_PAGE).contains(&most) {
            return Err(Problem::field("most", format!("a page has 1 to {LARGEST_PAGE} jobs, not {most}")));
        }
        let letters = self.search.chars().count();
        if letters > LONGEST_SEARCH {
            let words = format!("at most {LONGEST_SEARCH} letters are searched for, these are {letters}");
            return Err(Problem::field("search", words));
        }
        let sort = match self.sort {
            SortKey::Number => RackSort::Number,
            SortKey::Title => RackSort::Title,
            SortKey::Due => RackSort::Due,
            SortKey::Pieces => RackSort::Pieces,
            SortKey::Mass => RackSort::Mass,
            SortKey::Stage => RackSort::Stage,
        };
        Ok(RackPage { search: self.search, sort, down: self.down, from: self.from, most })
    }
}

fn answer(state: &State, page: &RackPage) -> Result<RackAnswer, Problem> {
    let stamp = state.stamp()?;
    let rack = state.store().rack(page, &stamp)?;
    let line = |RackJob { job, figures, found }: RackJob| {
        let found = found.into_iter().map(|one| FoundPiece { id: one.id, mark: one.mark, title: one.title });
        JobLine { found: found.collect(), ..JobLine::new(&job, &figures) }
    };
    Ok(RackAnswer { jobs: rack.jobs.into_iter().map(line).collect(), found: rack.found, all: rack.all })
}

/// The jobs on the rack, a page at a time.
#[utoipa::path(get, path = "/api/jobs", params(Asked), responses((status = 200, body = RackAnswer), (status = 400, body = Problem), (status = 422, body = Problem)))]
pub(crate) async fn list_jobs(
    state: web::Data<State>,
    asked: web::Query<Asked>,
) -> Result<web::Json<RackAnswer>, Problem> {
    let page = asked.into_inner().page()?;
    let (own, same) = (state.clone(), page.clone());
    let told = off_thread(move || answer(&own, &same)).await?;
    let behind: Vec<i64> = told.jobs.iter().filter(|job| job.waiting > 0).map(|job| job.id).collect();
    if behind.is_empty() {
        return Ok(web::Json(told));
    }
    let brought = worked_out(state.clone(), move |state| {
        let end = Instant::now() + MOMENT;
        for job in behind {
            let stamp = state.stamp()?;
            let pieces = state.store().behind(Among::Job(job), &stamp)?.pieces;
            bring_up(state, &pieces, end)?;
        }
        Ok(())
    })
    .await;
    match brought {
        Ok(()) => Ok(web::Json(off_thread(move || answer(&state, &page)).await?)),
        Err(_) => Ok(web::Json(told)),
    }
}

pub(super) fn routes(config: &mut ServiceConfig) {
    config.route("/jobs", web::get().to(list_jobs));
}
