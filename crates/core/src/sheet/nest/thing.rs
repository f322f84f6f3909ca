//! What a copy can meet, and the collision engine's settings.

use jagua_rs::collision_detection::CDEConfig;
use jagua_rs::collision_detection::hazards::collector::HazardCollector;
use jagua_rs::collision_detection::hazards::filter::HazardFilter;
use jagua_rs::collision_detection::hazards::{HazKey, HazardEntity};
use jagua_rs::geometry::fail_fast::SPSurrogateConfig;
use jagua_rs::geometry::geo_enums::GeoPosition;

/// What a copy can meet.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub(super) enum Thing {
    /// Beyond the window.
    Beyond,
    /// Something that bites into the window.
    Bite(usize),
    /// Another copy.
    Copy(usize),
}

impl HazardEntity for Thing {
    fn scope(&self) -> GeoPosition {
        if *self == Self::Beyond { GeoPosition::Exterior } else { GeoPosition::Interior }
    }

    fn is_dynamic(&self) -> bool {
        matches!(self, Self::Copy(_))
    }
}

/// Leaves out the window and one copy.
pub(super) struct AllBut(pub usize);

impl HazardFilter<Thing> for AllBut {
    fn is_irrelevant(&self, _: HazKey, thing: &Thing) -> bool {
        matches!(thing, Thing::Beyond) || *thing == Thing::Copy(self.0)
    }
}

/// Keys of what was met so far.
#[derive(Default)]
pub(super) struct Met(pub Vec<(HazKey, Thing)>);

impl HazardCollector for Met {
    type Entity = Thing;

    fn contains_key(&self, key: HazKey) -> bool {
        self.0.iter().any(|(known, _)| *known == key)
    }

    fn insert(&mut self, key: HazKey, thing: Thing) {
        self.0.push((key, thing));
    }

    fn remove_by_key(&mut self, key: HazKey) {
        self.0.retain(|(known, _)| *known != key);
    }

    fn len(&self) -> usize {
        self.0.len()
    }

    fn iter(&self) -> impl Iterator<Item = (HazKey, &Thing)> {
        self.0.iter().map(|(key, thing)| (*key, thing))
    }
}

/// How the engines are built.
pub(super) const ENGINE: CDEConfig = CDEConfig {
    quadtree_depth: 4,
    cd_threshold: 16,
    item_surrogate_config: SPSurrogateConfig {
        n_pole_limits: [(14, 0.0), (10, 0.75), (7, 0.88)],
        ff_pole_area_ratio: 0.6,
        n_ff_piers: 0,
    },
};

/// Leaves out the window.
pub(super) struct NoBeyond;

impl HazardFilter<Thing> for NoBeyond {
    fn is_irrelevant(&self, _: HazKey, thing: &Thing) -> bool {
        matches!(thing, Thing::Beyond)
    }
}
