//! What a member weighs and where its centre lies: its plain bodies, less its holes.

use crate::quantity::tolerance::CUBIC_METRES;
use crate::space::{Point3, Vector3};

use super::member::Member;
use super::plain;

impl Member {
    /// Volume of metal, mm3: exact for one plane an end; points and round copes by `over`, to rounding.
    pub fn volume(&self) -> f64 {
        let body: f64 = if self.has_cutouts() {
            plain::bodies(self).iter().map(Member::sawn_volume).sum()
        } else {
            self.sawn_volume()
        };
        body - self.bores.iter().map(|bore| self.bored(bore).0).sum::<f64>()
    }

    /// What its metal weighs, kg/m3: of a section whose mass is stated, that.
    pub fn density(&self) -> f64 {
        self.section.density(self.material.density)
    }

    /// Mass, kg.
    pub fn mass(&self) -> f64 {
        self.volume() * self.density() * CUBIC_METRES
    }

    /// Centre of gravity, mm: of what lies between the cuts, less its holes; of a bent one by its lines and what each end's cut
    /// adds or takes.
    pub fn centre_of_gravity(&self) -> Point3 {
        let (volume, first) = self.moments();
        Point3::default() + first * (1.0 / volume)
    }

    /// Mass, kg, and centre of gravity, mm: ends are summed once for both.
    pub fn weighed(&self) -> (f64, Point3) {
        let (volume, first) = self.moments();
        (volume * self.density() * CUBIC_METRES, Point3::default() + first * (1.0 / volume))
    }

    /// Volume of metal and its first moments about the origin of space.
    fn moments(&self) -> (f64, Vector3) {
        let (mut volume, mut first) = if self.has_cutouts() {
            plain::bodies(self).iter().fold((0.0, Vector3::default()), |(volume, first), body| {
                let (own, moment) = body.sawn_moments();
                (volume + own, first + moment)
            })
        } else {
            self.sawn_moments()
        };
        let (bored, at) = self.bored_moments();
        volume -= bored;
        first = first - at;
        (volume, first)
    }
}
