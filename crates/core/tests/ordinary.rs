//! Twenty ordinary parts, as shops make them every day: no rule calls one of them broken. A rule that did would be learned to be
//! ignored. Their verdicts, and the rules with their sources, are `docs/rules.md`, which is held to what the code says.

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Piece, evaluate};
use steelk_core::proof::{About, By, Level, RuleTold, all_rules};
use steelk_core::stock::shipped_rules;
use steelk_testing::*;

fn of(material: &str, thickness: &str, radius: &str, operations: Value) -> Piece {
    let mut made = piece(thickness, radius, "0.44", operations);
    made.stock.material = material.into();
    made
}

fn frame(material: &str, operations: Value) -> Piece {
    let document = json!({
        "steelk": 1, "kind": "frame", "mark": "F-1", "title": "ordinary", "quantity": 1, "unit": "mm",
        "stock": {"material": material}, "operations": operations,
    });
    Piece::read(document.to_string().as_bytes()).expect("a sound document")
}

fn from(edges: &[(&str, &str)]) -> Value {
    let all: Vec<Value> = edges.iter().map(|(edge, distance)| json!({"edge": edge, "distance": distance})).collect();
    json!({"from": all})
}

fn corners(name: &str, diameter: &str, in_by: &str) -> Value {
    drill(
        name,
        "base",
        diameter,
        json!({"place": from(&[("base.left", in_by), ("base.front", in_by)]), "mirror": "both"}),
    )
}

fn wall(name: &str, edge: &str, leg: &str, more: Value) -> Value {
    bend(name, edge, "90 deg", leg, more)
}

fn path(name: &str, start: Value, legs: Value) -> Value {
    json!({"name": name, "do": {"path": {"start": start, "legs": legs}}})
}

fn member(name: &str, section: &str, lines: Value) -> Value {
    json!({"name": name, "do": {"member": {"section": section, "lines": lines}}})
}

fn mitred() -> Value {
    json!({"name": "corners", "do": {"joint": {"at": "corners", "how": {"mitre": {}}}}})
}

