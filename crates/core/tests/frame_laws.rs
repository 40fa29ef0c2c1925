//! Laws of frames on random ones: a cut list does not hang on where a frame stands, on its hand or on the order of its
//! work; a mirrored piece is merged with its opposite hand only where the section lets it; settled corners never clash.

use steelk_testing::law;

use proptest::prelude::*;
use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::frame::FrameLine;
use steelk_core::piece::{Options, Outcome, Piece, evaluate};

fn frame(operations: &[Value]) -> Outcome {
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "FR-1", "title": "Test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations,
    });
    evaluate(&Piece::read(document.to_string().as_bytes()).unwrap(), Options::default())
}

fn lines(outcome: &Outcome) -> &[FrameLine] {
    &outcome.frame().unwrap().made.list.lines
}

/// What must be the same of a list whatever its order and marks.
fn gist(outcome: &Outcome) -> Vec<String> {
    let mut all: Vec<String> = lines(outcome)
        .iter()
        .map(|line| {
            let mut angles: Vec<i64> = line.ends.iter().map(|end| (end.angle * 1e4).round() as i64).collect();
            angles.sort_unstable();
            format!("{} {:.2} {:.2} {:?} x{}", line.section, line.length, line.mass_each * 1e3, angles, line.quantity)
        })
        .collect();
    all.sort();
    all
}

const SECTIONS: [&str; 5] = ["SHS 50x50x3", "CHS 48.3x3.2", "RHS 60x40x3", "L 60x40x5", "UPE 100"];
const LENGTHS: [f64; 3] = [400.0, 750.0, 751.0];
const CUTS: [(f64, f64); 4] = [(0.0, 0.0), (30.0, 0.0), (0.0, 30.0), (25.0, 15.0)];

/// A stick: section, length, cuts of its ends, which way it points in plan (eighths of a turn), hole.
type Stick = (usize, usize, usize, usize, u8, bool);

fn sticks() -> impl Strategy<Value = Vec<Stick>> {
    prop::collection::vec((0..5usize, 0..3usize, 0..4usize, 0..4usize, 0..8u8, any::<bool>()), 1..9)
}

/// Sticks laid apart, the whole turned about the upright by `turn` degrees, and mirrored where asked.
fn laid(sticks: &[Stick], order: &[usize], turn: f64, mirrored: bool) -> Vec<Value> {
    let mut operations = Vec::new();
    for &at in order {
        let (section, length, start, finish, way, hole) = sticks[at];
        let angle = f64::from(way) * 45.0 + turn;
        let (x, y) = (angle.to_radians().cos() * LENGTHS[length], angle.to_radians().sin() * LENGTHS[length]);
        let name = format!("s{at}");
        operations.push(json!({"name": name, "do": {"path": {"start": {"z": format!("{} mm", 300 * at)},
            "legs": [{"by": {"x": format!("{x:.9} mm"), "y": format!("{y:.9} mm")}}]}}}));
        operations
            .push(json!({"name": format!("m{at}"), "do": {"member": {"lines": [name], "section": SECTIONS[section]}}}));
        for (end, which) in [(start, "start"), (finish, "finish")] {
            let (angle, tilt) = CUTS[end];
            operations
                .push(json!({"name": format!("c{at}-{which}"), "do": {"end": {"of": [format!("m{at}")], "at": which,
                "how": {"angle": {"angle": format!("{angle} deg"), "tilt": format!("{tilt} deg")}}}}}));
        }
        if hole {
            operations.push(json!({"name": format!("h{at}"), "do": {"bore": {"of": [format!("m{at}")], "face": "top",
                "diameter": "9 mm", "at": "120 mm"}}}));
        }
    }
    if mirrored {
        // The mirror image of every line and no line of the first: by coordinates, through the copy.
        operations.push(json!({"name": "twin", "do": {"copy": {"how": {"mirror": {"axis": "x", "at": "-5000 mm"}}}}}));
    }
    operations
}

fn sound(outcome: &Outcome) -> Result<(), TestCaseError> {
    let faults: Vec<_> = outcome.findings.iter().filter(|one| one.severity == Severity::Error).collect();
    prop_assert!(faults.is_empty(), "{faults:?}");
    Ok(())
}

