-- What was measured over a whole clip; the curves along time are a file beside its index.
create table examination (
    clip_id     uuid not null primary key,
    state       enum ('WAITING', 'RUNNING', 'DONE', 'STOPPED', 'FAILED') not null,
    progress    double not null default 0,
    problem     varchar(1000) null,
    facts       json null comment 'findings and suggestion',
    constraint examination_clip foreign key (clip_id) references clip (id) on delete cascade
);

-- A recipe may change how many frames there are; 0 in renders from before it could.
alter table render add column out_frames int not null default 0;