fn ordinary() -> Vec<(&'static str, Piece)> {
    vec![
        (
            "U bracket, 3 mm, legs of 50, four holes and a slot",
            of(
                "S275",
                "3 mm",
                "3 mm",
                json!([
                    base("140 mm", "80 mm"),
                    corners("bolt", "9 mm", "20 mm"),
                    wall("left", "base.left", "50 mm", json!({})),
                    wall("right", "base.right", "50 mm", json!({})),
                    {"name": "slot", "do": {"cut": {"panel": "base", "slot": {"length": "30 mm", "width": "10 mm"}}}},
                ]),
            ),
        ),
        (
            "angle bracket, 6 mm, a bolt near its bend",
            of(
                "S275",
                "6 mm",
                "6 mm",
                json!([
                    base("100 mm", "80 mm"),
                    wall("up", "base.back", "80 mm", json!({})),
                    drill("bolt", "up", "14 mm", json!({"place": from(&[("up.mould-outside", "40 mm")])})),
                ]),
            ),
        ),
        (
            "Z bracket, 2 mm galvanised",
            of(
                "DX51D",
                "2 mm",
                "2 mm",
                json!([
                    base("120 mm", "60 mm"),
                    wall("up", "base.back", "25 mm", json!({})),
                    wall("down", "base.front", "25 mm", json!({"direction": "down"})),
                ]),
            ),
        ),
        (
            "pan, 1.5 mm stainless, mitred corners",
            of(
                "1.4301",
                "1.5 mm",
                "1.5 mm",
                json!([
                    base("300 mm", "200 mm"),
                    wall(
                        "wall",
                        "base.front",
                        "40 mm",
                        json!({"also": ["base.right", "base.back", "base.left"], "corners": {"mitred": {"gap": "0.5 mm"}}})
                    ),
                ]),
            ),
        ),
        (
            "tray, 2 mm, open corners, drain holes",
            of(
                "DX51D",
                "2 mm",
                "2 mm",
                json!([
                    base("400 mm", "300 mm"),
                    wall(
                        "wall",
                        "base.front",
                        "30 mm",
                        json!({"also": ["base.right", "base.back", "base.left"], "corners": {"open": {}}})
                    ),
                    drill(
                        "drain",
                        "base",
                        "8 mm",
                        json!({"repeat": [{"count": "5", "spacing": "60 mm"}, {"count": "4", "spacing": "60 mm"}]})
                    ),
                ]),
            ),
        ),
        (
            "base plate, 12 mm, four M16",
            of(
                "S275",
                "12 mm",
                "12 mm",
                json!([
                    base("250 mm", "150 mm"),
                    corners("bolt", "18 mm", "30 mm"),
                    drill("bore", "base", "80 mm", json!({}))
                ]),
            ),
        ),
        (
            "thick drilled plate, 40 mm, M12 left to the drill press 20 from the edge",
            of(
                "S355",
                "40 mm",
                "80 mm",
                json!([
                    base("300 mm", "200 mm"),
                    drill(
                        "bolt",
                        "base",
                        "13.5 mm",
                        json!({"make": "leave", "place": from(&[("base.left", "20 mm"), ("base.front", "20 mm")]), "mirror": "both"})
                    )
                ]),
            ),
        ),
        (
            "plate, 20 mm, holes of 22 at 30 from the edge, cut",
            of("S355", "20 mm", "40 mm", json!([base("300 mm", "200 mm"), corners("bolt", "22 mm", "30 mm")])),
        ),
        (
            "flange plate, 16 mm, eight bolts on a circle",
            of(
                "S275",
                "16 mm",
                "32 mm",
                json!([
                    {"name": "base", "do": {"lay_down": {"shape": {"ring": {"outside": "200 mm", "inside": "90 mm"}}}}},
                    drill("bolt", "base", "18 mm", json!({"pattern": {"circle": {"count": "8", "diameter": "160 mm"}}})),
                ]),
            ),
        ),
        (
            "hat channel, 1.5 mm",
            of(
                "DX51D",
                "1.5 mm",
                "1.5 mm",
                json!([
                    base("600 mm", "60 mm"),
                    wall("a", "base.front", "30 mm", json!({})),
                    wall("b", "base.back", "30 mm", json!({})),
                    wall("foot-a", "a.end", "20 mm", json!({"direction": "down"})),
                    wall("foot-b", "b.end", "20 mm", json!({"direction": "down"})),
                ]),
            ),
        ),
        (
            "perforated sheet, 1 mm, dia 3 at 5",
            of(
                "1.4301",
                "1 mm",
                "1 mm",
                json!([
                    base("200 mm", "150 mm"),
                    drill(
                        "perf",
                        "base",
                        "3 mm",
                        json!({"pattern": {"fill": {"rows": "square", "pitch": "5 mm", "margin": "8 mm"}}})
                    )
                ]),
            ),
        ),
        (
            "door skin, 1 mm, hemmed all round its sides",
            of(
                "DX51D",
                "1 mm",
                "1 mm",
                json!([
                    base("400 mm", "300 mm"),
                    {"name": "hem-a", "do": {"hem": {"edge": "base.left", "style": {"closed": {"length": "8 mm"}}}}},
                    {"name": "hem-b", "do": {"hem": {"edge": "base.right", "style": {"closed": {"length": "8 mm"}}}}},
                ]),
            ),
        ),
        (
            "countersunk strip, 5 mm, M6",
            of(
                "S275",
                "5 mm",
                "5 mm",
                json!([
                    base("300 mm", "40 mm"),
                    drill(
                        "screw",
                        "base",
                        "6.6 mm",
                        json!({"countersink": {"diameter": "12.4 mm", "angle": "90 deg"}, "repeat": [{"count": "5", "spacing": "60 mm"}]})
                    )
                ]),
            ),
        ),
        (
            "bracket, 10 mm S355, bent to the standard's radius",
            of(
                "S355",
                "10 mm",
                "20 mm",
                json!([
                    base("200 mm", "160 mm"),
                    wall("up", "base.back", "120 mm", json!({})),
                    corners("bolt", "18 mm", "60 mm")
                ]),
            ),
        ),
        (
            "shallow crease, 3 mm, a hole 12 from it",
            of(
                "S275",
                "3 mm",
                "3 mm",
                json!([
                    base("200 mm", "100 mm"),
                    bend("up", "base.back", "15 deg", "60 mm", json!({})),
                    drill("bolt", "base", "9 mm", json!({"place": from(&[("up.tangent", "12 mm")])}))
                ]),
            ),
        ),
        (
            "rolled guard, 2 mm, with its holes",
            of(
                "S275",
                "2 mm",
                "2 mm",
                json!([
                    {"name": "guard", "do": {"roll": {"radius": "250 mm", "span": {"angle": "120 deg"}, "width": "120 mm", "lead_in": "40 mm", "lead_out": "40 mm"}}},
                    drill("bolt", "guard.lead-in", "9 mm", json!({})),
                ]),
            ),
        ),
        (
            "table frame, SHS 50, mitred ring with legs under it",
            frame(
                "S275",
                json!([
                    path(
                        "ring",
                        json!({}),
                        json!([{"by": {"x": "1200 mm"}}, {"by": {"y": "700 mm"}}, {"by": {"x": "-1200 mm"}}, {"by": {"y": "-700 mm"}}])
                    ),
                    member("top", "SHS 50x50x3", json!(["ring.*"])),
                    mitred(),
                ]),
            ),
        ),
        (
            "hoop, CHS 33.7 bent to 250",
            frame(
                "S275",
                json!([
                    path(
                        "hoop",
                        json!({}),
                        json!([{"by": {"x": "300 mm"}}, {"arc": {"place": {"x": "500 mm"}, "how": {"radius": {"radius": "250 mm", "toward": "up"}}}}])
                    ),
                    member("bow", "CHS 33.7x2.6", json!(["hoop.1"])),
                ]),
            ),
        ),
        (
            "post, galvanised, vented at both ends",
            frame(
                "DX51D",
                json!([
                    path("a", json!({}), json!([{"by": {"z": "1000 mm"}}])),
                    member("post", "SHS 60x60x3", json!(["a.1"])),
                    {"name": "vent", "do": {"bore": {"of": ["post"], "face": "right", "diameter": "12 mm", "at": "20 mm", "purpose": "vent"}}},
                    {"name": "drain", "do": {"bore": {"of": ["post"], "face": "right", "diameter": "12 mm", "at": "-20 mm", "purpose": "drain"}}},
                ]),
            ),
        ),
        (
            "rail, flat bar drilled for M10",
            frame(
                "S275",
                json!([
                    path("a", json!({}), json!([{"by": {"x": "800 mm"}}])),
                    member("rail", "FL 50x8", json!(["a.1"])),
                    {"name": "bolt", "do": {"bore": {"of": ["rail"], "face": "left", "diameter": "11 mm", "at": "25 mm", "count": "4", "spacing": "250 mm"}}},
                ]),
            ),
        ),
    ]
}

