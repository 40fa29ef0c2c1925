//! The simulated saw and drill line on files of the writer, on files with faults, and on anything.

use proptest::prelude::*;
use serde_json::{Value, json};
use steelk_core::frame::{Member, end_words};
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_cutter::saw::{SawWanted, read, run};
use steelk_formats::nc1::{Heading, write};

fn member(section: &str, more: &[Value]) -> Member {
    let mut operations = vec![
        json!({"name": "run", "do": {"path": {"start": {}, "legs": [{"by": {"x": "800 mm"}}]}}}),
        json!({"name": "bar", "do": {"member": {"lines": ["run"], "section": section}}}),
    ];
    operations.extend(more.iter().cloned());
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "FR-1", "title": "Test", "quantity": 1, "unit": "mm",
        "stock": {"material": "S275"}, "operations": operations,
    });
    let piece = Piece::read(document.to_string().as_bytes()).unwrap();
    evaluate(&piece, Options::default()).frame.unwrap().made.frame.members.remove(0)
}

fn wanted(member: &Member) -> SawWanted {
    SawWanted {
        length: member.length(),
        angles: [end_words(member, false, 0.0).angle, end_words(member, true, 0.0).angle],
        holes: member.bores.iter().map(|bore| if bore.one_wall { 1 } else { 2 }).sum(),
    }
}

fn heading(quantity: usize) -> Heading<'static> {
    Heading { order: "TS-104", drawing: "frame", mark: "P1", quantity }
}

#[test]
fn what_is_written_is_sawn_as_listed() {
    let cuts = |angle: &str, tilt: &str| {
        vec![
            json!({"name": "one", "do": {"end": {"of": ["bar"], "at": "start", "how": {"angle": {"angle": angle}}}}}),
            json!({"name": "two", "do": {"end": {"of": ["bar"], "at": "finish", "how": {"angle": {"angle": "-30 deg", "tilt": tilt}}}}}),
            json!({"name": "holes", "do": {"bore": {"of": ["bar"], "face": "left", "diameter": "9 mm", "at": "200 mm", "count": "3", "spacing": "60 mm"}}}),
        ]
    };
    for section in ["SHS 50x50x3", "RHS 80x40x4", "L 60x60x6", "UPE 100", "IPE 100", "FL 50x8"] {
        for (angle, tilt) in [("0 deg", "0 deg"), ("45 deg", "0 deg"), ("20 deg", "15 deg")] {
            let bar = member(section, &cuts(angle, tilt));
            let text = write(&bar, &heading(4)).unwrap();
            let job = read(&text).unwrap_or_else(|fault| panic!("{section}: {fault}\n{text}"));
            assert_eq!((job.mark.as_str(), job.quantity, job.section.as_str()), ("P1", 4, section));
            let sawn = run(&job, &wanted(&bar));
            assert!(sawn.faults.is_empty(), "{section} {angle} {tilt}: {:?}\n{text}", sawn.faults);
        }
    }
}

#[test]
fn faults_are_found() {
    let bar = member(
        "SHS 50x50x3",
        &[
            json!({"name": "one", "do": {"end": {"of": ["bar"], "at": "start", "how": {"angle": {"angle": "0 deg", "tilt": "30 deg"}}}}}),
        ],
    );
    let text = write(&bar, &heading(1)).unwrap();
    let good = wanted(&bar);
    let told = |text: &str, wanted: &SawWanted| run(&read(text).unwrap(), wanted).faults.join("; ");
    assert_eq!(told(&text, &good), "");
    assert!(told(&text, &SawWanted { length: good.length + 1.0, ..good.clone() }).contains("should be"));
    assert!(told(&text, &SawWanted { angles: [0.0, 0.0], ..good.clone() }).contains("its start is cut at 30.00 deg"));
    assert!(told(&text, &SawWanted { holes: 2, ..good.clone() }).contains("0 walls are drilled"));
    // A file that disagrees with itself: the header's angle without the front's lean.
    let bent = text.replace("  30.000\n", "  31.000\n").replace("  -30.000\n", "  -31.000\n");
    assert_ne!(bent, text);
    assert!(told(&bent, &good).contains("leans by"));
    let off = text.replace("EN\n", "BO\n  v 900.00u 25.00 9.00\nEN\n");
    assert!(told(&off, &good).contains("runs off the bar"));
    for (bad, words) in [
        ("", "empty"),
        ("XX\n", "starts with ST"),
        ("ST\n  1\n", "24 lines"),
        (&text.replace("EN\n", ""), "no EN"),
        (&text.replace("AK", "ZZ"), "not one that this line runs"),
        (&text.replace("EN\n", "BO\n  25.00 9.00\nEN\n"), "a hole has a place"),
        (&text.replace("  50.00\n  50.00", "  1e999\n  50.00"), "no number that a saw"),
    ] {
        let fault = read(bad).unwrap_err();
        assert!(fault.to_string().contains(words), "{fault}");
    }
}

#[test]
fn coped_and_bent_members_have_no_file() {
    let notched = member(
        "UPE 100",
        &[
            json!({"name": "n", "do": {"end_notch": {"of": ["bar"], "at": "start", "face": "top", "depth": "20 mm", "length": "30 mm"}}}),
        ],
    );
    assert!(write(&notched, &heading(1)).unwrap_err().to_string().contains("notched"));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(300))]
    #[test]
    fn anything_is_read_or_refused(text in "(ST\n)?([ a-zA-Z0-9.,\\-]{0,30}\n){0,40}(EN)?") {
        if let Ok(job) = read(&text) {
            let _ = run(&job, &SawWanted::default());
        }
    }

    #[test]
    fn a_damaged_file_is_read_or_refused(at in 0usize..600, byte in any::<u8>()) {
        let bar = member("SHS 50x50x3", &[]);
        let mut bytes = write(&bar, &heading(1)).unwrap().into_bytes();
        let at = at % bytes.len();
        bytes[at] = byte;
        if let Ok(job) = read(&String::from_utf8_lossy(&bytes)) {
            let _ = run(&job, &wanted(&bar));
        }
    }
}
