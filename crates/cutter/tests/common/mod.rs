//! From a piece to its program and to what the machine makes of it.
#![allow(dead_code)]

use steelk_core::piece::{Options, Outcome, Piece, evaluate};
use steelk_core::quantity::LengthUnit;
use steelk_core::stock::example_cutters;
use steelk_core::toolpath::{Plan, Settings, plan, profile, settings};
use steelk_cutter::{Inspection, Machine, RunError, Wanted, inspect, run};
use steelk_formats::gcode::{ProgramOf, write};
use steelk_formats::output::Stamp;
use steelk_testing::blank_by_blank;

pub struct Made {
    pub plan: Plan,
    pub settings: Settings,
    pub text: String,
    pub wanted: Wanted,
    pub machine: Machine,
    of: ProgramOf,
}

impl Made {
    pub fn inspect(&self, text: &str) -> Result<Inspection, RunError> {
        Ok(inspect(&run(text.as_bytes(), &self.machine)?, &self.wanted))
    }

    /// The program of another plan for the same part.
    pub fn rewritten(&self, plan: &Plan) -> String {
        write(plan, &self.settings, &self.of)
    }
}

pub fn make(json: &str) -> Made {
    let piece = Piece::read(json.as_bytes()).expect("a sound document");
    let outcome = evaluate(&piece, Options::default());
    made_of(&piece, &outcome)
}

/// The programs of a piece, one a blank, by their marks.
pub fn made_all(json: &str) -> Vec<(String, Made)> {
    let piece = Piece::read(json.as_bytes()).expect("a sound document");
    let each = blank_by_blank(piece).into_iter();
    each.map(|(own, outcome)| (own.mark.clone(), made_of(&own, &outcome))).collect()
}

/// The program of what was made of a piece of one blank.
pub fn made_of(piece: &Piece, outcome: &Outcome) -> Made {
    let part = outcome.part().expect("a part");
    let resolved = &outcome.resolved;
    let cutting = piece.cutting.clone().unwrap_or_default();
    let thickness = resolved.thickness.expect("a thickness");
    let material = resolved.material.expect("a material");
    let settings = settings(&cutting, example_cutters(), material, thickness, &resolved.names).expect("settings");
    let profile = profile(part);
    let plan = plan(&profile, &settings, LengthUnit::Mm).expect("a plan");
    let of = ProgramOf {
        mark: piece.mark.clone(),
        title: piece.title.clone(),
        stamp: Stamp::default(),
        material: piece.stock.material.clone(),
        thickness,
        note: None,
        count: piece.count(),
        unit: LengthUnit::Mm,
    };
    let text = write(&plan, &settings, &of);
    let machine = Machine::of(&settings.cutter, &settings.row);
    let wanted = Wanted::of(&profile, &plan, &settings);
    Made { plan, settings, text, wanted, machine, of }
}

pub fn demo() -> Vec<(String, String)> {
    let folder = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo");
    let mut files: Vec<_> = std::fs::read_dir(folder)
        .expect("the demo folder")
        .filter_map(|entry| Some(entry.ok()?.path()))
        .filter(|path| path.extension().is_some_and(|end| end == "json"))
        .collect();
    files.sort();
    files
        .into_iter()
        .map(|path| (path.display().to_string(), std::fs::read_to_string(&path).expect("a demo file")))
        .flat_map(|(name, text)| {
            let piece = Piece::read(text.as_bytes()).expect("a sound document");
            if piece.kind != steelk_core::piece::Kind::Frame {
                return vec![(name, text)];
            }
            // Of a frame its plates, each a piece of its own.
            let plates = piece.frame_plates(&evaluate(&piece, Options::default()));
            plates.into_iter().map(|plate| (format!("{name}: {}", plate.mark), plate.write())).collect()
        })
        .collect()
}

/// A plate of S275 with operations after its base.
pub fn plate(thickness: &str, base: &str, more: &str, cutting: &str) -> String {
    format!(
        r#"{{"steelk":1,"kind":"plate","mark":"T-1","title":"test","quantity":1,"unit":"mm",
        "stock":{{"material":"S275","thickness":"{thickness}"}},"cutting":{cutting},
        "operations":[{{"name":"base","do":{{"lay_down":{{"shape":{base}}}}}}}{more}]}}"#
    )
}