proptest! {
    #![proptest_config(law::cases(64))]

    #[test]
    fn a_list_does_not_hang_on_place_or_order(sticks in sticks(), turn in 0.0f64..360.0, seed in any::<u64>()) {
        let mut order: Vec<usize> = (0..sticks.len()).collect();
        let one = frame(&laid(&sticks, &order, 0.0, false));
        sound(&one)?;
        let mut state = seed | 1;
        for at in (1..order.len()).rev() {
            state = state.wrapping_mul(6364136223846793005).wrapping_add(1442695040888963407);
            order.swap(at, (state >> 33) as usize % (at + 1));
        }
        let two = frame(&laid(&sticks, &order, turn, false));
        sound(&two)?;
        prop_assert_eq!(gist(&one), gist(&two));
        prop_assert_eq!(lines(&one).iter().map(|line| line.quantity).sum::<usize>(), sticks.len());
    }

    #[test]
    fn mirrored_work_gives_the_same_list_or_its_opposite_hands(sticks in sticks()) {
        let order: Vec<usize> = (0..sticks.len()).collect();
        // Ends and holes come after the copy's lines: they are named for the first ones only, so the twins are square and
        // plain; what is compared here is the list of plain sticks.
        let plain: Vec<Stick> = sticks.iter().map(|&(section, length, _, _, way, _)| (section, length, 0, 0, way, false)).collect();
        let one = frame(&laid(&plain, &order, 0.0, false));
        let both = frame(&laid(&plain, &order, 0.0, true));
        sound(&both)?;
        prop_assert_eq!(lines(&one).len(), lines(&both).len());
        for (line, twice) in lines(&one).iter().zip(lines(&both)) {
            prop_assert_eq!(line.quantity * 2, twice.quantity);
            prop_assert!(twice.opposite_of.is_none());
        }
    }

    #[test]
    fn a_settled_corner_never_clashes(
        one in (-1.0f64..1.0, -1.0f64..1.0, -1.0f64..1.0),
        two in (-1.0f64..1.0, -1.0f64..1.0, -1.0f64..1.0),
        sections in (0..5usize, 0..5usize),
        roll in 0.0f64..90.0,
        how in 0..2usize,
    ) {
        let length = |v: (f64, f64, f64)| (v.0 * v.0 + v.1 * v.1 + v.2 * v.2).sqrt();
        prop_assume!(length(one) > 0.2 && length(two) > 0.2);
        let dot = (one.0 * two.0 + one.1 * two.1 + one.2 * two.2) / length(one) / length(two);
        // Neither folded back on each other nor straight on.
        prop_assume!(dot.abs() < 0.9);
        let far = |v: (f64, f64, f64)| {
            let size = 900.0 / length(v);
            json!({"x": format!("{:.6} mm", v.0 * size), "y": format!("{:.6} mm", v.1 * size), "z": format!("{:.6} mm", v.2 * size)})
        };
        let how = [json!({"mitre": {}}), json!({"butt": {}})][how].clone();
        let outcome = frame(&[
            json!({"name": "a", "do": {"path": {"start": {}, "legs": [{"by": far(one)}]}}}),
            json!({"name": "b", "do": {"path": {"start": {}, "legs": [{"by": far(two)}]}}}),
            json!({"name": "first", "do": {"member": {"lines": ["a"], "section": SECTIONS[sections.0], "roll": format!("{roll:.3} deg")}}}),
            json!({"name": "second", "do": {"member": {"lines": ["b"], "section": SECTIONS[sections.1]}}}),
            json!({"name": "joint", "do": {"joint": {"at": "corners", "how": how}}}),
        ]);
        // What cannot be cut is said; what is cut does not clash.
        if !outcome.findings.iter().any(|one| one.severity == Severity::Error) {
            prop_assert!(outcome.frame().unwrap().clashes.is_empty(), "{:?}", outcome.frame().unwrap().clashes);
        }
    }
}

#[test]
fn hands_are_told_apart_unless_the_section_forgives_them() {
    // One stick cut alike at both hands: `angle` and its negative are mirror images across the section's up.
    let both = |section: &str, one: (f64, f64), two: (f64, f64)| {
        let mut operations = Vec::new();
        for (at, (angle, tilt)) in [one, two].into_iter().enumerate() {
            operations.push(json!({"name": format!("s{at}"), "do": {"path": {"start": {"z": format!("{} mm", 500 * at)}, "legs": [{"by": {"x": "600 mm"}}]}}}));
            operations.push(
                json!({"name": format!("m{at}"), "do": {"member": {"lines": [format!("s{at}")], "section": section}}}),
            );
            operations.push(json!({"name": format!("c{at}"), "do": {"end": {"of": [format!("m{at}")], "at": "finish",
                "how": {"angle": {"angle": format!("{angle} deg"), "tilt": format!("{tilt} deg")}}}}}));
        }
        let outcome = frame(&operations);
        (lines(&outcome).len(), lines(&outcome)[0].opposite_of.is_some())
    };
    // A plain mitre on a square tube: turned about, it is the same piece.
    assert_eq!(both("SHS 50x50x3", (30.0, 0.0), (-30.0, 0.0)), (1, false));
    // A compound cut has two hands on a square and a rectangle, one on a round.
    assert_eq!(both("SHS 50x50x3", (30.0, 15.0), (-30.0, 15.0)), (2, true));
    assert_eq!(both("RHS 60x40x3", (30.0, 15.0), (-30.0, 15.0)), (2, true));
    assert_eq!(both("CHS 48.3x3.2", (30.0, 15.0), (-30.0, 15.0)), (1, false));
    // On a square tube a mitre this way or that way is one piece; on a rectangle it is not.
    assert_eq!(both("SHS 50x50x3", (30.0, 0.0), (0.0, 30.0)), (1, false));
    assert_eq!(both("RHS 60x40x3", (30.0, 0.0), (0.0, 30.0)), (2, false));
    // A channel's web tells left from right: a slant across the web has two hands, one toward the web is not one away from it.
    assert_eq!(both("UPE 100", (30.0, 0.0), (-30.0, 0.0)), (2, false));
    assert_eq!(both("UPE 100", (0.0, 30.0), (0.0, -30.0)), (2, true));
}
