//! The rack: jobs with their figures added up; searched, sorted and a page at a time.

use rusqlite::ToSql;

use crate::summary::IS_BEHIND;
use crate::words::folded;
use crate::{Job, Store, StoreError};

/// What the rack can be sorted by.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum RackSort {
    #[default]
    Number,
    Title,
    Due,
    Pieces,
    Mass,
    /// Drafting before proved.
    Stage,
}

/// What is asked of the rack.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct RackPage {
    /// Words, each of which the job, its stage or one of its pieces has; none for every job.
    pub search: String,
    /// What it is sorted by.
    pub sort: RackSort,
    /// The greatest first.
    pub down: bool,
    /// How many jobs to pass over.
    pub from: u32,
    /// How many to tell.
    pub most: u32,
}

/// A job's figures, added up from what is kept of its pieces.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Figures {
    /// How many pieces are in it.
    pub pieces: u64,
    /// How many are made of them, variants too.
    pub items: u64,
    /// kg.
    pub mass: f64,
    /// Call-outs that hold, of how many.
    pub holds: u64,
    #[allow(missing_docs)]
    pub callouts: u64,
    /// Broken rules and errors.
    pub broken: u64,
    /// Pieces whose figures are behind: the last that are known of them are counted, those of new ones not.
    pub waiting: u64,
    /// It has pieces, every call-out holds, nothing is broken, nothing behind.
    pub is_proved: bool,
}

impl Figures {
    /// What the job's stage is called, and searched for.
    pub fn stage(&self) -> &'static str {
        STAGES[usize::from(self.is_proved)]
    }
}

/// A piece that has what was searched for.
#[derive(Clone, Debug, PartialEq)]
#[allow(missing_docs)]
pub struct FoundPiece {
    pub id: i64,
    pub mark: String,
    pub title: String,
}

/// A job on the rack.
#[derive(Clone, Debug, PartialEq)]
pub struct RackJob {
    /// The job.
    pub job: Job,
    /// Its figures.
    pub figures: Figures,
    /// The first pieces that it was found by, where its own words do not say all that was searched for.
    pub found: Vec<FoundPiece>,
}

/// A page of the rack.
#[derive(Clone, Debug, PartialEq)]
pub struct Rack {
    /// The jobs of the page.
    pub jobs: Vec<RackJob>,
    /// How many jobs have what was searched for.
    pub found: u64,
    /// How many there are.
    pub all: u64,
}

/// So many words of a search are looked for; a text of more is no search.
const MOST_WORDS: usize = 8;
/// So many pieces are named that a job was found by.
const MOST_FOUND: u32 = 3;
/// What the stages of jobs are called: not proved, proved.
const STAGES: [&str; 2] = ["drafting", "proved"];

/// Fewer letters of a stage are a part of some other word.
const SHORTEST_STAGE: usize = 3;

/// A job's pieces `p` with their summaries `s`.
const PIECES: &str = "pieces p LEFT JOIN summaries s ON s.piece_id = p.id WHERE p.removed = 0";

/// Whether all of a job is proved. Of what is to be tried again something is broken, so the time need not be asked for.
const IS_PROVED: &str = "min(coalesce(s.version = p.head AND s.stamp = :stamp AND s.holds = s.callouts
                         AND s.broken = 0, 0))";

