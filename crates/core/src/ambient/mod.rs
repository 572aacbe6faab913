//! The light that is already there: where the sun stands, what sun and sky give on a face and behind it, what stands in
//! the way, typical lamps, and how all of it falls.

mod ahead;
mod aim;
mod colour;
mod follow;
mod horizon;
mod light;
mod phases;
mod region;
mod scene;
mod sky;
mod sun;
mod track;
mod transitions;
mod typical;

pub use ahead::{Ahead, NextTurn};
pub use aim::{LensAndSun, SunSide, compass_point, shadow_length_m, sun_side};
pub use colour::SceneColours;
pub use follow::{Follower, Known, Lights};
pub use horizon::Skyline;
pub use light::{LightNow, SceneLight, incidence, receptor_lux};
pub use light::{SUNLIT_STILL_SHADE, bearing_apart};
pub use phases::LightPhase;
pub use region::RegionLight;
pub use scene::{
    AngleHeight, Artificial, Behind, BehindWhat, CloudHour, ForecastCloud, Obstacle, ObstacleHeight, OpenShade, Role,
    Scene, Site, SizeHeight, SteadyCloud, Surroundings, Weather,
};
pub use sky::{Daylight, air_mass, clear_total_lux, daylight};
pub use sun::{Air, Spot, Sun, SunTimes};
pub use track::SunTrack;
pub use transitions::{PhaseStretch, SunEvent, SunTransition, sun_transitions};
pub use typical::{TypicalLight, flicker_shows};
