//! Holes of members in their bodies, over the corners of their sections too: the body's faces come to what the list takes off
//! strip by strip, and its shell closes.

#[path = "common/bars.rs"]
#[allow(dead_code)]
mod bars;
#[path = "common/trials.rs"]
#[allow(dead_code)]
mod trials;

use steelk_core::frame::{is_drilled, member_body};
use steelk_core::piece::{Options, Piece, evaluate};

#[test]
fn bodies_have_the_holes_that_the_list_takes_off() {
    let (mut drilled, mut left_out, mut over_corners, mut refused) = (0, 0, 0, 0);
    for seed in 0..trials::cases(200) {
        let document = bars::drilled(seed);
        let outcome = evaluate(&Piece::read(document.to_string().as_bytes()).unwrap(), Options::default());
        let Some(frame) = &outcome.frame else {
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
            let walls: usize =
                member.bores.iter().map(|bore| if bore.one_wall { 1 } else { member.walls(bore).len() }).sum();
            // Two half rounds a wall; more faces or fewer openings say that one went over a corner.
            let openings: usize = body.faces.iter().map(|face| face.loops.len() - 1).sum();
            over_corners += usize::from(openings < 2 * walls);
            let mesh =
                body.mesh(0.02, |face| &face.name).unwrap_or_else(|fault| panic!("{seed}: {fault:?}: {document}"));
            assert!((mesh.volume() / own - 1.0).abs() < 0.02, "{seed}: {} and {own}: {document}", mesh.volume());
        }
    }
    println!("{drilled} in bodies, {over_corners} bars with one over a corner, {left_out} left out, {refused} refused");
    assert!(drilled > 100 && over_corners > 20);
}
