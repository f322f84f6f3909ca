//! The rules of the job, from outside.

mod add_ons;
mod by_hand;
mod carton_blanks;
mod catalogue;
mod fitting;
mod folding;
mod marks;
mod nested_jobs;
mod nesting;
mod nets;
mod orders;
mod prepare;
mod records;
mod sheet;
mod sizes;
mod split;
mod stages;
mod structures;
mod whole_jobs;
mod workshop;
