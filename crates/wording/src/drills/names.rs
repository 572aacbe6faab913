//! What skills and levels are called.

use serde::Serialize;
use tolva_planner::drills::{Level, Skill};
use utoipa::ToSchema;

/// A skill by its code and name.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct SkillSaid {
    /// Its code: `equal_exposures`.
    pub code: &'static str,
    /// What it is called.
    pub name: &'static str,
}

/// A level by its number and name.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, ToSchema)]
pub struct LevelSaid {
    /// 1 to 3.
    pub number: u8,
    /// What it is called.
    pub name: &'static str,
}

impl From<Skill> for SkillSaid {
    fn from(skill: Skill) -> Self {
        let (code, name) = match skill {
            Skill::EqualExposures => ("equal_exposures", "Equal exposures"),
            Skill::WhatMovesWhat => ("what_moves_what", "What moves ambient and flash"),
            Skill::Distances => ("distances", "Twice as far"),
            Skill::GuideNumbers => ("guide_numbers", "Guide numbers"),
            Skill::Powers => ("powers", "Fractions of power"),
            Skill::Sums => ("sums", "Sums and ratios of light"),
            Skill::HalfAndHalf => ("half_and_half", "Half and half"),
            Skill::SkinBySpot => ("skin_by_spot", "Skin by the spot meter"),
            Skill::MeterPointing => ("meter_pointing", "Where the meter points"),
            Skill::Shutters => ("shutters", "Shutter for hand and movement"),
            Skill::Depth => ("depth", "Depth for a group"),
            Skill::Gels => ("gels", "Mired and gels"),
            Skill::HighSpeedOrFilter => ("high_speed_or_filter", "High speed or a filter"),
            Skill::BounceLosses => ("bounce_losses", "What bounce takes"),
            Skill::Recycling => ("recycling", "Recycling"),
            Skill::CleanPlates => ("clean_plates", "Clean plates"),
            Skill::Glass => ("glass", "What shows in glass"),
            Skill::ReadThePicture => ("read_the_picture", "Read the picture"),
            Skill::RailAndPicture => ("rail_and_picture", "Rail and picture"),
        };
        Self { code, name }
    }
}

/// A skill by its code.
pub fn skill_of(code: &str) -> Option<Skill> {
    Skill::ALL.into_iter().find(|skill| SkillSaid::from(*skill).code == code)
}

/// A level's number.
pub fn number_of(level: Level) -> u8 {
    match level {
        Level::First => 1,
        Level::Second => 2,
        Level::Third => 3,
    }
}

/// A level by its number.
pub fn level_of(number_of_it: u8) -> Option<Level> {
    Level::ALL.into_iter().find(|level| number_of(*level) == number_of_it)
}

/// All levels, the easiest first.
pub fn levels() -> Vec<LevelSaid> {
    let name = |level| match level {
        Level::First => "Whole stops",
        Level::Second => "Thirds",
        Level::Third => "Two at once",
    };
    Level::ALL.map(|level| LevelSaid { number: number_of(level), name: name(level) }).to_vec()
}
