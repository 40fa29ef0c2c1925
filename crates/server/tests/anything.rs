//! Whatever comes in: pieces and files of every kind, damaged in every way that a dice thinks of. Each is answered: no
//! panic, no work that cannot be ended, no number that is none in anything that leaves.
//!
//! `make test` throws 200 of each kind. The long run: build with `--release` and run with `STEELK_CASES=100000`; a case
//! is its seed.

use std::cell::Cell;
use std::panic::{AssertUnwindSafe, catch_unwind};
use std::rc::Rc;
use std::sync::Mutex;
use std::sync::atomic::{AtomicU64, Ordering};
use std::time::{Duration, Instant};

use serde_json::{Value, json};
use steelk_core::patience;
use steelk_core::piece::{Need, Options, Piece, evaluate, fold_only};
use steelk_core::plane::tidy::{Tolerances, tidy};
use steelk_core::quantity::LengthUnit;
use steelk_core::stock::{BendTable, Workshop, example_cutters, read_cutters};
use steelk_core::work::frame::LinesAction;
use steelk_cutter::Machine;
use steelk_formats::output::Stamp;
use steelk_formats::report::Report;
use steelk_formats::strokes::Layers;
use steelk_formats::{centre_lines, dxf_read, step_read, svg_read, table_csv};
use steelk_server::answer::BuildAnswer;
use steelk_server::audited::audited;
use steelk_server::cutting_answer::CuttingAnswer;
use steelk_server::files::{Shop, whole_package};
use steelk_testing::root;
use steelk_testing::trials::{self, Dice};

/// Longest time that work may go on without asking whether it should: in release a hundredth of it is usual.
const LONGEST_GAP: Duration = Duration::from_secs(if cfg!(debug_assertions) { 30 } else { 1 });
/// Work is ended after this, as the server ends it.
const ENDED: Duration = Duration::from_secs(if cfg!(debug_assertions) { 60 } else { 5 });

/// What went wrong, and what took long.
#[derive(Default)]
struct Found {
    wrong: Mutex<Vec<String>>,
    ended: AtomicU64,
    /// Microseconds.
    slowest: AtomicU64,
    gap: AtomicU64,
}

impl Found {
    fn say(&self, words: String) {
        eprintln!("wrong: {}", words.chars().take(300).collect::<String>());
        self.wrong.lock().unwrap().push(words);
    }
}

/// Does one case as the server would: it may be ended, it must not panic, and it asks often enough.
fn case(found: &Found, kind: &str, seed: u64, work: impl FnOnce()) {
    let gap = Rc::new(Cell::new(Duration::ZERO));
    let (own, begun) = (Rc::clone(&gap), Instant::now());
    let mut last = begun;
    let go_on = move || {
        let now = Instant::now();
        own.set(own.get().max(now - last));
        last = now;
        now - begun < ENDED
    };
    match catch_unwind(AssertUnwindSafe(|| patience::with(go_on, work))) {
        Err(_) => found.say(format!("{kind} {seed}: a panic")),
        Ok(Err(_)) => {
            found.ended.fetch_add(1, Ordering::Relaxed);
        }
        Ok(Ok(())) => {}
    }
    let took = begun.elapsed();
    if took > Duration::from_secs(1) {
        eprintln!("slow: {kind} {seed}: {took:?}");
    }
    let gap = if gap.get().is_zero() { took } else { gap.get() };
    found.slowest.fetch_max(took.as_micros() as u64, Ordering::Relaxed);
    found.gap.fetch_max(gap.as_micros() as u64, Ordering::Relaxed);
    if gap > LONGEST_GAP {
        found.say(format!("{kind} {seed}: {gap:?} without asking whether to go on"));
    }
}

