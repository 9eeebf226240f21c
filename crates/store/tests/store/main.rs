//! The store against a real MariaDB.
#![allow(clippy::unwrap_used)]

mod again;
mod sound;

use proptest::strategy::{Strategy, ValueTree};
use proptest::test_runner::TestRunner;
use sqlx::{MySqlConnection, MySqlPool};
use std::sync::Arc;
use ulvek_core::air::{Air, AirSeries};
use ulvek_core::film::Ground;
use ulvek_core::mix::{Drawdown, Material, Mix, Swatch, starter_shelf};
use ulvek_core::picture::{GROUNDS, Happening, Picture, SealTrouble, What};
use ulvek_core::studio::{AirSource, Studio};
use ulvek_store::{
    Direction, Done, LogAsked, MIGRATIONS, NewPhotograph, Rendition, StoreError, add_photograph,
    create_picture, create_studio, delete_photograph, delete_picture, hold_ground, list_studios,
    load_picture, load_rendition, load_studio, log_of, name_photograph, photographs_of,
    photographs_of_studio, put_right_in_daybook, restore_photograph, save_air, save_picture,
    save_settings, save_shelf, search_log, undo_air, undo_picture, undo_settings, undo_shelf,
};
use ulvek_testkit::{at, full_studio, picture, studio};
use uuid::Uuid;

async fn one_picture(pool: &MySqlPool) -> Uuid {
    let mut tx = pool.begin().await.unwrap();
    let id = create_studio(&mut tx, &studio(vec![picture("p")]), at()).await.unwrap();
    let stored = load_studio(&mut tx, id).await.unwrap();
    tx.commit().await.unwrap();
    stored.pictures[0].id
}

/// A studio as it is read, with what its tests teach.
async fn learned(conn: &mut MySqlConnection, id: Uuid) -> Studio {
    let mut studio = Arc::unwrap_or_clone(load_studio(conn, id).await.unwrap().studio);
    studio.learn();
    studio
}

fn note(words: &str) -> Happening {
    Happening {
        at: at(),
        step: None,
        material: None,
        place: String::new(),
        words: words.into(),
        what: What::Noted,
    }
}

