//! Bars against bounds and against instances whose answer is known.

use proptest::prelude::*;
use steelk_core::nest::{BarPiece, BarProblem, BarResult, StockBar, nest};

fn problem(bar: f64, kerf: f64, pieces: &[(f64, usize)]) -> BarProblem {
    BarProblem {
        stock: vec![StockBar { length: bar, quantity: None }],
        kerf,
        pieces: pieces
            .iter()
            .enumerate()
            .map(|(at, &(length, quantity))| BarPiece { mark: format!("P{}", at + 1), length, quantity, shared: 0.0 })
            .collect(),
        ..BarProblem::default()
    }
}

/// Every piece is there as often as asked, no bar is over-filled, limits are kept, the bounds are below the result.
fn check(problem: &BarProblem, result: &BarResult) {
    let length = |mark: &String| problem.pieces.iter().find(|piece| piece.mark == *mark).unwrap().length;
    for bar in &result.plan {
        let lengths: Vec<f64> = bar.marks.iter().map(length).collect();
        assert!(!lengths.is_empty() && problem.fits(&lengths, bar.stock), "{bar:?}");
    }
    for piece in &problem.pieces {
        let count = result.plan.iter().flat_map(|bar| &bar.marks).filter(|mark| **mark == piece.mark).count();
        assert_eq!(count, piece.quantity, "{}", piece.mark);
    }
    for stock in &problem.stock {
        let used = result.plan.iter().filter(|bar| (bar.stock - stock.length).abs() < 1e-9).count();
        assert!(stock.quantity.is_none_or(|most| used <= most));
    }
    assert_eq!(result.bars_used, result.plan.len());
    assert!(result.lower_bound <= result.bars_used);
    // Nothing uses less metal than its pieces, and the bound says no less.
    let pieces: f64 = problem.pieces.iter().map(|piece| piece.length * piece.quantity as f64).sum();
    assert!((result.length_cut - pieces).abs() < 1e-6 * pieces.max(1.0), "{} {pieces}", result.length_cut);
    assert!(result.length_bound + 1e-6 * pieces.max(1.0) >= pieces, "{} {pieces}", result.length_bound);
    assert!(result.length_bound <= result.length_used + 1e-6);
}

#[test]
fn a_list_whose_answer_is_known() {
    // Three of 2000 - 3 kerfs do not fit 6000, two do: 7 pieces take 4 bars.
    let list = problem(6000.0, 3.0, &[(2000.0, 7)]);
    let result = nest(&list, &mut |_| true).unwrap();
    check(&list, &result);
    assert_eq!((result.bars_used, result.lower_bound, result.optimal), (4, 4, true));
    // With no kerf three fit exactly.
    let list = problem(6000.0, 0.0, &[(2000.0, 7)]);
    assert_eq!(nest(&list, &mut |_| true).unwrap().bars_used, 3);
    // The last kerf is not counted: 3 x 1998 + 2 x 3 = 6000.
    let list = problem(6000.0, 3.0, &[(1998.0, 3)]);
    assert_eq!(nest(&list, &mut |_| true).unwrap().bars_used, 1);
}

#[test]
fn a_published_instance() {
    // Gilmore and Gomory's kind of instance as text books give it: bars of 100, 97 of 45, 610 of 36, 395 of 31, 211 of 14;
    // the least number of bars is 453 (Chvatal, Linear Programming, 1983, chapter 13: 452.25 relaxed).
    let list = problem(100.0, 0.0, &[(45.0, 97), (36.0, 610), (31.0, 395), (14.0, 211)]);
    let result = nest(&list, &mut |_| true).unwrap();
    check(&list, &result);
    assert_eq!((result.bars_used, result.lower_bound, result.optimal), (453, 453, true));
}

#[test]
fn several_lengths_use_the_least_length() {
    let mut list = problem(6000.0, 0.0, &[(3500.0, 4)]);
    list.stock.push(StockBar { length: 7000.0, quantity: None });
    list.stock.push(StockBar { length: 3600.0, quantity: Some(1) });
    let result = nest(&list, &mut |_| true).unwrap();
    check(&list, &result);
    // Two of 7000 take four pieces: 14000; an offcut of 3600 and others would take more.
    assert_eq!(result.length_used, 14000.0);
    assert!(result.optimal);
    list.pieces[0].quantity = 5;
    let result = nest(&list, &mut |_| true).unwrap();
    check(&list, &result);
    assert_eq!(result.length_used, 17600.0);
}

