-- Whatever is worked on carries who does it and for the how manieth time: a change of state names both, so that a process
-- that was thought dead and comes back does no harm. The lease is the heartbeat of its task.
alter table clip        add column owner varchar(50) null, add column attempt int not null default 0;
alter table examination add column owner varchar(50) null, add column attempt int not null default 0;
alter table proof       add column owner varchar(50) null, add column attempt int not null default 0;
alter table render      add column owner varchar(50) null, add column attempt int not null default 0;

-- One task stands for all kinds of work now; what waits gets one at the next start.
delete from scheduled_tasks where task_name in ('read-clip', 'examine-clip', 'peek-clip', 'make-renders');
update examination set state = 'WAITING' where state = 'RUNNING';
update proof set state = 'WAITING', frames_done = 0 where state = 'RUNNING';
update render set state = 'WAITING' where state = 'RUNNING';
