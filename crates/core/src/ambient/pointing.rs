//! How to hold a meter, for each part of the picture. Common practice, no source.

use super::Role;
use crate::exposure::MeteringMethod;

/// Where a meter is held and which way it is pointed: it is drawn so.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Pointing {
    /// At the subject's face, level, towards the horizon under the sun.
    UnderTheSun,
    /// At the subject's face, towards the camera.
    TowardsTheCamera,
    /// At the shadow cheek, turned away from the light, so that only what reaches the shadow falls on it.
    AwayFromTheLight,
    /// At what lies behind, or where the same light falls, towards the camera.
    BehindTheSubject,
    /// From the camera at the surface.
    AtTheSurface,
    /// From the camera past the subject, at what lies behind.
    AtWhatLiesBehind,
}

/// How to read a part of the picture in a way, where the sun shows or does not.
pub fn pointing(how: MeteringMethod, part: Role, sun_shows: bool) -> Pointing {
    match (how.is_incident(), part) {
        (false, Role::Background) => Pointing::AtWhatLiesBehind,
        (false, _) => Pointing::AtTheSurface,
        (true, Role::Background) => Pointing::BehindTheSubject,
        (true, Role::ShadowSide) => Pointing::AwayFromTheLight,
        (true, Role::LitSide | Role::Part) if sun_shows => Pointing::UnderTheSun,
        (true, Role::LitSide | Role::Part) => Pointing::TowardsTheCamera,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case(MeteringMethod::IncidentDome, Role::LitSide, true, Pointing::UnderTheSun)]
    #[case(MeteringMethod::IncidentDome, Role::LitSide, false, Pointing::TowardsTheCamera)]
    #[case(MeteringMethod::IncidentDome, Role::ShadowSide, true, Pointing::AwayFromTheLight)]
    #[case(MeteringMethod::Luxmeter, Role::Background, true, Pointing::BehindTheSubject)]
    #[case(MeteringMethod::SpotGrey, Role::LitSide, true, Pointing::AtTheSurface)]
    #[case(MeteringMethod::Camera, Role::Background, false, Pointing::AtWhatLiesBehind)]
    fn where_to_hold_it(#[case] how: MeteringMethod, #[case] part: Role, #[case] sun: bool, #[case] held: Pointing) {
        assert_eq!(pointing(how, part, sun), held);
    }

    /// No two parts of a picture are read in the same way, but what is lit as the lit side is.
    #[rstest]
    #[case(MeteringMethod::IncidentDome)]
    #[case(MeteringMethod::IncidentFlat)]
    fn each_part_is_read_in_its_own_way(#[case] how: MeteringMethod) {
        let of = |part| pointing(how, part, true);
        assert!(of(Role::LitSide) != of(Role::ShadowSide) && of(Role::LitSide) != of(Role::Background));
        assert_ne!(of(Role::ShadowSide), of(Role::Background));
    }
}
