//! Two works at the same time: only where a core is lent, with the same answers, and with every fault passed on.

use std::panic::catch_unwind;
use std::sync::Barrier;
use std::thread::current;

use steelk_core::beside::{both, lent};
use steelk_core::patience;

fn threads() -> bool {
    let (one, other) = both(|| current().id(), || current().id());
    one != other
}

#[test]
fn a_second_thread_works_only_where_it_is_lent() {
    assert!(!threads());
    assert!(lent(threads));
    // What is done on the other thread has it too; after the work it is given back.
    assert!(lent(|| both(|| (), threads).1));
    assert!(!threads());
    // A work that may be told to end stays where it can be.
    assert_eq!(patience::with(|| true, || lent(threads)), Ok(false));
}

/// Each waits for the other: one after the other they would never end.
#[test]
fn they_run_at_the_same_time_and_answer_in_their_order() {
    let meet = Barrier::new(2);
    let work = |answer: u32| {
        meet.wait();
        answer
    };
    assert_eq!(lent(|| both(|| work(1), || work(2))), (1, 2));
    assert_eq!(both(|| 1, || 2), (1, 2));
}

#[test]
fn a_fault_of_either_is_a_fault() {
    for lend in [false, true] {
        for bad in [0, 1] {
            let work = |own: i32| assert!(own != bad, "work {own} broke");
            let run = || both(|| work(0), || work(1));
            let thrown = catch_unwind(|| if lend { lent(run) } else { run() }).expect_err("it broke");
            assert_eq!(thrown.downcast_ref::<String>(), Some(&format!("work {bad} broke")));
        }
    }
    assert!(!threads());
}
