//! Stages that remember: each is a pure function of its input, so what it made of the same input serves again.

use std::fmt;
use std::io::{BufWriter, Write};
use std::sync::Arc;

use serde::Serialize;
use sha2::{Digest, Sha256};

use crate::error::InputError;
use crate::faced::Faced;
use crate::formed::Formed;
use crate::laid::Laid;
use crate::tooling::CutPlan;

/// What a stage's result is known by: a hash of the stage and of all that it reads.
#[derive(Clone, Copy, PartialEq, Eq, Hash)]
pub struct Key([u8; 16]);

impl Key {
    /// The key of what a stage makes of an input.
    #[must_use]
    pub fn of(stage: &str, input: &impl Serialize) -> Self {
        let mut hash = Sha256::new();
        hash.update(stage);
        let mut buffered = BufWriter::new(&mut hash);
        // Neither hashing nor these inputs, whose maps have words for keys, can fail.
        let _written = serde_json::to_writer(&mut buffered, input);
        let _flushed = buffered.flush();
        drop(buffered);
        let mut key = [0; 16];
        key.copy_from_slice(&hash.finalize()[..16]);
        Self(key)
    }
}

impl fmt::Display for Key {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        self.0.iter().try_for_each(|byte| write!(out, "{byte:02x}"))
    }
}

impl fmt::Debug for Key {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        fmt::Display::fmt(self, out)
    }
}

impl Serialize for Key {
    fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.collect_str(self)
    }
}

/// What a stage made.
#[derive(Debug, Clone)]
pub enum Made {
    /// A form in its card.
    Formed(Arc<Formed>),
    /// A form with its face.
    Faced(Arc<Faced>),
    /// Copies on sheets.
    Laid(Arc<Laid>),
    /// What is cut on one sheet.
    Planned(Arc<CutPlan>),
}

impl Made {
    /// About how many bytes it takes.
    #[must_use]
    pub fn weight(&self) -> usize {
        match self {
            Self::Formed(formed) => formed.weight(),
            Self::Faced(faced) => faced.weight(),
            Self::Laid(laid) => laid.weight(),
            Self::Planned(plan) => plan.weight(),
        }
    }
}

/// Who remembers what stages made.
pub trait Memory: Sync {
    /// What is remembered under the key, or else what `make` makes.
    ///
    /// # Errors
    /// What `make` says.
    fn recall(
        &self,
        key: Key,
        make: &dyn Fn() -> Result<Made, Vec<InputError>>,
    ) -> Result<Made, Vec<InputError>>;
}

/// Remembers nothing.
#[derive(Debug, Clone, Copy)]
pub struct Forgetful;

impl Memory for Forgetful {
    fn recall(
        &self,
        _: Key,
        make: &dyn Fn() -> Result<Made, Vec<InputError>>,
    ) -> Result<Made, Vec<InputError>> {
        make()
    }
}

/// Bytes of one element of a path, with its share of what holds it.
pub(crate) const ELEMENT: usize = size_of::<kurbo::PathEl>();
