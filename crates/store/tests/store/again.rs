//! A version of a studio of which only what changed is read.

use super::{drawn, note};
use crate::sound::{run, touched};
use proptest::test_runner::TestRunner;
use sqlx::MySqlPool;
use ulvek_core::picture::Picture;
use ulvek_core::studio::Studio;
use ulvek_store::{
    Direction, MIGRATIONS, create_studio, delete_picture, enter_in_daybook, load_studio,
    load_studio_again, save_picture, save_settings, studio_state, undo_picture,
};
use ulvek_testkit::{at, full_studio};

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_studio_that_is_read_again_is_as_one_that_is_read_whole(pool: MySqlPool) {
    let mut runner = TestRunner::deterministic();
    let mut conn = pool.acquire().await.unwrap();
    for _ in 0..10 {
        let written = drawn(full_studio(), &mut runner);
        let id = create_studio(&mut conn, &written, at()).await.unwrap();
        let mut known = load_studio(&mut conn, id).await.unwrap();
        let mut was = studio_state(&mut conn, id).await.unwrap();
        for change in 0..5 {
            let last = known.pictures.last().cloned().unwrap();
            let of = (&mut conn, last.id, last.version);
            match change {
                0 => {
                    let changed = Picture { title: "once more".into(), ..last.picture };
                    save_picture(of.0, of.1, of.2, &changed, "rename", at()).await.unwrap();
                }
                1 => enter_in_daybook(of.0, id, (&note("hail"), &[]), at()).await.unwrap(),
                2 => {
                    undo_picture(of.0, of.1, of.2, Direction::Undo, at()).await.unwrap();
                }
                3 => {
                    let changed = Studio { setup_min: 7.0, ..Studio::clone(&known.studio) };
                    save_settings(of.0, id, known.version, &changed, "set up", at()).await.unwrap();
                }
                _ => delete_picture(of.0, of.1, of.2, at()).await.unwrap(),
            }
            let is = studio_state(&mut conn, id).await.unwrap();
            assert_ne!(was, is, "change {change} is seen");
            known = load_studio_again(&mut conn, &known, (&was, &is)).await.unwrap();
            let whole = load_studio(&mut conn, id).await.unwrap();
            assert_eq!(format!("{known:?}"), format!("{whole:?}"), "after change {change}");
            was = is;
        }
    }
}

#[sqlx::test(migrator = "MIGRATIONS")]
async fn a_row_that_can_no_longer_be_read_is_named_as_where_all_are_read(pool: MySqlPool) {
    let id = touched(&pool, "Fog lamp").await;
    let mut conn = pool.acquire().await.unwrap();
    let known = load_studio(&mut conn, id).await.unwrap();
    let was = studio_state(&mut conn, id).await.unwrap();
    run(&pool, "UPDATE log_entry SET at = '0000-00-00' WHERE kind = 'touched'").await;
    run(&pool, "UPDATE picture SET version = version + 1 WHERE code = 'p'").await;
    let is = studio_state(&mut conn, id).await.unwrap();
    let again = load_studio_again(&mut conn, &known, (&was, &is)).await.unwrap();
    let whole = load_studio(&mut conn, id).await.unwrap();
    assert_eq!(again.unread, whole.unread);
    assert_eq!(again.unread.len(), 1, "it is not left out in silence");
}
