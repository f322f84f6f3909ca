//! The rules of the job, from outside.

#![allow(clippy::unwrap_used, reason = "a test fails by panicking")]

mod add_ons;
mod borders;
mod by_hand;
mod cards;
mod carton_blanks;
mod catalogue;
mod clear_edges;
mod drawings;
mod drawn_solids;
mod faces;
mod finishes;
mod fits;
mod fitting;
mod folding;
mod held;
mod labels;
mod ladders;
mod lists;
mod marks;
mod mends;
mod motifs;
mod nested_jobs;
mod nesting;
mod nets;
mod openings;
mod orders;
mod orders_of_work;
mod prepare;
mod recipes;
mod records;
mod rehearsals;
mod returned;
mod runs;
mod shaken;
mod sheet;
mod sizes;
mod split;
mod stages;
mod structures;
mod tooling;
mod traces;
mod whole_jobs;
mod whole_panels;
mod workshop;
