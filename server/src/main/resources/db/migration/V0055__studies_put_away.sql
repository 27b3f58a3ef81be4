-- Since when a study is out of the way of those who look through theirs; absent where it is not.
alter table study add column put_away_at timestamptz;
