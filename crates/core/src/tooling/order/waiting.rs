//! Lines that wait to be looked at again.

use std::collections::VecDeque;

/// Lines that wait to be looked at, each once.
pub(super) struct Waiting {
    queue: VecDeque<usize>,
    is_in: Vec<bool>,
}

impl Waiting {
    pub fn of(count: usize) -> Self {
        Self { queue: VecDeque::new(), is_in: vec![false; count] }
    }

    pub fn add(&mut self, strand: usize) {
        if !std::mem::replace(&mut self.is_in[strand], true) {
            self.queue.push_back(strand);
        }
    }

    pub fn first(&mut self) -> Option<usize> {
        let next = self.queue.pop_front()?;
        self.is_in[next] = false;
        Some(next)
    }

    pub fn clear(&mut self) {
        while self.first().is_some() {}
    }
}