/// Throws so many cases of a kind, on every core.
fn throw(kind: &str, usual: u64, each: impl Fn(&Found, u64) + Sync) {
    let cases = trials::cases(usual);
    let first: u64 = std::env::var("STEELK_FIRST").ok().and_then(|text| text.parse().ok()).unwrap_or(0);
    let (found, next) = (Found::default(), AtomicU64::new(first));
    std::panic::set_hook(Box::new(|what| eprintln!("{what}")));
    std::thread::scope(|scope| {
        for _ in 0..std::thread::available_parallelism().map_or(2, std::num::NonZero::get) {
            std::thread::Builder::new()
                .stack_size(8 << 20)
                .spawn_scoped(scope, || {
                    loop {
                        let seed = next.fetch_add(1, Ordering::Relaxed);
                        if seed >= first + cases {
                            break;
                        }
                        each(&found, seed);
                    }
                })
                .unwrap();
        }
    });
    let read = |of: &AtomicU64| Duration::from_micros(of.load(Ordering::Relaxed));
    println!(
        "{kind}: {cases} cases, {} ended by their limit, slowest {:?}, longest gap {:?}, most memory {} MB",
        found.ended.load(Ordering::Relaxed),
        read(&found.slowest),
        read(&found.gap),
        most_memory()
    );
    let wrong = found.wrong.into_inner().unwrap();
    assert!(wrong.is_empty(), "{kind}: {} wrong, first {:#?}", wrong.len(), &wrong[..wrong.len().min(5)]);
    assert!(most_memory() < 4096, "{} MB were held at once", most_memory());
}

/// The most memory that this process has held, MB.
fn most_memory() -> u64 {
    let status = std::fs::read_to_string("/proc/self/status").unwrap_or_default();
    let line = status.lines().find_map(|line| line.strip_prefix("VmHWM:"));
    line.and_then(|text| text.trim().trim_end_matches(" kB").parse::<u64>().ok()).unwrap_or(0) / 1024
}

/// Pieces to begin from: the demo's, the faults that were found, what the judges judged.
fn corpus() -> Vec<Value> {
    let mut all = Vec::new();
    for folder in ["demo", "crates/core/tests/faults"] {
        let mut paths: Vec<_> =
            std::fs::read_dir(root().join(folder)).unwrap().map(|one| one.unwrap().path()).collect();
        paths.sort();
        for path in paths.iter().filter(|path| path.extension().is_some_and(|end| end == "json")) {
            let value: Value = serde_json::from_slice(&std::fs::read(path).unwrap()).unwrap();
            all.push(if value["piece"].is_object() { value["piece"].clone() } else { value });
        }
    }
    let judged = std::fs::read_to_string(root().join("crates/formats/tests/corpus.jsonl")).unwrap();
    all.extend(judged.lines().map(|line| serde_json::from_str::<Value>(line).unwrap()["document"].clone()));
    all
}

/// Texts that somebody types, and that nobody should.
const ODD: [&str; 34] = [
    "",
    " ",
    "0",
    "0 mm",
    "-5 mm",
    "1e308 mm",
    "-1e308 mm",
    "1e-300 mm",
    "NaN mm",
    "inf",
    "1e9 mm",
    "12000 mm",
    "1 mm",
    "0.1 mm",
    "12 in",
    "3/8 in",
    "1/0 in",
    "5 mm / 0",
    "T * 1e9",
    "A + A",
    "90 deg",
    "-90 deg",
    "360 deg",
    "0 deg",
    "1e9 deg",
    "((((((",
    "sqrt(-1 mm2)",
    "20000",
    "99999999999",
    "base",
    "*",
    "base.front",
    "\u{202e}\u{0}",
    "5\u{b5}m",
];

/// Every text of a value.
fn texts(value: &Value, into: &mut Vec<String>) {
    match value {
        Value::String(text) => into.push(text.clone()),
        Value::Array(all) => all.iter().for_each(|one| texts(one, into)),
        Value::Object(all) => all.values().for_each(|one| texts(one, into)),
        _ => {}
    }
}

/// A place in a value, walked to by the dice; deep ones as likely as shallow ones.
fn place<'a>(dice: &mut Dice, mut value: &'a mut Value) -> &'a mut Value {
    for _ in 0..12 {
        let count = match &*value {
            Value::Array(all) => all.len(),
            Value::Object(all) => all.len(),
            _ => 0,
        };
        if count == 0 || dice.one_in(6) {
            break;
        }
        let at = dice.below(count);
        value = match value {
            Value::Array(all) => &mut all[at],
            Value::Object(all) => all.values_mut().nth(at).unwrap(),
            _ => unreachable!(),
        };
    }
    value
}

