//! Ends cut to two or three round members at once: each has an exact body, whose faces come to what the list finds by integrals
//! over the section, and it shares no metal with its neighbours.

#[path = "common/bars.rs"]
#[allow(dead_code)]
mod bars;
#[path = "common/trials.rs"]
#[allow(dead_code)]
mod trials;

use steelk_core::frame::{BodyFault, member_body};
use steelk_core::piece::{Options, Piece, evaluate};

#[test]
fn ends_on_several_rounds_are_exact() {
    let (mut exact, mut near, mut crossed, mut parted) = (0, 0, 0, 0);
    for seed in 0..trials::cases(25) {
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
    assert!(exact > 20 && parted > 10 && near * 20 < exact);
}
