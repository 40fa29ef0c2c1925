//! From the relaxation to whole bars.

use super::columns::{Bar, Pattern, relax};
use super::knapsack::{Item, fill, sort};
use super::{BarPlan, BarProblem, BarResult, MOST_PIECES, NestError, NestProgress};
use crate::quantity::tolerance::{ROUNDING, WHOLE};

/// What a typed length may be above a whole step by rounding, in steps of [`FINE`]: it is not rounded up to the next.
const TYPED: f64 = 1e-4;
/// What the room in a bar may be short of a whole step by rounding, in steps of [`FINE`].
const ROOM: f64 = 1e-3;
/// How far a pattern may be short of being cut once more.
const TIMES: f64 = 1e-7;

/// Micrometres in a millimetre: lengths are compared as whole micrometres, so that a plan never hangs on rounding.
const FINE: f64 = 1000.0;

struct Job {
    bars: Vec<Bar>,
    lengths: Vec<i64>,
    sizes: Vec<i64>,
    demand: Vec<usize>,
}

type Cuts = Vec<Pattern>;

/// Solves a list. `go_on` is asked between rounds, so that a caller can show progress, end it, or bound its time; without it
/// the search ends by itself after a bounded number of rounds.
///
/// # Errors
/// [`NestError`]: no bars, sizes that cannot be, pieces longer than every bar, stock that does not reach.
pub(super) fn nest_straight(
    problem: &BarProblem,
    go_on: &mut dyn FnMut(NestProgress) -> bool,
) -> Result<BarResult, NestError> {
    let refuse = |message: String, way_out: &str| NestError { message, way_out: way_out.into(), too_long: Vec::new() };
    if problem.stock.is_empty() {
        return Err(refuse("there are no bars to cut from".into(), "Name at least one stock length."));
    }
    let total = problem.pieces.iter().fold(0usize, |sum, piece| sum.saturating_add(piece.quantity));
    if total > MOST_PIECES {
        return Err(refuse(format!("{total} pieces are too many: {MOST_PIECES} at most"), "Split the list."));
    }
    for (what, value) in [("kerf", problem.kerf), ("end trim", problem.end_trim), ("grip", problem.grip)] {
        if !value.is_finite() || value < 0.0 {
            return Err(refuse(format!("a {what} of {value} mm cannot be"), "Type 0 mm or more."));
        }
    }
    let bad = |length: f64| !length.is_finite() || length <= 0.0 || length > 1e6;
    if let Some(bar) = problem.stock.iter().find(|bar| bad(bar.length)) {
        return Err(refuse(format!("a bar of {} mm cannot be", bar.length), "Type a length above 0 mm, within 1 km."));
    }
    if let Some(piece) = problem.pieces.iter().find(|piece| bad(piece.length)) {
        return Err(refuse(
            format!("a piece {} of {} mm cannot be", piece.mark, piece.length),
            "Type a length above 0 mm, within 1 km.",
        ));
    }
    let (job, marks) = job_of(problem)?;
    if job.demand.is_empty() {
        return Ok(BarResult { optimal: true, ..BarResult::default() });
    }
    let costs: Vec<f64> = job.bars.iter().map(|bar| bar.cost).collect();
    let one_length = costs.iter().all(|cost| (cost - costs[0]).abs() < 0.5);
    let mut pool = Vec::new();
    // A plan first, however short the time.
    let first = greedy(&job, job.demand.clone(), Vec::new(), &mut Random(1), false);
    let found = first.as_ref().map_or(usize::MAX, Vec::len);
    let mut still = || go_on(NestProgress { rounds: 0, bars: found, bound: 0 });
    let relaxed = relax(&job.bars, &job.sizes, &job.demand, &mut pool, &mut still);
    if !relaxed.feasible && !relaxed.ended {
        return Err(refuse(
            "the bars in hand do not reach for these pieces".into(),
            "Add bars, or a stock length without limit.",
        ));
    }
    let grain = costs.iter().fold(0, |sum, &cost| divisor(sum, cost.round() as i64)).max(1) as f64;
    // What the pieces fill is a bound as well, and the only one where the time was short.
    let filled: f64 = job.sizes.iter().zip(&job.demand).map(|(size, count)| *size as f64 * *count as f64).sum();
    let by_room = |cost: &dyn Fn(&Bar) -> f64| {
        let each = job.bars.iter().filter(|bar| bar.room > 0 && bar.most != Some(0));
        filled * each.map(|bar| cost(bar) / bar.room as f64).fold(f64::INFINITY, f64::min)
    };
    let proved = relaxed.bound.max(by_room(&|bar| bar.cost));
    let length_bound = (proved / grain - WHOLE).ceil() * grain;
    let bar_bound = if one_length {
        (proved / costs[0] - WHOLE).ceil() as usize
    } else {
        let even: Vec<Bar> = job.bars.iter().map(|bar| Bar { cost: 1.0, ..bar.clone() }).collect();
        let mut own = Vec::new();
        let relaxed = relax(&even, &job.sizes, &job.demand, &mut own, &mut still);
        (relaxed.bound.max(by_room(&|_| 1.0)) - WHOLE).ceil() as usize
    };
    let score = |plan: &Cuts| (plan.iter().map(|cut| costs[cut.bar]).sum::<f64>(), plan.len());
    let better = |one: &Cuts, two: &Cuts| {
        let ((a, m), (b, n)) = (score(one), score(two));
        a < b - 0.5 || (a < b + 0.5 && m < n)
    };
    let is_best = |plan: &Cuts| {
        let (length, bars) = score(plan);
        length <= length_bound + 0.5 && (one_length || bars <= bar_bound)
    };
    let mut random = Random(0x9e37_79b9_7f4a_7c15);
    let mut best: Option<Cuts> = None;
    let rounds = if total > 3000 { 12 } else { 400 };
    for round in 0..rounds {
        let tried = match round {
            0 => first.clone(),
            _ if round % 4 == 0 || relaxed.ended => greedy(&job, job.demand.clone(), Vec::new(), &mut random, true),
            _ => {
                let bars = best.as_ref().map_or(usize::MAX, Vec::len);
                let mut still = || go_on(NestProgress { rounds: round, bars, bound: bar_bound });
                dive(&job, &mut pool, relaxed.used.clone(), &mut random, round > 1, &mut still)
            }
        };
        if let Some(plan) = tried
            && best.as_ref().is_none_or(|known| better(&plan, known))
        {
            best = Some(plan);
        }
        let bars = best.as_ref().map_or(usize::MAX, Vec::len);
        if best.as_ref().is_some_and(is_best)
            || !go_on(NestProgress { rounds: round + 1, bars, bound: bar_bound }) && best.is_some()
        {
            break;
        }
    }
    let Some(best) = best else {
        return Err(refuse(
            "no plan was found with the bars in hand, though their length may reach".into(),
            "Add a bar or two, or a stock length without limit.",
        ));
    };
    let optimal = is_best(&best);
    Ok(told(problem, &job, &marks, best, bar_bound, length_bound / FINE, optimal))
}