/// Damages a value somewhere.
fn damage(dice: &mut Dice, value: &mut Value, other: &mut Value, pool: &[String]) {
    let spot = place(dice, value);
    match (dice.below(6), &mut *spot) {
        (0..=2, Value::String(text)) => {
            *text = if dice.one_in(2) { (*dice.pick(&ODD)).to_string() } else { dice.pick(pool).clone() };
        }
        (0..=2, Value::Number(_)) => {
            *spot = dice
                .pick(&[json!(0), json!(-1), json!(1), json!(1e300), json!(4_294_967_295u64), json!(0.5), json!(7)])
                .clone();
        }
        (0..=2, Value::Bool(is)) => *is = !*is,
        (0, Value::Array(all)) if !all.is_empty() => {
            let at = dice.below(all.len());
            let copy = all[at].clone();
            for _ in 0..1 + dice.below(3) {
                all.insert(dice.below(all.len() + 1), copy.clone());
            }
        }
        (1, Value::Array(all)) if !all.is_empty() => drop(all.remove(dice.below(all.len()))),
        (2, Value::Array(all)) if all.len() > 1 => {
            let (a, b) = (dice.below(all.len()), dice.below(all.len()));
            all.swap(a, b);
        }
        (0 | 1, Value::Object(all)) if !all.is_empty() => {
            let key = all.keys().nth(dice.below(all.len())).unwrap().clone();
            all.remove(&key);
        }
        (2, Value::Object(all)) => {
            // A field of another piece under its own name.
            if let Value::Object(theirs) = place(dice, other)
                && !theirs.is_empty()
            {
                let (key, own) = theirs.iter().nth(dice.below(theirs.len())).unwrap();
                all.insert(key.clone(), own.clone());
            }
        }
        (3, _) => *spot = place(dice, other).clone(),
        (4, _) => *spot = [json!(null), json!([]), json!({}), json!(""), json!(1)][dice.below(5)].clone(),
        // The steps of one piece behind those of another.
        (_, _) => {
            let more = other.get("operations").and_then(Value::as_array).cloned().unwrap_or_default();
            if let Some(own) = value.get_mut("operations").and_then(Value::as_array_mut) {
                let from = dice.below(more.len() + 1);
                own.extend(more.into_iter().skip(from).take(1 + dice.below(3)));
            }
        }
    }
}

/// A number that is none, as a word of its own.
fn has_no_number(text: &str) -> Option<String> {
    let bytes = text.as_bytes();
    for word in ["nan", "inf", "infinity"] {
        let mut from = 0;
        while from + word.len() <= bytes.len() {
            let is_word = bytes[from..from + word.len()].eq_ignore_ascii_case(word.as_bytes());
            let letter = |at: usize| bytes.get(at).is_some_and(|byte| byte.is_ascii_alphanumeric() || *byte == b'_');
            if is_word && !(from > 0 && letter(from - 1)) && !letter(from + word.len()) {
                let (low, high) = (from.saturating_sub(60), (from + 20).min(bytes.len()));
                return Some(String::from_utf8_lossy(&bytes[low..high]).into_owned());
            }
            from += 1;
        }
    }
    None
}

/// The path of a number in what is sent that is none: JSON itself would hide it.
fn bad_number(value: &ciborium::Value, path: &str) -> Option<String> {
    match value {
        ciborium::Value::Float(number) => (!number.is_finite()).then(|| format!("{path} is {number}")),
        ciborium::Value::Array(all) => {
            all.iter().enumerate().find_map(|(at, one)| bad_number(one, &format!("{path}[{at}]")))
        }
        ciborium::Value::Map(all) => {
            all.iter().find_map(|(key, one)| bad_number(one, &format!("{path}.{}", key.as_text().unwrap_or("?"))))
        }
        _ => None,
    }
}

fn sent<T: serde::Serialize>(what: &str, answer: &T) -> Option<String> {
    bad_number(&ciborium::Value::serialized(answer).unwrap(), what)
}

/// Everything that Steelk does with a piece; what of it holds a number that is none.
fn everything(piece: &Piece, own_words: bool) -> Option<String> {
    let show = piece.unit;
    let outcome = evaluate(piece, Options::default());
    if let Some(words) = sent("build", &BuildAnswer::new(piece, &outcome, show, Need::All)) {
        return Some(words);
    }
    if !outcome.mesh.points.iter().all(|one| one.x.is_finite() && one.y.is_finite() && one.z.is_finite()) {
        return Some("the mesh has a point that is nowhere".into());
    }
    if let Some(words) = sent("report", &Report::new(piece, &outcome, &Stamp::default())) {
        return Some(words);
    }
    fold_only(piece, Options { upto: Some(piece.operations.len() / 2), fold: 0.3, ..Options::default() });
    if outcome.frame().is_none()
        && let Some(words) =
            sent("cutting", &CuttingAnswer::new(piece, &outcome, &Shop::default(), &Stamp::default(), show))
    {
        return Some(words);
    }
    let outcome = audited(piece, Workshop::default());
    let made = whole_package(piece, &outcome, &Shop::default(), &Stamp::default()).ok()?;
    made.files.iter().find_map(|(name, bytes)| {
        let holds = |word: &[u8]| bytes.windows(word.len()).any(|own| own == word);
        if name.ends_with(".pdf") && (holds(b" NaN ") || holds(b" inf ") || holds(b" -inf ")) {
            return Some(format!("{name} draws to a place that is none"));
        }
        // Its JSON has the bounds of each list of numbers, and nothing else that could be left out.
        if name.ends_with(".glb") && holds(b"null") {
            return Some(format!("{name} has bounds that are none"));
        }
        let is_text = [".dxf", ".svg", ".step", ".csv", ".nc", ".nc1", ".json"].iter().any(|end| name.ends_with(end));
        // A piece that is itself called so says so everywhere.
        let found = is_text.then(|| has_no_number(&String::from_utf8_lossy(bytes))).flatten();
        found.filter(|_| !own_words).map(|words| format!("{name}: {words}"))
    })
}

