//! Closed shapes for base panels and holes: ready ones, runs of legs, outlines solved from a drawing's numbers, shapes
//! put together, outlines from files. Text becomes numbers in [`read`]; every shape ends as one [`Laid`].

mod combine;
mod drawn;
mod laid;
mod open;
mod profile;
mod pull;
mod read;
mod ready;
mod run;
mod standing;
mod underlay;

pub use laid::{Laid, MOST_EDGES};
pub use standing::{Disagreement, LooseAt, NamedCircle, NamedPoint, SayingRole, SayingStands, Standing};

pub use profile::{PathFault, read_path, write_path};
pub use pull::{PullError, pull_to_round};
pub(in crate::sheet) use read::{read_legs, read_shape};
pub(in crate::sheet) use run::{Leg, walk};
pub use underlay::{Traced, UnderlayStands};