fn divisor(a: i64, b: i64) -> i64 {
    if b == 0 { a.abs() } else { divisor(b, a % b) }
}

/// Pieces of one length are one, whatever their marks.
fn job_of(problem: &BarProblem) -> Result<(Job, Vec<Vec<(String, usize)>>), NestError> {
    let fine = |length: f64| (length * FINE - TYPED).ceil() as i64;
    let bars: Vec<Bar> = problem
        .stock
        .iter()
        .map(|bar| Bar {
            cost: (bar.length * FINE).round(),
            room: (problem.room(bar) * FINE + ROOM).floor() as i64,
            most: bar.quantity,
        })
        .collect();
    let kerf = (problem.kerf * FINE).round() as i64;
    let longest = bars.iter().filter(|bar| bar.most != Some(0)).map(|bar| bar.room).max().unwrap_or(0);
    let mut all: Vec<(i64, Vec<(String, usize)>)> = Vec::new();
    let mut too_long = Vec::new();
    for piece in problem.pieces.iter().filter(|piece| piece.quantity > 0) {
        let length = fine(piece.length);
        if length + kerf > longest {
            too_long.push(piece.mark.clone());
            continue;
        }
        match all.iter_mut().find(|(known, _)| *known == length) {
            Some((_, marks)) => marks.push((piece.mark.clone(), piece.quantity)),
            None => all.push((length, vec![(piece.mark.clone(), piece.quantity)])),
        }
    }
    if !too_long.is_empty() {
        let most = (longest - kerf) as f64 / FINE;
        return Err(NestError {
            message: format!("{} longer than any bar gives ({most:.1} mm)", list(&too_long)),
            way_out: "Take longer bars, or splice the piece from two.".into(),
            too_long,
        });
    }
    all.sort_by_key(|(length, _)| std::cmp::Reverse(*length));
    let job = Job {
        bars,
        lengths: all.iter().map(|(length, _)| *length).collect(),
        sizes: all.iter().map(|(length, _)| length + kerf).collect(),
        demand: all.iter().map(|(_, marks)| marks.iter().map(|(_, count)| count).sum()).collect(),
    };
    Ok((job, all.into_iter().map(|(_, marks)| marks).collect()))
}