#[test]
fn what_cannot_be_cut_is_told() {
    let list = problem(6000.0, 3.0, &[(6001.0, 1), (100.0, 2)]);
    let fault = nest(&list, &mut |_| true).unwrap_err();
    assert_eq!(fault.too_long, vec!["P1".to_string()]);
    let mut list = problem(6000.0, 3.0, &[(3000.0, 5)]);
    list.stock[0].quantity = Some(2);
    assert!(nest(&list, &mut |_| true).unwrap_err().message.contains("do not reach"));
    assert!(nest(&problem(6000.0, -1.0, &[(10.0, 1)]), &mut |_| true).is_err());
    assert!(nest(&problem(6000.0, 0.0, &[(f64::NAN, 1)]), &mut |_| true).is_err());
    assert_eq!(nest(&problem(6000.0, 0.0, &[]), &mut |_| true).unwrap().bars_used, 0);
}

#[test]
fn trims_and_grip_are_kept_off() {
    let mut list = problem(6000.0, 3.0, &[(1995.0, 3)]);
    assert_eq!(nest(&list, &mut |_| true).unwrap().bars_used, 1);
    list.end_trim = 5.0;
    list.grip = 40.0;
    let result = nest(&list, &mut |_| true).unwrap();
    check(&list, &result);
    assert_eq!(result.bars_used, 2);
}

#[test]
fn sixty_types_of_six_hundred_pieces_are_proved() {
    let mut seed = 12345u64;
    let mut next = move |most: u64| {
        seed = seed.wrapping_mul(6364136223846793005).wrapping_add(1442695040888963407);
        (seed >> 33) % most
    };
    for _ in 0..3 {
        let pieces: Vec<(f64, usize)> = (0..60).map(|_| (200.0 + next(2300) as f64, 1 + next(19) as usize)).collect();
        let list = problem(6000.0, 3.0, &pieces);
        let result = nest(&list, &mut |_| true).unwrap();
        check(&list, &result);
        assert!(result.optimal, "{} of {}", result.bars_used, result.lower_bound);
    }
}

#[test]
fn the_search_can_be_ended() {
    let list = problem(6000.0, 3.0, &[(1234.0, 7), (987.0, 9), (2500.0, 5)]);
    let result = nest(&list, &mut |_| false).unwrap();
    check(&list, &result);
}

/// The fewest bars of a few pieces by trying everything.
fn fewest(bar: f64, lengths: &mut Vec<f64>, open: &mut Vec<f64>, best: &mut usize) {
    if open.len() >= *best {
        return;
    }
    let Some(length) = lengths.pop() else {
        *best = open.len();
        return;
    };
    for at in 0..open.len() {
        if open[at] + length <= bar + 1e-9 {
            open[at] += length;
            fewest(bar, lengths, open, best);
            open[at] -= length;
        }
    }
    open.push(length);
    fewest(bar, lengths, open, best);
    open.pop();
    lengths.push(length);
}

