//! The tables as read from `data/`.

use std::collections::BTreeMap;
use std::sync::OnceLock;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::rows::rows;
use super::screw::{Head, Screw, screws};
use super::thread::{Clearance, Thread, clearances, plain, threads};

/// What a material is made of: each family has its own gauges.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[allow(missing_docs)]
pub enum Family {
    MildSteel,
    Galvanised,
    Stainless,
    Aluminium,
    /// Sawn timber: sections only.
    Timber,
    /// Card, for trial pieces.
    Card,
}

impl Family {
    /// The family in words.
    pub fn words(self) -> &'static str {
        match self {
            Family::MildSteel => "mild steel",
            Family::Galvanised => "galvanised steel",
            Family::Stainless => "stainless steel",
            Family::Aluminium => "aluminium",
            Family::Timber => "timber",
            Family::Card => "card",
        }
    }

    /// Where the family's gauges come from.
    pub fn gauge_source(self) -> &'static str {
        match self {
            Family::MildSteel => "Manufacturers' Standard Gauge",
            Family::Galvanised => "ASTM A653 practice (from memory)",
            Family::Stainless => "US standard gauge (from memory)",
            Family::Aluminium => "Brown & Sharpe, ASTM B258",
            Family::Timber => "timber has no gauges",
            Family::Card => "card has no gauges",
        }
    }
}

/// A sheet material.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Material {
    /// Short name, as cited in a piece.
    pub name: String,
    /// Name in words.
    pub title: String,
    /// Its family.
    pub family: Family,
    /// Density, kg/m3.
    pub density: f64,
    /// Steps of (up to this thickness in mm, least inside radius as a multiple of the thickness).
    #[schema(value_type = Vec<Vec<f64>>)]
    pub least_radius: Vec<(f64, f64)>,
    /// Steps of (up to this thickness in mm, upper tensile strength in MPa).
    #[schema(value_type = Vec<Vec<f64>>)]
    pub tensile: Vec<(f64, f64)>,
    /// K-factor used where a piece names none.
    pub k_factor: f64,
    /// Where the figures come from.
    pub source: String,
    /// What to beware of.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub caution: Option<String>,
}

/// One gauge of one family.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Gauge {
    /// Whose gauge.
    pub family: Family,
    /// Its number.
    pub number: u32,
    /// Thickness, inches.
    pub inches: f64,
}

/// Everything in `data/`.
#[derive(Clone, Debug, Serialize, ToSchema)]
pub struct Stock {
    /// Materials.
    pub materials: Vec<Material>,
    /// Gauges.
    pub gauges: Vec<Gauge>,
    /// Thicknesses kept by stockholders, mm.
    pub thicknesses: BTreeMap<Family, Vec<f64>>,
    /// Thicknesses kept in inches that are no gauges.
    pub inch_thicknesses: BTreeMap<Family, Vec<f64>>,
    /// Threads.
    pub threads: Vec<Thread>,
    /// Clearance holes.
    pub clearances: Vec<Clearance>,
    /// Heads of screws, and washers.
    pub screws: Vec<Screw>,
    /// Least inside radii for cold flanging.
    pub cold_flanging: Vec<ColdFlanging>,
}

/// A row of the standard's table of least inside radii for cold flanging, mm.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct ColdFlanging {
    /// Which steel.
    pub steel: String,
    /// Thickness that the row serves up to.
    pub up_to: f64,
    /// For a bend line across the rolling direction.
    pub across: f64,
    /// For a bend line along it.
    pub along: f64,
}

impl Stock {
    /// The material of this name.
    pub fn material(&self, name: &str) -> Option<&Material> {
        self.materials.iter().find(|material| material.name == name)
    }
}

/// The tables built into Steelk.
pub fn stock() -> &'static Stock {
    static STOCK: OnceLock<Stock> = OnceLock::new();
    // The tables are part of the program and a test reads every row: a fault in them cannot reach a user.
    STOCK.get_or_init(|| read().expect("the tables in data/ are sound"))
}

fn read() -> Result<Stock, String> {
    #[derive(Deserialize)]
    struct Materials {
        material: Vec<Material>,
    }
    let materials: Materials =
        toml::from_str(include_str!("../../../../data/materials.toml")).map_err(|fault| fault.to_string())?;
    let family = |name: &str| -> Result<Family, String> {
        serde_json::from_value(serde_json::Value::String(name.to_string())).map_err(|fault| fault.to_string())
    };
    let mut gauges = Vec::new();
    for row in rows(include_str!("../../../../data/gauges.csv")) {
        let row = row.map_err(|fault| fault.to_string())?;
        gauges.push(Gauge {
            family: family(&row[0])?,
            number: row[1].parse().map_err(|_| format!("bad gauge {}", &row[1]))?,
            inches: row[2].parse().map_err(|_| format!("bad thickness {}", &row[2]))?,
        });
    }
    let (mut thicknesses, mut inch_thicknesses) = (BTreeMap::new(), BTreeMap::new());
    for row in rows(include_str!("../../../../data/thicknesses.csv")) {
        let row = row.map_err(|fault| fault.to_string())?;
        let list = |text: &str| -> Result<Vec<f64>, String> {
            let all: Result<Vec<f64>, _> = text.split_whitespace().map(str::parse).collect();
            all.map_err(|_| format!("bad thickness in {text}"))
        };
        thicknesses.insert(family(&row[0])?, list(&row[1])?);
        inch_thicknesses.insert(family(&row[0])?, list(&row[2])?);
    }
    let mut cold_flanging = Vec::new();
    for row in rows(include_str!("../../../../data/cold_flanging.csv")) {
        let row = row.map_err(|fault| fault.to_string())?;
        let figure = |at: usize| row[at].parse::<f64>().map_err(|_| format!("bad figure {}", &row[at]));
        let (up_to, across, along) = (figure(1)?, figure(2)?, figure(3)?);
        cold_flanging.push(ColdFlanging { steel: row[0].to_string(), up_to, across, along });
    }
    let (threads, clearances, screws) = (threads()?, clearances()?, screws()?);
    Ok(Stock {
        materials: materials.material,
        gauges,
        thicknesses,
        inch_thicknesses,
        threads,
        clearances,
        screws,
        cold_flanging,
    })
}

impl Stock {
    /// The thread of this designation.
    pub fn thread(&self, name: &str) -> Option<&Thread> {
        let wanted = plain(name);
        self.threads.iter().find(|thread| plain(&thread.name) == wanted)
    }

    /// The head of this kind and size of screw.
    pub fn screw(&self, head: Head, size: &str) -> Option<&Screw> {
        let wanted = plain(size);
        self.screws.iter().find(|one| one.head == head && plain(&one.size) == wanted)
    }

    /// The sizes that there are of a kind of head.
    pub fn screw_sizes(&self, head: Head) -> Vec<&str> {
        self.screws.iter().filter(|one| one.head == head).map(|one| one.size.as_str()).collect()
    }

    /// The clearance holes of this bolt.
    pub fn clearance(&self, bolt: &str) -> Option<&Clearance> {
        let wanted = plain(bolt);
        self.clearances.iter().find(|one| plain(&one.bolt) == wanted)
    }
}
