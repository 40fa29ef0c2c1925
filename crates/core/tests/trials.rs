//! Random pieces over the whole vocabulary: whatever is built without an error agrees with itself in every figure that is found
//! twice. 200 cases a family here; `STEELK_CASES=10000 cargo test --release -p steelk-core --test all trials:: -- --nocapture` for the
//! long run.

use std::collections::BTreeMap;

use serde_json::Value;
use steelk_core::frame::member_body;
use steelk_core::piece::{Options, Piece, audit_fully, evaluate};
use steelk_core::release::ready;
use steelk_core::space::query::{Patch, RimKind, contact};

use steelk_testing::trials;

/// Runs a family: counts what was built and what was refused, and insists that nothing differs.
fn family(name: &str, make: fn(u64) -> Value, least_built: u64) {
    let (mut built, mut refused, mut left) = (0u64, 0u64, BTreeMap::<String, u64>::new());
    let mut faults = Vec::new();
    let cases = trials::cases(200);
    for seed in 0..cases {
        let document = make(seed);
        let piece =
            Piece::read(document.to_string().as_bytes()).unwrap_or_else(|fault| panic!("{name} {seed}: {fault}"));
        let mut outcome = evaluate(&piece, Options::default());
        // What is kept back for a reason of the piece's own: an error, a clash, ends that cross.
        let audit = std::mem::take(&mut outcome.audit);
        if ready(&piece, &outcome).is_err() {
            refused += 1;
            continue;
        }
        built += 1;
        outcome.audit = audit;
        audit_fully(&mut outcome);
        for why in &outcome.audit.left_out {
            *left.entry(why.split(": ").last().unwrap_or_default().chars().take(60).collect()).or_default() += 1;
        }
        let own = outcome.audit.faults();
        if !own.is_empty() {
            faults.push(format!("{name} {seed}: {}\n{document}", own.join("\n  ")));
        }
    }
    println!("{name}: {cases} cases, {built} built, {refused} refused in words; not checked: {left:?}");
    assert!(faults.is_empty(), "{} of {built} differ:\n{}", faults.len(), faults[..faults.len().min(12)].join("\n\n"));
    assert!(built * 100 >= least_built * cases, "only {built} of {cases} were built");
}

#[test]
fn plates_agree_with_themselves() {
    family("plates", trials::plate, 25);
}

#[test]
fn sheets_agree_with_themselves() {
    family("sheets", trials::sheet, 25);
}

#[test]
fn frames_agree_with_themselves() {
    family("frames", trials::frame, 25);
}

#[test]
fn joints_agree_with_themselves() {
    family("joints", trials::joints, 25);
}

/// What the long run found, each once: an end on two rounds summed too coarsely (205, 8563, 9569), corners of an end of two planes left
/// out of the second reading of the size (4552, 7010), a member's reach where three surfaces of an end meet (8207) and where two rounds do (1330, 7390, 9346, 9395: up to 4 mm of bar), a cut
/// into an end on three rounds (275), and cuts behind an end on two rounds whose cells were parted by the rounds as they stand and as
/// they stand further back (541, 699, 4815, 5477, 6673: bodies up to 4 % off).
#[test]
fn seeds_that_once_differed_agree() {
    for seed in [205, 275, 8563, 1330, 4552, 7010, 7390, 8207, 9346, 9395, 9569, 541, 699, 4815, 5477, 6673] {
        let piece = Piece::read(trials::joints(seed).to_string().as_bytes()).unwrap();
        let mut outcome = evaluate(&piece, Options::default());
        audit_fully(&mut outcome);
        assert_eq!(outcome.audit.faults(), Vec::<String>::new(), "{seed}");
    }
}

/// Two pieces that lie on each other do so whichever is asked first: the same rims, each of the same kind seen from the other side.
#[test]
fn contact_is_the_same_from_both_pieces() {
    let (mut patches, mut pairs) = (0, 0);
    // Every two bodies of a frame are asked, near or far: a quarter of the cases.
    for seed in 0..trials::cases(200) / 4 {
        let piece = Piece::read(trials::frame(seed).to_string().as_bytes()).unwrap();
        let Some(frame) = evaluate(&piece, Options::default()).into_frame() else { continue };
        let made = &frame.made.frame;
        let plates = made.plates.iter().filter_map(|plate| {
            let body = steelk_core::sheet::folded_body(&plate.part.flat).ok()?;
            Some(body.moved(&plate.basis.motion(), str::to_string))
        });
        let bodies: Vec<_> = made.members.iter().filter_map(|member| member_body(member).ok()).chain(plates).collect();
        for (at, one) in bodies.iter().enumerate() {
            for two in &bodies[at + 1..] {
                // Length of each kind of rim, as the first piece sees it.
                let seen = |found: Vec<Patch>, turned: bool| {
                    let mut lengths = [0.0; 4];
                    for rim in found.iter().flat_map(|patch| &patch.rims) {
                        let kind = match (rim.kind, turned) {
                            (RimKind::FirstStops, false) | (RimKind::SecondStops, true) => 0,
                            (RimKind::FirstStops, true) | (RimKind::SecondStops, false) => 1,
                            (RimKind::BothStop, _) => 2,
                            (RimKind::Flare, _) => 3,
                        };
                        lengths[kind] += rim.length;
                    }
                    (found.len(), lengths)
                };
                let (there, back) = (seen(contact(one, two, 5.0), false), seen(contact(two, one, 5.0), true));
                assert_eq!(there.0, back.0, "seed {seed}");
                for (kind, (one, two)) in there.1.iter().zip(&back.1).enumerate() {
                    assert!((one - two).abs() < 0.02, "seed {seed}, kind {kind}: {one} mm and {two} mm");
                }
                patches += there.0;
                pairs += usize::from(there.0 > 0);
            }
        }
    }
    println!("{pairs} pairs lie on each other in {patches} places");
    assert!(pairs > 50);
}

#[test]
#[ignore = "writes documents to STEELK_OUT, for scripts/compare_files.sh"]
fn documents_for_comparison() {
    let out = std::path::PathBuf::from(std::env::var("STEELK_OUT").expect("STEELK_OUT is the folder to write to"));
    std::fs::create_dir_all(&out).unwrap();
    let families: [(&str, fn(u64) -> Value); 4] =
        [("plate", trials::plate), ("sheet", trials::sheet), ("frame", trials::frame), ("joints", trials::joints)];
    for (name, make) in families {
        for seed in 0..trials::cases(500) {
            std::fs::write(out.join(format!("{name}-{seed}.json")), make(seed).to_string()).unwrap();
        }
    }
}
