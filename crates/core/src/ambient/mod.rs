//! The light that is already there: where the sun stands, what sun and sky give on a face and behind it, what stands in
//! the way, typical lamps, and how all of it falls.

mod ahead;
mod calibrated;
mod colour;
mod horizon;
mod phases;
mod pointing;
mod scene;
mod scene_light;
mod sky;
mod sun;
mod sun_geometry;
mod track;
mod transitions;
mod typical;

pub use ahead::{Ahead, NextTransition};
pub use calibrated::{AmbientSource, CalibratedAmbient, Lights};
pub use colour::SceneColours;
pub use horizon::Skyline;
pub use phases::LightPhase;
pub use pointing::{Pointing, pointing};
pub use scene::{
    AngleHeight, Artificial, Background, BackgroundKind, CloudHour, ForecastCloud, Obstacle, ObstacleHeight, OpenShade,
    Role, Scene, Site, SizeHeight, SteadyCloud, Surroundings, Weather,
};
pub use scene_light::{AtSubject, LightNow, SceneLight, incidence, receptor_lux};
pub use scene_light::{SUNLIT_STILL_SHADE, bearing_apart};
pub use sky::{Daylight, air_mass, clear_total_lux, daylight};
pub use sun::{Air, GeographicPoint, Sun, SunTimes};
pub use sun_geometry::{LensAndSun, SunSide, shadow_length_m, sun_side};
pub use track::SunTrack;
pub use transitions::{PhaseStretch, SunEvent, SunTransition, sun_transitions};
pub use typical::{TypicalLight, flicker_shows};
