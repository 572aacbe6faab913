//! A change to a setup: what a fix, an alternative or another convention does. A code with its numbers; the words are
//! made elsewhere.

use crate::setup::{Blend, Depth, Kit, LightWish, Setup, Sync};

/// One change, with what it needs to be carried out.
#[derive(Clone, Debug, PartialEq)]
pub enum Change {
    /// A light stands somewhere else.
    MoveLight {
        /// Its letter.
        light_id: String,
        /// How far from what it is aimed at, in metres.
        distance_m: f64,
        /// Whether that is nearer.
        nearer: bool,
    },
    /// Tolva chooses how far a light stands.
    FreeDistance {
        /// Its letter.
        light_id: String,
    },
    /// Tolva chooses a light's power.
    FreePower {
        /// Its letter.
        light_id: String,
    },
    /// Another unit of the kit.
    ChangeUnit {
        /// The light's letter.
        light_id: String,
        /// The unit.
        flash_id: String,
    },
    /// So many units side by side as one.
    ManyUnits {
        /// The light's letter.
        light_id: String,
        /// How many.
        units: u8,
    },
    /// Another modifier of the kit.
    ChangeModifier {
        /// The light's letter.
        light_id: String,
        /// The modifier.
        modifier_id: String,
    },
    /// The gels come off.
    RemoveGels {
        /// The light's letter.
        light_id: String,
    },
    /// Neutral gel goes on the head.
    AddNeutralGel {
        /// The light's letter.
        light_id: String,
        /// The gels, from the kit.
        gel_ids: Vec<String>,
    },
    /// The light is turned aside, so that its edge lights what it is aimed at.
    FeatherLight {
        /// Its letter.
        light_id: String,
        /// How far from what it is aimed at, in degrees.
        feather_deg: f64,
    },
    /// The light is turned straight at what it is aimed at.
    RemoveBounce {
        /// Its letter.
        light_id: String,
    },
    /// A flash more.
    AddFlash,
    /// What lies behind gets another place.
    PlaceBackground {
        /// In stops from mid grey.
        stops: f64,
    },
    /// The subject gets another place.
    PlaceSubject {
        /// In stops from mid grey.
        stops: f64,
    },
    /// The ambient on the subject gets another place.
    PlaceAmbient {
        /// In stops from mid grey.
        stops: f64,
    },
    /// A region's wish becomes what it comes to.
    AcceptRegion {
        /// The region.
        region_id: String,
        /// The light whose wish it is.
        light_id: String,
        /// What the wish becomes.
        wish: LightWish,
        /// Where the region ends, in stops from mid grey.
        stops: f64,
    },
    /// Filters go on the lens.
    AddFilters {
        /// The filters, from the kit.
        filter_ids: Vec<String>,
    },
    /// All filters come off.
    RemoveFilters,
    /// Flash and shutter go together in another way.
    ChangeSync {
        /// How.
        sync: Sync,
    },
    /// The aperture is fixed.
    FixAperture {
        /// The f-number.
        f_number: f64,
    },
    /// The ISO is fixed.
    FixIso {
        /// ISO.
        iso: f64,
    },
    /// Tolva chooses the shutter.
    FreeShutter,
    /// Tolva chooses the aperture.
    FreeAperture,
    /// Tolva chooses the ISO.
    FreeIso,
    /// A slower shutter is allowed.
    AllowSlowerShutter {
        /// In seconds.
        shutter_s: f64,
    },
    /// The camera goes back.
    StepBack {
        /// How far from the subject, in metres.
        distance_m: f64,
    },
    /// A stack of frames instead of one.
    TakeStack,
    /// The depth is what the aperture gives.
    FreeDepth {
        /// The f-number that is set.
        f_number: f64,
    },
}

impl Change {
    /// Whether it lets go of something the photographer fixed.
    pub fn lets_go(&self) -> bool {
        matches!(
            self,
            Self::FreeDistance { .. } | Self::FreePower { .. } | Self::FreeShutter | Self::FreeAperture | Self::FreeIso
        )
    }

