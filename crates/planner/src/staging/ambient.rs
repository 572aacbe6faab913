//! What the set does to the light that is there: windows and doorways that are drawn give it by their geometry, and cards
//! fill or take away.

use tolva_core::ambient::Role;
use tolva_core::modifier::Surface;
use tolva_core::scale::{Metres, Stops};
use tolva_core::set::{Glow, Panel, Receptor, Solid, Vector, form_factor};

use super::outdoors::{CardsOutdoors, DaylightOnSet};
use super::stage::{Stage, Thing};
use crate::setup::{Card, CardKind, Kit, Opening, Set, Setup};

/// What the set makes of the light that is there on a region.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct SetAmbient {
    /// Whether it follows from the lit side's, through a window that is drawn: nobody has read it there.
    pub follows_lit: bool,
    /// What is added to what was read, guessed or is followed.
    pub by: Stops,
}

impl SetAmbient {
    /// As it was without any set.
    pub const UNCHANGED: Self = Self { follows_lit: false, by: Stops::ZERO };
}

impl Opening {
    /// As a face that glows.
    pub fn glow(&self) -> Glow {
        let panel = self.panel();
        let surface = Surface::Rectangle { width: Metres(self.width_m), height: Metres(self.height_m) };
        Glow::new(panel.centre, panel.normal, 0.0, surface, 1.0)
    }
}

/// What openings of one brightness give a place: straight, and by the surfaces that `with` lets count. In any unit, the
/// same for all places.
fn from_openings(stage: &Stage, receptor: &Receptor, with: impl Fn(&Thing) -> bool) -> f64 {
    let blocking: Vec<Solid> = (stage.standing.iter().filter(|one| with(&one.thing)).map(|one| one.solid)).collect();
    let glows: Vec<Glow> = stage.laid.set.openings.iter().map(Opening::glow).collect();
    let area = |glow: &Glow| glow.size_m().0 * glow.size_m().1;
    let straight: f64 = glows.iter().map(|glow| area(glow) * glow.ratio(receptor, &blocking)).sum();
    let bounced: f64 = (glows.iter())
        .map(|glow| {
            let lit: Vec<f64> = stage.patches().iter().map(|patch| glow.rough_ratio(&patch.receptor())).collect();
            area(glow) * stage.bounced((glow, &lit), receptor, &blocking, &with, |_, _, _| {})
        })
        .sum();
    straight + bounced
}

/// What the set makes of the light that is there, region by region. `ambient` is what each would get without it, in any
/// linear unit.
pub fn on_regions(
    setup: &Setup,
    stage: &Stage,
    ambient: &[f64],
    daylight: Option<DaylightOnSet<'_>>,
) -> Vec<SetAmbient> {
    let set = &stage.laid.set;
    let lit = setup.regions.iter().position(|region| region.role == Role::LitSide);
    let (Some(lit), false) = (lit, set.openings.is_empty() && set.cards.is_empty()) else {
        return vec![SetAmbient::UNCHANGED; setup.regions.len()];
    };
    if let Some(daylight) = daylight
        && let Some(cards) = CardsOutdoors::of(stage, daylight.scene, daylight.light)
    {
        let on = |region: usize| cards.on_region(setup.regions[region].role, stage.receptors[region]).by(daylight.now);
        return (0..setup.regions.len()).map(|region| SetAmbient { follows_lit: false, by: on(region) }).collect();
    }
    let room = room(stage, lit);
    (0..setup.regions.len()).map(|region| on_region(setup, stage, ambient, region, lit, room)).collect()
}

/// What the rest of the room gives back, where a window is drawn: the less, the less of it is left undrawn.
fn room(stage: &Stage, lit: usize) -> f64 {
    let set = &stage.laid.set;
    let drawn = set.walls.len() > 2 && set.ceiling.is_some();
    without_cards(stage, lit) * if drawn { DRAWN_ROOM } else { ROOM }
}

/// What windows give a region before a card is put up: as it was read.
fn without_cards(stage: &Stage, region: usize) -> f64 {
    from_openings(stage, &stage.receptors[region], |thing| !matches!(thing, Thing::Card(_)))
}

fn on_region(setup: &Setup, stage: &Stage, ambient: &[f64], index: usize, lit: usize, room: f64) -> SetAmbient {
    let (set, receptor) = (&stage.laid.set, &stage.receptors[index]);
    if set.openings.is_empty() {
        let by = by_cards(stage, receptor, &stage.receptors[lit], ambient[lit] / ambient[index].max(1e-12));
        return SetAmbient { follows_lit: false, by };
    }
    let (region, at_lit) = (&setup.regions[index], without_cards(stage, lit) + room);
    let drawn = region.role != Role::Background || !set.walls.is_empty();
    let follows_lit = index != lit && drawn && region.ambient.readings.is_empty() && at_lit > 0.0;
    let all = if set.cards.is_empty() {
        without_cards(stage, index) + room
    } else {
        from_openings(stage, receptor, |_| true) + room * (1.0 - hidden(stage, receptor))
    };
    let against = if follows_lit { at_lit } else { without_cards(stage, index) + room };
    let by = if against > 0.0 { Stops::of_ratio((all / against).max(DARKEST)) } else { Stops::ZERO };
    SetAmbient { follows_lit, by }
}