impl Store {
    /// A job's figures. `stamp` is what summaries are worked out with now.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn figures(&self, job: i64, stamp: &str) -> Result<Figures, StoreError> {
        let mut query = self.connection.prepare_cached(&format!(
            "SELECT count(*) AS pieces, coalesce(sum(s.items), 0) AS items, coalesce(sum(s.mass), 0.0) AS mass,
             coalesce(sum(s.holds), 0) AS holds, coalesce(sum(s.callouts), 0) AS callouts,
             coalesce(sum(s.broken), 0) AS broken, coalesce(sum({IS_BEHIND}), 0) AS waiting,
             coalesce({IS_PROVED}, 0) AS is_proved FROM {PIECES} AND p.job_id = :job"
        ))?;
        let read = |row: &rusqlite::Row<'_>| {
            let count = |at: &str| row.get::<_, i64>(at).map(i64::unsigned_abs);
            Ok(Figures {
                pieces: count("pieces")?,
                items: count("items")?,
                mass: row.get("mass")?,
                holds: count("holds")?,
                callouts: count("callouts")?,
                broken: count("broken")?,
                waiting: count("waiting")?,
                is_proved: row.get("is_proved")?,
            })
        };
        Ok(query.query_row(rusqlite::named_params! {":stamp": stamp, ":job": job}, read)?)
    }

    /// A page of the rack. `stamp` is what summaries are worked out with now.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub fn rack(&self, page: &RackPage, stamp: &str) -> Result<Rack, StoreError> {
        let terms: Vec<String> = folded(&page.search).split_whitespace().take(MOST_WORDS).map(String::from).collect();
        let all = self.connection.query_row("SELECT count(*) FROM jobs WHERE removed = 0", [], count)?;
        let (ids, found) = self.rack_ids(page, &terms, stamp)?;
        let jobs = ids
            .into_iter()
            .map(|id| {
                let (job, figures) = (self.job(id)?, self.figures(id, stamp)?);
                let found = self.found_by(&job, &figures, &terms)?;
                Ok(RackJob { job, figures, found })
            })
            .collect::<Result<_, StoreError>>()?;
        Ok(Rack { jobs, found, all })
    }

    /// The jobs of a page in their order, and how many there would be on all pages.
    fn rack_ids(&self, page: &RackPage, terms: &[String], stamp: &str) -> Result<(Vec<i64>, u64), StoreError> {
        let mut values: Vec<(String, &dyn ToSql)> = vec![(":from".into(), &page.from), (":most".into(), &page.most)];
        let mut joined = String::new();
        let mut wanted = String::new();
        let of_stage = |term: &str| {
            let proved = stage_of(term)?;
            Some(format!("OR coalesce(v.is_proved, 0) = {}", u8::from(proved)))
        };
        for (at, term) in terms.iter().enumerate() {
            // A job is left at the first of its pieces that has the word, and at the first word that none has.
            wanted += &format!(
                " AND (instr(folded(j.number || ' ' || j.title), :term{at}) > 0 {} OR EXISTS
                 (SELECT 1 FROM pieces p JOIN summaries s ON s.piece_id = p.id
                  WHERE p.job_id = j.id AND p.removed = 0 AND instr(s.words, :term{at}) > 0))",
                of_stage(term).unwrap_or_default()
            );
            values.push((format!(":term{at}"), term));
        }
        if page.sort == RackSort::Stage || terms.iter().any(|term| of_stage(term).is_some()) {
            joined += &format!(
                " LEFT JOIN (SELECT p.job_id AS job, {IS_PROVED} AS is_proved FROM {PIECES} GROUP BY p.job_id) v
                  ON v.job = j.id"
            );
            values.push((":stamp".into(), &stamp));
        }
        let (key, added) = match page.sort {
            RackSort::Number => ("j.number COLLATE as_numbered", None),
            RackSort::Title => ("j.title COLLATE as_numbered", None),
            RackSort::Due => ("coalesce(j.due, '')", None),
            RackSort::Pieces => {
                ("coalesce(f.pieces, 0)", Some("count(*) AS pieces FROM pieces p WHERE p.removed = 0".into()))
            }
            RackSort::Mass => ("coalesce(f.mass, 0)", Some(format!("sum(s.mass) AS mass FROM {PIECES}"))),
            RackSort::Stage => ("coalesce(v.is_proved, 0)", None),
        };
        if let Some(added) = added {
            joined += &format!(" LEFT JOIN (SELECT p.job_id AS job, {added} GROUP BY p.job_id) f ON f.job = j.id");
        }
        let way = if page.down { "DESC" } else { "ASC" };
        let matching = format!("FROM jobs j {joined} WHERE j.removed = 0 {wanted}");
        let mut query = self.connection.prepare_cached(&format!(
            "SELECT j.id, count(*) OVER () {matching} ORDER BY {key} {way}, j.id {way} LIMIT :most OFFSET :from"
        ))?;
        let named: Vec<(&str, &dyn ToSql)> = values.iter().map(|(name, value)| (name.as_str(), *value)).collect();
        let rows = query
            .query_map(&named[..], |row| Ok((row.get::<_, i64>(0)?, row.get::<_, i64>(1)?)))?
            .collect::<Result<Vec<_>, _>>()?;
        let found = match rows.first() {
            Some((_, found)) => found.unsigned_abs(),
            None if page.from == 0 => 0,
            // Nothing is on this page; there may be pages before it.
            None => {
                let counted: Vec<_> =
                    named.iter().filter(|(name, _)| *name != ":from" && *name != ":most").copied().collect();
                self.connection.query_row(&format!("SELECT count(*) {matching}"), &counted[..], count)?
            }
        };
        Ok((rows.into_iter().map(|(id, _)| id).collect(), found))
    }

    /// The pieces that a job was found by: those that have every word that neither the job nor its stage has.
    fn found_by(&self, job: &Job, figures: &Figures, terms: &[String]) -> Result<Vec<FoundPiece>, StoreError> {
        let own = folded(&format!("{} {}", job.number, job.title));
        let open: Vec<&String> = terms
            .iter()
            .filter(|term| !own.contains(term.as_str()) && stage_of(term) != Some(figures.is_proved))
            .collect();
        if open.is_empty() {
            return Ok(Vec::new());
        }
        let has: String = (0..open.len()).map(|at| format!(" AND instr(s.words, ?{}) > 0", at + 3)).collect();
        let mut query = self.connection.prepare_cached(&format!(
            "SELECT p.id, s.mark, s.title FROM pieces p JOIN summaries s ON s.piece_id = p.id
             WHERE p.job_id = ?1 AND p.removed = 0 {has} ORDER BY p.id LIMIT ?2"
        ))?;
        let mut values: Vec<&dyn ToSql> = vec![&job.id, &MOST_FOUND];
        values.extend(open.iter().map(|term| *term as &dyn ToSql));
        let rows = query
            .query_map(&values[..], |row| Ok(FoundPiece { id: row.get(0)?, mark: row.get(1)?, title: row.get(2)? }))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

/// Whether the stage that a word begins is the one of proved jobs; `None` for a word that begins no stage.
fn stage_of(term: &str) -> Option<bool> {
    let called = STAGES.iter().position(|name| term.chars().count() >= SHORTEST_STAGE && name.starts_with(term))?;
    Some(called == 1)
}

fn count(row: &rusqlite::Row<'_>) -> rusqlite::Result<u64> {
    row.get::<_, i64>(0).map(i64::unsigned_abs)
}
