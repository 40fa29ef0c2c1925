//! Parts without and with something made in them, given to a solid kernel that makes it in the plain one by its own means.

use std::path::PathBuf;

use serde_json::{Value, json};
use steelk_core::finding::Severity;
use steelk_core::piece::{Options, Outcome, Piece, audit_fully, evaluate};
use steelk_core::sheet::folded_body;
use steelk_testing::python::answers;
use steelk_testing::trials::Dice;

/// Between two sizes, in hundredths.
pub fn between(dice: &mut Dice, low: f64, high: f64) -> f64 {
    low + dice.below(((high - low) * 100.0) as usize + 1) as f64 / 100.0
}

/// What is given to a script of the kernel, case by case.
pub struct KernelTrial {
    script: &'static str,
    folder: PathBuf,
    asked: Vec<Value>,
    ours: Vec<(u64, Outcome)>,
}

impl KernelTrial {
    /// A trial of one of the scripts.
    pub fn new(script: &'static str) -> KernelTrial {
        let folder = std::env::temp_dir().join(format!("steelk-{script}-{}", std::process::id()));
        std::fs::create_dir_all(&folder).unwrap();
        KernelTrial { script, folder, asked: Vec::new(), ours: Vec::new() }
    }

    /// How many cases there are.
    pub fn count(&self) -> usize {
        self.asked.len()
    }

    /// Adds a case, with what the kernel is told of it besides its files. False where it cannot be made: the program refuses it in words.
    pub fn add(&mut self, seed: u64, (plain, ours): (&Piece, &Piece), mut told: Value) -> bool {
        let (plain, mut outcome) = (evaluate(plain, Options::default()), evaluate(ours, Options::default()));
        if outcome.findings.iter().any(|one| one.severity == Severity::Error) {
            return false;
        }
        audit_fully(&mut outcome);
        let audit = &outcome.audit;
        let off: Vec<String> = audit.pairs.iter().filter(|pair| !pair.agrees()).map(|pair| pair.words()).collect();
        assert!(off.is_empty() && audit.left_out.is_empty(), "seed {seed}: {off:?} {:?} {told}", audit.left_out);
        for (key, one) in [("plain", &plain), ("ours", &outcome)] {
            let body = folded_body(&one.part().unwrap().flat).unwrap_or_else(|fault| panic!("seed {seed}: {fault}"));
            let path = self.folder.join(format!("{seed}-{key}.step"));
            std::fs::write(&path, steelk_formats::step::write(&body, "trial", &Default::default())).unwrap();
            told[key] = json!(path);
        }
        self.asked.push(told);
        self.ours.push((seed, outcome));
        true
    }

    /// Asks the kernel: each file one valid solid with the volume, the centre and the size that the kernel's own has, nothing of either
    /// outside of the other, and the volume and the size as they are stated.
    pub fn ask(self) {
        let found = answers(self.script, [] as [&str; 0], &json!(self.asked).to_string());
        std::fs::remove_dir_all(&self.folder).unwrap();
        assert_eq!(found.len(), self.ours.len());
        for ((found, asked), (seed, outcome)) in found.iter().zip(&self.asked).zip(&self.ours) {
            let value = |key: &str| found[key].as_f64().unwrap_or_else(|| panic!("seed {seed}: no {key} in {found}"));
            let volume = value("volume");
            assert_eq!(
                (found["valid"].as_bool(), found["solids"].as_u64(), found["shells"].as_u64()),
                (Some(true), Some(1), Some(1)),
                "seed {seed}: {found} {asked}"
            );
            let figures = outcome.figures().unwrap();
            for (what, other) in [("in the file", value("ours")), ("as stated", figures.folded_volume + figures.formed)]
            {
                assert!((other / volume - 1.0).abs() < 1e-6, "seed {seed}: {other} {what}: {found} {asked}");
            }
            assert!(value("apart") < 1e-4, "seed {seed}: {found} {asked}");
            // What of one is not in the other is a film of rounding at the most.
            assert!(value("more").max(value("less")) < 1e-5 * volume, "seed {seed}: {found} {asked}");
            let size = figures.folded_size;
            for (axis, own) in [size.x, size.y, size.z].into_iter().enumerate() {
                let theirs = found["size"][axis].as_f64().unwrap();
                assert!((own - theirs).abs() < 2e-5, "seed {seed}: {own} {theirs} along {axis} {asked}");
            }
        }
    }
}