#[test]
fn twenty_ordinary_parts_break_no_rule() {
    let all = ordinary();
    assert!(all.len() >= 20);
    let mut wrong = Vec::new();
    for (name, piece) in &all {
        let outcome = evaluate(piece, Options::default());
        let bad: Vec<_> = outcome.findings.iter().filter(|one| one.severity == Severity::Error).collect();
        wrong.extend(bad.iter().map(|one| format!("{name} is not built: {} {}", one.message, one.way_out)));
        assert!(outcome.made.is_some(), "{name} is not built");
        let hints = outcome.breaches.iter().filter(|one| one.level == Level::Hint).count();
        println!("{name}: {} rules, {} broken, {hints} hints", outcome.rules.len(), outcome.broken().count());
        wrong.extend(
            outcome
                .breaches
                .iter()
                .filter(|one| one.level != Level::Hint)
                .map(|one| format!("{name}: {}", one.message)),
        );
    }
    assert_eq!(wrong, Vec::<String>::new());
}

fn about(about: About) -> &'static str {
    match about {
        About::Bends => "bends",
        About::Holes => "holes",
        About::Folding => "folding",
        About::Stock => "stock, machines",
        About::Members => "members",
    }
}

fn by(by: By) -> &'static str {
    match by {
        By::Laser => "laser",
        By::Plasma => "plasma",
        By::Waterjet => "waterjet",
        By::OxyFuel => "oxy-fuel",
        By::Punch => "punch",
        By::Drill => "drill",
        By::Saw => "saw",
    }
}

