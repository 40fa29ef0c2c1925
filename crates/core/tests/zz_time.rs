use serde_json::json;
use std::time::Instant;
use steelk_core::frame::*;
use steelk_core::piece::{Options, Piece, evaluate};
#[test]
fn t() {
    let doc = std::fs::read_to_string("/tmp/racks.json").unwrap();
    let _ = json!({});
    let piece = Piece::read(doc.as_bytes()).unwrap();
    for _ in 0..2 {
        let t = Instant::now();
        let o = evaluate(&piece, Options::default());
        println!("evaluate {:?}", t.elapsed());
        let made = o.frame.unwrap().made;
        println!("members {} lines {}", made.frame.members.len(), made.list.lines.len());
        let fresh = FrameMade::new(made.frame.clone(), made.list.clone());
        let t = Instant::now();
        fresh.bodies();
        println!("bodies {:?}", t.elapsed());
        let t = Instant::now();
        fresh.extents();
        println!("extents {:?}", t.elapsed());
        let t = Instant::now();
        let w = welds(&fresh, WeldSymbols::Iso2553, 5.0);
        println!("welds {} {:?}", w.welds.len(), t.elapsed());
        let t = Instant::now();
        frame_list(&made.frame, 0.1);
        println!("list {:?}", t.elapsed());
        let t = Instant::now();
        let mut keep = Keep::default();
        let mut mesh = steelk_core::space::Mesh::default();
        for m in &made.frame.members {
            add_to_mesh(m, &mut mesh, &mut keep);
        }
        println!("mesh {:?}", t.elapsed());
        let t = Instant::now();
        clashes(&made.frame.members, &mut keep);
        println!("clashes {:?}", t.elapsed());
        let t = Instant::now();
        steelk_core::audit::light_frame(&made);
        println!("light {:?}", t.elapsed());
    }
}
