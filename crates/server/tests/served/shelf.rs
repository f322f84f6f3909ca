//! What stages made is remembered, whatever its size.

use std::cell::Cell;

use aptum::shelf::shelf;
use aptum_core::memory::{Weighty, recalled};

struct Heavy(usize);

impl Weighty for Heavy {
    fn weight(&self) -> usize {
        self.0
    }
}

/// A drawing of tens of thousands of lines weighs as much at each stage.
#[test]
fn what_is_large_is_remembered_beside_what_is_small() {
    let made = Cell::new(0);
    let ask = |weight: usize| {
        let make = || {
            made.set(made.get() + 1);
            Ok(Heavy(weight))
        };
        recalled(shelf(), "heavy", &weight, make).unwrap();
        made.get()
    };
    assert_eq!([20 << 20, 18 << 20, 5000, 16 << 20].map(ask), [1, 2, 3, 4]);
    assert_eq!([16 << 20, 5000, 18 << 20, 20 << 20].map(ask), [4; 4]);
    // What no shelf holds is made again, and takes nothing else's place.
    assert_eq!([1 << 30, 1 << 30, 5000, 20 << 20].map(ask), [5, 6, 6, 6]);
}