fn level(level: &Level) -> &'static str {
    match level {
        Level::Broken => "broken",
        Level::Doubtful => "doubtful",
        Level::Hint => "hint",
    }
}

/// The settings of a rule, as shipped: `asks.bend` 2.
fn settings(rule: &RuleTold) -> String {
    let shipped = serde_json::to_value(shipped_rules()).unwrap();
    let one = |path: &&str| match &shipped[path.split('.').next().unwrap()] {
        Value::Array(all) => format!("`{path}`, {} of them", all.len()),
        group => match &group[path.split('.').nth(1).unwrap()] {
            Value::Object(all) => {
                let each: Vec<String> = all.iter().map(|(key, value)| format!("{key} {value}")).collect();
                format!("`{path}`: {}", each.join(", "))
            }
            value => format!("`{path}` {value}"),
        },
    };
    rule.settings.iter().map(one).collect::<Vec<_>>().join("; ")
}

/// The page that is kept in `docs/rules.md`.
fn page() -> String {
    let mut text = String::from(
        "# The shop's rules\n\n\
        Written by `STEELK_WRITE=1 cargo test -p steelk-core --test all ordinary::`, and held to the code by every run of the tests.\n\n\
        *Broken* is a fault: it counts, stamps the papers, and can be accepted for a piece with a reason, except where the files are \
        withheld. *Doubtful* asks, and can be accepted. A *hint* is never a fault. Settings are the shop's (its page, or `--rules` on the \
        command line); the figures here are as shipped: `data/asks.toml`, `data/bending.toml`, `data/saw.toml`.\n\n\
        | rule | about | says | by | setting, as shipped | source | file |\n| --- | --- | --- | --- | --- | --- | --- |\n",
    );
    for rule in all_rules() {
        let says: Vec<&str> = rule.levels.iter().map(level).collect();
        let process: Vec<&str> = rule.by.iter().map(|one| by(*one)).collect();
        let list =
            if steelk_core::proof::SHEET_RULES.iter().any(|one| one.key == rule.rule) { "sheet" } else { "frame" };
        text.push_str(&format!(
            "| {} | {} | {}{} | {} | {} | {} | `{list}/{}.rs` |\n",
            rule.title,
            about(rule.about),
            says.join(", "),
            if rule.withholds { ", withholds" } else { "" },
            process.join(", "),
            settings(&rule),
            rule.source,
            rule.rule
        ));
    }
    text.push_str(
        "\n## Twenty ordinary parts\n\nAs shops make them every day (`crates/core/tests/ordinary.rs`): nothing is broken or doubtful, and \
        what is said of them is a hint that a fabricator would read once.\n\n| part | rules | broken | doubtful | hints |\n| --- | --- | --- | --- | --- |\n",
    );
    for (name, piece) in ordinary() {
        let outcome = evaluate(&piece, Options::default());
        let count = |level: Level| outcome.breaches.iter().filter(|one| one.level == level).count();
        let hints: Vec<&str> =
            outcome.breaches.iter().filter(|one| one.level == Level::Hint).map(|one| one.message.as_str()).collect();
        text.push_str(&format!(
            "| {name} | {} | {} | {} | {} |\n",
            outcome.rules.len(),
            count(Level::Broken),
            count(Level::Doubtful),
            if hints.is_empty() { "none".to_string() } else { hints.join("; ") }
        ));
    }
    text
}

#[test]
fn the_page_of_rules_says_what_the_code_says() {
    let path = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/rules.md");
    let page = page();
    if std::env::var_os("STEELK_WRITE").is_some() {
        std::fs::write(&path, &page).unwrap();
    }
    let kept = std::fs::read_to_string(&path).unwrap_or_default();
    let first = kept.lines().zip(page.lines()).find(|(kept, now)| kept != now);
    assert!(kept == page, "docs/rules.md is behind (STEELK_WRITE=1 writes it): {first:?}");
}
