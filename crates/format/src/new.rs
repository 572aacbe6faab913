//! Documents to begin with, as the planner has them.

use tolva_planner::setup as domain;

use crate::{Kit, Light, LocalTime, Scene, Setup, Site};

impl Kit {
    /// Puts in order what belongs together: the safe sync of a camera is never faster than its rated one, and a lens is
    /// never longest where it is shorter than at its shortest.
    pub fn put_in_order(&mut self) {
        for camera in &mut self.cameras {
            camera.sync_safe_s = camera.sync_safe_s.max(camera.sync_rated_s);
        }
        for lens in &mut self.lenses {
            lens.longest_mm = lens.longest_mm.max(lens.shortest_mm);
        }
    }

    /// A generic kit without brands to start with: see [`domain::Kit::starter`].
    pub fn starter() -> Self {
        domain::Kit::starter().into()
    }
}

impl Setup {
    /// A new setup with sensible values: see [`domain::Setup::new`].
    pub fn new(id: &str, kit: &Kit) -> Self {
        domain::Setup::new(id, &kit.clone().into()).into()
    }
}

impl Light {
    /// A light with sensible values: see [`domain::Light::new`].
    pub fn new(id: &str, flash_id: &str) -> Self {
        domain::Light::new(id, flash_id).into()
    }
}

impl Scene {
    /// A scene at a place and an hour, with sensible values: see [`tolva_core::ambient::Scene::new`].
    pub fn new(site: Site, at: LocalTime) -> Self {
        tolva_core::ambient::Scene::new(site.into(), at.into()).into()
    }
}
