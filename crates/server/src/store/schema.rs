//! The tables, as the migrations make them.

diesel::table! {
    jobs (id) {
        id -> Integer,
        head -> Integer,
        version -> Integer,
        binned -> Bool,
    }
}

diesel::table! {
    revisions (job, number) {
        job -> Integer,
        number -> Integer,
        body -> Text,
        made_at -> Timestamp,
    }
}

diesel::table! {
    records (kind, id) {
        kind -> Text,
        id -> Text,
        body -> Text,
    }
}

diesel::table! {
    workshop_changes (number) {
        number -> Integer,
        kind -> Text,
        id -> Text,
        before_body -> Nullable<Text>,
        after_body -> Nullable<Text>,
    }
}

diesel::table! {
    workshop_head (id) {
        id -> Integer,
        head -> Integer,
        version -> Integer,
    }
}

diesel::table! {
    facts (name) {
        name -> Text,
        value -> Text,
    }
}

diesel::table! {
    blobs (id) {
        id -> Text,
        media -> Text,
        width -> Integer,
        height -> Integer,
        body -> Binary,
        added_at -> Timestamp,
    }
}

diesel::table! {
    revision_blobs (job, number, blob) {
        job -> Integer,
        number -> Integer,
        blob -> Text,
    }
}

diesel::table! {
    logbook (id) {
        id -> Integer,
        made_at -> Text,
        body -> Text,
    }
}

diesel::table! {
    prints (id) {
        id -> Integer,
        job -> Integer,
        code -> Text,
        made_at -> Text,
        archive -> Binary,
        pdf -> Binary,
        picture -> Binary,
        run -> Text,
        name -> Text,
        cutter -> Text,
        sheets -> Integer,
        ticks -> Integer,
        place -> Integer,
        version -> Integer,
    }
}

diesel::joinable!(revisions -> jobs (job));
diesel::allow_tables_to_appear_in_same_query!(jobs, revisions);