/// What the first card does to a region's ambient so far from it, along the way it stands from there; nothing without a
/// card. In stops against no card.
pub fn card_along(
    (setup, kit): (&Setup, &Kit),
    (ambient, daylight): (&[f64], Option<DaylightOnSet<'_>>),
    region: usize,
    distances: &[f64],
) -> Option<Vec<Stops>> {
    let begun = Stage::of(setup, kit);
    let card = begun.laid.set.cards.first()?.clone();
    let face = begun.receptors[region].at;
    let way = (card.panel().centre - face).normalize_or(Vector::X);
    let with = |cards: Vec<Card>| {
        let drawn = Setup { set: Some(Set { cards, ..begun.laid.set.clone() }), ..setup.clone() };
        on_regions(&drawn, &Stage::of(&drawn, kit), ambient, daylight)[region].by
    };
    let bare = with(Vec::new());
    let at = |metres: &f64| {
        let at = face + way * *metres;
        with(vec![Card { x_m: at.x, y_m: at.y, z_m: at.z, ..card.clone() }]) - bare
    };
    Some(distances.iter().map(at).collect())
}

/// What the rest of a room gives back to every side, as a part of what the window gives the lit side (chosen: a shadow
/// side in an ordinary room lies about four stops under); and where walls and ceiling are drawn.
const ROOM: f64 = 1.0 / 16.0;
const DRAWN_ROOM: f64 = 1.0 / 64.0;
/// What no light of the window reaches is this part of what the lit side gets: rooms are never black (chosen).
const DARKEST: f64 = 1.0 / 256.0;

/// What cards do where no window is drawn: each hides a part of what was alike around, and gives back what falls on it.
/// What falls on it is the lit side's, by how far the card looks the same way (chosen).
fn by_cards(stage: &Stage, receptor: &Receptor, lit: &Receptor, lit_over_here: f64) -> Stops {
    let mut left = 1.0 - hidden(stage, receptor);
    for card in &stage.laid.set.cards {
        let panel = card.panel();
        let same_way = f64::midpoint(1.0, panel.normal.dot(lit.normal));
        left += match card.kind {
            // From either side.
            CardKind::Diffuser => {
                card.kind.reflectance()
                    * (form_factor(&panel, receptor, &[]) + form_factor(&panel.back(), receptor, &[]))
            }
            // Its back is dark.
            kind => form_factor(&panel, receptor, &[]) * kind.reflectance() * (lit_over_here * same_way).max(0.0),
        };
    }
    Stops::of_ratio(left.max(DARKEST))
}

/// The part of what a place sees that cards hide, from either side.
fn hidden(stage: &Stage, receptor: &Receptor) -> f64 {
    let of = |panel: Panel| form_factor(&panel, receptor, &[]);
    let panels = stage.laid.set.cards.iter().map(crate::setup::Card::panel);
    panels.map(|panel| of(panel) + of(panel.back())).sum::<f64>().min(1.0)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::lighting::Prepared;
    use crate::set::Addition;
    use rstest::rstest;

    /// Somebody by a window on their lit side.
    fn by_a_window() -> (Setup, Kit) {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        setup.add_to_set(&kit, &Addition::Window).expect("room");
        (setup, kit)
    }

    fn shadow(setup: &Setup, kit: &Kit) -> f64 {
        let prepared = Prepared::new(setup, kit).expect("a setup");
        prepared.ambient[prepared.shadow.expect("one")].0
    }

    #[test]
    fn a_window_says_what_the_shadow_side_gets() {
        let (setup, kit) = by_a_window();
        let prepared = Prepared::new(&setup, &kit).expect("a setup");
        let shadow = prepared.shadow.expect("one");
        assert!(prepared.set_ambient[shadow].follows_lit && !prepared.set_ambient[prepared.lit].follows_lit);
        let under = prepared.ambient[prepared.lit].0 - prepared.ambient[shadow].0;
        assert!((1.5..4.5).contains(&under), "{under}");
    }

    /// Near, white gives more than farther off; silver the mirrored way more than white; black takes.
    #[rstest]
    #[case(CardKind::White, 0.3, 3.0)]
    #[case(CardKind::Silver, 0.3, 4.0)]
    #[case(CardKind::Black, -0.5, 0.0)]
    fn a_card_opposite_a_window(#[case] kind: CardKind, #[case] least: f64, #[case] most: f64) {
        let (mut setup, kit) = by_a_window();
        let bare = shadow(&setup, &kit);
        setup.add_to_set(&kit, &Addition::Card(kind)).expect("room");
        let by = shadow(&setup, &kit) - bare;
        assert!((least..most).contains(&by), "{by}");
        let card = &mut setup.set.as_mut().expect("used").cards[0];
        (card.x_m, card.y_m) = (card.x_m * 2.5, card.y_m * 2.5);
        let farther = shadow(&setup, &kit) - bare;
        assert!(farther.abs() < by.abs() + 1e-9, "{farther} {by}");
    }

    /// Without a window: a card that hides half of what a cheek sees, and gives nothing back, takes a stop.
    #[test]
    fn a_black_card_without_a_window_takes_what_it_hides() {
        let kit = Kit::starter();
        let mut setup = Setup::new("one", &kit);
        setup.use_set();
        let bare = shadow(&setup, &kit);
        setup.add_to_set(&kit, &Addition::Card(CardKind::Black)).expect("room");
        let stage = Stage::of(&setup, &kit);
        let card = stage.laid.set.cards[0].panel();
        let hidden = form_factor(&card, &stage.receptors[2], &[]);
        let by = shadow(&setup, &kit) - bare;
        assert!(hidden > 0.05 && (by - (1.0 - hidden * 0.98).log2()).abs() < 0.05, "{by} {hidden}");
        // A reading that was taken there before stands, and the card still takes from it.
        setup.regions[2].ambient.readings.clear();
        assert!(by < 0.0);
    }
}
