//! Bars with holes and ends cut to round members, by their bodies. Holes over the corners of a section too: the body's faces come
//! to what the list takes off strip by strip, and its shell closes. Ends on two or three rounds at once: the faces come to what the
//! list finds by integrals over the section, and no metal is shared with the neighbours.

use steelk_testing::bars;
use steelk_testing::trials;

use serde_json::Value;
use steelk_core::finding::Severity;
use steelk_core::frame::{BodyFault, is_drilled, member_body, piece_picture};
use steelk_core::piece::{Options, Outcome, Piece, evaluate};

fn outcome(document: &Value) -> Outcome {
    evaluate(&Piece::read(document.to_string().as_bytes()).unwrap(), Options::default())
}

#[test]
fn bodies_have_the_holes_that_the_list_takes_off() {
    let (mut drilled, mut bent, mut left_out, mut over_corners, mut refused) = (0, 0, 0, 0, 0);
    for seed in 0..trials::cases(200) {
        let document = bars::drilled(seed);
        let outcome = outcome(&document);
        let Some(frame) = outcome.frame() else {
            refused += 1;
            continue;
        };
        for member in &frame.made.frame.members {
            let body = member_body(member).unwrap_or_else(|fault| panic!("{seed}: {fault}: {document}"));
            assert!(body.is_closed(), "{seed}: {document}");
            let plain = {
                let mut plain = member.clone();
                plain.strip_bores();
                member_body(&plain).unwrap().mass().volume
            };
            let missing = member.bores.iter().filter(|bore| !is_drilled(member, bore, &body)).count();
            left_out += missing;
            bent += usize::from(!member.is_straight()) * (member.bores.len() - missing);
            drilled += member.bores.len() - missing;
            if missing > 0 {
                continue;
            }
            let own = body.mass().volume;
            let taken = plain - member.volume();
            assert!(
                (plain - own - taken).abs() < 1e-5 * taken.max(1.0),
                "{seed}: {own} and {}: {document}",
                member.volume()
            );
            // Two half rounds a wall; more faces or fewer openings say that one went over a corner.
            let openings: usize = body.faces.iter().map(|face| face.loops.len() - 1).sum();
            over_corners += usize::from(openings < 2 * member.bored_walls());
            let mesh =
                body.mesh(0.02, |face| &face.name).unwrap_or_else(|fault| panic!("{seed}: {fault:?}: {document}"));
            assert!((mesh.volume() / own - 1.0).abs() < 0.02, "{seed}: {} and {own}: {document}", mesh.volume());
        }
    }
    println!(
        "{drilled} in bodies, {bent} of them in bent bars, {over_corners} bars with one over a corner, {left_out} left out, {refused} refused"
    );
    assert!(drilled > 100 && over_corners > 20 && bent > 20);
}

/// A hole in a bend is drawn where the bar is: as far along its lines as it was told to be, no further off them than the section.
#[test]
fn holes_in_bends_are_drawn_on_the_bar() {
    let mut drawn = 0;
    for seed in 0..200 {
        let document = bars::drilled(seed);
        let outcome = outcome(&document);
        let Some(frame) = outcome.frame() else { continue };
        for member in frame.made.frame.members.iter().filter(|member| !member.is_straight()) {
            let around = member.region.extents();
            let far = around.width().hypot(around.height());
            for bore in &member.bores {
                let mut left = bore.along;
                let line = member.lines.iter().find(|line| {
                    let here = left <= line.length();
                    left -= if here { 0.0 } else { line.length() };
                    here
                });
                let place = line.unwrap().at(left);
                for field in
                    outcome.mesh.fields.iter().filter(|field| field.feature.ends_with(&format!(".{}", bore.operation)))
                {
                    let off = field.lower.distance(place).max(field.upper.distance(place));
                    assert!(off < far, "{seed}: {} is drawn {off} mm off: {document}", bore.operation);
                    drawn += 1;
                }
            }
        }
    }
    assert!(drawn > 20, "{drawn}");
}

#[test]
fn ends_on_several_rounds_are_exact() {
    let (mut exact, mut near, mut crossed, mut parted) = (0, 0, 0, 0);
    for seed in 0..trials::cases(15) {
        let document = bars::two_rounds(seed);
        let outcome = outcome(&document);
        let Some(frame) = outcome.frame() else { continue };
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
        let refused = outcome.findings.iter().any(|one| one.severity == Severity::Error);
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
        let outcome = outcome(&document);
        for member in &outcome.frame().unwrap().made.frame.members {
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