#[test]
fn mitres_are_turned_to_share_a_cut() {
    // Pieces of 1050 long and 950 short at 45 deg of a 50 mm side: six of them straight take 6 x 1050 + 5 x 3 = 6315 mm, more
    // than a bar; turned about, 6 x 1000 + 50 + kerfs on the slant 6 x 3 x sqrt 2 = 6075 mm, five and a half do not fit either;
    // on a bar of 6100 mm turned ones do.
    let slant = 50.0 - 3.0 * (2f64.sqrt() - 1.0);
    let mut list = problem(6100.0, 3.0, &[(1050.0, 6)]);
    assert_eq!(nest(&list, &mut |_| true).unwrap().bars_used, 2);
    list.pieces[0].shared = slant;
    let result = nest(&list, &mut |_| true).unwrap();
    assert_eq!((result.bars_used, result.lower_bound, result.optimal), (1, 1, true));
    assert_eq!(result.turned, vec!["P1".to_string()]);
    // What it needs, by hand: the trapezoids side by side, and a slanted kerf between each.
    let needed = 6.0 * 1000.0 + 50.0 + 5.0 * 3.0 * 2f64.sqrt();
    assert!(needed <= 6100.0 && result.plan[0].offcut <= 6100.0 - needed + 1e-6, "{needed} {:?}", result.plan[0]);
    // A bar that is a little too short for it is not over-filled.
    list.stock[0].length = needed - 1.0;
    assert_eq!(nest(&list, &mut |_| true).unwrap().bars_used, 2);
    // Of two kinds of mitre the commoner is turned; the other keeps its length.
    list.stock[0].length = 6100.0;
    list.pieces.push(BarPiece { mark: "P2".into(), length: 700.0, quantity: 1, shared: 20.0 });
    let result = nest(&list, &mut |_| true).unwrap();
    assert_eq!(result.bars_used, 2);
    assert!(result.lower_bound <= 2 && !result.turned.contains(&"P2".to_string()));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]
    #[test]
    fn small_lists_are_as_good_as_trying_everything(
        lengths in prop::collection::vec(5u32..60, 1..9),
        kerf in 0u32..3,
    ) {
        let pieces: Vec<(f64, usize)> = lengths.iter().map(|&length| (f64::from(length), 1)).collect();
        let list = problem(100.0, f64::from(kerf), &pieces);
        let result = nest(&list, &mut |_| true).unwrap();
        check(&list, &result);
        let mut best = lengths.len() + 1;
        let mut sizes: Vec<f64> = lengths.iter().map(|&length| f64::from(length + kerf)).collect();
        fewest(100.0 + f64::from(kerf), &mut sizes, &mut Vec::new(), &mut best);
        prop_assert!(result.lower_bound <= best);
        prop_assert!(result.bars_used >= best);
        if result.optimal {
            prop_assert_eq!(result.bars_used, best);
        }
    }

    #[test]
    fn no_bar_is_over_filled(
        pieces in prop::collection::vec((50u32..3000, 1usize..12), 1..25),
        bars in prop::collection::vec(3100u32..8000, 1..3),
        kerf in 0u32..5, trim in 0u32..20,
    ) {
        let mut list = problem(6000.0, f64::from(kerf), &pieces.iter().map(|&(length, count)| (f64::from(length), count)).collect::<Vec<_>>());
        list.stock = bars.iter().map(|&length| StockBar { length: f64::from(length), quantity: None }).collect();
        list.end_trim = f64::from(trim);
        let result = nest(&list, &mut |at| at.rounds < 4).unwrap();
        check(&list, &result);
    }
}

/// 600 lengths, all different: the relaxation alone would take minutes. Whoever says stop is not asked many times more, has a plan
/// that holds, and a bound that no plan goes below.
#[test]
fn a_long_list_ends_when_it_is_told_to() {
    let pieces: Vec<(f64, usize)> = (0..600).map(|at| (100.0 + f64::from(at * 7919 % 24_001) / 10.0, 1)).collect();
    let list = problem(6000.0, 2.0, &pieces);
    // Every piece with its kerf, on bars with one kerf more.
    let least = (pieces.iter().map(|(length, _)| length + 2.0).sum::<f64>() / 6002.0).ceil() as usize;
    for most in [0, 1, 25] {
        let mut asked = 0;
        let result = nest(&list, &mut |_| {
            asked += 1;
            asked <= most
        })
        .unwrap();
        check(&list, &result);
        assert!(asked <= most + 4, "asked {asked} times, told to stop after {most}");
        assert!((least..=result.bars_used).contains(&result.lower_bound), "{} of {least}", result.lower_bound);
        assert!(result.bars_used <= least + least / 10, "{} bars where {least} might do", result.bars_used);
    }
}

/// Counts beyond what a number holds are too many, and not few.
#[test]
fn counts_never_wrap() {
    let list = problem(6000.0, 2.0, &[(100.0, usize::MAX), (200.0, 2)]);
    let refused = nest(&list, &mut |_| true).unwrap_err();
    assert!(refused.message.contains("too many"), "{refused}");
}
