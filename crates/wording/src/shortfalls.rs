//! Shortfalls and the active limit, in words.

use tolva_core::exposure::CameraSettings;
use tolva_planner::active_limit::ActiveLimit;
use tolva_planner::lighting::Prepared;
use tolva_planner::plan::Plan;
use tolva_planner::setup::{Kit, LightWish, Setup};
use tolva_planner::shortfall::{Because, Held, Limit, Shortfall as Code};

use crate::names::Named;
use crate::plan::Shortfall;

/// Whose shortfalls they are.
#[derive(Clone, Copy)]
pub(crate) struct Whose<'a> {
    pub setup: &'a Setup,
    pub kit: &'a Kit,
    pub settings: CameraSettings,
}

impl Whose<'_> {
    fn region(&self, shortfall: &Code) -> &str {
        shortfall.region.map_or("", |region| &self.setup.regions[region].name)
    }

    /// The light a shortfall is about, as a sentence begins with it: `The flash`, or where there are several `B, the rim,`.
    fn light(&self, shortfall: &Code) -> String {
        let Some(light) = shortfall.light.map(|light| &self.setup.lights[light]) else { return "The flash".to_owned() };
        let is_flash = |id: &str| {
            let unit = self.kit.flashes.iter().find(|unit| unit.id == id);
            unit.is_none_or(|unit| !unit.burns_on())
        };
        let flashes = self.setup.lights.iter().filter(|light| is_flash(&light.flash_id)).count();
        match (flashes, light.wish) {
            (1, LightWish::Key) => "The flash".to_owned(),
            (_, wish) => format!("{}, the {},", light.id, wish.name()),
        }
    }

    fn unit(&self, shortfall: &Code) -> &str {
        let light = shortfall.light.map(|light| &self.setup.lights[light]);
        let unit = light.and_then(|light| self.kit.flashes.iter().find(|unit| unit.id == light.flash_id));
        unit.map_or("The flash", |unit| &unit.name)
    }

    fn held(&self, held: Held) -> String {
        let CameraSettings { shutter, aperture, iso } = self.settings;
        let (shutter, aperture, iso) = (shutter.label(), aperture.label(), iso.label());
        match held {
            Held::ShutterFixed => format!("the shutter is fixed at {shutter}"),
            Held::FastestSync => format!("{shutter} is the fastest safe sync"),
            Held::FastestShutter => format!("{shutter} is the fastest shutter"),
            Held::SlowestShutter => format!("{shutter} is the slowest shutter allowed"),
            Held::ApertureFixed => format!("the aperture is fixed at {aperture}"),
            Held::SmallestAperture => format!("{aperture} is the smallest aperture"),
            Held::WidestAperture => format!("{aperture} is the widest aperture"),
            Held::IsoFixed => format!("{iso} is fixed"),
            Held::LowestIso => format!("{iso} is the lowest"),
            Held::HighestIso => format!("{iso} is the highest acceptable"),
        }
    }

    /// A shortfall in a sentence.
    pub fn says(&self, shortfall: &Code) -> String {
        let (region, amount) = (self.region(shortfall), shortfall.missing.amount());
        let shutter = self.settings.shutter.label();
        match (&shortfall.because, shortfall.limit) {
            (Because::Held(held), limit) => {
                let how = if limit == Limit::CameraTooBright { "brighter" } else { "darker" };
                let held: Vec<String> = if held.is_empty() {
                    vec!["closest possible: the next click is further off".to_owned()]
                } else {
                    held.iter().map(|held| self.held(*held)).collect()
                };
                format!("The light that is there comes out {amount} {how} than wished: {}.", held.join(", "))
            }
            (Because::FlashesSpill, _) => format!("“{region}” ends {amount} over its wish: flashes spill onto it."),
            (Because::AmbientAlone, Limit::AmbientTooBright) => {
                format!("The ambient alone puts “{region}” {amount} over its place, and no flash can take light away.")
            }
            (because @ (Because::AmbientAlone | Because::OtherLightsSpill | Because::TooMuchElsewhere), limit) => {
                let why = match because {
                    Because::AmbientAlone => "the ambient alone is over it",
                    Because::OtherLightsSpill => "other lights spill onto it",
                    _ => "more there would be too much elsewhere",
                };
                let over = if limit == Limit::RegionUnder { "under" } else { "over" };
                format!("“{region}” ends {amount} {over} its wish: {why}.")
            }
            (Because::NoFlashAtAll, _) => "This blend needs a flash, and the setup has none.".to_owned(),
            (Because::NoneAimedThere, _) => {
                format!("This blend needs a flash on “{region}”, and none is aimed there.")
            }
            (Because::PowerFixed, limit) => self.light_cannot(shortfall, limit, "at its fixed power"),
            (Because::FullPower, limit) => self.light_cannot(shortfall, limit, "at full power"),
            (Because::LowestPower, limit) => self.light_cannot(shortfall, limit, "at its lowest power"),
            (Because::OffAtLowestPower, limit) => {
                self.light_cannot(shortfall, limit, "even at its lowest power, so it is off")
            }
            (Because::NoHighSpeed(rated), _) => {
                let unit = self.unit(shortfall);
                format!("{unit} has no high-speed sync, and {shutter} is faster than {}.", rated.label())
            }
            (Because::OverSync { rated, dark_band }, _) => format!(
                "{shutter} is faster than the sync speed of {}: about {:.0} % of the frame gets no flash.",
                rated.label(),
                dark_band * 100.0
            ),
            (Because::DepthAsks(asks), _) => {
                let here = self.settings.aperture.label();
                format!("The depth asks for {} or smaller; at {here} its ends are not sharp.", asks.label())
            }
            (Because::Silhouette, _) => format!(
                "A silhouette wants the subject three stops under what lies behind; the lit side is {amount} too bright \
                 for it."
            ),
        }
    }

    fn light_cannot(&self, shortfall: &Code, limit: Limit, why: &str) -> String {
        let how = if limit == Limit::FlashTooWeak { "too weak" } else { "too strong" };
        let ends = shortfall.ends.map_or_else(String::new, tolva_core::scale::Stops::thirds);
        let (light, amount, region) = (self.light(shortfall), shortfall.missing.amount(), self.region(shortfall));
        format!("{light} is {amount} {how} {why}: “{region}” ends at {ends}.")
    }

    /// A shortfall as it is sent.
    pub fn sent(&self, shortfall: &Code) -> Shortfall {
        Shortfall {
            limit: shortfall.limit.into(),
            missing_stops: shortfall.missing.0,
            missing: shortfall.missing.amount(),
            says: self.says(shortfall),
            light_id: shortfall.light.map(|light| self.setup.lights[light].id.clone()),
        }
    }
}

/// The active limit in a sentence.
pub(crate) fn active_limit(limit: ActiveLimit, setup: &Prepared<'_>, plan: &Plan, kit: &Kit) -> String {
    let settings = plan.outcome.settings;
    match limit {
        ActiveLimit::Shortfall => {
            let whose = Whose { setup: setup.setup, kit, settings };
            plan.shortfalls.first().map_or_else(String::new, |shortfall| whose.says(shortfall))
        }
        ActiveLimit::FullPower(light) => format!("{} stands at full power.", setup.lights[light].light.id),
        ActiveLimit::Depth => format!("The depth: {} is just small enough.", settings.aperture.label()),
        ActiveLimit::Sync => {
            format!("The sync speed: {} is as fast as the flash follows.", settings.shutter.label())
        }
        ActiveLimit::SlowestShutter => format!("The slowest shutter: {}.", settings.shutter.label()),
        ActiveLimit::WidestAperture => format!("The lens: {} is as wide as it goes.", settings.aperture.label()),
    }
}