    /// Carries it out.
    fn apply(&self, setup: &mut Setup, kit: &Kit) {
        let light = |setup: &mut Setup, id: &str, change: &dyn Fn(&mut crate::setup::Light)| {
            setup.lights.iter_mut().filter(|light| light.id == id).for_each(change);
        };
        match self {
            Self::MoveLight { light_id, distance_m, .. } => {
                light(setup, light_id, &|light| light.distance_m = Some(*distance_m));
            }
            Self::FreeDistance { light_id } => light(setup, light_id, &|light| light.distance_m = None),
            Self::FreePower { light_id } => light(setup, light_id, &|light| light.power_stops = None),
            Self::ChangeUnit { light_id, flash_id } => {
                let lowest = kit.flashes.iter().find(|flash| &flash.id == flash_id).map(|one| one.power.lowest_stops);
                light(setup, light_id, &|light| {
                    light.flash_id.clone_from(flash_id);
                    // A power that the other unit does not go down to is let go.
                    light.power_stops = light.power_stops.filter(|power| lowest.is_none_or(|lowest| *power >= lowest));
                });
            }
            Self::ManyUnits { light_id, units } => light(setup, light_id, &|light| light.units = *units),
            Self::ChangeModifier { light_id, modifier_id } => {
                light(setup, light_id, &|light| light.modifier_id = Some(modifier_id.clone()));
            }
            Self::RemoveGels { light_id } => light(setup, light_id, &|light| light.gel_ids.clear()),
            Self::AddNeutralGel { light_id, gel_ids } => {
                light(setup, light_id, &|light| light.gel_ids.extend(gel_ids.iter().cloned()));
            }
            Self::FeatherLight { light_id, feather_deg } => {
                light(setup, light_id, &|light| light.feather_deg = *feather_deg);
            }
            Self::RemoveBounce { light_id } => light(setup, light_id, &|light| {
                light.bounce = None;
                if let Some(place) = &mut light.place {
                    place.head = None;
                }
            }),
            Self::AddFlash => setup.lights.extend(another_flash(setup, kit)),
            Self::PlaceBackground { stops } => {
                if let Blend::Lift { background_stops, .. } | Blend::Silhouette { background_stops } = &mut setup.blend
                {
                    *background_stops = *stops;
                }
                setup.blend = setup.blend.clamped();
            }
            Self::PlaceSubject { stops } => {
                if let Blend::Lift { subject_stops, .. }
                | Blend::Overpower { subject_stops, .. }
                | Blend::HalfAndHalf { subject_stops }
                | Blend::AmbientOnly { subject_stops } = &mut setup.blend
                {
                    *subject_stops = *stops;
                }
                setup.blend = setup.blend.clamped();
            }
            Self::PlaceAmbient { stops } => {
                if let Blend::Overpower { ambient_stops, .. } | Blend::Fill { ambient_stops, .. } = &mut setup.blend {
                    *ambient_stops = *stops;
                }
                setup.blend = setup.blend.clamped();
            }
            Self::AcceptRegion { light_id, wish, .. } => light(setup, light_id, &|light| light.wish = *wish),
            Self::AddFilters { filter_ids } => setup.filter_ids.extend(filter_ids.iter().cloned()),
            Self::RemoveFilters => setup.filter_ids.clear(),
            Self::ChangeSync { sync } => setup.sync = *sync,
            Self::FixAperture { f_number } => setup.fixed.f_number = Some(*f_number),
            Self::FixIso { iso } => setup.fixed.iso = Some(*iso),
            Self::FreeShutter => setup.fixed.shutter_s = None,
            Self::FreeAperture => setup.fixed.f_number = None,
            Self::FreeIso => setup.fixed.iso = None,
            Self::AllowSlowerShutter { shutter_s } => setup.speed.slowest_shutter_s = Some(*shutter_s),
            Self::StepBack { distance_m } => setup.camera_distance_m = *distance_m,
            Self::TakeStack => {
                if let Depth::CloseUp { stacked, .. } = &mut setup.depth {
                    *stacked = true;
                }
            }
            Self::FreeDepth { .. } => setup.depth = Depth::Free,
        }
    }
}

/// A setup with changes done, one after the other.
pub fn changed(setup: &Setup, changes: &[Change], kit: &Kit) -> Setup {
    let mut changed = setup.clone();
    for change in changes {
        change.apply(&mut changed, kit);
    }
    changed
}

/// A flash as a new setup of the kit has it, under a letter of its own.
fn another_flash(setup: &Setup, kit: &Kit) -> Option<crate::setup::Light> {
    let mut light = Setup::new("new", kit).lights.into_iter().next()?;
    while setup.lights.iter().any(|other| other.id == light.id) {
        light.id.push('2');
    }
    light.spill.retain(|reach| setup.regions.iter().any(|region| region.id == reach.region_id));
    Some(light)
}
