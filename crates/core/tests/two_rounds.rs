//! Ends cut to two or three round members at once: each has an exact body, whose faces come to what the list finds by integrals
//! over the section, and it shares no metal with its neighbours.

#[path = "common/bars.rs"]
#[allow(dead_code)]
mod bars;
#[path = "common/trials.rs"]
#[allow(dead_code)]
mod trials;

use steelk_core::frame::{BodyFault, member_body, piece_picture};
use steelk_core::piece::{Options, Piece, evaluate};

#[test]
fn ends_on_several_rounds_are_exact() {
    let (mut exact, mut near, mut crossed, mut parted) = (0, 0, 0, 0);
    for seed in 0..trials::cases(15) {
        let document = bars::two_rounds(seed);
        let outcome = evaluate(&Piece::read(document.to_string().as_bytes()).unwrap(), Options::default());
        let Some(frame) = &outcome.frame else { continue };
        let members = &frame.made.frame.members;
        for member in members.iter().filter(|member| member.ends.iter().any(|end| end.copes.len() > 1)) {
            let body = match member_body(member) {
                Ok(body) => body,
                Err(BodyFault::Crossed) => {
                    crossed += 1;
                    continue;
                }
                Err(_) => {
                    near += 1;
                    println!("{seed}: {} has no exact body: {document}", member.name);
                    continue;
                }
            };
            exact += 1;
            assert!(body.is_closed(), "{seed}: {document}");
            // Two faces at least where both rounds cut it.
            let ends = body.faces.iter().filter(|face| face.name.contains(".start") || face.name.contains(".finish"));
            parted += usize::from(ends.count() > 2);
            let (own, list) = (body.mass().volume, member.volume());
            assert!((own / list - 1.0).abs() < 1e-6, "{seed}: {} {own} and {list}: {document}", member.name);
        }
        let refused = outcome.findings.iter().any(|one| one.severity == steelk_core::finding::Severity::Error);
        assert!(refused || frame.clashes.is_empty(), "{seed}: {:?}: {document}", frame.clashes);
    }
    println!("{exact} exact, {parted} of them cut by two rounds, {near} near, {crossed} that come apart");
    assert!(exact > 10 && parted > 8 && near * 20 < exact);
}

/// The picture of such an end is its outside as seen from the side: the edge goes up and down a few times and never to and fro.
#[test]
fn pictures_show_the_outside() {
    for seed in 0..12 {
        let document = bars::two_rounds(seed);
        let outcome = evaluate(&Piece::read(document.to_string().as_bytes()).unwrap(), Options::default());
        for member in &outcome.frame.as_ref().unwrap().made.frame.members {
            let outline = piece_picture(member).outline;
            let half = outline.len() / 2;
            for edge in [&outline[..half], &outline[half..]] {
                let steps = edge.windows(2).map(|pair| pair[1].x - pair[0].x).filter(|step| step.abs() > 1e-6);
                let signs: Vec<bool> = steps.map(|step| step > 0.0).collect();
                let turns = signs.windows(2).filter(|pair| pair[0] != pair[1]).count();
                assert!(turns <= 5, "{seed}: {} turns {turns} times: {document}", member.name);
            }
        }
    }
}
