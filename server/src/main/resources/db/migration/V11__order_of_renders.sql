-- Renders wait in an order that can be changed; at first the one they were asked for in.
alter table render add column place bigint not null default 0 comment 'waits behind all with a smaller one';
update render set place = timestampdiff(microsecond, '1970-01-01', created_at);