/// One of many random values, the same at every run.
fn drawn<T: std::fmt::Debug>(of: impl Strategy<Value = T>, runner: &mut TestRunner) -> T {
    of.new_tree(runner).unwrap().current()
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn every_studio_is_read_as_it_was_written(pool: MySqlPool) {
    let mut runner = TestRunner::deterministic();
    let mut conn = pool.acquire().await.unwrap();
    for _ in 0..40 {
        let written = drawn(full_studio(), &mut runner);
        let id = create_studio(&mut conn, &written, at()).await.unwrap();
        let read = load_studio(&mut conn, id).await.unwrap();
        // What tests teach is worked out by whoever reads, never kept.
        let mut studio = Arc::unwrap_or_clone(read.studio);
        studio.learn();
        assert_eq!(studio, written, "pictures whose names differ by case alone are among it");
        assert_eq!((read.version, read.air.version, read.shelf.version), (1, 1, 1));
    }
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn every_part_of_a_studio_comes_back_with_undo_and_goes_again_with_redo(pool: MySqlPool) {
    let mut runner = TestRunner::deterministic();
    let mut conn = pool.acquire().await.unwrap();
    for _ in 0..20 {
        let (one, mut other) =
            (drawn(full_studio(), &mut runner), drawn(full_studio(), &mut runner));
        let id = create_studio(&mut conn, &one, at()).await.unwrap();
        let key = load_studio(&mut conn, id).await.unwrap().pictures[0].id;
        other.pictures = vec![other.pictures[0].clone(), one.pictures[1].clone()];
        // The day book is never undone.
        other.happened.clone_from(&one.happened);
        other.learn();
        save_settings(&mut conn, id, 1, &other, "edit", at()).await.unwrap();
        save_air(&mut conn, id, 1, &other, "edit", at()).await.unwrap();
        save_shelf(&mut conn, id, 1, &other, "edit", at()).await.unwrap();
        save_picture(&mut conn, key, 1, &other.pictures[0], "edit", at()).await.unwrap();
        assert_eq!(learned(&mut conn, id).await, other);
        for (given, direction, wanted) in
            [(2, Direction::Undo, &one), (3, Direction::Redo, &other), (4, Direction::Undo, &one)]
        {
            undo_settings(&mut conn, id, given, direction).await.unwrap();
            undo_air(&mut conn, id, given, direction).await.unwrap();
            undo_shelf(&mut conn, id, given, direction).await.unwrap();
            undo_picture(&mut conn, key, given, direction, at()).await.unwrap();
            assert_eq!(&learned(&mut conn, id).await, wanted, "{direction:?}");
        }
    }
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn undoing_the_hours_leaves_the_air_and_an_edit_after_undo_ends_what_could_be_redone(
    pool: MySqlPool,
) {
    let mut conn = pool.acquire().await.unwrap();
    let with = |readings: &[(f64, f64)]| {
        let air = |c| Air::try_new(c, 0.5, 0.15).unwrap();
        let readings = readings.iter().map(|(t, c)| (*t, air(*c))).collect();
        Studio { air: AirSeries::new(air(20.0), readings), ..studio(vec![]) }
    };
    let (a, b, c) = (
        with(&[(1e9, 18.0), (2e9, 19.0)]),
        with(&[(1e9, 18.5), (2e9, 19.0), (2.5e9, 21.0)]),
        with(&[(2e9, 19.0), (2.2e9, 16.0)]),
    );
    let id = create_studio(&mut conn, &a, at()).await.unwrap();
    save_air(&mut conn, id, 1, &b, "a log", at()).await.unwrap();
    let renamed = Studio { name: "Other".into(), ..a.clone() };
    save_settings(&mut conn, id, 1, &renamed, "rename", at()).await.unwrap();
    undo_settings(&mut conn, id, 2, Direction::Undo).await.unwrap();
    let read = load_studio(&mut conn, id).await.unwrap();
    assert_eq!((&read.studio.air, read.studio.name.as_str()), (&b.air, "Test room"));
    undo_air(&mut conn, id, 2, Direction::Undo).await.unwrap();
    save_air(&mut conn, id, 3, &c, "another log", at()).await.unwrap();
    let none = undo_air(&mut conn, id, 4, Direction::Redo).await;
    assert!(matches!(none, Err(StoreError::NoSuchRevision)), "{none:?}");
    assert_eq!(load_studio(&mut conn, id).await.unwrap().studio.air, c.air);
    undo_air(&mut conn, id, 4, Direction::Undo).await.unwrap();
    assert_eq!(load_studio(&mut conn, id).await.unwrap().studio.air, a.air);
    let bodies: Vec<(String,)> =
        sqlx::query_as("SELECT body FROM revision").fetch_all(&mut *conn).await.unwrap();
    assert!(bodies.iter().all(|(body,)| !body.contains("18.5")), "no revision carries readings");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn the_log_is_only_ever_added_to_and_a_correction_names_what_it_corrects(pool: MySqlPool) {
    let id = one_picture(&pool).await;
    let mut conn = pool.acquire().await.unwrap();
    let later = at() + chrono::Duration::hours(3);
    let mut thicker = picture("p");
    thicker.steps[0].wet_film_um = Some(77.0);
    thicker.steps[0].laid_at = Some(later);
    save_picture(&mut conn, id, 1, &thicker, "correct", later).await.unwrap();
    undo_picture(&mut conn, id, 2, Direction::Undo, later).await.unwrap();
    let mut open = picture("p");
    open.steps[0].laid_at = None;
    save_picture(&mut conn, id, 3, &open, "it was not laid", later).await.unwrap();
    let log = log_of(&mut conn, id).await.unwrap();
    let films: Vec<Option<f64>> = log
        .iter()
        .map(|e| match &e.what {
            Done::Laid(coat) => coat.wet_film_um,
            _ => None,
        })
        .collect();
    assert_eq!(films, [Some(40.0), Some(77.0), Some(40.0), None]);
    assert_eq!(log[3].what, Done::TakenBack {});
    let corrects: Vec<Option<i64>> = log.iter().map(|e| e.corrects).collect();
    let of = |n: usize| Some(log[n].number);
    assert_eq!(corrects, [None, of(0), of(1), of(2)]);
    assert_eq!((log[0].entered_at, log[1].entered_at), (at(), later));
    assert_eq!(load_picture(&mut conn, id).await.unwrap().picture, open);
    // An edit that changes nothing of what was done enters nothing.
    let named = Picture { title: "named".into(), ..open };
    save_picture(&mut conn, id, 4, &named, "name", later).await.unwrap();
    assert_eq!(log_of(&mut conn, id).await.unwrap().len(), 4);
}

/// A studio as the version before this wrote it: readings in the settings, what was done in the body.
const BEFORE: &str = r#"
INSERT INTO studio (id, name, settings, version, created_at) VALUES (UNHEX(REPEAT('1', 32)), 'Old',
 '{"name":"Old","time_zone":"Europe/Oslo","hours":[],"closed":[],"flat_places":1,"setup_min":10.0,"thinning":"medium_only","waiting":"standard","fresh_eyes":true,"isolation_coat":false,"air":[20.5,0.47,0.15],"readings":[[1768406400.123456,[21.1,0.5,0.2]],[1768410000.0,[21.2,0.51,0.15]]],"daylight":null,"ahead":{"source":"forecast","taken_at":"2026-01-14T16:00:00Z","held_c":null,"warmer_k":3.0,"lag_h":12.0,"changes_per_h":0.5,"moisture_g_m3_h":1.2},"order":[]}',
 3, '2026-01-14 10:00:00');
INSERT INTO shelf (studio_id, owner_id, body, version)
VALUES (UNHEX(REPEAT('1', 32)), UNHEX(REPEAT('2', 32)), '{"materials":[],"tubs":[],"ways":[]}', 1);
INSERT INTO picture (id, studio_id, code, position, title, due, body, version) VALUES
 (UNHEX(REPEAT('3', 32)), UNHEX(REPEAT('1', 32)), 'p', 1, 'Old', NULL,
 '{"title":"Old","width_cm":30.0,"height_cm":40.0,"weight":1.0,"due":null,"absorbs_um":0.0,"steps":[{"id":"s1","kind":"glaze","name":null,"hands_on_min":40.0,"wet_film_um":41.7,"mix":[["glazing",0.3333333333333333],["fluid-pb15",1.0]],"share_of_area":0.5,"splittable":false,"after":null,"needs":null,"not_before":null,"earliest_gap_min":null,"pinned_at":null,"laid_at":"2026-01-14T16:34:00.123456Z","tub":null,"loss":0.2,"cup_g":null},{"id":"s2","kind":"varnish","name":null,"hands_on_min":25.0,"wet_film_um":45.0,"mix":[["varnish-gloss",1.0]],"share_of_area":1.0,"splittable":false,"after":null,"needs":null,"not_before":null,"earliest_gap_min":null,"pinned_at":null,"laid_at":null,"tub":null,"loss":null,"cup_g":null}],"thinning":null,"set_aside":[],"seal":{"choice":null,"inspected_at":"2026-01-15T08:00:00Z","anyway":[{"at":"2026-01-15T09:00:00Z","step":"s2","reason":"the van \\"waits\\"","against":["The film is cured"]}],"troubles":[["2026-01-15T10:00:00Z","s2","cloud"]]}}', 2);
INSERT INTO photograph (id, picture_id, taken_at, kept_at, step_code, caption, width, height, whole, small)
VALUES (UNHEX('0123456789ABCDEF0123456789ABCDEF'), UNHEX(REPEAT('3', 32)), '2026-01-15 07:00:00',
 '2026-01-15 07:30:00', 's1', '', 40, 30, 'x', 'x');
"#;

#[sqlx::test(migrations = false)]
async fn what_the_version_before_kept_is_brought_over_without_loss(pool: MySqlPool) {
    let mut conn = pool.acquire().await.unwrap();
    let mut run = async |wanted: fn(i64) -> bool| {
        for migration in MIGRATIONS.iter().filter(|m| wanted(m.version)) {
            sqlx::raw_sql(migration.sql.clone()).execute(&mut *conn).await.unwrap();
        }
    };
    run(|version| version < 9).await;
    let mut other = pool.acquire().await.unwrap();
    sqlx::raw_sql(BEFORE).execute(&mut *other).await.unwrap();
    run(|version| version >= 9).await;
    let id = Uuid::from_u128(0x1111_1111_1111_1111_1111_1111_1111_1111);
    let stored = load_studio(&mut other, id).await.unwrap();
    let air = &stored.studio.air;
    let reading = |c, rh, v| Air::try_new(c, rh, v).unwrap();
    assert_eq!(
        air.readings(),
        [
            (1_768_406_400.123_456, reading(21.1, 0.5, 0.2)),
            (1_768_410_000.0, reading(21.2, 0.51, 0.15))
        ]
    );
    assert_eq!(*air.usual(), reading(20.5, 0.47, 0.15));
    assert_eq!(stored.studio.room.source, AirSource::Forecast);
    assert_eq!((stored.version, stored.air.version), (3, 1));
    let picture = &stored.studio.pictures[0];
    let step = &picture.steps[0];
    assert_eq!(step.laid_at, Some("2026-01-14T16:34:00.123456Z".parse().unwrap()));
    assert_eq!((step.wet_film_um, step.share_of_area, step.loss), (Some(41.7), 0.5, Some(0.2)));
    assert_eq!(step.mix, Mix::of(&[("glazing", 1.0 / 3.0), ("fluid-pb15", 1.0)]));
    assert_eq!(picture.steps[1].laid_at, None);
    assert_eq!(picture.seal.inspected_at, Some("2026-01-15T08:00:00Z".parse().unwrap()));
    let anyway = &picture.seal.anyway[0];
    assert_eq!((anyway.reason.as_str(), anyway.against.len()), ("the van \"waits\"", 1));
    assert_eq!(picture.seal.troubles[0].trouble, SealTrouble::Cloud);
    let log = log_of(&mut other, stored.pictures[0].id).await.unwrap();
    assert_eq!(log.len(), 5);
    let photograph = Uuid::from_u128(0x0123_4567_89ab_cdef_0123_4567_89ab_cdef);
    assert_eq!(log[4].what, Done::Photographed { photograph });
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_studio_that_fails_half_way_leaves_nothing(pool: MySqlPool) {
    let mut tx = pool.begin().await.unwrap();
    let twice = studio(vec![picture("same"), picture("same")]);
    let failed = create_studio(&mut tx, &twice, at()).await;
    assert!(matches!(failed, Err(StoreError::Overtaken)), "{failed:?}");
    drop(tx);
    let mut conn = pool.acquire().await.unwrap();
    assert_eq!(list_studios(&mut conn, false).await.unwrap(), []);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn of_many_edits_at_once_exactly_one_is_kept(pool: MySqlPool) {
    let id = one_picture(&pool).await;
    let edit = async |n: usize| {
        let mut tx = pool.begin().await.unwrap();
        let title = format!("edit {n}");
        let changed = Picture { title: title.clone(), ..picture("p") };
        let saved = save_picture(&mut tx, id, 1, &changed, &title, at()).await;
        if saved.is_ok() {
            tx.commit().await.unwrap();
        }
        (title, saved)
    };
    let (a, b, c, d) = tokio::join!(edit(1), edit(2), edit(3), edit(4));
    let (kept, lost): (Vec<_>, Vec<_>) = [a, b, c, d].into_iter().partition(|(_, s)| s.is_ok());
    assert_eq!(kept.len(), 1);
    for (_, refused) in lost {
        assert!(matches!(refused, Err(StoreError::Stale { given: 1, current: 2 })), "{refused:?}");
    }
    let mut conn = pool.acquire().await.unwrap();
    let stored = load_picture(&mut conn, id).await.unwrap();
    assert_eq!(stored.picture.title, kept[0].0);
    assert_eq!(stored.history.undo, Some(kept[0].0.clone()));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn revisions_are_kept_back_to_a_limit_and_each_leads_to_its_picture(pool: MySqlPool) {
    let id = one_picture(&pool).await;
    let mut conn = pool.acquire().await.unwrap();
    for n in 1..=205 {
        let changed = Picture { title: format!("edit {n}"), ..picture("p") };
        save_picture(&mut conn, id, n, &changed, &format!("edit {n}"), at()).await.unwrap();
    }
    let mut version = 206;
    let mut undone = 0;
    loop {
        match undo_picture(&mut conn, id, version, Direction::Undo, at()).await {
            Ok(next) => version = next,
            Err(StoreError::NoSuchRevision) => break,
            Err(other) => unreachable!("{other:?}"),
        }
        undone += 1;
        let title = load_picture(&mut conn, id).await.unwrap().picture.title;
        assert_eq!(title, format!("edit {}", 205 - undone));
    }
    assert_eq!(undone, 200);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_stale_undo_changes_nothing(pool: MySqlPool) {
    let id = one_picture(&pool).await;
    let mut conn = pool.acquire().await.unwrap();
    let changed = Picture { title: "edited".into(), ..picture("p") };
    save_picture(&mut conn, id, 1, &changed, "edit", at()).await.unwrap();
    let mut tx = pool.begin().await.unwrap();
    let stale = undo_picture(&mut tx, id, 1, Direction::Undo, at()).await;
    assert!(matches!(stale, Err(StoreError::Stale { given: 1, current: 2 })), "{stale:?}");
    drop(tx);
    let stored = load_picture(&mut conn, id).await.unwrap();
    assert_eq!(
        (stored.picture.title.as_str(), stored.history.undo.as_deref()),
        ("edited", Some("edit"))
    );
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn pictures_keep_the_order_they_were_added_in(pool: MySqlPool) {
    let mut conn = pool.acquire().await.unwrap();
    let id = create_studio(&mut conn, &studio(vec![]), at()).await.unwrap();
    for name in ["c", "a", "b"] {
        create_picture(&mut conn, id, &picture(name), at()).await.unwrap();
    }
    let read = load_studio(&mut conn, id).await.unwrap();
    let names: Vec<&str> = read.studio.pictures.iter().map(|p| p.id.as_str()).collect();
    assert_eq!(names, ["c", "a", "b"]);
    let nobody = load_studio(&mut conn, Uuid::now_v7()).await;
    assert!(matches!(nobody, Err(StoreError::NotFound)));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn two_transactions_that_lock_each_other_out_are_told_to_ask_again(pool: MySqlPool) {
    let mut tx = pool.begin().await.unwrap();
    let both = studio(vec![picture("a"), picture("b")]);
    let id = create_studio(&mut tx, &both, at()).await.unwrap();
    let stored = load_studio(&mut tx, id).await.unwrap();
    tx.commit().await.unwrap();
    let [a, b] = [stored.pictures[0].id, stored.pictures[1].id];
    let edit = async |first: Uuid, second: Uuid, met: &tokio::sync::Barrier| {
        let mut tx = pool.begin().await.unwrap();
        save_picture(&mut tx, first, 1, &picture("x"), "edit", at()).await.unwrap();
        met.wait().await;
        let second = save_picture(&mut tx, second, 1, &picture("x"), "edit", at()).await;
        if second.is_ok() {
            tx.commit().await.unwrap();
        }
        second
    };
    let met = tokio::sync::Barrier::new(2);
    let (one, other) = tokio::join!(edit(a, b, &met), edit(b, a, &met));
    let lost = [&one, &other].into_iter().filter(|r| r.is_err()).collect::<Vec<_>>();
    assert_eq!(lost.len(), 1, "one of them goes through: {one:?} {other:?}");
    assert!(matches!(lost[0], Err(StoreError::InTheWay(_))), "{lost:?}");
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn each_part_of_a_studio_has_a_version_of_its_own(pool: MySqlPool) {
    let mut conn = pool.acquire().await.unwrap();
    let of = studio(vec![]);
    let id = create_studio(&mut conn, &of, at()).await.unwrap();
    assert_eq!(save_shelf(&mut conn, id, 1, &of, "again", at()).await.unwrap(), 2);
    assert_eq!(save_air(&mut conn, id, 1, &of, "again", at()).await.unwrap(), 2);
    for stale in [
        save_shelf(&mut conn, id, 1, &of, "stale", at()).await,
        save_air(&mut conn, id, 1, &of, "stale", at()).await,
        save_settings(&mut conn, id, 7, &of, "stale", at()).await,
    ] {
        assert!(matches!(stale, Err(StoreError::Stale { .. })), "{stale:?}");
    }
    let read = load_studio(&mut conn, id).await.unwrap();
    assert_eq!((read.version, read.air.version, read.shelf.version), (1, 2, 2));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_shelf_cannot_change_under_an_edit_that_holds_it(pool: MySqlPool) {
    let mut conn = pool.acquire().await.unwrap();
    let written = studio(vec![picture("p")]);
    let id = create_studio(&mut conn, &written, at()).await.unwrap();
    let mut holder = pool.begin().await.unwrap();
    hold_ground(&mut holder, id).await.unwrap();
    sqlx::query("SET innodb_lock_wait_timeout = 1").execute(&mut *conn).await.unwrap();
    let waits = save_shelf(&mut conn, id, 1, &written, "meanwhile", at()).await;
    assert!(matches!(waits, Err(StoreError::InTheWay(_))), "{waits:?}");
    drop(holder);
    assert_eq!(save_shelf(&mut conn, id, 1, &written, "after", at()).await.unwrap(), 2);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn photographs_belong_to_their_picture_and_go_and_come_with_a_word(pool: MySqlPool) {
    let picture = one_picture(&pool).await;
    let mut conn = pool.acquire().await.unwrap();
    let new = |hour: i64, caption: &str| NewPhotograph {
        taken_at: at() - chrono::Duration::hours(hour),
        step: Some("s1".into()),
        caption: caption.into(),
        size: (40, 30),
        whole: vec![1, 2, 3],
        small: vec![4],
    };
    let later = add_photograph(&mut conn, picture, &new(1, "later"), at()).await.unwrap();
    let first = add_photograph(&mut conn, picture, &new(9, "first"), at()).await.unwrap();
    let found = photographs_of(&mut conn, picture).await.unwrap();
    assert_eq!(found.iter().map(|f| f.id).collect::<Vec<_>>(), [first, later]);
    assert_eq!(found[0].taken_at, at() - chrono::Duration::hours(9));
    let small = load_rendition(&mut conn, first, Rendition::Small).await.unwrap();
    assert_eq!(small, [4]);
    // The same words again are no fault.
    for given in [1, 2] {
        let said = (at(), None, "named");
        name_photograph(&mut conn, (picture, first), given, said, at()).await.unwrap();
    }
    let stale = delete_photograph(&mut conn, (picture, first), 2, at()).await;
    assert!(matches!(stale, Err(StoreError::Stale { given: 2, current: 3 })));
    delete_photograph(&mut conn, (picture, first), 3, at()).await.unwrap();
    let gone = load_rendition(&mut conn, first, Rendition::Whole).await;
    assert!(matches!(gone, Err(StoreError::NotFound)));
    assert!(matches!(
        name_photograph(&mut conn, (picture, first), 4, (at(), None, "too late"), at()).await,
        Err(StoreError::NotFound)
    ));
    restore_photograph(&mut conn, (picture, first), at()).await.unwrap();
    let stored = load_picture(&mut conn, picture).await.unwrap();
    let asked = LogAsked { words: "named".into(), page: (0, 9), ..LogAsked::default() };
    let found = search_log(&mut conn, stored.studio, &asked).await.unwrap();
    assert_eq!(found.of, 1, "one that was brought back is found by its words");
    assert_eq!(photographs_of_studio(&mut conn, stored.studio).await.unwrap().len(), 2);
    delete_picture(&mut conn, picture, 1, at()).await.unwrap();
    assert_eq!(photographs_of_studio(&mut conn, stored.studio).await.unwrap().len(), 0);
    let late = add_photograph(&mut conn, picture, &new(0, "late"), at()).await;
    assert!(matches!(late, Err(StoreError::NotFound)));
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn of_two_who_put_an_entry_of_the_day_book_right_at_once_one_finds_it_gone(pool: MySqlPool) {
    let old = note("as it was");
    let written = Studio { happened: vec![old.clone()], ..studio(vec![]) };
    let mut conn = pool.acquire().await.unwrap();
    let id = create_studio(&mut conn, &written, at()).await.unwrap();
    // Both look before either writes.
    let (mut one, mut other) = (pool.begin().await.unwrap(), pool.begin().await.unwrap());
    for tx in [&mut one, &mut other] {
        assert_eq!(load_studio(tx, id).await.unwrap().studio.happened, vec![old.clone()]);
    }
    let (first, second) = (note("by the one"), note("by the other"));
    assert!(put_right_in_daybook(&mut one, id, &old, Some((&first, &[])), at()).await.unwrap());
    one.commit().await.unwrap();
    assert!(!put_right_in_daybook(&mut other, id, &old, Some((&second, &[])), at()).await.unwrap());
    other.rollback().await.unwrap();
    let stands = load_studio(&mut conn, id).await.unwrap().studio;
    assert_eq!(stands.happened, vec![first]);
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn usual_grounds_from_before_get_their_new_numbers_and_own_ones_stay(pool: MySqlPool) {
    let ground = |absorbs_um, delay_s, back| Ground { absorbs_um, delay_s, back };
    let was = [(10.0, 120.0, 0.0), (20.0, 120.0, 0.3), (60.0, 60.0, 0.5), (20.0, 120.0, 0.0)];
    let on = |(n, (um, delay, back))| Picture {
        ground: ground(um, delay, back),
        ..picture(&format!("p{n}"))
    };
    let studio = studio(was.into_iter().enumerate().map(on).collect());
    let mut tx = pool.begin().await.unwrap();
    let id = create_studio(&mut tx, &studio, at()).await.unwrap();
    let renew = MIGRATIONS.iter().find(|m| m.version == 17).unwrap();
    for _ in 0..2 {
        sqlx::raw_sql(renew.sql.clone()).execute(&mut *tx).await.unwrap();
        let stored = load_studio(&mut tx, id).await.unwrap();
        let is: Vec<Ground> = stored.pictures.iter().map(|p| p.picture.ground).collect();
        assert_eq!(is[..3], [1, 2, 3].map(|n| GROUNDS[n].0));
        assert_eq!(is[3], studio.pictures[3].ground, "the painter's own");
    }
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn starter_paints_from_before_get_their_tints_and_own_readings_stay(pool: MySqlPool) {
    let hex = |text| Swatch::from_hex(text).unwrap();
    let starter = starter_shelf().unwrap();
    let before = |m: &Material| match m.id.as_str() {
        "heavy-pb29" => Material {
            drawdown: Some(Drawdown::usual(hex("#263496"), hex("#121430"))),
            tint: None,
            ..m.clone()
        },
        // Read by the painter.
        "heavy-pr254" => Material {
            drawdown: Some(Drawdown::usual(hex("#c02022"), hex("#901e20"))),
            tint: None,
            ..m.clone()
        },
        _ => m.clone(),
    };
    let studio = Studio { materials: starter.iter().map(before).collect(), ..studio(vec![]) };
    let mut tx = pool.begin().await.unwrap();
    let id = create_studio(&mut tx, &studio, at()).await.unwrap();
    let renew = MIGRATIONS.iter().find(|m| m.version == 18).unwrap();
    for _ in 0..2 {
        sqlx::raw_sql(renew.sql.clone()).execute(&mut *tx).await.unwrap();
        let stored = load_studio(&mut tx, id).await.unwrap().studio;
        for (is, (was, new)) in stored.materials.iter().zip(studio.materials.iter().zip(&starter)) {
            assert_eq!(is, if is.id == "heavy-pr254" { was } else { new });
        }
    }
}