#[test]
fn any_piece_is_answered() {
    let corpus = corpus();
    let mut pool = Vec::new();
    corpus.iter().for_each(|one| texts(one, &mut pool));
    throw("pieces", 200, |found, seed| {
        let mut dice = Dice::new(seed);
        let mut document = match dice.below(5) {
            0 => trials::plate(seed),
            1 => trials::sheet(seed),
            2 => trials::frame(seed),
            _ => dice.pick(&corpus).clone(),
        };
        for _ in 0..1 + dice.below(4) {
            let mut other = dice.pick(&corpus).clone();
            damage(&mut dice, &mut document, &mut other, &pool);
        }
        let text = document.to_string();
        if std::env::var("STEELK_SHOW").is_ok() {
            println!("{text}");
        }
        let own_words = has_no_number(&text).is_some();
        case(found, "piece", seed, || {
            if let Ok(piece) = Piece::read(text.as_bytes())
                && let Some(words) = everything(&piece, own_words)
            {
                found.say(format!("piece {seed}: {words}"));
            }
        });
    });
}

/// A file, what reads it, and what goes on with what was read.
struct Sample {
    name: String,
    bytes: Vec<u8>,
}

fn samples() -> Vec<Sample> {
    let mut all = Vec::new();
    for document in corpus().into_iter().take(14) {
        let piece = Piece::read(document.to_string().as_bytes()).unwrap();
        let outcome = audited(&piece, Workshop::default());
        let Ok(made) = whole_package(&piece, &outcome, &Shop::default(), &Stamp::default()) else { continue };
        let small = made.files.into_iter().filter(|(name, bytes)| bytes.len() < 200_000 && !name.ends_with(".pdf"));
        all.extend(small.map(|(name, bytes)| Sample { name, bytes }));
        all.push(Sample { name: "piece.json".into(), bytes: document.to_string().into_bytes() });
    }
    let more = [
        ("cutters.toml", steelk_core::stock::write_cutters(example_cutters())),
        ("table.csv", steelk_core::stock::example_bend_table().write_csv()),
        ("lines.csv", "name,x1,y1,z1,x2,y2,z2\na,0,0,0,1000,0,0\nb,1000,0,0,1000,800,0\n".into()),
        (
            "round.svg",
            "<svg xmlns='http://www.w3.org/2000/svg' width='100mm' height='80mm' viewBox='0 0 100 80'><g id='CUT' \
             transform='rotate(30) scale(2 1)'><path d='M0 0h50a10 10 0 0 1 10 10v20c0 9-9 20-20 20s-9 2-20 0z'/>\
             <circle cx='20' cy='20' r='5'/><use href='#CUT'/></g></svg>"
                .into(),
        ),
    ];
    all.extend(more.into_iter().map(|(name, text)| Sample { name: name.into(), bytes: text.into_bytes() }));
    for name in ["bomb-deep.dxf", "bomb-empty.dxf", "bomb-text.dxf"] {
        let bytes = std::fs::read(root().join("crates/formats/tests/hostile").join(name)).unwrap();
        all.push(Sample { name: name.into(), bytes });
    }
    all
}