fn list(marks: &[String]) -> String {
    let verb = if marks.len() == 1 { "is" } else { "are" };
    format!("{} {verb}", marks.join(", "))
}

/// Fills bar after bar as full as it goes; shaken, each piece's worth varies so that the fills differ.
fn greedy(job: &Job, mut demand: Vec<usize>, mut plan: Cuts, random: &mut Random, shaken: bool) -> Option<Cuts> {
    let mut used = vec![0usize; job.bars.len()];
    plan.iter().for_each(|cut| used[cut.bar] += 1);
    while demand.iter().any(|&count| count > 0) {
        let mut items: Vec<Item> = (0..demand.len())
            .filter(|&piece| demand[piece] > 0)
            .map(|piece| {
                // Long pieces a little dearer than their length: they are the hard ones.
                let size = job.sizes[piece] as f64;
                let shake = if shaken { 1.0 + 0.06 * random.next() } else { 1.0 };
                Item { piece, size: job.sizes[piece], value: size.powf(1.02) * shake, most: demand[piece] }
            })
            .collect();
        sort(&mut items);
        let mut chosen: Option<(f64, Pattern)> = None;
        for (index, bar) in job.bars.iter().enumerate() {
            if bar.most.is_some_and(|most| used[index] >= most) {
                continue;
            }
            let found = fill(&items, bar.room);
            let counts: Vec<(usize, usize)> = found
                .counts
                .iter()
                .zip(&items)
                .filter(|(count, _)| **count > 0)
                .map(|(count, item)| (item.piece, *count))
                .collect();
            if counts.is_empty() {
                continue;
            }
            let filled: i64 = counts.iter().map(|&(piece, count)| job.sizes[piece] * count as i64).sum();
            let share = filled as f64 / bar.cost;
            if chosen.as_ref().is_none_or(|(known, _)| share > *known + ROUNDING) {
                chosen = Some((share, Pattern { bar: index, counts }));
            }
        }
        let (_, pattern) = chosen?;
        // As often as the demand allows.
        let mut times = pattern.counts.iter().map(|&(piece, count)| demand[piece] / count).min().unwrap_or(1).max(1);
        if let Some(most) = job.bars[pattern.bar].most {
            times = times.min(most - used[pattern.bar]);
        }
        for &(piece, count) in &pattern.counts {
            demand[piece] -= count * times;
        }
        used[pattern.bar] += times;
        plan.extend(std::iter::repeat_n(pattern, times));
    }
    Some(plan)
}

