-- Clips taken off the shelf that can be taken back for a day.
alter table clip add column removed_at datetime(6) null;