/// Damages bytes: a bit, a number, a line, a stretch of another file.
fn spoil(dice: &mut Dice, bytes: &mut Vec<u8>, other: &[u8]) {
    let at = dice.below(bytes.len() + 1);
    match dice.below(8) {
        0 if at < bytes.len() => bytes[at] = dice.below(256) as u8,
        1 if at < bytes.len() => bytes[at] ^= 1 << dice.below(8),
        2 => drop(bytes.drain(at..(at + dice.below(200)).min(bytes.len()))),
        3 => {
            let from = dice.below(bytes.len() + 1);
            let piece = bytes[from..(from + dice.below(400)).min(bytes.len())].to_vec();
            bytes.splice(at..at, piece);
        }
        4 => {
            let from = dice.below(other.len() + 1);
            bytes.splice(at..at, other[from..(from + dice.below(400)).min(other.len())].iter().copied());
        }
        5 => bytes.truncate(at),
        // A number of the text by another.
        _ => {
            let is_digit = |byte: &u8| byte.is_ascii_digit() || matches!(byte, b'.' | b'-');
            let Some(from) = bytes[at..].iter().position(is_digit).map(|ahead| at + ahead) else { return };
            let to = bytes[from..].iter().position(|byte| !is_digit(byte)).map_or(bytes.len(), |ahead| from + ahead);
            let numbers = [
                "0",
                "-1",
                "1e308",
                "1e-308",
                "NaN",
                "inf",
                "99999999999",
                "0.0000001",
                "1e9",
                "-0",
                "360",
                "20000",
                "7",
            ];
            bytes.splice(from..to, dice.pick(&numbers).bytes());
        }
    }
}

/// Reads bytes by every reader that could be meant, and goes on as the server does.
fn read(name: &str, bytes: &[u8], machine: &Machine) {
    let text = String::from_utf8_lossy(bytes).into_owned();
    let strokes = match name.rsplit_once('.').map_or("", |(_, end)| end) {
        "dxf" => {
            let _ = centre_lines::from_dxf(bytes, LengthUnit::In).map(lines);
            let _ = steelk_formats::audit::read_blank(bytes);
            dxf_read::read(bytes, &Layers::default()).ok()
        }
        "svg" => svg_read::read(bytes, &Layers::default()).ok(),
        "step" => {
            let bodies = step_read::read(&text).unwrap_or_default();
            // What is read is measured and written again.
            for (_, body) in bodies.iter().take(4) {
                let _ = (body.mass(), body.mesh(0.1, |face| &face.owner).is_ok());
            }
            let _ = steelk_formats::step::write_all(&bodies, "again", "again", &Default::default());
            None
        }
        "csv" => {
            let _ = BendTable::read_csv(&text, "table").map(|table| table.write_csv());
            let _ = centre_lines::from_csv(&text, LengthUnit::Mm).map(lines);
            let _ = table_csv::read(bytes);
            None
        }
        "nc" => {
            if let Ok(run) = steelk_cutter::run(bytes, machine) {
                assert!(run.cuts().all(|one| one.way.start.x.is_finite() && one.way.end.y.is_finite()));
            }
            None
        }
        "nc1" => {
            let _ = steelk_cutter::saw::read(&text);
            None
        }
        "toml" => {
            let _ = read_cutters(&text).map(|cutters| steelk_core::stock::write_cutters(&cutters));
            None
        }
        _ => {
            let _ = Piece::read(bytes).map(|piece| piece.write());
            let _ = serde_json::from_slice::<steelk_server::api::JobFile>(bytes);
            None
        }
    };
    if let Some(found) = strokes
        && let Ok(tidied) = tidy(&found.strokes, Tolerances::default())
    {
        let box_ = tidied.region.extents();
        assert!(box_.width().is_finite() && box_.height().is_finite() && tidied.region.area().is_finite());
    }
}

/// Centre lines from a file, made a frame of.
fn lines(action: LinesAction) {
    let document = json!({"steelk": 1, "kind": "frame", "mark": "F", "title": "lines", "quantity": 1, "unit": "mm",
        "stock": {"material": "S355"}, "operations": [
            {"name": "lines", "do": {"lines": action}},
            {"name": "all", "do": {"member": {"section": "SHS 50x50x3", "lines": ["*"]}}}]});
    let piece = Piece::read(document.to_string().as_bytes()).unwrap_or_else(|fault| panic!("{fault}"));
    let outcome = evaluate(&piece, Options::default());
    let words = sent("lines", &BuildAnswer::new(&piece, &outcome, LengthUnit::Mm, Need::All));
    assert_eq!(words, None);
}