/// Takes whole patterns of the relaxation, solves what is left again, until little is left; that is filled greedily both
/// ways and the better is taken.
fn dive(
    job: &Job,
    pool: &mut Vec<Pattern>,
    first: Vec<(Pattern, f64)>,
    random: &mut Random,
    shaken: bool,
    go_on: &mut dyn FnMut() -> bool,
) -> Option<Cuts> {
    let mut demand = job.demand.clone();
    let mut bars = job.bars.clone();
    let mut plan: Cuts = Vec::new();
    let mut used = first;
    loop {
        let mut taken = false;
        let mut order: Vec<usize> = (0..used.len()).collect();
        order.sort_by(|&one, &two| used[two].1.total_cmp(&used[one].1));
        for &at in &order {
            let (pattern, often) = &used[at];
            let mut times = (often + TIMES).floor() as usize;
            // A shaken dive leaves some whole patterns for later, so that ends differ.
            if shaken && times > 0 && random.next() < 0.25 {
                times -= 1;
            }
            for &(piece, count) in &pattern.counts {
                times = times.min(demand[piece] / count);
            }
            if times > 0 {
                take(pattern, times, &mut demand, &mut bars, &mut plan);
                taken = true;
            }
        }
        if demand.iter().all(|&count| count == 0) {
            return Some(plan);
        }
        if !taken {
            // No whole one: the nearest to one, or another of the near ones.
            let pick = if shaken { (random.next() * random.next() * order.len().min(5) as f64) as usize } else { 0 };
            let at = *order.get(pick.min(order.len().saturating_sub(1)))?;
            let (pattern, _) = &used[at];
            let fits = pattern.counts.iter().all(|&(piece, count)| count <= demand[piece]);
            let cut: Vec<(usize, usize)> = pattern
                .counts
                .iter()
                .map(|&(piece, count)| (piece, count.min(demand[piece])))
                .filter(|(_, count)| *count > 0)
                .collect();
            if cut.is_empty() || (!fits && order.len() == 1) {
                return greedy(job, demand, plan, random, shaken);
            }
            take(&Pattern { bar: pattern.bar, counts: cut }, 1, &mut demand, &mut bars, &mut plan);
        }
        if demand.iter().all(|&count| count == 0) {
            return Some(plan);
        }
        let relaxed = relax(&bars, &job.sizes, &demand, pool, go_on);
        if relaxed.used.is_empty() || !relaxed.feasible || relaxed.ended {
            return greedy(job, demand, plan, random, shaken);
        }
        used = relaxed.used;
    }
}

fn take(pattern: &Pattern, times: usize, demand: &mut [usize], bars: &mut [Bar], plan: &mut Cuts) {
    for &(piece, count) in &pattern.counts {
        demand[piece] -= count * times;
    }
    if let Some(most) = &mut bars[pattern.bar].most {
        *most = most.saturating_sub(times);
    }
    plan.extend(std::iter::repeat_n(pattern.clone(), times));
}

fn told(
    problem: &BarProblem,
    job: &Job,
    marks: &[Vec<(String, usize)>],
    mut cuts: Cuts,
    lower_bound: usize,
    length_bound: f64,
    optimal: bool,
) -> BarResult {
    // Bars of one pattern beside each other, the longest and fullest first.
    cuts.sort_by(|one, two| {
        job.bars[two.bar].cost.total_cmp(&job.bars[one.bar].cost).then_with(|| one.counts.cmp(&two.counts))
    });
    let mut left: Vec<Vec<(String, usize)>> = marks.to_vec();
    let mut plan = Vec::new();
    for cut in &cuts {
        let mut own = Vec::new();
        let mut filled = 0i64;
        let mut counts = cut.counts.clone();
        counts.sort_unstable();
        for (piece, count) in counts {
            for _ in 0..count {
                let Some(slot) = left[piece].iter_mut().find(|(_, count)| *count > 0) else { continue };
                slot.1 -= 1;
                own.push(slot.0.clone());
                filled += job.sizes[piece];
            }
        }
        let bar = &problem.stock[cut.bar];
        let offcut = (problem.room(bar) * FINE - filled as f64) / FINE - problem.kerf;
        plan.push(BarPlan { stock: bar.length, marks: own, offcut: offcut.max(0.0) });
    }
    BarResult {
        bars_used: plan.len(),
        lower_bound,
        length_used: plan.iter().map(|bar| bar.stock).sum(),
        length_bound,
        optimal,
        length_cut: job
            .lengths
            .iter()
            .zip(&job.demand)
            .map(|(length, count)| *length as f64 * *count as f64 / FINE)
            .sum(),
        plan,
        turned: Vec::new(),
    }
}

/// A small generator with a fixed start: the same list gives the same plan (xorshift64*).
struct Random(u64);

impl Random {
    /// From 0 to 1.
    fn next(&mut self) -> f64 {
        self.0 ^= self.0 >> 12;
        self.0 ^= self.0 << 25;
        self.0 ^= self.0 >> 27;
        (self.0.wrapping_mul(0x2545_f491_4f6c_dd1d) >> 11) as f64 / (1u64 << 53) as f64
    }
}
