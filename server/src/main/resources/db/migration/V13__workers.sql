-- Other machines that make parts of renders. Of a token only its hash is kept; it is shown once, when it is made.
create table worker (
    id         uuid not null primary key,
    name       varchar(60) not null,
    token_hash char(64) not null unique comment 'SHA-256 of 256 random bits',
    made_at    datetime(6) not null,
    seen_at    datetime(6) null,
    segments   bigint not null default 0 comment 'brought and taken'
);
