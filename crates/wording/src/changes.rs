//! What to do, in words.

use tolva_planner::change::Change;
use tolva_planner::setup::{Kit, Setup, Sync};

use crate::shown::Show;
use crate::words::lower_first;
use tolva_core::scale::{Aperture, Iso, LengthUnit, Metres, Setting, Shutter, Stops};

/// Where a setup and its kit call things by their names.
#[derive(Clone, Copy)]
pub(crate) struct Names<'a> {
    pub setup: &'a Setup,
    pub kit: &'a Kit,
    pub show: Show,
}

/// What a thing of the kit is called in the middle of a sentence; its id where the kit does not have it.
fn called<'a>(id: &str, mut all: impl Iterator<Item = (&'a String, &'a String)>) -> String {
    all.find(|(one, _)| *one == id).map_or_else(|| id.to_owned(), |(_, name)| lower_first(name))
}

impl Names<'_> {
    pub fn camera(&self, id: &str) -> String {
        called(id, self.kit.cameras.iter().map(|one| (&one.id, &one.name)))
    }

    pub fn lens(&self, id: &str) -> String {
        called(id, self.kit.lenses.iter().map(|one| (&one.id, &one.name)))
    }

    pub fn unit(&self, id: &str) -> String {
        called(id, self.kit.flashes.iter().map(|one| (&one.id, &one.name)))
    }

    fn unit_of(&self, light_id: &str) -> String {
        let light = self.setup.lights.iter().find(|light| light.id == light_id);
        light.map_or_else(String::new, |light| self.unit(&light.flash_id))
    }

    pub fn modifier(&self, id: &str) -> String {
        called(id, self.kit.modifiers.iter().map(|one| (&one.id, &one.name)))
    }

    pub fn filters(&self, ids: &[String]) -> String {
        let name = |id: &String| called(id, self.kit.filters.iter().map(|one| (&one.id, &one.name)));
        ids.iter().map(name).collect::<Vec<_>>().join(" and the ")
    }

    pub fn gels(&self, ids: &[String]) -> String {
        let name = |id: &String| called(id, self.kit.gels.iter().map(|one| (&one.id, &one.name)));
        ids.iter().map(name).collect::<Vec<_>>().join(" and ")
    }

    pub fn region(&self, id: &str) -> String {
        let region = self.setup.regions.iter().find(|region| region.id == id);
        region.map_or_else(|| id.to_owned(), |region| region.name.clone())
    }

    fn metres(&self, metres: f64) -> String {
        Metres(metres).label(self.show.metres())
    }
}

/// What a change does: `Bring A to 0.85 m from the subject`.
pub(crate) fn does(change: &Change, names: Names<'_>) -> String {
    match change {
        Change::MoveLight { light_id, distance_m, nearer } => {
            let verb = if *nearer { "Bring" } else { "Move" };
            format!("{verb} {light_id} to {} from the subject", names.metres(*distance_m))
        }
        Change::FreeDistance { light_id } => format!("Leave the distance of {light_id} to Tolva"),
        Change::FreePower { light_id } => format!("Leave the power of {light_id} to Tolva"),
        Change::ChangeUnit { flash_id, .. } => format!("Use the {}", names.unit(flash_id)),
        Change::ManyUnits { light_id, units } => format!("Use {units} of the {} as one", names.unit_of(light_id)),
        Change::ChangeModifier { modifier_id, .. } => format!("Change to the {}", names.modifier(modifier_id)),
        Change::RemoveGels { light_id } => format!("Take the gels off {light_id}"),
        Change::AddNeutralGel { light_id, gel_ids } => format!("Put {} on {light_id}", names.gels(gel_ids)),
        Change::FeatherLight { light_id, feather_deg } => {
            format!("Feather {light_id}: turn it {feather_deg:.0}° away, so that its edge lights the subject")
        }
        Change::RemoveBounce { light_id } => format!("Turn {light_id} straight at the subject"),
        Change::AddFlash => "Add a flash".to_owned(),
        Change::PlaceBackground { stops } => format!("Let what lies behind go to {}", Stops(*stops).thirds()),
        Change::PlaceSubject { stops } => format!("Let the subject be at {}", Stops(*stops).thirds()),
        Change::PlaceAmbient { stops } => format!("Put the ambient at {}", Stops(*stops).thirds()),
        Change::AcceptRegion { region_id, stops, .. } => {
            format!("Let “{}” be at {}", names.region(region_id), Stops(*stops).thirds())
        }
        Change::AddFilters { filter_ids } => format!("Put the {} on the lens", names.filters(filter_ids)),
        Change::RemoveFilters => "Take the neutral filter off".to_owned(),
        Change::ChangeSync { sync: Sync::HighSpeed } => "Use high-speed sync".to_owned(),
        Change::ChangeSync { .. } => "Leave high-speed sync".to_owned(),
        Change::FixAperture { f_number } => {
            format!("Fix the aperture at {}", Setting::<Aperture>::of(*f_number).label())
        }
        Change::FixIso { iso } => format!("Fix {}", Setting::<Iso>::of(*iso).label()),
        Change::FreeShutter => "Leave the shutter to Tolva".to_owned(),
        Change::FreeAperture => "Leave the aperture to Tolva".to_owned(),
        Change::FreeIso => "Leave the ISO to Tolva".to_owned(),
        Change::AllowSlowerShutter { shutter_s } => {
            let slower = Setting::<Shutter>::of(*shutter_s).label();
            format!("Allow {slower}, on a tripod and with a subject that holds still")
        }
        Change::StepBack { distance_m } => format!("Step back to {} from the subject", names.metres(*distance_m)),
        Change::TakeStack => "Take a stack of frames".to_owned(),
        Change::FreeDepth { f_number } => {
            format!("Let the depth be what {} gives", Setting::<Aperture>::of(*f_number).label())
        }
    }
}

/// What several changes do, one after the other.
pub(crate) fn all_do(changes: &[Change], names: Names<'_>) -> String {
    let mut said = String::new();
    for (index, change) in changes.iter().enumerate() {
        let does = does(change, names);
        said = match index {
            0 => does,
            _ if index + 1 == changes.len() => format!("{said}, and {}", lower_first(&does)),
            _ => format!("{said}, {}", lower_first(&does)),
        };
    }
    said
}

/// A guide number, in the person's unit.
pub(crate) fn guide_number(metres: f64, unit: LengthUnit) -> String {
    match unit {
        LengthUnit::Metres => format!("{:.0} m", metres.ceil()),
        LengthUnit::FeetAndInches => format!("{:.0} ft", (metres / Metres::PER_FOOT).ceil()),
    }
}
