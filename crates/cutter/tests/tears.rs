//! Tears beside bends that have no relief: cut once, from the edge to where the bend begins, and no further.

use crate::common::make;
use steelk_cutter::FaultKind;

/// A flange set in from both ends of its edge, without relief: two tears as deep as the bend is set in.
fn bracket(extra: &str) -> String {
    format!(
        r#"{{"steelk":1,"kind":"sheet","mark":"T-1","title":"test","quantity":1,"unit":"mm",
        "stock":{{"material":"S275","thickness":"3 mm"}},"bending":{{"radius":"3 mm","method":{{"k_factor":"0.42"}}}},
        "operations":[
        {{"name":"base","do":{{"lay_down":{{"shape":{{"rectangle":{{"width":"120 mm","depth":"80 mm"}}}}}}}}}},
        {{"name":"up","do":{{"bend":{{"edge":"base.back","angle":"90 deg","leg":"40 mm","set_in":{{"left":"20 mm","right":"30 mm"}}{extra}}}}}}}]}}"#
    )
}

#[test]
fn a_tear_is_cut_once_and_ends_where_the_bend_begins() {
    let made = make(&bracket(""));
    assert_eq!(made.wanted.slits.len(), 2);
    let tears: Vec<_> = made.plan.paths.iter().filter(|path| path.name.starts_with("tear")).collect();
    assert_eq!(tears.len(), 2);
    assert_eq!(made.plan.paths.last().unwrap().name, "outside", "what is inside is cut first");
    let found = made.inspect(&made.text).unwrap();
    assert!(found.holds, "{:?}", found.faults);
    // With a relief there is waste to cut round, and no tear.
    let relieved = make(&bracket(r#","relief":{"shape":"obround"}"#));
    assert!(relieved.wanted.slits.is_empty());
    assert!(relieved.inspect(&relieved.text).unwrap().holds);
}

#[test]
fn a_tear_that_is_left_out_cut_short_or_cut_too_far_is_found() {
    let made = make(&bracket(""));
    let slit = made.wanted.slits[0][0];
    let spoil = |by: f64| {
        // The program again, its first tear ending elsewhere.
        let mut plan = made.plan.clone();
        let at = plan.paths.iter().position(|path| path.body[0].start.distance(slit.start) < 1e-6).unwrap();
        if by.is_nan() {
            plan.paths.remove(at);
        } else {
            let last = plan.paths[at].body.last_mut().unwrap();
            last.end = last.end + (last.end - last.start).unit() * by;
        }
        made.rewritten(&plan)
    };
    let kinds = |text: String| made.inspect(&text).unwrap().faults.iter().map(|one| one.kind).collect::<Vec<_>>();
    assert_eq!(kinds(spoil(0.0)), []);
    assert!(kinds(spoil(f64::NAN)).contains(&FaultKind::NotCut));
    assert!(kinds(spoil(-1.0)).contains(&FaultKind::NotCut));
    // Past its tip it runs into the metal beside the bend: with the tear's own metal it is cut into the part.
    let far = kinds(spoil(1.5));
    assert!(far.contains(&FaultKind::Bite) || far.contains(&FaultKind::KerfSide), "{far:?}");
}