#[test]
fn any_file_is_read_or_refused() {
    let samples = samples();
    for end in [".dxf", ".svg", ".step", ".csv", ".nc", ".nc1", ".toml", ".json"] {
        assert!(samples.iter().any(|one| one.name.ends_with(end)), "no sample of {end}");
    }
    let cutter = &example_cutters()[0];
    let machine = Machine::of(cutter, &cutter.rows[0]);
    throw("files", 600, |found, seed| {
        let mut dice = Dice::new(seed);
        let sample = &samples[seed as usize % samples.len()];
        let mut bytes = sample.bytes.clone();
        for _ in 0..1 + dice.below(6) {
            let other = dice.pick(&samples).bytes.clone();
            spoil(&mut dice, &mut bytes, &other);
        }
        case(found, &sample.name, seed, || read(&sample.name, &bytes, &machine));
    });
}

/// The largest that is taken of each kind, or a tenth of it where nothing is optimised: it is done or ended, and asks
/// often enough whether it should go on.
#[test]
fn large_inputs_can_be_ended() {
    let scale = if cfg!(debug_assertions) { 10 } else { 1 };
    let holes = |outline: Value, pitch: f64| {
        let pitch = format!("{} mm", pitch * f64::from(scale).sqrt());
        json!({"steelk": 1, "kind": "plate", "mark": "H", "title": "holes", "quantity": 1, "unit": "mm",
            "stock": {"material": "S275", "thickness": "3 mm"}, "operations": [
                {"name": "base", "do": {"lay_down": {"shape": {"rectangle": {"width": "1100 mm", "depth": "850 mm"}}}}},
                {"name": "perf", "do": {"cut": {"panel": "base", "outline": outline,
                    "pattern": {"fill": {"rows": "square", "pitch": pitch, "margin": "3 mm"}}}}}]})
    };
    let lines: Vec<String> = (0..2000 / scale)
        .map(|at| {
            let (x, y) = (at % 40 * 500, at / 40 * 500);
            format!("({x} mm, {y} mm, 0 mm), ({} mm, {y} mm, 0 mm)", x + 480)
        })
        .collect();
    let frame = json!({"steelk": 1, "kind": "frame", "mark": "F", "title": "many", "quantity": 1, "unit": "mm",
        "stock": {"material": "S355"}, "operations": [
            {"name": "lines", "do": {"lines": {"unit": "mm", "lines": lines}}},
            {"name": "all", "do": {"member": {"section": "SHS 50x50x3", "lines": ["*"]}}}]});
    let pieces = [
        ("square holes", holes(json!({"rectangle": {"width": "4 mm", "depth": "4 mm"}}), 7.0)),
        ("obrounds", holes(json!({"obround": {"length": "5 mm", "width": "3 mm"}}), 7.0)),
        ("a frame", frame),
    ];
    let strokes = 200_000 / scale as usize;
    let dxf: String = (0..strokes)
        .map(|at| {
            format!("0\nLINE\n8\n0\n10\n{}\n20\n{}\n11\n{}\n21\n{}\n", at % 700, at / 700, at % 700 + 1, at / 700)
        })
        .collect();
    let dxf = format!("0\nSECTION\n2\nENTITIES\n{dxf}0\nENDSEC\n0\nEOF\n");
    let svg: String = (0..strokes).map(|at| format!("<path d='M{} {}h1'/>", at % 700, at / 700)).collect();
    let svg = format!("<svg xmlns='http://www.w3.org/2000/svg'>{svg}</svg>");
    let squares: String =
        (0..40_000 / scale as usize).map(|at| format!("M{} {}h3v3h-3z", at % 200 * 5, at / 200 * 5)).collect();
    let squares = format!("<svg xmlns='http://www.w3.org/2000/svg'><path d='M-5-5h1100v1100h-1100z{squares}'/></svg>");
    let cutter = &example_cutters()[0];
    let machine = Machine::of(cutter, &cutter.rows[0]);
    let files = [("lines.dxf", dxf), ("lines.svg", svg), ("squares.svg", squares)];
    throw("large", (pieces.len() + files.len()) as u64, |found, at| {
        let at = at as usize;
        let begun = Instant::now();
        match pieces.get(at) {
            Some((name, document)) => {
                let piece = Piece::read(document.to_string().as_bytes()).unwrap();
                case(found, name, at as u64, || drop(everything(&piece, false)));
                println!("{name}: {:?}", begun.elapsed());
            }
            None => {
                let Some((name, text)) = files.get(at - pieces.len()) else { return };
                case(found, name, at as u64, || read(name, text.as_bytes(), &machine));
                println!("{name}: {:?}", begun.elapsed());
            }
        }
    });
}
